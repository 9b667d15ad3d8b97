import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';

/** Where text is data: the device library, the grammar of what is typed, patterns, desks in plain words, and files of other programs. */
const DATA = [
  'core/model/rig/catalogue',
  'core/routing/grammar',
  'core/routing/wiring/mentioned.ts',
  'core/base/text',
  'core/intake/occasions.ts',
  'core/output/exchange/edl.ts',
  'core/output/exchange/dot.ts',
  'server/database/migrations',
  'server/start/seed.ts',
];
/** So many words in a row are a sentence, or a part of one. */
const WORDS = 4;

const COMMENT = /\/\*[\s\S]*?\*\/|(?<=^|[\s;,{}()])\/\/[^\n]*/g;
const QUOTED = /'((?:[^'\\\n]|\\.)*)'|"((?:[^"\\\n]|\\.)*)"|`((?:[^`\\]|\\.)*)`/g;
const SENTENCE = new RegExp(`(?:[\\p{L}’]{2,}[,:.;]? ){${WORDS - 1}}[\\p{Ll}’]{2,}`, 'u');
/** What only a mistake of ours would show: an assertion. */
const ASSERTION = /new (?:Range|Type)?Error\([^\n]*$/;

const filesIn = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (DATA.some((data) => path.startsWith(data))) return [];
    if (entry.isDirectory()) return filesIn(path);
    return /(?<!\.test|\.testkit)\.ts$/.test(path) ? [path] : [];
  });

const sentencesIn = (path: string): string[] => {
  const source = readFileSync(path, 'utf8').replace(COMMENT, '');
  return [...source.matchAll(QUOTED)].flatMap((match) => {
    const text = (match[1] ?? match[2] ?? match[3])!.replace(/\$\{[^}]*\}/g, '…');
    const isAsserted = ASSERTION.test(source.slice(0, match.index));
    return SENTENCE.test(text) && !text.includes('<') && !isAsserted ? [`${path}: ${text}`] : [];
  });
};

describe('core', () => {
  const files = filesIn('core');
  it('has no sentence: what it says stands in words/', () => {
    expect(files.length).toBeGreaterThan(200);
    expect(files.flatMap(sentencesIn)).toEqual([]);
  });
});

describe('the server and the command line', () => {
  it('have no sentence either', () => {
    const files = [...filesIn('server'), ...filesIn('cli')];
    const isSql = /SELECT|INSERT|UPDATE|DELETE|PRAGMA|JOIN|: (id|revision), /;
    expect(files.flatMap(sentencesIn).filter((line) => !isSql.test(line))).toEqual([]);
  });
});
