import { createHash, randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { access, mkdir, open, readdir, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { type Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { HttpProblem } from './problem.ts';

/** Files on disk, each under the hash of its content: written aside, made safe, then moved in one step. */
export interface Storage {
  /** @throws HttpProblem 413 over the limit, 400 when nothing came or it broke off */
  keep(body: Readable, promisedBytes: number | null): Promise<{ sha256: string; bytes: number }>;
  pathOf(sha256: string): string;
  has(sha256: string): Promise<boolean>;
  remove(sha256: string): Promise<void>;
  /** All that is stored; what was left half-written by a stop is removed. */
  sweep(): Promise<string[]>;
}

const PART = '.part';

/** What is kept there, for the sentences: 'The take', and what to do about one that is too large. */
export interface Kept {
  readonly what: string;
  readonly largestBytes: number;
  readonly whenTooLarge: string;
}

export async function openStorage(folder: string, { what, largestBytes, whenTooLarge }: Kept): Promise<Storage> {
  const tooLarge = () => new HttpProblem(413, 'Too large', `${what} is larger than ${whenTooLarge}`);
  const brokenOff = () =>
    new HttpProblem(400, 'Broken off', `${what} did not arrive whole. Nothing was kept: choose the file again.`);
  await mkdir(folder, { recursive: true });
  const pathOf = (sha256: string) => join(folder, sha256);
  return {
    pathOf,
    async keep(body, promisedBytes) {
      if (promisedBytes !== null && promisedBytes > largestBytes) throw tooLarge();
      const part = join(folder, `${randomUUID()}${PART}`);
      const hash = createHash('sha256');
      let bytes = 0;
      const count = new Transform({
        transform(chunk: Buffer, _encoding, done) {
          bytes += chunk.length;
          hash.update(chunk);
          done(bytes > largestBytes ? tooLarge() : null, chunk);
        },
      });
      try {
        await pipeline(body, count, createWriteStream(part));
        if (bytes === 0) throw new HttpProblem(400, 'Empty', `${what} is empty: no byte came. Choose the file again.`);
        if (promisedBytes !== null && bytes !== promisedBytes) throw brokenOff();
        await sync(part);
        const sha256 = hash.digest('hex');
        await rename(part, pathOf(sha256));
        await sync(folder);
        return { sha256, bytes };
      } catch (error) {
        await rm(part, { force: true });
        throw (error as { code?: string }).code === 'ERR_STREAM_PREMATURE_CLOSE' ||
          (error as { code?: string }).code === 'ECONNRESET'
          ? brokenOff()
          : error;
      }
    },
    has: (sha256) =>
      access(pathOf(sha256)).then(
        () => true,
        () => false,
      ),
    remove: (sha256) => rm(pathOf(sha256), { force: true }),
    async sweep() {
      const names = await readdir(folder);
      await Promise.all(names.filter((n) => n.endsWith(PART)).map((n) => rm(join(folder, n), { force: true })));
      return names.filter((n) => !n.endsWith(PART));
    },
  };
}

async function sync(path: string): Promise<void> {
  const handle = await open(path, 'r');
  await handle.sync();
  await handle.close();
}
