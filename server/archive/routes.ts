import { randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { mkdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { Router } from 'express';
import { z } from 'zod';
import { server as say } from '#words/index.ts';
import { HttpProblem, storageProblem } from '../http/problem.ts';
import { bringIn } from './bring.ts';
import type { ReadArchive, ReadJob } from './read.ts';
import { type ArchiveParts, writeArchive } from './write.ts';

const Params = z.strictObject({ id: z.uuid() });
const Query = z.strictObject({ takes: z.enum(['used', 'all']).default('used') });

/** Reads an archive from disk: in a thread, or in place. */
export type ArchiveReader = (job: ReadJob) => Promise<ReadArchive>;

/** Out: GET /api/archives/RIG; back in: POST /api/archives. @param incoming  where archives are read, each in a folder of its own */
export function archiveRoutes(parts: ArchiveParts, incoming: string, readArchive: ArchiveReader): Router {
  const routes = Router();
  routes.get('/:id', async (req, res) => {
    const { takes } = Query.parse(req.query);
    const { name, bytes, stream } = await writeArchive(parts, Params.parse(req.params).id, takes === 'all');
    res.set({
      'Content-Type': 'application/zip',
      'Content-Length': String(bytes),
      'Content-Disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`,
    });
    // A page that leaves wants no more of it: both ends are closed then.
    await pipeline(stream, res).catch(() => undefined);
  });
  routes.post('/', async (req, res) => {
    if (!req.is('application/octet-stream')) throw new HttpProblem(415, say.notAccepted(), say.archiveIsSentAs());
    const folder = join(incoming, randomUUID());
    await mkdir(folder, { recursive: true });
    try {
      const path = join(folder, 'archive.zip');
      await pipeline(req, createWriteStream(path)).catch((error: unknown) => {
        throw storageProblem(error) ?? new HttpProblem(400, say.brokenOff(), say.archiveDidNotArrive());
      });
      res.status(201).json(await bringIn(parts, await readArchive({ path, folder })));
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
  });
  return routes;
}
