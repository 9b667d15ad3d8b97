import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import express, { type Express } from 'express';
import { LARGEST_PHOTO_BYTES, LARGEST_TAKE_BYTES } from '#api/index.ts';
import { openDatabase } from './database.ts';
import { migrate } from './migrations/index.ts';
import { defineModels } from './models.ts';
import { photoRoutes } from './photos/routes.ts';
import { photoService } from './photos/service.ts';
import { answerProblem, nothingHere } from './problem.ts';
import { rigRoutes } from './rigs/routes.ts';
import { rigService } from './rigs/service.ts';
import { nonceOf, ownPagesOnly, strictPolicy } from './security.ts';
import { openStorage } from './storage.ts';
import { takeRoutes } from './takes/routes.ts';
import { takeService } from './takes/service.ts';

export interface Server {
  readonly app: Express;
  readonly rigs: ReturnType<typeof rigService>;
  readonly takes: ReturnType<typeof takeService>;
  close(): Promise<void>;
}

export interface ServerOptions {
  readonly dataFolder: string;
  /** The built page. */
  readonly webFolder: string;
  readonly now: () => Date;
  readonly largestTakeBytes?: number;
}

/** Database, takes and routes, ready to listen. */
export async function openServer({
  dataFolder,
  webFolder,
  now,
  largestTakeBytes = LARGEST_TAKE_BYTES,
}: ServerOptions): Promise<Server> {
  const database = openDatabase(join(dataFolder, 'mellow.sqlite'));
  await migrate(database);
  const models = defineModels(database.sequelize);
  const storage = await openStorage(join(dataFolder, 'takes'), {
    what: 'The take',
    largestBytes: largestTakeBytes,
    whenTooLarge: '8 GB. Cut out the part you want to measure and choose that.',
  });
  const pictures = await openStorage(join(dataFolder, 'photos'), {
    what: 'The photograph',
    largestBytes: LARGEST_PHOTO_BYTES,
    whenTooLarge: '8 MB. Take a smaller one.',
  });
  const rigs = rigService(database, models, now);
  const takes = takeService(database, models, storage, now);
  const photos = photoService(models, pictures);
  await takes.tidy();
  await photos.tidy();
  const app = express();
  app.disable('x-powered-by');
  app.set('etag', false);
  app.use(ownPagesOnly, ...strictPolicy);
  app.use('/api', (_req, res, next) => {
    res.set('Cache-Control', 'no-store');
    next();
  });
  app.get('/api/health', (_req, res) => {
    res.json({ ok: true });
  });
  app.use('/api/rigs', rigRoutes(rigs));
  app.use('/api/takes', takeRoutes(takes));
  app.use('/api/photos', photoRoutes(photos));
  app.use('/api', nothingHere);
  app.use(
    '/assets',
    express.static(join(webFolder, 'assets'), { immutable: true, maxAge: '365d', index: false }),
    nothingHere,
  );
  app.use(express.static(webFolder, { index: false, maxAge: 0 }));
  app.get(/.*/, async (_req, res) => {
    const page = await readFile(join(webFolder, 'index.html'), 'utf8');
    res
      .set('Cache-Control', 'no-store')
      .type('html')
      .send(page.replaceAll('__NONCE__', nonceOf(res)));
  });
  app.use(nothingHere, answerProblem);
  return { app, rigs, takes, close: () => database.close() };
}
