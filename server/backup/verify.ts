import { existsSync } from 'node:fs';
import { readdir, stat } from 'node:fs/promises';
import { join } from 'node:path';
import sqlite3 from 'sqlite3';
import { parseRigText, RigError } from '#core/model/rig/index.ts';
import { server as say } from '#words/index.ts';
import { hashOf } from './make.ts';

export interface Verified {
  readonly rigs: number;
  readonly revisions: number;
  readonly takes: number;
  readonly photographs: number;
  readonly bytes: number;
  readonly faults: readonly string[];
}

const HASH = /^[0-9a-f]{64}$/;

/**
 * Looks at all that a data folder holds: the database in itself, every file against its hash, what speaks of what. It only
 * reads, beside a server that runs too.
 */
export async function verifyFolder(root: string): Promise<Verified> {
  const file = join(root, 'mellow.sqlite');
  const faults: string[] = [];
  if (!existsSync(file))
    return { rigs: 0, revisions: 0, takes: 0, photographs: 0, bytes: 0, faults: [say.thereIsNoDatabase({ root })] };
  const database = await new Promise<sqlite3.Database>((resolve, reject) => {
    const opened = new sqlite3.Database(file, sqlite3.OPEN_READONLY, (error) =>
      error ? reject(error) : resolve(opened),
    );
  });
  const read = <T>(sql: string): Promise<T[]> =>
    new Promise((resolve, reject) =>
      database.all(sql, (error: Error | null, rows: T[]) => (error ? reject(error) : resolve(rows))),
    );
  try {
    for (const { integrity_check: says } of await read<{ integrity_check: string }>('PRAGMA integrity_check'))
      if (says !== 'ok') faults.push(say.databaseIsDamaged({ says }));
    for (const { table, rowid } of await read<{ table: string; rowid: number }>('PRAGMA foreign_key_check'))
      faults.push(say.rowBelongsToSomething({ rowid, table }));
    const rigs = await read<{ name: string; document: string }>(
      'SELECT name, document FROM rigs WHERE deletedAt IS NULL',
    );
    for (const { name, document } of rigs) {
      try {
        parseRigText(document);
      } catch (error) {
        if (!(error instanceof RigError)) throw error;
        faults.push(say.rigCantBeRead({ name, message: error.message }));
      }
    }
    const takes = await read<{ name: string; sha256: string; bytes: number }>('SELECT name, sha256, bytes FROM takes');
    const photos = await read<{ sha256: string; bytes: number }>('SELECT sha256, bytes FROM photos');
    let bytes = (await stat(file)).size;
    const seen = new Set<string>();
    for (const { folder, name, sha256, size } of [
      ...takes.map((t) => ({
        folder: 'takes',
        name: say.namedTake({ name: t.name }),
        sha256: t.sha256,
        size: t.bytes,
      })),
      ...photos.map((p) => ({
        folder: 'photos',
        name: say.photoOf({ id: p.sha256.slice(0, 8) }),
        sha256: p.sha256,
        size: p.bytes,
      })),
    ]) {
      const path = join(root, folder, sha256);
      if (seen.has(path)) continue;
      seen.add(path);
      const found = await stat(path).catch(() => null);
      if (!found) faults.push(say.hasNoFile({ name }));
      else if (found.size !== size) faults.push(say.hasBytesAndHad({ name, now: found.size, before: size }));
      else if ((await hashOf(path)) !== sha256) faults.push(say.isNotWhatIt({ name }));
      bytes += found?.size ?? 0;
    }
    for (const { sha256 } of await read<{ sha256: string }>(
      'SELECT DISTINCT sha256 FROM photoRefs WHERE sha256 NOT IN (SELECT sha256 FROM photos)',
    ))
      faults.push(say.rigShowsPhotoWhich({ id: sha256.slice(0, 8) }));
    for (const name of await readdir(join(root, 'takes')).catch(() => []))
      if (HASH.test(name) && !takes.some((t) => t.sha256 === name))
        faults.push(say.noTakeRefersTo({ id: name.slice(0, 8) }));
    const [revisions] = await read<{ n: number }>('SELECT count(*) n FROM revisions');
    return {
      rigs: rigs.length,
      revisions: revisions!.n,
      takes: takes.length,
      photographs: photos.length,
      bytes,
      faults,
    };
  } finally {
    await new Promise((resolve) => database.close(resolve));
  }
}
