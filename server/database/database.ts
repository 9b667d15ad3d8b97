import { QueryTypes, Sequelize } from 'sequelize';
import sqlite3 from 'sqlite3';
import { storageProblem } from '../http/problem.ts';
import { defineModels, type Models } from './models.ts';

/** Time to wait for another process's lock, then reported: no request waits longer than three seconds. */
const BUSY_MS = 2500;
const WRITES = `PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL; PRAGMA busy_timeout=${BUSY_MS}; PRAGMA foreign_keys=ON; PRAGMA trusted_schema=OFF; PRAGMA journal_size_limit=67108864;`;
const READS = `PRAGMA busy_timeout=${BUSY_MS}; PRAGMA query_only=ON;`;
/** Maximum number of writes that share one commit. */
const MAX_TOGETHER = 64;

export interface Database {
  /** What was committed. */
  readonly models: Models;
  /** Reads by SQL of our own, with `$1`, `$2` for values. */
  read<T extends object>(sql: string, values?: readonly unknown[]): Promise<T[]>;
  /**
   * Runs a write to its end or not at all. Writes that wait share one commit, and so one turn of the disk; where one of them
   * fails, each is run again by itself. So a job touches nothing but the database.
   */
  write<T>(job: (db: Writing) => Promise<T>): Promise<T>;
  /** The same for what frees room: on a full disk it may use what is kept in reserve, and so always can be done. */
  free<T>(job: (db: Writing) => Promise<T>): Promise<T>;
  /** The same with another database beside it, under the name `other`: rows go from one to the other within SQLite. */
  writeBeside<T>(file: string, job: (db: Writing) => Promise<T>): Promise<T>;
  /** A copy of it as it is, into a new file. */
  copyTo(file: string): Promise<void>;
  /** How large it is. */
  bytes(): Promise<number>;
  close(): Promise<void>;
}
export interface Writing {
  readonly models: Models;
  read<T extends object>(sql: string, values?: readonly unknown[]): Promise<T[]>;
  /** @returns how many rows changed */
  run(sql: string, values?: readonly unknown[]): Promise<number>;
}

function connect(file: string, pragmas: string): Sequelize {
  /** Sequelize's own hook for new connections is never called on SQLite. */
  class Tuned extends sqlite3.Database {
    constructor(path: string, mode: number, done: (error: Error | null) => void) {
      super(path, mode, (error) => {
        if (error) done(error);
        else this.exec(pragmas, done);
      });
    }
  }
  return new Sequelize({
    dialect: 'sqlite',
    storage: file,
    dialectModule: { ...sqlite3, Database: Tuned },
    logging: false,
    retry: { max: 1 },
  });
}

/** Questions and changes in SQL of our own, through Sequelize. */
const inSql = (sequelize: Sequelize) => ({
  read: <T extends object>(sql: string, values: readonly unknown[] = []): Promise<T[]> =>
    sequelize.query<T>(sql, { bind: [...values], type: QueryTypes.SELECT, raw: true }),
  run: async (sql: string, values: readonly unknown[] = []): Promise<number> =>
    (await sequelize.query(sql, { bind: [...values], type: QueryTypes.BULKUPDATE })) as unknown as number,
});

interface Waiting {
  readonly job: (db: Writing) => Promise<unknown>;
  /** A database that is attached meanwhile. */
  readonly beside?: string;
  readonly frees?: true;
  readonly resolve: (value: unknown) => void;
  readonly reject: (error: unknown) => void;
}

/** @param onFull  what to give up when the disk is full, for writes that free room; true where there was something */
export async function openDatabase(
  file: string,
  onFull: () => Promise<boolean> = async () => false,
): Promise<Database> {
  const writer = connect(file, WRITES);
  const reader = connect(file, READS);
  // Sequentially: the second one finds the file, and the journal mode already set.
  await writer.authenticate();
  await reader.authenticate();
  const models = defineModels(reader);
  const { read } = inSql(reader);
  const writing: Writing = { models: defineModels(writer), ...inSql(writer) };
  const waiting: Waiting[] = [];
  let pumping: Promise<void> | null = null;

  const together = async (batch: readonly Waiting[]): Promise<void> => {
    const values: unknown[] = [];
    try {
      await writing.run('BEGIN IMMEDIATE');
      for (const { job } of batch) values.push(await job(writing));
      await writing.run('COMMIT');
    } catch (error) {
      await writing.run('ROLLBACK').catch(() => undefined);
      throw error;
    }
    for (const [i, { resolve }] of batch.entries()) resolve(values[i]);
  };
  /** A delete is retried after giving up the reserved space; anything else is refused with its reason. */
  const refuse =
    (one: Waiting) =>
    async (error: unknown): Promise<void> => {
      if (one.frees && storageProblem(error)?.status === 507 && (await onFull()))
        await together([one]).catch(one.reject);
      else one.reject(error);
    };
  const settle = async (batch: readonly Waiting[]): Promise<void> => {
    try {
      return await together(batch);
    } catch (error) {
      const problem = storageProblem(error);
      // With a locked database no request waits twice: those queued meanwhile are refused as well.
      if (problem?.status === 503) {
        for (const { reject } of [...batch, ...waiting.splice(0)]) reject(error);
        return;
      }
      // One of the batch failed: each is run by itself, so that none fails because of another.
      for (const one of batch) await (batch.length > 1 ? together([one]) : Promise.reject(error)).catch(refuse(one));
    }
  };
  const nextBatch = (): Waiting[] => {
    const apart = waiting.findIndex((w) => w.beside !== undefined);
    return waiting.splice(0, Math.min(MAX_TOGETHER, apart < 0 ? waiting.length : apart));
  };
  const settleBeside = async (one: Waiting): Promise<void> => {
    try {
      // No transaction may be open while another database is attached.
      await writing.run('ATTACH DATABASE $1 AS other', [one.beside]);
      try {
        await settle([one]);
      } finally {
        await writing.run('DETACH DATABASE other');
      }
    } catch (error) {
      one.reject(error);
    }
  };
  const pump = async (): Promise<void> => {
    // What is asked for in the same moment goes together.
    await new Promise((resolve) => setImmediate(resolve));
    while (waiting.length > 0)
      await (waiting[0]!.beside === undefined ? settle(nextBatch()) : settleBeside(waiting.shift()!));
    pumping = null;
  };
  const enqueue = <T>(job: (db: Writing) => Promise<T>, how: Pick<Waiting, 'beside' | 'frees'> = {}): Promise<T> =>
    new Promise<T>((resolve, reject) => {
      waiting.push({
        job,
        resolve: resolve as (value: unknown) => void,
        reject,
        ...how,
      });
      pumping ??= pump();
    });
  return {
    models,
    read,
    write: (job) => enqueue(job),
    free: (job) => enqueue(job, { frees: true }),
    writeBeside: (beside, job) => enqueue(job, { beside }),
    async copyTo(to) {
      // By a connection of its own: neither reads nor writes wait for it.
      const own = await new Promise<sqlite3.Database>((resolve, reject) => {
        const opened = new sqlite3.Database(file, (error) => (error ? reject(error) : resolve(opened)));
      });
      try {
        await new Promise<void>((resolve, reject) =>
          own.run('VACUUM INTO ?', [to], (error) => (error ? reject(error) : resolve())),
        );
      } finally {
        await new Promise<void>((resolve) => own.close(() => resolve()));
      }
    },
    async bytes() {
      const [row] = await read<{ bytes: number }>(
        'SELECT page_count * page_size bytes FROM pragma_page_count(), pragma_page_size()',
      );
      return row!.bytes;
    },
    async close() {
      while (pumping) await pumping;
      await reader.close();
      await writer.close();
    },
  };
}
