import { type DeviceType, isPerson, type Rig } from '#core/model/rig/index.ts';
import { facetOf, type Item, isPlural, ownKey } from '#core/routing/grammar/index.ts';

interface Named {
  readonly type: DeviceType;
  readonly words: readonly string[];
  /** 'mate' of 'my mate's phone'; empty where no one is named. */
  readonly owner: string;
  readonly ids: readonly string[];
}

/** Names of the person who types, and of their voice. */
export const YOU = { name: 'You', voice: 'Your voice', ears: 'Your headphones' } as const;
/** Words for the person who types. */
const ME = new Set('me myself i sing talk speak narrate singing talking speaking narrating'.split(' '));
/** Written in capitals. */
const CAPITALS = new Set(
  'usb hdmi xlr pc tv di pa dj vr dac ptz nas daw aux fm sdi midi led kvm dslr av os tb'.split(' '),
);
/** Said of one that is known. */
const THE = /^the\b/i;
/** Said of another one than was named before. */
const ANOTHER = /^(?:an?other|second|2nd|third|3rd|spare|one more)\b/i;
const LABEL = /^(?:\d{1,2}|[a-d]|one|two|three|four)$/;

/** Items named on a desk so far: the same words mean the same devices. */
export class Mentioned {
  readonly #named: Named[] = [];
  readonly #desk: ReadonlyMap<string, string>;

  constructor(rig: Rig) {
    this.#desk = new Map(rig.devices.map((d) => [d.name.toLowerCase(), d.id]));
  }

  add({ text, mention, name }: Item, type: DeviceType, ids: readonly string[]): void {
    if (ids.length > 0) this.#named.push({ type, words: wordsOf(name ?? mention.text), owner: ownerOf(text), ids });
  }

  /** One of several that were only counted till now: the gaming PC of 'two pcs'. @param isFree  it has no cable yet */
  claim({ mention, name, text }: Item, type: DeviceType, isFree: (id: string) => boolean): string | null {
    if (mention.count !== 1 || ANOTHER.test(text) || isPerson(type)) return null;
    const words = wordsOf(name ?? mention.text);
    const taken = new Set(this.#named.filter((n) => n.ids.length === 1).flatMap((n) => n.ids));
    const left = this.#named
      .filter((n) => n.type === type && n.ids.length > 1 && isWithin(n.words, words))
      .map((n) => n.ids.filter((id) => !taken.has(id)));
    return left.find((ids) => ids.length > 0 && ids.every(isFree))?.[0] ?? null;
  }

  /**
   * The devices that are meant, where they were named before: by the same words, by fewer of them, or by a number
   * behind; people and programs only by the same ones.
   */
  find({ mention, name, text }: Item, type: DeviceType | null): { ids: readonly string[]; onDesk: boolean } | null {
    const called = (name ?? mention.text).toLowerCase();
    const here = mention.count === 1 ? (this.#desk.get(called) ?? this.#desk.get(stripped(called))) : undefined;
    if (here) return { ids: [here], onDesk: true };
    if (ANOTHER.test(text)) return null;
    const words = wordsOf(name ?? mention.text);
    const label = LABEL.test(words.at(-1) ?? '') ? words.at(-1)! : null;
    const named = this.#named.filter((n) => n.owner === ownerOf(text));
    const same = named.find((n) => isSame(n.words, words) && fitsCount(n, mention.count, text));
    if (same) return { ids: same.ids, onDesk: false };
    if (!type || isPerson(type)) return null;
    if (label) {
      const group = this.#named.find((n) => n.type === type && n.ids.length > 1);
      const at = LABELS.findIndex((l) => l.includes(label));
      if (group) return group.ids[at] === undefined ? null : { ids: [group.ids[at]!], onDesk: false };
    }
    if (type.hosts && isPlain(words, type) && THE.test(text)) {
      const hosts = this.#named.filter((n) => n.type.hosts && n.ids.length === 1);
      if (hosts.length === 1) return { ids: hosts[0]!.ids, onDesk: false };
    }
    const alike = named.filter((n) => n.type === type && fitsCount(n, mention.count, text));
    // Connection type alone doesn't distinguish two: a desk mic may be called the usb mic.
    const told = (list: readonly string[]) => list.filter((w) => facetOf(w, type) === null);
    const parts = alike.filter((n) => isWithin(told(words), told(n.words)) || isWithin(told(n.words), told(words)));
    if (parts.length === 1) return { ids: parts[0]!.ids, onDesk: false };
    const [only] = alike;
    // A lamp is no other name for a stand.
    if (!only || alike.length > 1 || type.nature === 'program' || type.ports.length === 0) return null;
    return isPlain(words, type) || isPlain(only.words, type) ? { ids: only.ids, onDesk: false } : null;
  }
}

const LABELS: readonly (readonly string[])[] = [
  ['1', 'a', 'one'],
  ['2', 'b', 'two'],
  ['3', 'c', 'three'],
  ['4', 'd', 'four'],
];

const wordsOf = (text: string): readonly string[] => ownKey(text).split(' ').filter(Boolean);
const isSame = (a: readonly string[], b: readonly string[]): boolean => a.join(' ') === b.join(' ');
const isWithin = (few: readonly string[], many: readonly string[]): boolean => few.every((w) => many.includes(w));
/** 'The mics' after 'two mics' are both; 'the mic' is one. */
const fitsCount = ({ ids }: Named, count: number, text: string): boolean =>
  ids.length === count || (count === 1 && ids.length > 1 && /s$/i.test(text));

/** One word that any of the type is called by: 'pc', 'computer', 'mixer'. */
const isPlain = (words: readonly string[], { words: names = [] }: DeviceType): boolean =>
  words.length === 1 && names.some((n) => wordsOf(n).join(' ') === words[0]);
/** 'my xlr mic' is 'xlr mic'. */
const stripped = (text: string): string =>
  text.replace(/^(?:(?:my|a|an|the|our|your|his|her|their|one|this|that)\s+)+/i, '');

const ownerOf = (text: string): string => /([\p{L}]+)['’]s\b/u.exec(text)?.[1]?.toLowerCase() ?? '';

/** Whether it is the person who types. */
export const isMe = ({ mention, text, name }: Item): boolean =>
  name === null && ME.has(stripped((mention.text || text).trim()).toLowerCase());

/** As on a label: 'Small USB mixer'; the person who types is 'You'. */
function titled(words: string): string {
  const said = stripped(words.trim()).replace(/\s+/g, ' ');
  if (ME.has(said.toLowerCase())) return YOU.name;
  const list = said.split(' ').map((w) => (CAPITALS.has(w.toLowerCase()) ? w.toUpperCase() : w));
  const text = list.join(' ');
  return text.charAt(0).toUpperCase() + text.slice(1);
}

const singularEnd = (text: string): string => text.replace(/(?:ies)$/i, 'y').replace(/([^s])s$/i, '$1');

/** Names for the devices of an item, none of which is taken: its words, numbered where there are several. */
export function namesOf(
  { mention, name, text }: Item,
  type: DeviceType,
  taken: ReadonlySet<string>,
): readonly string[] {
  const { count } = mention;
  const said = name ?? titled(mention.text || text);
  // 'Headphones 1', as one pair of them is called so.
  const base = (count > 1 && !name && isPlural(said, type) ? singularEnd(said) : said).slice(0, 100);
  const names: string[] = [];
  for (let n = 1; names.length < count; n++) {
    const next = count === 1 && n === 1 ? base : `${base} ${n}`;
    if (!taken.has(next)) names.push(next);
    if (n > count + taken.size) break;
  }
  return names;
}
