import express, { Router } from 'express';
import { z } from 'zod';
import { LARGEST_RIG_BYTES, NewEvents } from '#api/index.ts';
import type { DayService } from './service.ts';

const Params = z.strictObject({ id: z.uuid() });
const Query = z.looseObject({ after: z.coerce.number().int().min(0).max(Number.MAX_SAFE_INTEGER).default(0) });

/** Under /api/rigs/:id/day. */
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
