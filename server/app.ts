import { randomBytes } from 'node:crypto';
import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import express, { type Express } from 'express';
import { LARGEST_PHOTO_BYTES, LARGEST_TAKE_BYTES } from '#api/index.ts';
import { archiveRoutes } from './archive/routes.ts';
import { openDatabase } from './database.ts';
import { dayRoutes } from './day/routes.ts';
import { dayService } from './day/service.ts';
import { makeDoor, sayCode } from './door/door.ts';
import { handApp } from './door/hand.ts';
import { doorNotes } from './door/notes.ts';
import { doorPasses } from './door/passes.ts';
import { migrate } from './migrations/index.ts';
import { defineModels } from './models.ts';
import { assetsOf, neverKept, pageOf } from './page.ts';
import { photoRoutes } from './photos/routes.ts';
import { photoService } from './photos/service.ts';
import { answerProblem, nothingHere } from './problem.ts';
import { rigRoutes } from './rigs/routes.ts';
import { rigService } from './rigs/service.ts';
import { ownPagesOnly, strictPolicy } from './security.ts';
import { openStorage } from './storage.ts';
import { takeRoutes } from './takes/routes.ts';
import { takeService } from './takes/service.ts';

export interface Server {
  readonly app: Express;
  /** What phones on the local network get, and the code that opens it. */
  readonly hand: Express;
  readonly doorCode: () => string;
  readonly rigs: ReturnType<typeof rigService>;
  readonly takes: ReturnType<typeof takeService>;
  readonly day: ReturnType<typeof dayService>;
  close(): Promise<void>;
}

export interface ServerOptions {
  readonly dataFolder: string;
  /** The built page. */
  readonly webFolder: string;
  readonly now: () => Date;
  readonly largestTakeBytes?: number;
  /** Where phones find this computer; empty where none may come. */
  readonly handUrls?: () => readonly string[];
}

/** Database, takes and routes, ready to listen. */
export async function openServer({
  dataFolder,
  webFolder,
  now,
  largestTakeBytes = LARGEST_TAKE_BYTES,
  handUrls = () => [],
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
  const day = dayService(database, models, now);
  const notes = doorNotes(database, models);
  const door = makeDoor({ now, randomBytes, note: notes.add, ...(await doorPasses(database, models, now)) });
  const sayDoor = async () => ({ urls: [...handUrls()], code: sayCode(door.code()), notes: await notes.latest() });
  // What was left of an archive when the server was stopped in the middle of it.
  await rm(join(dataFolder, 'archives'), { recursive: true, force: true });
  await takes.tidy();
  await photos.tidy();
  const app = express();
  app.disable('x-powered-by');
  app.set('etag', false);
  app.use(ownPagesOnly, ...strictPolicy);
  app.use('/api', neverKept);
  app.get('/api/health', (_req, res) => {
    res.json({ ok: true });
  });
  app.get('/api/door', async (_req, res) => {
    res.json(await sayDoor());
  });
  app.post('/api/door/renew', async (_req, res) => {
    door.renew('desk');
    res.json(await sayDoor());
  });
  app.use('/api/rigs/:id/day', dayRoutes(day));
  app.use('/api/rigs', rigRoutes(rigs));
  app.use('/api/takes', takeRoutes(takes));
  app.use('/api/archives', archiveRoutes({ rigs, takes, photos, day, now }, join(dataFolder, 'archives')));
  app.use('/api/photos', photoRoutes(photos));
  app.use('/api', nothingHere);
  app.use('/assets', ...assetsOf(webFolder));
  app.use(express.static(webFolder, { index: false, maxAge: 0 }));
  app.get(/.*/, pageOf(webFolder));
  app.use(nothingHere, answerProblem);
  const noteNoPass = (from: string) => notes.add({ at: now().toISOString(), from, says: 'no pass' });
  const hand = handApp({ door, rigs, day, takes, webFolder, noteNoPass });
  return { app, hand, doorCode: () => sayCode(door.code()), rigs, takes, day, close: () => database.close() };
}
