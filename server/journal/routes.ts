import express, { Router } from 'express';
import { z } from 'zod';
import { LARGEST_RIG_BYTES, NewEvents } from '#api/index.ts';
import type { DayService } from './service.ts';

const Params = z.strictObject({ id: z.uuid() });
const OfEntry = z.strictObject({ id: z.uuid(), seq: z.coerce.number().int().min(1).max(Number.MAX_SAFE_INTEGER) });
const Query = z.looseObject({ after: z.coerce.number().int().min(0).max(Number.MAX_SAFE_INTEGER).default(0) });

/** Under /api/rigs/:id/day: reading and telling. */
export function dayRoutes(day: DayService): Router {
  const routes = Router({ mergeParams: true });
  routes.use(express.json({ limit: LARGEST_RIG_BYTES }));
  routes.get('/', async (req, res) => {
    res.json(await day.after(Params.parse(req.params).id, Query.parse(req.query).after));
  });
  routes.post('/', async (req, res) => {
    await day.tell(Params.parse(req.params).id, NewEvents.parse(req.body).events);
    res.status(204).end();
  });
  return routes;
}

/** The same place, for the desk alone: taking out what cannot be read. */
export function dayMending(day: DayService): Router {
  const routes = Router({ mergeParams: true });
  routes.delete('/:seq', async (req, res) => {
    const { id, seq } = OfEntry.parse(req.params);
    await day.takeOut(id, seq);
    res.status(204).end();
  });
  return routes;
}
