import { createHash, randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { server as say } from '#words/index.ts';
import { type Zip, type ZipPart, zipOf } from '../archive/zip.ts';
import type { Database } from '../database/database.ts';
import type { Content } from '../storage/content.ts';
import type { Lent } from '../storage/storage.ts';
import { BACKUP_DATABASE, BACKUP_MANIFEST, type BackupManifest, fileIn } from './manifest.ts';

export interface BackupParts {
  readonly database: Database;
  readonly takeContent: Content;
  readonly photoContent: Content;
  /** Path of the database's copy while the backup is read. */
  readonly scratch: string;
  readonly now: () => Date;
}

/** The whole desk as it was at one instant: it can be read as often as one likes, and is the same each time. */
export interface Snapshot {
  readonly manifest: BackupManifest;
  readonly name: string;
  /** A zip, streamed; not squeezed. */
  read(): Promise<Zip>;
  /** Its files may go now. */
  release(): Promise<void>;
}

/** @param withTakes  whether the bytes of takes come along */
export async function takeSnapshot(parts: BackupParts, withTakes: boolean): Promise<Snapshot> {
  const { database, takeContent, photoContent, scratch, now } = parts;
  const copy = join(scratch, `${randomUUID()}.sqlite`);
  const lent: { folder: 'takes' | 'photos'; sha256: string; held: Lent }[] = [];
  const without: string[] = [];
  const release = async (): Promise<void> => {
    for (const { held } of lent) held.giveBack();
    await rm(copy, { force: true });
  };
  try {
    // The database first: what is deleted after it is missing, what comes after it is not spoken of.
    await database.copyTo(copy);
    const madeAt = now();
    for (const [folder, content] of [
      ['takes', takeContent],
      ['photos', photoContent],
    ] as const)
      for (const { sha256 } of await database.read<{ sha256: string }>(
        `SELECT DISTINCT sha256 FROM ${folder} ORDER BY sha256`,
      )) {
        const held = folder === 'takes' && !withTakes ? null : await content.storage.lend(sha256);
        if (held) lent.push({ folder, sha256, held });
        else if (folder === 'takes') without.push(sha256);
      }
    const [counts] = await database.read<{ rigs: number; revisions: number; takes: number; photographs: number }>(
      `SELECT (SELECT count(*) FROM rigs) rigs, (SELECT count(*) FROM revisions) revisions,
        (SELECT count(*) FROM takes) takes, (SELECT count(*) FROM photos) photographs`,
    );
    const manifest: BackupManifest = {
      kind: 'mellow-tap-backup',
      version: 1,
      madeAt: madeAt.toISOString(),
      ...counts!,
      stamp: await stampOf(database),
      database: { bytes: (await stat(copy)).size, sha256: await hashOf(copy) },
      files: lent.map(({ folder, sha256, held }) => ({ folder, sha256, bytes: held.bytes })),
      without,
    };
    return {
      manifest,
      name: `Mellow Tap ${madeAt.toISOString().slice(0, 16).replace(/[:T]/g, '-')}.zip`,
      async read() {
        const own = (path: string, bytes: number): Lent => ({ path, bytes, giveBack: () => undefined });
        const zipped: ZipPart[] = [
          { file: BACKUP_MANIFEST, text: JSON.stringify(manifest) },
          { file: 'READ ME.txt', text: say.backupReadme() },
          { file: BACKUP_DATABASE, lent: own(copy, manifest.database.bytes) },
          ...lent.map(
            ({ folder, sha256, held }): ZipPart => ({
              file: fileIn({ folder, sha256, bytes: 0 }),
              lent: own(held.path, held.bytes),
            }),
          ),
        ];
        return zipOf(zipped, madeAt);
      },
      release,
    };
  } catch (error) {
    await release();
    throw error;
  }
}

/** What changes whenever anything of the desk does. */
export async function stampOf(database: Pick<Database, 'read'>): Promise<string> {
  const [row] = await database.read<{ stamp: string }>(
    `SELECT (SELECT count(*) || ' ' || ifnull(max(updatedAt), '') || ' ' || ifnull(sum(revision), 0) || ' ' || count(deletedAt) FROM rigs)
      || ' ' || (SELECT count(*) || ' ' || ifnull(max(addedAt), '') || ' ' || ifnull(sum(revision), 0) FROM takes)
      || ' ' || (SELECT ifnull(max(seq), 0) || ' ' || count(*) FROM dayEvents)
      || ' ' || (SELECT count(*) FROM photos) stamp`,
  );
  return row!.stamp;
}

export async function hashOf(path: string): Promise<string> {
  const hash = createHash('sha256');
  for await (const piece of createReadStream(path, { highWaterMark: 1024 * 1024 })) hash.update(piece as Buffer);
  return hash.digest('hex');
}
