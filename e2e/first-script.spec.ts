import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { expect, test } from './server.ts';

const WEB = 'dist/web';
/** What has to come before the page of rigs can be drawn, gzipped. */
const MAX_KB = 230;

/** A script and all that it imports at once; what is imported later is left out. */
function withImports(path: string, seen = new Set<string>()): Set<string> {
  if (seen.has(path)) return seen;
  seen.add(path);
  const text = readFileSync(path, 'utf8');
  for (const [, , name] of text.matchAll(/(from|import)\s*"\.\/([\w.-]+\.js)"/g))
    withImports(join(WEB, 'assets', name!), seen);
  return seen;
}

test('the first page needs no more than the first page', () => {
  const page = readFileSync(join(WEB, 'index.html'), 'utf8');
  const entry = join(WEB, /src="\/(assets\/index-[\w-]+\.js)"/.exec(page)![1]!);
  const start = /import\("?`?\.\/(start-[\w-]+\.js)/.exec(readFileSync(entry, 'utf8'))![1]!;
  const scripts = [...new Set([...withImports(entry), ...withImports(join(WEB, 'assets', start))])];
  expect(scripts.length).toBeGreaterThan(3);
  const kb = scripts.reduce((sum, path) => sum + gzipSync(readFileSync(path)).length, 0) / 1000;
  expect(kb).toBeGreaterThan(50);
  expect(kb).toBeLessThan(MAX_KB);
});
