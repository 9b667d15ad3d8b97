import { createWriteStream } from 'node:fs';
import { mkdir, readdir, rename, rm, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import type { Copies } from '#api/index.ts';
import { server as say } from '#words/index.ts';
import { openZip, textOf } from '../archive/open.ts';
import { notFound } from '../http/problem.ts';
import { freeBytes } from '../storage/reserve.ts';
import { type BackupParts, stampOf, takeSnapshot } from './make.ts';
import { BACKUP_MANIFEST, BackupManifest } from './manifest.ts';

/** Copies that are kept by themselves: one for each day on which something changed. */
export interface DailyCopies {
  /** Makes today's where something changed since the last one. @returns whether one was made */
  keep(): Promise<boolean>;
  list(): Promise<Copies>;
  /** Path of a copy. @throws HttpProblem 404 where none has that name */
  pathOf(name: string): Promise<string>;
}

const KEPT = 7;
/** Free space needed, in sizes of the database: its copy, the zip of it, and as much in reserve. */
const ROOM = 3;
const NAME = /^mellow-tap-(\d{4}-\d{2}-\d{2})\.zip$/;
const MARK = 'mellow-tap-copies.json';
const LARGEST_MANIFEST_BYTES = 200_000_000;

/** @param withTakes  in a folder on another disk takes come along; within the data folder they are on the same disk anyway */
export function dailyCopies(parts: BackupParts, folder: string, withTakes: boolean): DailyCopies {
  const names = async (): Promise<string[]> =>
    (await readdir(folder).catch(() => [])).filter((name) => NAME.test(name)).sort();
  return {
    async keep() {
      await mkdir(folder, { recursive: true });
      await writeFile(join(folder, MARK), `${JSON.stringify({ kind: 'mellow-tap-copies', version: 1 })}\n`);
      const name = `mellow-tap-${parts.now().toISOString().slice(0, 10)}.zip`;
      const last = (await names()).at(-1);
      if (last && (last >= name || (await stampIn(join(folder, last))) === (await stampOf(parts.database))))
        return false;
      // A copy must not be what fills the disk.
      if ((await freeBytes(folder)) < ROOM * (await parts.database.bytes())) return false;
      const snapshot = await takeSnapshot(parts, withTakes);
      const path = join(folder, name);
      try {
        await pipeline((await snapshot.read()).stream, createWriteStream(`${path}.new`, { flush: true }));
        await rename(`${path}.new`, path);
      } finally {
        await snapshot.release();
        await rm(`${path}.new`, { force: true });
      }
      for (const old of (await names()).slice(0, -KEPT)) await rm(join(folder, old), { force: true });
      return true;
    },
    async pathOf(name) {
      if (!(await names()).includes(name)) throw notFound(say.thisCopy());
      return join(folder, name);
    },
    async list() {
      const copies: Copies['copies'] = [];
      for (const name of (await names()).reverse()) {
        const found = await stat(join(folder, name));
        copies.push({ name, bytes: found.size, madeAt: found.mtime.toISOString() });
      }
      return { folder, withTakes, copies };
    },
  };
}

/** The stamp of a copy; null for one that can't be read, which is as good as none. */
async function stampIn(path: string): Promise<string | null> {
  try {
    const archive = await openZip(path);
    try {
      return BackupManifest.parse(JSON.parse(await textOf(archive, BACKUP_MANIFEST, LARGEST_MANIFEST_BYTES))).stamp;
    } finally {
      await archive.close();
    }
  } catch {
    return null;
  }
}
