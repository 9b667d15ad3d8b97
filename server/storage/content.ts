import type { Database, Writing } from '../database/database.ts';
import type { Staged, Storage } from './storage.ts';

/** Files and the rows that speak of them, kept in step: a stop at any instant is mended by the next start. */
export interface Content {
  readonly storage: Storage;
  /** Writes the rows of staged files, then puts them in place: all of them, or none. Where the rows are refused, the bytes go. */
  keep<T>(staged: readonly Staged[], rows: (db: Writing) => Promise<T>, options?: KeepOptions): Promise<T>;
  /** Removes rows, and then the bytes that no row speaks of any more. */
  drop<T>(sha256: string, rows: (db: Writing) => Promise<T>): Promise<T>;
  /** Once, at the start: what a stop left half done is done. */
  mend(): Promise<void>;
}

interface KeepOptions {
  /** What becomes of bytes whose rows were refused, where they do not simply go. */
  readonly refused?: (staged: Staged, error: unknown) => Promise<void>;
  /** A database that rows are copied from: see `writeBeside`. */
  readonly beside?: string;
}

/** @param table  whose rows have a `sha256` of a file in this storage; its name is the storage's in the list of what is to go */
export function makeContent(database: Database, storage: Storage, table: 'takes' | 'photos'): Content {
  const countOf = async (db: Pick<Writing, 'read'>, sha256: string): Promise<number> => {
    const [row] = await db.read<{ n: number }>(`SELECT count(*) n FROM ${table} WHERE sha256 = $1`, [sha256]);
    return row?.n ?? 0;
  };
  const undoom = (db: Writing, sha256: string) =>
    db.run('DELETE FROM doomed WHERE folder = $1 AND sha256 = $2', [table, sha256]);

  /** Holds the queue of every content at once: always in the same order, so that two of these never wait for each other. */
  const allAlone = <T>(hashes: readonly string[], job: () => Promise<T>): Promise<T> => {
    const [first, ...rest] = hashes;
    return first === undefined ? job() : storage.alone(first, () => allAlone(rest, job));
  };
  const keep: Content['keep'] = async (staged, rows, { refused = storage.discard, beside } = {}) => {
    const hashes = [...new Set(staged.map((s) => s.sha256))].sort();
    try {
      return await allAlone(hashes, async () => {
        const job = async (db: Writing) => {
          const done = await rows(db);
          for (const sha256 of hashes) await undoom(db, sha256);
          return done;
        };
        const value = await (beside === undefined ? database.write(job) : database.writeBeside(beside, job));
        for (const one of staged) {
          if ((await countOf(database, one.sha256)) > 0) await storage.settle(one);
          else await storage.discard(one);
        }
        return value;
      });
    } catch (error) {
      for (const one of staged) await refused(one, error);
      throw error;
    }
  };
  return {
    storage,
    keep,
    drop: (sha256, rows) =>
      storage.alone(sha256, async () => {
        const { value, left } = await database.free(async (db) => {
          const done = await rows(db);
          const others = await countOf(db, sha256);
          if (others === 0)
            await db.run('INSERT OR IGNORE INTO doomed (folder, sha256) VALUES ($1, $2)', [table, sha256]);
          return { value: done, left: others };
        });
        if (left === 0) {
          await storage.remove(sha256);
          // Once the bytes are deleted, a file of the same content put there later is a different one. Otherwise the next start reports it.
          if (!storage.isRead(sha256)) await database.free((db) => undoom(db, sha256)).catch(() => undefined);
        }
        return value;
      }),
    async mend() {
      const rows = await database.read<{ sha256: string }>(`SELECT DISTINCT sha256 FROM ${table}`);
      const wanted = new Set(rows.map((r) => r.sha256));
      await storage.mend(wanted);
      const doomed = await database.read<{ sha256: string }>('SELECT sha256 FROM doomed WHERE folder = $1', [table]);
      for (const { sha256 } of doomed) if (!wanted.has(sha256)) await storage.remove(sha256);
      if (doomed.length > 0) await database.free((db) => db.run('DELETE FROM doomed WHERE folder = $1', [table]));
    },
  };
}
