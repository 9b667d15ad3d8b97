import { randomUUID } from 'node:crypto';
import { mkdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { Restored } from '#api/index.ts';
import { server as say } from '#words/index.ts';
import { openDatabase, type Writing } from '../database/database.ts';
import { migrate } from '../database/migrations/index.ts';
import { HttpProblem, StartError } from '../http/problem.ts';
import { makeQueues } from '../storage/queues.ts';
import type { Staged } from '../storage/storage.ts';
import type { BackupParts } from './make.ts';
import type { Unpacked, UnpackJob } from './unpack.ts';

export interface RestoreParts extends BackupParts {
  readonly unpack: (job: UnpackJob) => Promise<Unpacked>;
  /** Restored rigs have to be judged. */
  readonly judge: (rigId: string) => void;
}

const queues = makeQueues();

/** A backup, ready to be restored beside the present data. */
interface Ready {
  readonly unpacked: Unpacked;
  readonly databaseFile: string;
}

/** What restoring would do; nothing is changed. @throws HttpProblem 422 where the backup is not whole */
export const previewRestore = (parts: RestoreParts, path: string): Promise<Restored> =>
  withBackup(parts, path, ({ unpacked, databaseFile }) =>
    parts.database.writeBeside(databaseFile, (db) => plan(db, unpacked)),
  );

/**
 * Brings a backup in, in one write: what is not here comes with its id, versions and log; what is here and the same stays;
 * a rig that is here and another one comes beside it. Nothing that is here is changed or lost.
 */
export const restore = (parts: RestoreParts, path: string): Promise<Restored> =>
  withBackup(parts, path, async ({ unpacked, databaseFile }) => {
    const stage = async (content: BackupParts['takeContent'], files: Unpacked['takes']): Promise<Staged[]> => {
      const staged: Staged[] = [];
      for (const { path: from, sha256, bytes } of files) staged.push(await content.storage.adopt(from, sha256, bytes));
      return staged;
    };
    const photos = await stage(parts.photoContent, unpacked.photos);
    await parts.photoContent.keep(photos, async (db) => {
      for (const { sha256, bytes } of unpacked.photos)
        await db.run('INSERT OR IGNORE INTO photos (sha256, bytes, addedAt) VALUES ($1, $2, $3)', [
          sha256,
          bytes,
          parts.now().toISOString(),
        ]);
    });
    const takes = await stage(parts.takeContent, unpacked.takes);
    const { restored, rigIds } = await parts.takeContent.keep(
      takes,
      async (db) => {
        const planned = await plan(db, unpacked);
        await bringTakes(db);
        return { restored: planned, rigIds: await bringRigs(db, parts.now()) };
      },
      { beside: databaseFile },
    );
    for (const id of rigIds) parts.judge(id);
    return restored;
  });

const withBackup = <T>(parts: RestoreParts, path: string, job: (ready: Ready) => Promise<T>): Promise<T> =>
  queues.alone('restore', async () => {
    const folder = join(parts.scratch, randomUUID());
    await mkdir(folder, { recursive: true });
    try {
      const unpacked = await parts.unpack({ path, folder, files: true });
      const databaseFile = unpacked.database!.path;
      await bringUpToDate(databaseFile, folder);
      return await job({ unpacked, databaseFile });
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
  });

/** A backup of an earlier version is migrated before it is read. */
async function bringUpToDate(file: string, scratch: string): Promise<void> {
  try {
    const database = await openDatabase(file);
    try {
      await migrate(database, scratch);
    } finally {
      await database.close();
    }
  } catch (error) {
    if (error instanceof StartError) throw new HttpProblem(422, say.newer(), say.backupWasMadeBy());
    throw new HttpProblem(422, say.notWhole(), say.databaseInBackupIs());
  }
}

/** Rigs of the backup against those that are here. Those that were deleted then come only where nothing else is here. */
const NEW_RIGS = `SELECT id FROM other.rigs o WHERE o.id NOT IN (SELECT id FROM main.rigs)
  AND (o.deletedAt IS NULL OR NOT EXISTS (SELECT 1 FROM main.rigs))`;
const DELETED_HERE = `SELECT o.id FROM other.rigs o JOIN main.rigs m ON m.id = o.id
  WHERE o.deletedAt IS NULL AND m.deletedAt IS NOT NULL AND m.document = o.document`;
const OTHERWISE_HERE = `SELECT o.id FROM other.rigs o JOIN main.rigs m ON m.id = o.id
  WHERE o.deletedAt IS NULL AND m.document <> o.document`;
const NEW_TAKES = `SELECT id FROM other.takes o WHERE o.id NOT IN (SELECT id FROM main.takes)`;
const LONGEST_DOCUMENT = 5_100_000;

const countOf = async (db: Writing, select: string): Promise<number> =>
  (await db.read<{ n: number }>(`SELECT count(*) n FROM (${select})`))[0]!.n;

async function plan(db: Writing, { manifest }: Unpacked): Promise<Restored> {
  const [names] = await db.read<{ names: string }>(
    `SELECT json_group_array(name) names FROM (SELECT name FROM other.rigs WHERE id IN (${OTHERWISE_HERE}) ORDER BY name)`,
  );
  return {
    madeAt: manifest.madeAt,
    bytes: manifest.database.bytes + manifest.files.reduce((sum, f) => sum + f.bytes, 0),
    rigsNew: await countOf(db, NEW_RIGS),
    rigsUndeleted: await countOf(db, DELETED_HERE),
    rigsBeside: JSON.parse(names!.names),
    rigsSame: await countOf(
      db,
      'SELECT o.id FROM other.rigs o JOIN main.rigs m ON m.id = o.id WHERE m.document = o.document AND m.deletedAt IS NULL',
    ),
    takesNew: await countOf(db, NEW_TAKES),
    takesWithoutFile: manifest.without.length,
    photographs: manifest.files.filter((f) => f.folder === 'photos').length,
  };
}

async function bringTakes(db: Writing): Promise<void> {
  await db.run(
    `INSERT INTO main.takes (id, name, bytes, sha256, addedAt, notes, revision)
      SELECT id, name, bytes, sha256, addedAt, notes, revision FROM other.takes WHERE id IN (${NEW_TAKES})`,
  );
  await db.run(
    `UPDATE main.takes SET revision = revision + 1, notes =
      (SELECT o.notes FROM other.takes o WHERE o.id = main.takes.id AND o.sha256 = main.takes.sha256)
      WHERE notes IS NULL AND id IN (SELECT id FROM other.takes o WHERE o.notes IS NOT NULL AND o.sha256 = main.takes.sha256)`,
  );
}

async function bringRigs(db: Writing, now: Date): Promise<string[]> {
  const ids = async (select: string) => (await db.read<{ id: string }>(select)).map((r) => r.id);
  const fresh = await ids(NEW_RIGS);
  const undeleted = await ids(DELETED_HERE);
  const otherwise = await ids(OTHERWISE_HERE);
  for (const id of undeleted) await db.run('UPDATE main.rigs SET deletedAt = NULL WHERE id = $1', [id]);
  const brought: string[] = [];
  for (const [from, to] of [
    ...fresh.map((id) => [id, id] as const),
    ...otherwise.map((id) => [id, randomUUID()] as const),
  ]) {
    await bringRig(db, from, to, now);
    brought.push(to);
  }
  // What happened on days that are not known here, of rigs that were here before.
  await db.run(
    `INSERT OR IGNORE INTO main.dayEvents (id, rigId, sessionId, at, body, receivedAt)
      SELECT id, rigId, sessionId, at, body, receivedAt FROM other.dayEvents
      WHERE rigId IN (SELECT id FROM main.rigs) ORDER BY seq`,
  );
  return brought;
}

/** One rig with its versions, measurements, photographs and days; beside its namesake under another id and name. */
async function bringRig(db: Writing, from: string, to: string, now: Date): Promise<void> {
  const beside = from !== to;
  await db.run(
    `INSERT INTO main.rigs (id, name, document, revision, updatedAt, deletedAt)
      SELECT $1, CASE WHEN $3 THEN name || $4 ELSE name END,
        CASE WHEN $3 AND json_valid(document) THEN json_set(document, '$.name', name || $4) ELSE document END,
        revision, updatedAt, deletedAt FROM other.rigs WHERE id = $2 AND length(document) <= $5`,
    [to, from, beside ? 1 : 0, `, restored ${now.toISOString().slice(0, 10)}`, LONGEST_DOCUMENT],
  );
  for (const [table, columns] of [
    ['revisions', 'revision, document, savedAt, changes, summary'],
    ['measurements', 'id, takeId, kind, paths, takenAt'],
    ['photoRefs', 'revision, sha256'],
  ] as const)
    await db.run(
      `INSERT INTO main.${table} (rigId, ${columns}) SELECT $1, ${columns} FROM other.${table}
        WHERE rigId = $2 AND EXISTS (SELECT 1 FROM main.rigs WHERE id = $1)`,
      [to, from],
    );
  if (beside) await db.run(`${COPY_EVENTS}`, [to, from]);
}

/** Events of a rig beside its namesake are other events: each gets an id of its own, and marks taken back keep theirs. */
const COPY_EVENTS = `WITH fresh AS MATERIALIZED (
    SELECT seq, id, lower(hex(randomblob(4)) || '-' || hex(randomblob(2)) || '-4' || substr(hex(randomblob(2)), 2) || '-a' ||
      substr(hex(randomblob(2)), 2) || '-' || hex(randomblob(6))) newId FROM other.dayEvents WHERE rigId = $2)
  INSERT INTO main.dayEvents (id, rigId, sessionId, at, body, receivedAt)
  SELECT f.newId, $1, e.sessionId, e.at,
    CASE WHEN NOT json_valid(e.body) THEN e.body
      WHEN json_extract(e.body, '$.kind') = 'unmark' THEN json_set(e.body, '$.id', f.newId, '$.markId',
        ifnull((SELECT m.newId FROM fresh m WHERE m.id = json_extract(e.body, '$.markId')), json_extract(e.body, '$.markId')))
      ELSE json_set(e.body, '$.id', f.newId) END,
    e.receivedAt
  FROM other.dayEvents e JOIN fresh f ON f.seq = e.seq ORDER BY e.seq`;
