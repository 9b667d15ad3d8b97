import { readdirSync, readFileSync } from 'node:fs';
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

test('every other page brings the words for what core says', () => {
  const assets = join(WEB, 'assets');
  const scripts = readdirSync(assets).filter((name) => name.endsWith('.js'));
  const textOf = (name: string) => readFileSync(join(assets, name), 'utf8');
  const start = scripts.find((name) => name.startsWith('start-'))!;
  const pages = [...new Set([...textOf(start).matchAll(/import\(["'`]\.\/([\w.-]+\.js)/g)].map(([, name]) => name!))];
  const isTold = (name: string) =>
    [...withImports(join(assets, name))].some((path) => readFileSync(path, 'utf8').includes('No words for the code'));
  expect(pages.length).toBeGreaterThan(20);
  // The list of rigs loads them with the first rig that it reads; the list of keys says nothing of core's.
  expect(pages.filter((name) => !isTold(name) && !/^(rigs|KeyDialog)-/.test(name))).toEqual([]);
});
