import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import express, { type RequestHandler } from 'express';
import { nothingHere } from './problem.ts';
import { nonceOf } from './security.ts';

/** Scripts, styles and fonts of the page: named by their content, kept for good. */
export const assetsOf = (webFolder: string): RequestHandler[] => [
  express.static(join(webFolder, 'assets'), { immutable: true, maxAge: '365d', index: false }),
  nothingHere,
];

/** The page itself, with the nonce of this answer. */
export const pageOf =
  (webFolder: string): RequestHandler =>
  async (_req, res) => {
    const page = await readFile(join(webFolder, 'index.html'), 'utf8');
    res
      .set('Cache-Control', 'no-store')
      .type('html')
      .send(page.replaceAll('__NONCE__', nonceOf(res)));
  };

/** Answers of the interface are never kept by the browser. */
export const neverKept: RequestHandler = (_req, res, next) => {
  res.set('Cache-Control', 'no-store');
  next();
};
