import { createReadStream } from 'node:fs';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import express, { type RequestHandler, type Response, Router } from 'express';
import { z } from 'zod';
import { FoundTake, TakeNotes } from '#api/index.ts';
import { server as say } from '#words/index.ts';
import { etag, ifMatch } from '../http/preconditions.ts';
import { HttpProblem } from '../http/problem.ts';
import type { TakeService } from './service.ts';

const Params = z.strictObject({ id: z.uuid() });
const OfFound = FoundTake.pick({ sha256: true });
const Query = z.strictObject({ name: z.string().trim().min(1).max(255) });
const Bytes = z.coerce.number().int().min(0).max(Number.MAX_SAFE_INTEGER);
const PieceQuery = z.strictObject({ ...Query.shape, at: Bytes, bytes: Bytes.min(1) });
const TakenBack = z.strictObject({ id: z.uuid(), name: Query.shape.name });
const NOTES_LIMIT = 2_000_000;

const bytesOnly: RequestHandler = (req, _res, next) => {
  if (!req.is('application/octet-stream')) throw new HttpProblem(415, say.notAccepted(), say.takeIsSentAs());
  next();
};

/**
 * Uploads of takes, under /:id. Whole, or in pieces: after an interruption the client asks for the offset and resumes.
 */
export function takesIn(takes: TakeService): Router {
  const routes = Router();
  routes.put('/:id', bytesOnly, async (req, res) => {
    const { id } = Params.parse(req.params);
    const { name } = Query.parse(req.query);
    const length = req.get('Content-Length');
    const take = await takes.add(id, name, req, length === undefined ? null : Number(length));
    res.status(201).set('ETag', etag(take.revision)).json(take);
  });
  routes.get('/:id/upload', async (req, res) => {
    res.json({ at: await takes.reached(Params.parse(req.params).id) });
  });
  routes.patch('/:id/upload', bytesOnly, async (req, res) => {
    const { id } = Params.parse(req.params);
    const { name, at, bytes: totalBytes } = PieceQuery.parse(req.query);
    const done = await takes.addPiece(id, name, { at, totalBytes }, req);
    if ('at' in done) res.status(202).json(done);
    else res.status(201).set('ETag', etag(done.revision)).json(done);
  });
  return routes;
}

export function takeRoutes(takes: TakeService): Router {
  const routes = Router();
  routes.get('/', async (_req, res) => {
    const parts = takes.listText();
    // An early failure is still reported in a sentence.
    const first = await parts.next();
    res.type('application/json').write(first.value ?? '');
    await pipeline(Readable.from(parts), res);
  });
  routes.get('/found', async (_req, res) => {
    res.json(await takes.found());
  });
  routes.post('/found/:sha256', express.json(), async (req, res) => {
    const { id, name } = TakenBack.parse(req.body);
    res.status(201).json(await takes.takeBack(OfFound.parse(req.params).sha256, id, name));
  });
  routes.delete('/found/:sha256', async (req, res) => {
    await takes.removeFound(OfFound.parse(req.params).sha256);
    res.status(204).end();
  });
  routes.use(takesIn(takes));
  routes.get('/:id', async (req, res) => {
    const take = await takes.get(Params.parse(req.params).id);
    res.set('ETag', etag(take.revision)).json(take);
  });
  routes.get('/:id/content', async (req, res) => {
    const lent = await takes.lend(Params.parse(req.params).id);
    try {
      await sendRange(res, lent, req.get('Range'));
    } finally {
      lent.giveBack();
    }
  });
  routes.put('/:id/notes', express.json({ limit: NOTES_LIMIT }), async (req, res) => {
    const take = await takes.note(Params.parse(req.params).id, TakeNotes.parse(req.body), ifMatch(req));
    res.set('ETag', etag(take.revision)).json(take);
  });
  routes.delete('/:id', async (req, res) => {
    await takes.remove(Params.parse(req.params).id);
    res.status(204).end();
  });
  return routes;
}

/** Bytes as they are, never run or shown by a browser on their own; one range is answered (RFC 9110). */
async function sendRange(
  res: Response,
  { path, bytes }: { path: string; bytes: number },
  range: string | undefined,
): Promise<void> {
  res.set({
    'Content-Type': 'application/octet-stream',
    'Cache-Control': 'private, no-cache',
    'Accept-Ranges': 'bytes',
  });
  const asked = rangeOf(range, bytes);
  if (asked === 'none') {
    res.status(416).set('Content-Range', `bytes */${bytes}`).end();
    return;
  }
  const { start, end } = asked ?? { start: 0, end: bytes - 1 };
  if (asked) res.status(206).set('Content-Range', `bytes ${start}-${end}/${bytes}`);
  res.set('Content-Length', String(end - start + 1));
  if (res.req.method === 'HEAD') {
    res.end();
    return;
  }
  // A page that leaves, or stops measuring, wants no more of it: both ends are closed then.
  await pipeline(createReadStream(path, { start, end }), res).catch(() => undefined);
}

function rangeOf(range: string | undefined, bytes: number): { start: number; end: number } | 'none' | null {
  const found = /^bytes=(\d{0,15})-(\d{0,15})$/.exec(range ?? '');
  if (!found || (found[1] === '' && found[2] === '')) return null;
  const [first, last] = [found[1], found[2]];
  const start = first === '' ? Math.max(0, bytes - Number(last)) : Number(first);
  const end = first === '' || last === '' ? bytes - 1 : Math.min(Number(last), bytes - 1);
  return start > end || start >= bytes ? 'none' : { start, end };
}
