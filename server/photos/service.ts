import { open, rm } from 'node:fs/promises';
import type { Readable } from 'node:stream';
import type { PhotoRecord } from '#api/index.ts';
import { server as say } from '#words/index.ts';
import type { Database, Writing } from '../database/database.ts';
import { HttpProblem, notFound } from '../http/problem.ts';
import type { Content } from '../storage/content.ts';
import type { Lent, Staged } from '../storage/storage.ts';

export interface PhotoService {
  /** @throws HttpProblem 415 where the bytes are no picture that browsers show */
  add(body: Readable, promisedBytes: number | null): Promise<PhotoRecord>;
  /** Its bytes and what they are: they stay until they are given back. */
  lend(sha256: string): Promise<Lent & { readonly type: string }>;
  /** @throws HttpProblem 415, as above; the staged bytes are dropped then */
  checkPicture(staged: Pick<Staged, 'path'>): Promise<void>;
  /** Writes the row of a photograph within a write of someone else's. */
  addWithin(db: Writing, photo: PhotoRecord): Promise<void>;
  /** Adds rows for referenced files of before there were rows. Once, at the start. */
  adopt(): Promise<void>;
  /** Deletes photographs that no kept version of a rig references, a day after they were received. */
  tidy(): Promise<void>;
}

/** How a picture begins; nothing else is taken, and nothing is shown as what it is not. */
const KINDS: readonly { readonly type: string; readonly begins: (head: Buffer) => boolean }[] = [
  { type: 'image/jpeg', begins: (h) => h[0] === 0xff && h[1] === 0xd8 && h[2] === 0xff },
  { type: 'image/png', begins: (h) => h.subarray(0, 8).equals(Buffer.from('\x89PNG\r\n\x1a\n', 'latin1')) },
  {
    type: 'image/webp',
    begins: (h) => h.toString('latin1', 0, 4) === 'RIFF' && h.toString('latin1', 8, 12) === 'WEBP',
  },
];
const HEAD_BYTES = 12;
/** A new photograph is not yet in any saved rig: it is kept for this time, ms. */
const GRACE_MS = 24 * 3_600_000;

async function typeOf(path: string): Promise<string | null> {
  const handle = await open(path, 'r');
  try {
    const head = Buffer.alloc(HEAD_BYTES);
    await handle.read(head, 0, HEAD_BYTES, 0);
    return KINDS.find((k) => k.begins(head))?.type ?? null;
  } finally {
    await handle.close();
  }
}

export function photoService(database: Database, content: Content, now: () => Date): PhotoService {
  const { storage } = content;
  const addWithin: PhotoService['addWithin'] = async (db, { sha256, bytes }) => {
    await db.run(
      `INSERT INTO photos (sha256, bytes, addedAt) VALUES ($1, $2, $3)
       ON CONFLICT (sha256) DO UPDATE SET addedAt = excluded.addedAt`,
      [sha256, bytes, now().toISOString()],
    );
  };
  const checkPicture: PhotoService['checkPicture'] = async (staged) => {
    if (await typeOf(staged.path)) return;
    await rm(staged.path, { force: true });
    throw new HttpProblem(415, say.noPicture(), say.fileIsNoJpeg());
  };
  return {
    async add(body, promisedBytes) {
      const staged = await storage.stage(body, promisedBytes);
      await checkPicture(staged);
      const photo = { sha256: staged.sha256, bytes: staged.bytes };
      await content.keep([staged], (db) => addWithin(db, photo));
      return photo;
    },
    async lend(sha256) {
      const lent = await storage.lend(sha256);
      const type = lent && (await typeOf(lent.path));
      if (!type) {
        lent?.giveBack();
        throw notFound(say.thePhoto());
      }
      return { ...lent, type };
    },
    checkPicture,
    addWithin,
    async adopt() {
      const rows = await database.read<{ sha256: string }>(
        'SELECT DISTINCT sha256 FROM photoRefs WHERE sha256 NOT IN (SELECT sha256 FROM photos)',
      );
      for (const { sha256 } of rows) {
        const lent = await storage.lend(sha256);
        lent?.giveBack();
        if (lent) await database.write((db) => addWithin(db, { sha256, bytes: lent.bytes }));
      }
    },
    async tidy() {
      const before = new Date(now().getTime() - GRACE_MS).toISOString();
      const idle = 'sha256 = $1 AND addedAt < $2 AND sha256 NOT IN (SELECT sha256 FROM photoRefs)';
      const rows = await database.read<{ sha256: string }>(
        'SELECT sha256 FROM photos WHERE addedAt < $1 AND sha256 NOT IN (SELECT sha256 FROM photoRefs)',
        [before],
      );
      for (const { sha256 } of rows)
        await content.drop(sha256, (db) => db.run(`DELETE FROM photos WHERE ${idle}`, [sha256, before]));
    },
  };
}
