import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { glossary } from './index.ts';

const files = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    return entry.isDirectory() ? files(path) : /\.tsx?$/.test(path) ? [path] : [];
  });
const source = [...files('web'), ...files('words/en')].map((path) => readFileSync(path, 'utf8')).join('\n');
const used = new Set([
  ...[...source.matchAll(/<Term id="([^"]+)"/g)].map((m) => m[1]!),
  // Kinds of figure are terms that are chosen while running.
  ...['standard', 'typical', 'measured', 'set'],
]);

describe('the glossary', () => {
  it('has an entry for every term on a screen', () => {
    expect(used.size).toBeGreaterThan(8);
    for (const id of used) expect(glossary, id).toHaveProperty(id);
  });

  it('says each in whole sentences, of 55 words at most', () => {
    for (const [id, { title, says }] of Object.entries(glossary)) {
      expect(title(), id).not.toBe('');
      expect(says(), id).toMatch(/[.]$/);
      expect(says().length, id).toBeGreaterThan(30);
      expect(says().split(/\s+/).length, id).toBeLessThanOrEqual(55);
    }
  });

  it('is found by the trade’s words and by those that were used before', () => {
    const found = (word: string) =>
      Object.entries(glossary)
        .filter(([, { title, names }]) => `${title()}, ${names()}`.toLowerCase().includes(word))
        .map(([id]) => id);
    for (const [word, id] of [
      ['earth', 'ground'],
      ['ground loop', 'ground-loop'],
      ['mains', 'ac-power'],
      ['lead', 'cable'],
      ['mix-minus', 'guest-return'],
      ['guest return', 'guest-return'],
      ['feedback', 'feedback'],
      ['latency', 'latency'],
      ['lip sync', 'lip-sync'],
      ['listener', 'listener'],
      ['gain ladder', 'gain-ladder'],
      ['stand-in', 'stand-in'],
      ['aggregate', 'combined-device'],
      ['trrs', 'three-pole'],
    ] as const)
      expect(found(word), word).toContain(id);
  });
});
