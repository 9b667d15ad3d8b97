import { randomUUID } from 'node:crypto';
import type { Readable } from 'node:stream';
import { Transform } from 'node:stream';
import type { BackupReady, Restored } from '#api/index.ts';
import { server as say } from '#words/index.ts';
import { HttpProblem, notFound } from '../http/problem.ts';
import type { Staged, Storage } from '../storage/storage.ts';
import { type Snapshot, takeSnapshot } from './make.ts';
import { previewRestore, type RestoreParts, restore } from './restore.ts';

/** Backups that are downloaded, and backups that are uploaded to be restored. */
export interface BackupService {
  /** Makes one ready: it stays the same while it is downloaded, in as many goes as it takes. */
  make(): Promise<BackupReady>;
  head(id: string): Promise<{ readonly name: string; readonly bytes: number }>;
  /** From a byte on. */
  read(id: string, from: number): Promise<Readable>;
  release(id: string): Promise<void>;
  reached(id: string): Promise<number>;
  /** Appends a piece to an upload. @returns the offset reached */
  addPiece(id: string, at: number, totalBytes: number, body: Readable): Promise<number>;
  preview(id: string): Promise<Restored>;
  restore(id: string): Promise<Restored>;
  discard(id: string): Promise<void>;
  /** The same for a file on disk. */
  previewFile(path: string): Promise<Restored>;
  restoreFile(path: string): Promise<Restored>;
  close(): Promise<void>;
}

/** A backup that no one reads is released after this time, ms. */
const IDLE_MS = 3_600_000;

/** @param incoming  folder for uploads */
export function backupService(parts: RestoreParts, incoming: Storage): BackupService {
  const ready = new Map<string, { snapshot: Snapshot; bytes: number; timer: NodeJS.Timeout; readers: number }>();
  const came = new Map<string, Staged>();

  const release = async (id: string): Promise<void> => {
    const found = ready.get(id);
    if (!found) return;
    clearTimeout(found.timer);
    ready.delete(id);
    await found.snapshot.release();
  };
  const idle = (id: string): NodeJS.Timeout =>
    setTimeout(() => {
      const found = ready.get(id);
      if (found && found.readers > 0) found.timer = idle(id);
      else void release(id);
    }, IDLE_MS).unref();
  const find = (id: string) => {
    const found = ready.get(id);
    if (!found) throw notFound(say.thisBackup());
    return found;
  };
  const whole = async (id: string): Promise<Staged> => {
    const known = came.get(id);
    if (known) return known;
    if ((await incoming.reached(id)) === 0) throw notFound(say.thisBackup());
    const staged = await incoming.finish(id);
    came.set(id, staged);
    // One that was looked at and never brought in does not stay.
    setTimeout(() => void discard(id).catch(() => undefined), IDLE_MS).unref();
    return staged;
  };
  const discard = async (id: string): Promise<void> => {
    const staged = came.get(id);
    came.delete(id);
    if (staged) await incoming.discard(staged);
  };
  return {
    async make() {
      const snapshot = await takeSnapshot(parts, true);
      const zip = await snapshot.read();
      zip.stream.destroy();
      const id = randomUUID();
      ready.set(id, { snapshot, bytes: zip.bytes, timer: idle(id), readers: 0 });
      const { rigs, revisions, takes, photographs } = snapshot.manifest;
      return { id, name: snapshot.name, bytes: zip.bytes, rigs, revisions, takes, photographs };
    },
    async head(id) {
      const { snapshot, bytes } = find(id);
      return { name: snapshot.name, bytes };
    },
    async read(id, from) {
      const found = find(id);
      const { stream } = await found.snapshot.read();
      found.readers++;
      clearTimeout(found.timer);
      stream.once('close', () => {
        found.readers--;
        clearTimeout(found.timer);
        if (ready.get(id) === found) found.timer = idle(id);
      });
      return from === 0 ? stream : skipping(stream, from);
    },
    release,
    reached: (id) => incoming.reached(id),
    async addPiece(id, at, totalBytes, body) {
      const reached = await incoming.append(id, at, body, totalBytes);
      if (reached === totalBytes) await whole(id);
      return reached;
    },
    preview: async (id) => previewRestore(parts, (await whole(id)).path),
    async restore(id) {
      const done = await restore(parts, (await whole(id)).path);
      await discard(id);
      return done;
    },
    discard,
    previewFile: (path) => previewRestore(parts, path),
    restoreFile: (path) => restore(parts, path),
    async close() {
      for (const id of [...ready.keys()]) await release(id);
    },
  };
}

/** The same stream without its first bytes: it is made again and read past them. */
function skipping(stream: Readable, bytes: number): Readable {
  let left = bytes;
  const skip = new Transform({
    transform(chunk: Buffer, _encoding, done) {
      const cut = Math.min(left, chunk.length);
      left -= cut;
      done(null, cut === chunk.length ? undefined : chunk.subarray(cut));
    },
  });
  stream.once('error', (error) => skip.destroy(error));
  skip.once('close', () => stream.destroy());
  return stream.pipe(skip);
}

/** The first byte that a request asks for, of an answer that goes on to its end. @throws HttpProblem 416 past the end */
export function firstByte(range: string | undefined, bytes: number): number {
  const found = /^bytes=(\d{1,15})-(\d{0,15})$/.exec(range ?? '');
  if (!found) return 0;
  const from = Number(found[1]);
  if (from >= bytes) throw new HttpProblem(416, say.pastEnd(), say.backupHasBytes({ bytes }));
  return from;
}
