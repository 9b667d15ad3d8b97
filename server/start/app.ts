import { randomBytes } from 'node:crypto';
import { readdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import express, { type Express } from 'express';
import { LARGEST_PHOTO_BYTES, LARGEST_TAKE_BYTES } from '#api/index.ts';
import { server as say } from '#words/index.ts';
import { readArchive } from '../archive/read.ts';
import { type ArchiveReader, archiveRoutes } from '../archive/routes.ts';
import { dailyCopies } from '../backup/daily.ts';
import { backupRoutes, restoreRoutes } from '../backup/routes.ts';
import { type BackupService, backupService } from '../backup/service.ts';
import { type Unpacked, type UnpackJob, unpack } from '../backup/unpack.ts';
import { type Database, openDatabase } from '../database/database.ts';
import { migrate } from '../database/migrations/index.ts';
import { assetsOf, neverKept, pageOf } from '../http/page.ts';
import { answerProblem, nothingHere } from '../http/problem.ts';
import { ownPagesOnly, strictPolicy } from '../http/security.ts';
import { dayMending, dayRoutes } from '../journal/routes.ts';
import { dayService } from '../journal/service.ts';
import { type Judge, ownJudge } from '../judgments/judge.ts';
import { doorNotes } from '../pairing/notes.ts';
import { makeDoor, sayCode } from '../pairing/pairing.ts';
import { doorPasses } from '../pairing/passes.ts';
import { handApp } from '../pairing/phone-app.ts';
import { doorRoutes } from '../pairing/routes.ts';
import { photoRoutes } from '../photos/routes.ts';
import { photoService } from '../photos/service.ts';
import { ownReader, type RigReader } from '../rigs/reader.ts';
import { rigRoutes } from '../rigs/routes.ts';
import { rigService } from '../rigs/service.ts';
import { makeContent } from '../storage/content.ts';
import { type DataFolder, openDataFolder } from '../storage/folder.ts';
import { type Holder, holdFolder, type Lock } from '../storage/lock.ts';
import { openReserve, type Reserve } from '../storage/reserve.ts';
import { spaceOf } from '../storage/space.ts';
import { openStorage } from '../storage/storage.ts';
import { takeRoutes } from '../takes/routes.ts';
import { takeService } from '../takes/service.ts';

export interface Server {
  readonly app: Express;
  /** What phones on the local network get, and the code that opens it. */
  readonly hand: Express;
  readonly doorCode: () => string;
  readonly rigs: ReturnType<typeof rigService>;
  readonly takes: ReturnType<typeof takeService>;
  readonly day: ReturnType<typeof dayService>;
  readonly backups: BackupService;
  /** Tells the next process that opens the same data folder where this server answers. */
  tell(holder: Holder): Promise<void>;
  /** Periodic work: reserves disk space, drops abandoned uploads, tidies photographs. */
  housekeep(): Promise<void>;
  close(): Promise<void>;
}

export interface ServerOptions {
  readonly dataFolder: string;
  /** The built page. */
  readonly webFolder: string;
  readonly now: () => Date;
  readonly largestTakeBytes?: number;
  readonly reserveBytes?: number;
  /** Where phones find this computer; empty where none may come. */
  readonly handUrls?: () => readonly string[];
  /** What is dear is done elsewhere: judging rigs, reading archives. */
  readonly judge?: Judge;
  /** Checks rigs that are saved; a thread of its own in the program. */
  readonly rigReader?: RigReader;
  readonly archiveReader?: ArchiveReader;
  readonly unpacker?: (job: UnpackJob) => Promise<Unpacked>;
  /** Where the daily copies go, takes included; else they stay in the data folder, without takes. */
  readonly copiesFolder?: string | undefined;
}

/** An abandoned upload is dropped after this time, ms. */
const UPLOAD_MS = 3 * 24 * 3_600_000;
const LARGEST_BACKUP_BYTES = 1024 ** 4;
const REFILL_MS = 10_000;
const RESERVE_BYTES = 16 * 1024 * 1024;

/** Database, takes and routes, ready to listen. @throws StartError where the folder is not ours, held, or of a newer program */
export async function openServer(options: ServerOptions): Promise<Server> {
  const folder = await openDataFolder(options.dataFolder, options.now);
  const lock = await holdFolder(folder.root);
  try {
    const reserve = openReserve(folder.root, options.reserveBytes ?? RESERVE_BYTES);
    const database = await openDatabase(folder.database, async () => {
      const gave = await reserve.giveUp();
      // What was freed by it may be enough to take the room again.
      if (gave) setTimeout(() => void reserve.refill().catch(() => undefined), REFILL_MS).unref();
      return gave;
    });
    try {
      await migrate(database, folder.copies);
      return await serve(folder, lock, reserve, database, options);
    } catch (error) {
      await database.close();
      throw error;
    }
  } catch (error) {
    await lock.release();
    throw error;
  }
}

async function serve(
  folder: DataFolder,
  lock: Lock,
  reserve: Reserve,
  database: Database,
  {
    webFolder,
    now,
    largestTakeBytes = LARGEST_TAKE_BYTES,
    handUrls = () => [],
    judge = ownJudge,
    rigReader = ownReader,
    archiveReader = readArchive,
    unpacker = unpack,
    copiesFolder,
  }: ServerOptions,
): Promise<Server> {
  const takeContent = makeContent(
    database,
    await openStorage({
      folder: folder.takes,
      incoming: join(folder.uploads, 'takes'),
      what: say.theTake(),
      largestBytes: largestTakeBytes,
      whenTooLarge: say.gbCutOutPart(),
    }),
    'takes',
  );
  const photoContent = makeContent(
    database,
    await openStorage({
      folder: folder.photos,
      incoming: join(folder.uploads, 'photos'),
      what: say.thePhoto(),
      largestBytes: LARGEST_PHOTO_BYTES,
      whenTooLarge: say.mbTakeSmallerOne(),
    }),
    'photos',
  );
  const archives = join(folder.uploads, 'archives');
  const rigs = rigService(database, now, judge);
  const takes = takeService(database, takeContent, now);
  const photos = photoService(database, photoContent, now);
  const day = dayService(database, now);
  const notes = doorNotes(database);
  const door = makeDoor({ now, randomBytes, note: notes.add, ...(await doorPasses(database, now)) });
  // What was left of archives when the server was stopped in the middle of them.
  for (const name of await readdir(archives).catch(() => []))
    await rm(join(archives, name), { recursive: true, force: true });
  await takeContent.mend();
  await photoContent.mend();
  await photos.adopt();

  const scratch = join(folder.uploads, 'backups');
  await rm(scratch, { recursive: true, force: true });
  const incoming = await openStorage({
    folder: join(scratch, 'in-place'),
    incoming: join(folder.uploads, 'restores'),
    what: say.theBackup(),
    largestBytes: LARGEST_BACKUP_BYTES,
    whenTooLarge: say.oneTerabyte(),
  });
  await incoming.mend(new Set());
  const parts = { database, rigs, takes, takeContent, photos, photoContent, day, now };
  const backupParts = { ...parts, scratch, unpack: unpacker, judge: rigs.judge };
  const backups = backupService(backupParts, incoming);
  const daily = dailyCopies(backupParts, copiesFolder ?? join(folder.copies, 'daily'), copiesFolder !== undefined);

  const app = express();
  app.disable('x-powered-by');
  app.set('etag', false);
  app.use(ownPagesOnly, ...strictPolicy);
  app.use('/api', neverKept);
  app.get('/api/health', (_req, res) => {
    res.json({ ok: true });
  });
  app.get('/api/space', async (_req, res) => {
    res.json(await spaceOf(folder, database));
  });
  app.use('/api/door', doorRoutes(door, notes, handUrls));
  app.use('/api/rigs/:id/day', dayRoutes(day), dayMending(day));
  app.use('/api/rigs', rigRoutes(rigs, rigReader));
  app.use('/api/takes', takeRoutes(takes));
  app.use('/api/backups', backupRoutes(backups, daily));
  app.use('/api/restores', restoreRoutes(backups, daily));
  app.use('/api/archives', archiveRoutes(parts, archives, archiveReader));
  app.use('/api/photos', photoRoutes(photos));
  app.use('/api', nothingHere);
  app.use('/assets', ...assetsOf(webFolder));
  app.use(express.static(webFolder, { index: false, maxAge: 0 }));
  app.get(/.*/, pageOf(webFolder));
  app.use(
    nothingHere,
    answerProblem(async () => ({ space: await spaceOf(folder, database) })),
  );
  const noteNoPass = (from: string) => notes.add({ at: now().toISOString(), from, says: 'no pass' });
  const hand = handApp({ door, rigs, day, takes, webFolder, noteNoPass });
  return {
    app,
    hand,
    doorCode: () => sayCode(door.code().code),
    rigs,
    takes,
    day,
    backups,
    tell: lock.tell,
    async housekeep() {
      await reserve.refill();
      await daily.keep();
      for (const storage of [takeContent.storage, photoContent.storage, incoming])
        await storage.dropOlderThan(UPLOAD_MS);
      await photos.tidy();
    },
    async close() {
      await rigs.close();
      await rigReader.close();
      await backups.close();
      await database.close();
      await lock.release();
    },
  };
}
