import { randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { mkdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { Router } from 'express';
import { z } from 'zod';
import { HttpProblem } from '../problem.ts';
import { readArchive } from './read.ts';
import { type ArchiveParts, writeArchive } from './write.ts';

const Params = z.strictObject({ id: z.uuid() });
const Query = z.strictObject({ takes: z.enum(['used', 'all']).default('used') });

/** Out: GET /api/archives/RIG; back in: POST /api/archives. */
export function archiveRoutes(parts: ArchiveParts, folder: string): Router {
  const routes = Router();
  routes.get('/:id', async (req, res) => {
    const { takes } = Query.parse(req.query);
    const { name, bytes, stream } = await writeArchive(parts, Params.parse(req.params).id, takes === 'all');
    res.set({
      'Content-Type': 'application/zip',
      'Content-Length': String(bytes),
      'Content-Disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`,
    });
    // A page that leaves wants no more of it.
    await pipeline(stream, res).catch(() => undefined);
  });
  routes.post('/', async (req, res) => {
    if (!req.is('application/octet-stream'))
      throw new HttpProblem(415, 'Not accepted', 'An archive is sent as application/octet-stream.');
    await mkdir(folder, { recursive: true });
    const path = join(folder, `${randomUUID()}.part`);
    try {
      await pipeline(req, createWriteStream(path)).catch(() => {
        throw new HttpProblem(
          400,
          'Broken off',
          'The archive did not arrive whole. Nothing was changed: choose it again.',
        );
      });
      res.status(201).json(await readArchive(parts, path));
    } finally {
      await rm(path, { force: true });
    }
  });
  return routes;
}
