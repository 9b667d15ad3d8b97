import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import express, { type RequestHandler } from 'express';
import { z } from 'zod';
import { nothingHere } from './problem.ts';
import { nonceOf } from './security.ts';

/** Scripts, styles and fonts of the page: named by their content, kept for good. */
export const assetsOf = (webFolder: string): RequestHandler[] => [
  express.static(join(webFolder, 'assets'), { immutable: true, maxAge: '365d', index: false }),
  nothingHere,
];

/** What the build says of its files: by their source, with what each of them imports at once. */
const Manifest = z.record(z.string(), z.object({ file: z.string(), imports: z.array(z.string()).default([]) }));
const RIG_PAGES = /^\/rigs\/./;
const RIG_SOURCE = 'app/OpenRig.tsx';

/** Scripts that every page of a rig needs: the browser fetches them beside the first one, not after it has run. */
async function rigPreloads(webFolder: string): Promise<string> {
  const manifest = Manifest.parse(JSON.parse(await readFile(join(webFolder, 'manifest.json'), 'utf8')));
  const files = [RIG_SOURCE, ...(manifest[RIG_SOURCE]?.imports ?? [])].flatMap((key) => manifest[key]?.file ?? []);
  return files.map((file) => `<link rel="modulepreload" href="/${file}">`).join('');
}

/** The page itself, with the nonce of this answer. */
export const pageOf =
  (webFolder: string): RequestHandler =>
  async (req, res) => {
    const page = await readFile(join(webFolder, 'index.html'), 'utf8');
    const preloads = RIG_PAGES.test(req.path) ? await rigPreloads(webFolder).catch(() => '') : '';
    res
      .set('Cache-Control', 'no-store')
      .type('html')
      .send(page.replaceAll('__NONCE__', nonceOf(res)).replace('</head>', `${preloads}</head>`));
  };

/** Answers of the interface are never kept by the browser. */
export const neverKept: RequestHandler = (_req, res, next) => {
  res.set('Cache-Control', 'no-store');
  next();
};
