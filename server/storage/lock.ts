import { readFile, rename, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import sqlite3 from 'sqlite3';
import { z } from 'zod';
import { server as say } from '#words/index.ts';
import { StartError } from '../http/problem.ts';

/** Who has a data folder open. */
export const Holder = z.object({ pid: z.int(), url: z.string().nullable(), since: z.string() });
export type Holder = z.infer<typeof Holder>;

/** The data folder is open in another process. */
export class HeldError extends StartError {
  readonly holder: Holder | null;
  constructor(root: string, holder: Holder | null) {
    super(
      say.dataFolderIsOpen({
        root,
        where: holder ? say.byProcess({ pid: holder.pid, url: holder.url ? `, ${holder.url}` : '' }) : '',
      }),
    );
    this.name = 'HeldError';
    this.holder = holder;
  }
}

export interface Lock {
  /** Tells the next process where this server answers. */
  tell(holder: Holder): Promise<void>;
  release(): Promise<void>;
}

const LOCK = 'lock.sqlite';
const HOLDER = 'running.json';

/**
 * Holds a data folder for this process alone. The lock is one that the operating system keeps on a file (SQLite's, which
 * is portable): it goes with the process, however that ends, so that there is no stale one to remove.
 * @throws HeldError where another process has it, with what is known of that one
 */
export async function holdFolder(root: string): Promise<Lock> {
  const told = join(root, HOLDER);
  const database = await new Promise<sqlite3.Database>((resolve, reject) => {
    const opened = new sqlite3.Database(join(root, LOCK), (error) => (error ? reject(error) : resolve(opened)));
  });
  const close = () => new Promise<void>((resolve) => database.close(() => resolve()));
  try {
    await new Promise<void>((resolve, reject) =>
      database.exec('PRAGMA busy_timeout = 0; BEGIN EXCLUSIVE', (error) => (error ? reject(error) : resolve())),
    );
  } catch (error) {
    await close();
    if ((error as { code?: string }).code !== 'SQLITE_BUSY') throw error;
    throw new HeldError(root, await readHolder(told));
  }
  // What the last one said of itself is over.
  await rm(told, { force: true });
  return {
    async tell(holder) {
      await writeFile(`${told}.new`, `${JSON.stringify(holder)}\n`);
      await rename(`${told}.new`, told);
    },
    async release() {
      await rm(told, { force: true });
      await close();
    },
  };
}

const readHolder = (path: string): Promise<Holder | null> =>
  readFile(path, 'utf8').then(
    (text) => Holder.safeParse(JSON.parse(text)).data ?? null,
    () => null,
  );

const LOOK_MS = 100;

/** Who holds it, once that one has said so; null where it does not within the time. */
export async function holderOf(root: string, withinMs: number): Promise<Holder | null> {
  for (let waitedMs = 0; ; waitedMs += LOOK_MS) {
    const holder = await readHolder(join(root, HOLDER));
    if (holder || waitedMs >= withinMs) return holder;
    await new Promise((resolve) => setTimeout(resolve, LOOK_MS));
  }
}
