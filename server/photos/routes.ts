import { createReadStream } from 'node:fs';
import { pipeline } from 'node:stream/promises';
import { Router } from 'express';
import { z } from 'zod';
import { PhotoRecord } from '#api/index.ts';
import { server as say } from '#words/index.ts';
import { HttpProblem } from '../http/problem.ts';
import type { PhotoService } from './service.ts';

const Params = PhotoRecord.pick({ sha256: true });
const Length = z.coerce.number().int().min(0).nullable().catch(null);

export function photoRoutes(photos: PhotoService): Router {
  const routes = Router();
  routes.post('/', async (req, res) => {
    if (!req.is('application/octet-stream')) throw new HttpProblem(415, say.notAccepted(), say.photoIsSentAs());
    res.status(201).json(await photos.add(req, Length.parse(req.get('Content-Length') ?? null)));
  });
  routes.get('/:sha256', async (req, res) => {
    const lent = await photos.lend(Params.parse(req.params).sha256);
    try {
      // The address is the hash of the bytes: it never shows another picture.
      res.set({
        'Content-Type': lent.type,
        'Content-Length': String(lent.bytes),
        'Cache-Control': 'private, max-age=31536000, immutable',
      });
      await pipeline(createReadStream(lent.path), res).catch(() => undefined);
    } finally {
      lent.giveBack();
    }
  });
  return routes;
}
