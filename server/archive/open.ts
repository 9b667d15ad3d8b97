import { createHash, type Hash, randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { type FileHandle, open } from 'node:fs/promises';
import { join } from 'node:path';
import { type Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { type Entry, fromFd, type ZipFile } from 'yauzl';
import { server as say } from '#words/index.ts';
import { HttpProblem } from '../http/problem.ts';

export const refuse = (detail: string): HttpProblem =>
  new HttpProblem(422, say.notWhole(), say.nothingWasChanged({ detail }));

/** An archive that is open: its files by name. */
export interface Opened {
  readonly zip: ZipFile;
  readonly entries: ReadonlyMap<string, Entry>;
  readonly file: FileHandle;
  close(): Promise<void>;
}

/** No archive of ours has more files, and none that is squeezed further: sound and pictures hardly are. */
const MAX_FILES = 50_000;
const MAX_SQUEEZED = 200;
const SMALL_BYTES = 1_000_000;

/** @throws HttpProblem 422 where it has too many files, or two of one name; Error where it is no zip, or cut */
export async function openZip(path: string): Promise<Opened> {
  const file = await open(path, 'r');
  try {
    const zip = await new Promise<ZipFile>((resolve, reject) =>
      fromFd(file.fd, { lazyEntries: true, autoClose: false }, (error, found) =>
        error ? reject(error) : resolve(found),
      ),
    );
    if (zip.entryCount > MAX_FILES) throw refuse(say.archiveHasMoreFiles());
    const entries = new Map<string, Entry>();
    await new Promise<void>((resolve, reject) => {
      zip.on('entry', (entry: Entry) => {
        if (entries.has(entry.fileName)) return reject(refuse(say.archiveHoldsTwice({ fileName: entry.fileName })));
        entries.set(entry.fileName, entry);
        zip.readEntry();
      });
      zip.on('end', resolve);
      zip.on('error', reject);
      zip.readEntry();
    });
    return { zip, entries, file, close: () => file.close() };
  } catch (error) {
    await file.close();
    throw error;
  }
}

/** @throws HttpProblem 422 where it is not there, larger than it may be, or squeezed too far */
function entryOf(archive: Opened, file: string, mostBytes: number): Entry {
  const entry = archive.entries.get(file);
  if (!entry) throw refuse(say.archiveHasNo({ file }));
  if (entry.uncompressedSize > mostBytes) throw refuse(say.isLargerThanAnyThat({ file }));
  if (entry.uncompressedSize > SMALL_BYTES && entry.uncompressedSize > MAX_SQUEEZED * entry.compressedSize)
    throw refuse(say.isSqueezedFurtherThan({ file }));
  return entry;
}

/** A file of an archive, no longer than it may be: counted as it is inflated, whatever its head says. */
async function streamOf(
  archive: Opened,
  file: string,
  mostBytes: number,
): Promise<{ from: Readable; bound: Transform }> {
  const entry = entryOf(archive, file, mostBytes);
  const from = await new Promise<Readable>((resolve, reject) =>
    archive.zip.openReadStream(entry, (error, stream) => (error ? reject(error) : resolve(stream))),
  );
  let bytes = 0;
  const bound = new Transform({
    transform(chunk: Buffer, _encoding, done) {
      bytes += chunk.length;
      done(bytes > mostBytes ? refuse(say.isLargerThanIt({ file })) : null, chunk);
    },
  });
  return { from, bound };
}

export async function textOf(archive: Opened, file: string, mostBytes: number): Promise<string> {
  const { from, bound } = await streamOf(archive, file, mostBytes);
  const parts: Buffer[] = [];
  await pipeline(from, bound, async (source) => {
    for await (const part of source) parts.push(part as Buffer);
  });
  return Buffer.concat(parts).toString('utf8');
}

/** A file that was taken out of an archive. */
export interface Extracted {
  readonly path: string;
  readonly sha256: string;
  readonly bytes: number;
}

/** Takes a file out, and holds it against what the archive says of it. @throws HttpProblem 422 where it is not what it was */
export async function extract(
  archive: Opened,
  { file, bytes, sha256 }: { readonly file: string; readonly bytes: number; readonly sha256: string },
  folder: string,
): Promise<Extracted> {
  const hash = createHash('sha256');
  const path = join(folder, randomUUID());
  const entry = entryOf(archive, file, bytes);
  if (isStored(entry)) await copyStored(archive, entry, path, hash);
  else await inflate(archive, file, bytes, path, hash);
  if (hash.digest('hex') !== sha256) throw refuse(say.isNotWhatItWas({ file }));
  return { path, sha256, bytes };
}

const STORED = 0;
const isStored = (entry: Entry): boolean => entry.compressionMethod === STORED && !entry.isEncrypted();
const BUFFER_BYTES = 1 << 20;

/** Takes are stored as they are: copied through one buffer, memory does not grow with them. */
async function copyStored({ zip, file }: Opened, entry: Entry, path: string, hash: Hash): Promise<void> {
  const { fileDataStart } = await zip.readLocalFileHeaderPromise(entry, { minimal: true });
  const buffer = Buffer.allocUnsafe(BUFFER_BYTES);
  const out = await open(path, 'wx');
  try {
    for (let at = 0; at < entry.uncompressedSize; ) {
      const most = Math.min(BUFFER_BYTES, entry.uncompressedSize - at);
      const { bytesRead } = await file.read(buffer, 0, most, fileDataStart + at);
      if (bytesRead === 0) throw refuse(say.isCut({ fileName: entry.fileName }));
      const piece = buffer.subarray(0, bytesRead);
      hash.update(piece);
      await out.writeFile(piece);
      at += bytesRead;
    }
    await out.sync();
  } finally {
    await out.close();
  }
}

async function inflate(archive: Opened, file: string, bytes: number, path: string, hash: Hash): Promise<void> {
  const { from, bound } = await streamOf(archive, file, bytes);
  const hashed = new Transform({
    transform(chunk: Buffer, _encoding, done) {
      hash.update(chunk);
      done(null, chunk);
    },
  });
  await pipeline(from, bound, hashed, createWriteStream(path, { flush: true }));
}
