import express, { Router } from 'express';
import { z } from 'zod';
import { LARGEST_RIG_BYTES, NewRig } from '#api/index.ts';
import { parseRig } from '#core/rig/index.ts';
import { etag, ifMatch } from '../preconditions.ts';
import type { RigService } from './service.ts';

const Params = z.strictObject({ id: z.uuid() });

export function rigRoutes(rigs: RigService): Router {
  const routes = Router();
  routes.use(express.json({ limit: LARGEST_RIG_BYTES }));
  routes.get('/', async (_req, res) => {
    res.json(await rigs.list());
  });
  routes.post('/', async (req, res) => {
    const { id, document } = NewRig.parse(req.body);
    const made = await rigs.create(id, parseRig(document));
    res.status(201).set('ETag', etag(made.revision)).location(`/api/rigs/${id}`).json(made);
  });
  routes.get('/:id', async (req, res) => {
    const found = await rigs.get(Params.parse(req.params).id);
    res.set('ETag', etag(found.revision)).json(found);
  });
  routes.put('/:id', async (req, res) => {
    const { id } = Params.parse(req.params);
    const saved = await rigs.replace(id, parseRig(req.body), ifMatch(req));
    res.set('ETag', etag(saved.revision)).json(saved);
  });
  routes.delete('/:id', async (req, res) => {
    await rigs.remove(Params.parse(req.params).id, ifMatch(req));
    res.status(204).end();
  });
  routes.post('/:id/restore', async (req, res) => {
    res.json(await rigs.restore(Params.parse(req.params).id));
  });
  return routes;
}
