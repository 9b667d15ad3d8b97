import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import {
  isArgumentElement,
  isDateElement,
  isLiteralElement,
  isNumberElement,
  isPluralElement,
  isSelectElement,
  isTagElement,
  isTimeElement,
  type MessageFormatElement,
  parse,
} from '@formatjs/icu-messageformat-parser';
import { afterEach, describe, expect, it } from 'vitest';
import { quoted, textOf } from '#core/base/said/index.ts';
import * as words from './index.ts';
import { MARK, markedText } from './marked.ts';
import { type Message, message, sayWith, speak, TAGS } from './message.ts';

const { common, frame, plan, rigs } = words;
const isSubject = (one: unknown): one is Record<string, Message> => typeof one === 'object' && !Array.isArray(one);
const subjects = Object.entries(words).filter(([, one]) => isSubject(one));
const named = (subject: string, own: object): { name: string; message: Message }[] =>
  Object.entries(own).flatMap(([key, one]) =>
    typeof one === 'function' ? [{ name: `${subject}.${key}`, message: one }] : named(`${subject}.${key}`, one),
  );
const all = subjects.flatMap(([subject, own]) => named(subject, own));

/** What a message asks for, by name, and its tags. */
function used(elements: readonly MessageFormatElement[], into = { names: new Set<string>(), tags: new Set<string>() }) {
  for (const one of elements) {
    if (isTagElement(one)) into.tags.add(one.value);
    else if (
      isArgumentElement(one) ||
      isNumberElement(one) ||
      isDateElement(one) ||
      isTimeElement(one) ||
      isPluralElement(one) ||
      isSelectElement(one)
    )
      into.names.add(one.value);
    if (isTagElement(one)) used(one.children, into);
    if (isPluralElement(one) || isSelectElement(one)) for (const o of Object.values(one.options)) used(o.value, into);
  }
  return into;
}

/** The words of a message as they are read: of plurals the last form, each parameter as one word. */
function read(icu: string): string {
  const text = (elements: readonly MessageFormatElement[]): string =>
    elements
      .map((one) => {
        if (isTagElement(one)) return text(one.children);
        if (isPluralElement(one) || isSelectElement(one)) return text(one.options.other!.value);
        return isLiteralElement(one) ? one.value : 'it';
      })
      .join('');
  return text(parse(icu));
}

/** All but the other names of terms and pages, which are searched for and not said. */
const said = all
  .filter(({ name }) => !name.endsWith('.names') && !name.startsWith('search.also'))
  .map(({ name, message: one }) => ({ name, text: read(one.icu) }));

afterEach(() => speak());

describe('every message', () => {
  it.each(all)('$name is ICU MessageFormat, and asks for just what it says it needs', ({ message: one }) => {
    const { names, tags } = used(parse(one.icu));
    expect([...names].sort()).toEqual(Object.keys(one.spec).sort());
    for (const tag of tags) expect([...TAGS, ...Object.keys(words.glossary)]).toContain(tag);
  });

  it('has no word that was decided against', () => {
    const banned =
      /\b(leads?|loudspeakers?|ring of earths?|own voice back|anew|borne|so already|whoever|nobody|listeners?|pictures? a second|(?<!DI |stage )box(?:es)?|to mend|mends|mended|take (?:it in|off|up|along|back|theirs)|stands?|stood|laid|spare seat|sealed|stand-ins?|mains|sound devices?|catalogue|colour(?:s|ed)?|metres?|aerials?|borne|amiss|put away|heap|bench|put aside|let it be|not said|told against|once more|amiss|otherwise)\b|‘|\d %/i;
    expect(said.filter((one) => banned.test(one.text))).toEqual([]);
  });

  it('has sentences of 25 words at most, and labels without a full stop', () => {
    const long = said.flatMap(({ name, text }) =>
      text
        .split(/(?<=[.!?])\s/)
        .filter((sentence) => sentence.split(/\s+/).length > 25)
        .map((sentence) => `${name}: ${sentence}`),
    );
    expect(long).toEqual([]);
  });
});

describe('what is said', () => {
  it('counts one and many, and writes numbers as the reader does, with a true minus', () => {
    expect([0, 1, 2].map((count) => frame.blockers({ count }))).toEqual(['0 blockers', '1 blocker', '2 blockers']);
    const level = message('{db, number, ::.0} dB', { db: 'number' });
    expect(level({ db: -1234.56 })).toBe('−1,234.6 dB');
    speak({ numberLocale: 'de-DE' });
    expect(level({ db: -1234.56 })).toBe('−1.234,6 dB');
    expect(frame.blockers({ count: 1 })).toBe('1 blocker');
  });

  it('quotes names and never alters them, whatever is in them', () => {
    for (const name of ['Ilse, on the call', 'pupils’ ears', '{count}', '<kbd>x</kbd>', '-5 dB', '']) {
      expect(rigs.deleted({ rig: name })).toBe(`“${name}” deleted.`);
      expect(plan.requirement({ source: name, destination: 'B', what: 'must arrive' })).toBe(
        `“${name}” at “B”: must arrive.`,
      );
    }
  });

  it('sets names apart as the language that is spoken does', () => {
    const asked = message('Should {who} hear it?', { who: 'name' });
    speak({ quoted: (name) => `„${name}”` });
    expect(asked({ who: 'Quay talk' })).toBe('Should „Quay talk” hear it?');
    expect(textOf(quoted('Quay talk'))).toBe('„Quay talk”');
  });
  it('leaves keys and links out where there is only text, and hands them over where there is more', () => {
    expect(rigs.template()).toBe('Template o');
    expect(sayWith(rigs.template as Message, {}, (_, [key]) => ({ key }))).toEqual(['Template ', { key: 'o' }]);
  });

  it('is of another language where one is spoken, its plurals by its own rules', () => {
    const takes = message('{count, plural, one {# take} other {# takes}}', { count: 'count' });
    const polish = '{count, plural, one {# nagranie} few {# nagrania} many {# nagrań} other {# nagrania}}';
    speak({ locale: 'pl', textOf: (one) => (one === (takes as unknown as Message) ? polish : one.icu) });
    expect([1, 3, 5].map((count) => takes({ count }))).toEqual(['1 nagranie', '3 nagrania', '5 nagrań']);
    expect(common.close()).toBe('Close');
  });
});

describe('the made-up language', () => {
  it.each(all)('marks $name, and is longer; what it needs stays', ({ message: one }) => {
    const marked = markedText(one.icu);
    expect(marked.startsWith(MARK.begin) && marked.endsWith(MARK.end)).toBe(true);
    expect(used(parse(marked))).toEqual(used(parse(one.icu)));
  });

  it('is about two fifths longer', () => {
    const length = (text: (one: Message) => string) => all.reduce((sum, { message: one }) => sum + text(one).length, 0);
    const ratio = length((one) => markedText(one.icu)) / length((one) => one.icu);
    expect(ratio).toBeGreaterThan(1.2);
    expect(ratio).toBeLessThan(1.6);
  });
});

describe('core', () => {
  it('knows no language', () => {
    const filesIn = (folder: string): string[] =>
      readdirSync(folder).flatMap((name) => {
        const path = join(folder, name);
        return statSync(path).isDirectory() ? filesIn(path) : [path];
      });
    for (const path of filesIn('core').filter((p) => /\.tsx?$/.test(p)))
      expect(readFileSync(path, 'utf8'), path).not.toMatch(/from '#words\//);
  });
});

describe('lengths', () => {
  const long = message('{device} → {device2}: {lengthM} m cable', { device: 'name', device2: 'name', lengthM: 'text' });
  const say = (lengthM: number | string) => long({ device: 'Wren', device2: 'Mixer', lengthM });
  afterEach(() => speak());
  it('have feet beside them where rooms are measured in feet, and nowhere else', () => {
    words.speakIn({ language: 'en', numberLocale: 'en-US' });
    expect(say(2)).toBe('“Wren” → “Mixer”: 2 m (7 ft) cable');
    expect(say(0.5)).toContain('0.5 m (1.6 ft)');
    expect(say('near')).toBe('“Wren” → “Mixer”: near m cable');
    for (const numberLocale of ['en-GB', 'de-DE', 'en']) {
      words.speakIn({ language: 'en', numberLocale });
      expect(say(2)).toBe('“Wren” → “Mixer”: 2 m cable');
    }
  });
  it('are within half a foot of the length, whatever it is, in every message that says one', () => {
    words.speakIn({ language: 'en', numberLocale: 'en-US' });
    const ofLength = all.filter(({ message: { icu } }) => /\{\w*M\} m\b/.test(icu));
    expect(ofLength.length).toBeGreaterThan(25);
    for (const { message: one } of ofLength)
      for (const m of [0.3, 1.8, 7.5, 120]) {
        const params = Object.fromEntries(Object.keys(one.spec).map((key) => [key, /M$/.test(key) ? m : 1]));
        const said = String(sayWith(one, params, (_, inside) => inside.join('')));
        for (const [, feet] of said.matchAll(/ m \(([\d.,]+) ft\)/g))
          expect(Math.abs(Number(feet) * 0.3048 - m)).toBeLessThanOrEqual(0.3048 / 2);
        expect(said).toMatch(/ ft\)/);
      }
  });
  it('are typed in meters or in feet', () => {
    expect(['2', '2.5', '2,5 m', ' .5', '1000 M'].map(words.lengthMOf)).toEqual([2, 2.5, 2.5, 0.5, 1000]);
    expect(['8 ft', "6'", '6’', '10 feet', '1 foot'].map(words.lengthMOf)).toEqual([2.44, 1.83, 1.83, 3.05, 0.3]);
    expect(['', 'm', '2 in', '-1', '1e3', '2 m 3'].map(words.lengthMOf)).toEqual(Array(6).fill(Number.NaN));
  });
});
