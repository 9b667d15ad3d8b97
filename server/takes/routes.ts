import express, { type RequestHandler, Router } from 'express';
import { z } from 'zod';
import { TakeNotes } from '#api/index.ts';
import { etag, ifMatch } from '../preconditions.ts';
import { HttpProblem } from '../problem.ts';
import type { TakeService } from './service.ts';

const Params = z.strictObject({ id: z.uuid() });
const Query = z.strictObject({ name: z.string().trim().min(1).max(255) });
const NOTES_LIMIT = 2_000_000;

/** Takes in what is sent, as it is. */
export const takeIn =
  (takes: TakeService): RequestHandler =>
  async (req, res) => {
    const { id } = Params.parse(req.params);
    const { name } = Query.parse(req.query);
    if (!req.is('application/octet-stream'))
      throw new HttpProblem(415, 'Not accepted', 'A take is sent as application/octet-stream.');
    const length = req.get('Content-Length');
    const take = await takes.add(id, name, req, length === undefined ? null : Number(length));
    res.status(201).set('ETag', etag(take.revision)).json(take);
  };

export function takeRoutes(takes: TakeService): Router {
  const routes = Router();
  routes.get('/', async (_req, res) => {
    res.json(await takes.list());
  });
  routes.get('/:id', async (req, res) => {
    const take = await takes.get(Params.parse(req.params).id);
    res.set('ETag', etag(take.revision)).json(take);
  });
  routes.get('/:id/content', async (req, res, next) => {
    const { path } = await takes.fileOf(Params.parse(req.params).id);
    // Bytes as they are, never run or shown by a browser on their own; ranges are answered.
    res.set({ 'Content-Type': 'application/octet-stream', 'Cache-Control': 'private, no-cache' });
    res.sendFile(path, { dotfiles: 'allow', etag: false, lastModified: false }, (error) => {
      // A page that leaves, or stops measuring, wants no more of it.
      const left = (error as NodeJS.ErrnoException | undefined)?.code === 'ECONNABORTED';
      if (error && !left && !res.headersSent) next(error);
    });
  });
  routes.put('/:id', takeIn(takes));
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
