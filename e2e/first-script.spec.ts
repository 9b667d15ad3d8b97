import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { DEMO_RIG, expect, test } from './server.ts';

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

/** The script that the page names. */
const entry = (): string =>
  join(WEB, /src="\/(assets\/[\w-]+\.js)"/.exec(readFileSync(join(WEB, 'index.html'), 'utf8'))![1]!);

test('the first page needs no more than the first page', () => {
  const kb = [...withImports(entry())].reduce((sum, path) => sum + gzipSync(readFileSync(path)).length, 0) / 1000;
  expect(kb).toBeGreaterThan(50);
  expect(kb).toBeLessThan(MAX_KB);
});

test('scripts of a rig are fetched beside the first one, and on its pages alone', async ({ page, server }) => {
  const preloads = () => page.locator('link[rel=modulepreload][href*="/OpenRig-"]').count();
  await page.goto(server.url);
  await expect(page.getByRole('row', { name: /Boathouse relay/ })).toBeVisible();
  expect(await preloads()).toBe(0);
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/plan`);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  expect(await preloads()).toBe(1);
});

test('what pages share comes in few pieces, and every page but the first brings the words for what core says', () => {
  const assets = join(WEB, 'assets');
  const text = [...withImports(entry())].map((path) => readFileSync(path, 'utf8')).join('\n');
  const pages = [...new Set([...text.matchAll(/import\(["'`]\.\/([\w.-]+\.js)/g)].map(([, name]) => name!))];
  const filesOf = (name: string) => [...withImports(join(assets, name))];
  const isTold = (name: string) =>
    filesOf(name).some((path) => readFileSync(path, 'utf8').includes('No words for the code'));
  expect(pages.length).toBeGreaterThan(20);
  expect(Math.max(...pages.map((name) => filesOf(name).length))).toBeLessThan(40);
  // The list of rigs loads them with the first rig that it reads; progress and terms say nothing of core’s.
  expect(pages.filter((name) => !isTold(name) && !/^(rigs|WorkBar|TermPopover)-/.test(name))).toEqual([]);
});
