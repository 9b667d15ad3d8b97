import { createHash, type Hash, randomUUID } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { mkdir, open, readdir, rename, rm, stat, truncate } from 'node:fs/promises';
import { join } from 'node:path';
import { type Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { server as say } from '#words/index.ts';
import { HttpProblem } from '../http/problem.ts';
import { makeQueues } from './queues.ts';

/** Bytes that were received completely and wait for their row: not yet in their final place. */
export interface Staged {
  readonly sha256: string;
  readonly bytes: number;
  readonly path: string;
}
/** A file that is read: it stays until it is given back, whatever is deleted meanwhile. */
export interface Lent {
  readonly path: string;
  readonly bytes: number;
  giveBack(): void;
}

/**
 * Files on disk, named by the hash of their content. They are written in two steps, with the row in the database between:
 * staged aside and made safe; then, once the row is there, settled into place. They go in two as well: the row first,
 * then the bytes. So a stop at any instant leaves rows whose bytes can be put in place, and bytes that no row waits for.
 */
export interface Storage {
  /** @throws HttpProblem 413 over the limit, 400 when nothing was received or it was interrupted */
  stage(body: Readable, promisedBytes: number | null): Promise<Staged>;
  /** How much of an upload is there. */
  reached(id: string): Promise<number>;
  /** Appends to an upload at the offset it has reached, and keeps what was received even if interrupted. @throws HttpProblem 409 for another offset */
  append(id: string, at: number, body: Readable, totalBytes: number): Promise<number>;
  /** An upload that is whole becomes a staged file. */
  finish(id: string): Promise<Staged>;
  /** A staged file becomes an upload again, whole: its row could not be written now, and it need not be sent again. */
  unfinish(staged: Staged, id: string): Promise<void>;
  discard(staged: Staged): Promise<void>;
  /** A file that was made elsewhere on the same disk, its hash known. */
  adopt(path: string, sha256: string, bytes: number): Promise<Staged>;
  /** One job at a time for each content: what settles and what removes never meet. */
  alone<T>(sha256: string, job: () => Promise<T>): Promise<T>;
  /** Within `alone`: into its place. */
  settle(staged: Staged): Promise<void>;
  /** Within `alone`: for good, once no one reads it. */
  remove(sha256: string): Promise<void>;
  lend(sha256: string): Promise<Lent | null>;
  has(sha256: string): boolean;
  /** Whether someone reads it just now. */
  isRead(sha256: string): boolean;
  /** Hashes of all that is in its place; what someone has put there meanwhile, too. */
  list(): Promise<string[]>;
  /** Puts staged files in place whose rows wait for them, and drops the other ones. Once, at the start. */
  mend(wanted: ReadonlySet<string>): Promise<void>;
  /** Drops uploads that were abandoned for this long. */
  dropOlderThan(ms: number): Promise<void>;
}

/** What is kept there, for the sentences: 'The take', and what to do about one that is too large. */
export interface Kept {
  readonly folder: string;
  /** Folder for uploads. */
  readonly incoming: string;
  readonly what: string;
  readonly largestBytes: number;
  readonly whenTooLarge: string;
}

const HASH = /^[0-9a-f]{64}$/;
const UUID = '[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}';
const PART = new RegExp(`^${UUID}\\.part$`);
const WHOLE = new RegExp(`^([0-9a-f]{64})\\.${UUID}\\.whole$`);

export async function openStorage({ folder, incoming, what, largestBytes, whenTooLarge }: Kept): Promise<Storage> {
  const tooLarge = () => new HttpProblem(413, say.tooLarge(), say.isLargerThan({ what, limit: whenTooLarge }));
  const brokenOff = () => new HttpProblem(400, say.brokenOff(), say.didNotArriveWhole({ what }));
  await mkdir(folder, { recursive: true });
  await mkdir(incoming, { recursive: true });
  const queues = makeQueues();
  const there = new Set(await hashesIn(folder));
  const readers = new Map<string, number>();
  const going = new Set<string>();
  /** Hashes of uploads under way, each up to the place that was reached. */
  const hashes = new Map<string, { hash: Hash; at: number }>();
  const pathOf = (sha256: string) => join(folder, sha256);
  const partOf = (id: string) => join(incoming, `${id}.part`);
  const unlink = async (sha256: string): Promise<void> => {
    going.delete(sha256);
    there.delete(sha256);
    await rm(pathOf(sha256), { force: true });
  };
  const wholeFrom = async (part: string, sha256: string, bytes: number): Promise<Staged> => {
    const path = join(incoming, `${sha256}.${randomUUID()}.whole`);
    await rename(part, path);
    await sync(incoming);
    return { sha256, bytes, path };
  };

  /** Uploads in progress: a request that resumes one takes over from a request that hangs. */
  const running = new Map<string, AbortController>();
  const append: Storage['append'] = (id, at, body, totalBytes) => {
    running.get(id)?.abort();
    const mine = new AbortController();
    running.set(id, mine);
    return queues.alone(id, async () => {
      if (totalBytes > largestBytes) throw tooLarge();
      const part = partOf(id);
      const reached = await sizeOf(part);
      if (at !== reached)
        throw new HttpProblem(409, say.anotherPlace(), say.hasArrivedUpTo({ what, reached }), {
          at: reached,
        });
      const known = hashes.get(id);
      const soFar = known?.at === at ? known : at === 0 ? { hash: createHash('sha256'), at: 0 } : null;
      if (soFar) hashes.set(id, soFar);
      const tooMuch = () => new HttpProblem(400, say.tooMuch(), say.isLongerThanWas({ what }));
      try {
        await pipeline(body, counter(totalBytes - at, soFar, tooMuch), createWriteStream(part, { flags: 'a' }), {
          signal: mine.signal,
        });
      } catch (error) {
        // What was received is kept, and its hash is computed again from disk.
        hashes.delete(id);
        if (error instanceof HttpProblem) await truncate(part, reached).catch(() => undefined);
        throw isBreak(error) ? brokenOff() : error;
      } finally {
        if (running.get(id) === mine) running.delete(id);
      }
      return sizeOf(part);
    });
  };

  return {
    async stage(body, promisedBytes) {
      if (promisedBytes !== null && promisedBytes > largestBytes) throw tooLarge();
      const part = partOf(randomUUID());
      const running = { hash: createHash('sha256'), at: 0 };
      try {
        await pipeline(body, counter(largestBytes, running, tooLarge), createWriteStream(part));
        const bytes = running.at;
        if (bytes === 0) throw new HttpProblem(400, say.empty(), say.isEmptyNoByte({ what }));
        if (promisedBytes !== null && bytes !== promisedBytes) throw brokenOff();
        await sync(part);
        return await wholeFrom(part, running.hash.digest('hex'), bytes);
      } catch (error) {
        await rm(part, { force: true });
        throw isBreak(error) ? brokenOff() : error;
      }
    },
    reached: (id) => sizeOf(partOf(id)),
    append,
    finish: (id) =>
      queues.alone(id, async () => {
        const part = partOf(id);
        const bytes = await sizeOf(part);
        const known = hashes.get(id);
        hashes.delete(id);
        const hash = known?.at === bytes ? known.hash : createHash('sha256');
        if (known?.at !== bytes) for await (const piece of createReadStream(part)) hash.update(piece as Buffer);
        await sync(part);
        return wholeFrom(part, hash.digest('hex'), bytes);
      }),
    unfinish: ({ path }, id) => queues.alone(id, () => rename(path, partOf(id))),
    adopt: wholeFrom,
    discard: ({ path }) => rm(path, { force: true }),
    alone: (sha256, job) => queues.alone(sha256, job),
    async settle({ sha256, path }) {
      // It is needed again: its present reader no longer deletes it when done.
      going.delete(sha256);
      if (there.has(sha256)) return rm(path, { force: true });
      await rename(path, pathOf(sha256));
      await sync(folder);
      there.add(sha256);
    },
    async remove(sha256) {
      if ((readers.get(sha256) ?? 0) === 0) return unlink(sha256);
      going.add(sha256);
    },
    lend: (sha256) =>
      queues.alone(sha256, async () => {
        if (!there.has(sha256) || going.has(sha256)) return null;
        const path = pathOf(sha256);
        const bytes = await sizeOf(path);
        if (bytes === 0) return null;
        readers.set(sha256, (readers.get(sha256) ?? 0) + 1);
        let back = false;
        return {
          path,
          bytes,
          giveBack() {
            if (back) return;
            back = true;
            const left = (readers.get(sha256) ?? 1) - 1;
            if (left > 0) readers.set(sha256, left);
            else readers.delete(sha256);
            if (left === 0 && going.has(sha256))
              queues
                .alone(sha256, async () => {
                  if (going.has(sha256) && !readers.has(sha256)) await unlink(sha256);
                })
                .catch(() => undefined);
          },
        };
      }),
    has: (sha256) => there.has(sha256) && !going.has(sha256),
    isRead: (sha256) => readers.has(sha256),
    async list() {
      for (const name of await hashesIn(folder)) there.add(name);
      return [...there];
    },
    async mend(wanted) {
      for (const name of await readdir(incoming)) {
        const sha256 = WHOLE.exec(name)?.[1];
        if (sha256 === undefined) continue;
        const path = join(incoming, name);
        if (wanted.has(sha256) && !there.has(sha256)) {
          await rename(path, pathOf(sha256));
          there.add(sha256);
        } else await rm(path, { force: true });
      }
      await sync(folder);
    },
    async dropOlderThan(ms) {
      const before = Date.now() - ms;
      for (const name of await readdir(incoming)) {
        if (!PART.test(name)) continue;
        const id = name.slice(0, -'.part'.length);
        await queues.alone(id, async () => {
          const found = await stat(partOf(id)).catch(() => null);
          if (found && found.mtimeMs < before) await rm(partOf(id), { force: true });
        });
      }
    },
  };
}

/** Files with names of our own: whatever else is there is none of our business. */
const hashesIn = async (folder: string): Promise<string[]> =>
  (await readdir(folder, { withFileTypes: true })).filter((f) => f.isFile() && HASH.test(f.name)).map((f) => f.name);

/** Counts and hashes what passes. */
function counter(most: number, running: { hash: Hash; at: number } | null, tooMuch: () => Error): Transform {
  let passed = 0;
  return new Transform({
    transform(chunk: Buffer, _encoding, done) {
      passed += chunk.length;
      if (passed > most) return done(tooMuch());
      if (running) {
        running.hash.update(chunk);
        running.at += chunk.length;
      }
      done(null, chunk);
    },
  });
}

const BREAKS = new Set(['ERR_STREAM_PREMATURE_CLOSE', 'ECONNRESET', 'ECONNABORTED', 'ABORT_ERR']);
const isBreak = (error: unknown): boolean => BREAKS.has((error as { code?: string }).code ?? '');

const sizeOf = (path: string): Promise<number> =>
  stat(path).then(
    (s) => s.size,
    () => 0,
  );

async function sync(path: string): Promise<void> {
  const handle = await open(path, 'r');
  try {
    await handle.sync();
  } finally {
    await handle.close();
  }
}
