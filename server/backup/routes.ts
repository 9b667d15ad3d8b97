import { pipeline } from 'node:stream/promises';
import { Router } from 'express';
import { z } from 'zod';
import { server as say } from '#words/index.ts';
import { HttpProblem } from '../http/problem.ts';
import type { DailyCopies } from './daily.ts';
import { type BackupService, firstByte } from './service.ts';

const Params = z.strictObject({ id: z.uuid() });
const CopyParams = z.strictObject({ name: z.string().max(100) });
const Bytes = z.coerce.number().int().min(0).max(Number.MAX_SAFE_INTEGER);
const PieceQuery = z.strictObject({ at: Bytes, bytes: Bytes.min(1) });

/** Out: POST makes one ready, GET downloads it, again from any byte on. */
export function backupRoutes(backups: BackupService, daily: DailyCopies): Router {
  const routes = Router();
  routes.get('/copies', async (_req, res) => {
    res.json(await daily.list());
  });
  routes.post('/', async (_req, res) => {
    res.status(201).json(await backups.make());
  });
  routes.get('/:id', async (req, res) => {
    const { id } = Params.parse(req.params);
    const { name, bytes } = await backups.head(id);
    const range = req.get('Range');
    const from = firstByte(range, bytes);
    res.set({
      'Content-Type': 'application/zip',
      'Accept-Ranges': 'bytes',
      ETag: `"${id}"`,
      'Content-Length': String(bytes - from),
      'Content-Disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`,
    });
    if (range !== undefined) res.status(206).set('Content-Range', `bytes ${from}-${bytes - 1}/${bytes}`);
    await pipeline(await backups.read(id, from), res).catch(() => undefined);
  });
  routes.delete('/:id', async (req, res) => {
    await backups.release(Params.parse(req.params).id);
    res.status(204).end();
  });
  return routes;
}

/** In: sent by pieces, or one of the copies that are kept; looked at, and only then brought in. */
export function restoreRoutes(backups: BackupService, daily: DailyCopies): Router {
  const routes = Router();
  routes.get('/copies/:name', async (req, res) => {
    res.json(await backups.previewFile(await daily.pathOf(CopyParams.parse(req.params).name)));
  });
  routes.post('/copies/:name', async (req, res) => {
    res.json(await backups.restoreFile(await daily.pathOf(CopyParams.parse(req.params).name)));
  });
  routes.get('/:id/upload', async (req, res) => {
    res.json({ at: await backups.reached(Params.parse(req.params).id) });
  });
  routes.patch('/:id/upload', async (req, res) => {
    if (!req.is('application/octet-stream')) throw new HttpProblem(415, say.notAccepted(), say.backupIsSentAs());
    const { id } = Params.parse(req.params);
    const { at, bytes } = PieceQuery.parse(req.query);
    res.status(202).json({ at: await backups.addPiece(id, at, bytes, req) });
  });
  routes.get('/:id', async (req, res) => {
    res.json(await backups.preview(Params.parse(req.params).id));
  });
  routes.post('/:id', async (req, res) => {
    res.json(await backups.restore(Params.parse(req.params).id));
  });
  routes.delete('/:id', async (req, res) => {
    await backups.discard(Params.parse(req.params).id);
    res.status(204).end();
  });
  return routes;
}
