import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { TERMS } from './index.ts';

const files = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    return entry.isDirectory() ? files(path) : path.endsWith('.tsx') ? [path] : [];
  });
const used = new Set(
  files('web').flatMap((path) => [...readFileSync(path, 'utf8').matchAll(/<Term id="([^"]+)"/g)].map((m) => m[1]!)),
);
/** Kinds of figure are terms that are chosen while running. */
const BY_KIND = ['standard', 'typical', 'measured', 'set'];

describe('the glossary', () => {
  it('has an entry for every term on a screen', () => {
    expect(used.size).toBeGreaterThan(8);
    for (const id of [...used, ...BY_KIND]) expect(TERMS, id).toHaveProperty(id);
  });
  it('says each in whole sentences', () => {
    for (const { title, says } of Object.values(TERMS)) {
      expect(title).not.toBe('');
      expect(says).toMatch(/[.]$/);
      expect(says.length).toBeGreaterThan(40);
    }
  });
});
