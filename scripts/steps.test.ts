import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { SOURCES } from './steps.mjs';

describe('a build', () => {
  it('is made anew whenever anything that is imported by its short name has changed', () => {
    const { imports } = JSON.parse(readFileSync('package.json', 'utf8')) as { imports: Record<string, string> };
    const folders = Object.values(imports).map((path) => path.split('/')[1]);
    expect(folders).toContain('words');
    expect([...SOURCES]).toEqual(expect.arrayContaining(folders));
  });
});
