import {
  type ByteSource,
  bytesInMemory,
  openWav,
  type Recording,
  recordingOf,
  wavHeader,
} from '#core/audio/samples/index.ts';
import type { DecodedFormat, SoundSink } from './decode.ts';
import type { TakeBytes } from './take-source.ts';

/**
 * Decoded sound, kept in the browser's own file system as WAV of floats: a take is decoded once, memory does not grow
 * with it, and what was kept longest goes first where there is no room.
 */
const FOLDER = 'decoded';
/** Maximum size of the cache, and its maximum share of the page's storage quota. */
const BUDGET_BYTES = 8 * 2 ** 30;
const SHARE_OF_QUOTA = 1 / 3;
const UNDER_WAY = '.part';
/** Irregularities of the file are stored beside its audio. */
const NOTES = '.notes';
/** What was left behind by a page that was closed while it decoded. */
const ABANDONED_MS = 24 * 3600 * 1000;

const ENDS_BYTES = 1 << 17;

/** What the sound of a track is kept as: by what its file is called, how long it is, and how it begins and ends. */
export async function placeFor(bytes: TakeBytes, track: number): Promise<string> {
  const head = new TextEncoder().encode(JSON.stringify([bytes.name, bytes.size, track]));
  const length = Math.min(ENDS_BYTES, bytes.size);
  const [first, last] = await Promise.all([bytes.read(0, length), bytes.read(bytes.size - length, length)]);
  const hash = await crypto.subtle.digest(
    'SHA-256',
    await new Blob([head, first, last].map((b) => b.slice())).arrayBuffer(),
  );
  return [...new Uint8Array(hash)].map((b) => b.toString(16).padStart(2, '0')).join('');
}

export async function findDecoded(place: string): Promise<Recording | null> {
  const folder = await openFolder();
  const file = folder && (await fileIn(folder, place));
  if (!file) return null;
  const notes = await fileIn(folder, `${place}${NOTES}`);
  return { ...(await openWav(await bytesOf(file))), notes: notes ? (JSON.parse(await notes.text()) as string[]) : [] };
}

export interface DecodedWriter extends SoundSink {
  /** What was written, as a recording, with what was odd about its file. */
  finish(notes: readonly string[]): Promise<Recording>;
  /** Forgets it. */
  abandon(): Promise<void>;
}

/** @returns null where the browser has too little room, or no such file system */
export async function writeDecoded(place: string, expectedBytes: number): Promise<DecodedWriter | null> {
  try {
    const folder = await openFolder();
    if (!folder || !(await makeRoom(folder, expectedBytes))) return null;
    return await writerIn(folder, place);
  } catch {
    return null;
  }
}

async function writerIn(folder: FileSystemDirectoryHandle, place: string): Promise<DecodedWriter> {
  const part = `${place}-${crypto.randomUUID()}${UNDER_WAY}`;
  const handle = await folder.getFileHandle(part, { create: true });
  const access = await handle.createSyncAccessHandle();
  let buffer = new Float32Array(1 << 18);
  let filled = 0;
  let at = 0;
  let channels = 1;
  const flush = () => {
    if (filled > 0) put(new Uint8Array(buffer.buffer, 0, 4 * filled));
    filled = 0;
  };
  const put = (bytes: Uint8Array<ArrayBuffer>) => {
    if (access.write(bytes, { at }) < bytes.length) throw new DOMException('No room is left.', 'QuotaExceededError');
    at += bytes.length;
  };
  return {
    begin({ channels: count, sampleRateHz, layout }) {
      channels = count;
      put(wavHeader({ channels, sampleRateHz, layout }));
    },
    write(planes, frames) {
      if (buffer.length < filled + frames * channels) flush();
      if (buffer.length < frames * channels) buffer = new Float32Array(frames * channels);
      for (let c = 0; c < channels; c++) {
        const x = planes[c]!;
        for (let i = 0, o = filled + c; i < frames; i++, o += channels) buffer[o] = x[i]!;
      }
      filled += frames * channels;
    },
    async finish(notes) {
      flush();
      access.flush();
      access.close();
      if (notes.length > 0) await writeText(folder, `${place}${NOTES}`, JSON.stringify(notes));
      // Another job may have decoded the same meanwhile: its file is as good.
      const known = await fileIn(folder, place);
      if (known) await folder.removeEntry(part);
      else await handle.move(place);
      return { ...(await openWav(await bytesOf((await fileIn(folder, place))!))), notes };
    },
    async abandon() {
      access.close();
      await folder.removeEntry(part);
    },
  };
}

/** Decoded sound in memory, where nothing can be kept. */
export function inMemory(): SoundSink & { finish(notes: readonly string[]): Recording } {
  let format: DecodedFormat | null = null;
  let planes: Float32Array[] = [];
  let filled = 0;
  return {
    begin(told) {
      format = told;
      planes = Array.from({ length: told.channels }, () => new Float32Array(1 << 20));
    },
    write(channels, frames) {
      if (planes[0]!.length < filled + frames)
        planes = planes.map((p) => {
          const longer = new Float32Array(Math.max(2 * p.length, filled + frames));
          longer.set(p);
          return longer;
        });
      planes.forEach((p, c) => {
        p.set(channels[c]!.subarray(0, frames), filled);
      });
      filled += frames;
    },
    finish: (notes) => ({
      ...recordingOf(
        planes.map((p) => p.subarray(0, filled)),
        format!.sampleRateHz,
        format!.layout,
      ),
      notes,
    }),
  };
}

/** Audio is read several times; up to this size it is read into memory once: an eighth of an hour in stereo. */
const IN_MEMORY_BYTES = 192 * 2 ** 20;

async function bytesOf(file: File): Promise<ByteSource> {
  if (file.size <= IN_MEMORY_BYTES) return bytesInMemory(new Uint8Array(await file.arrayBuffer()));
  return {
    size: file.size,
    read: async (at, length) => new Uint8Array(await file.slice(at, at + length).arrayBuffer()),
  };
}

async function openFolder(): Promise<FileSystemDirectoryHandle | null> {
  try {
    return await (await navigator.storage.getDirectory()).getDirectoryHandle(FOLDER, { create: true });
  } catch {
    return null;
  }
}

async function writeText(folder: FileSystemDirectoryHandle, name: string, text: string): Promise<void> {
  const access = await (await folder.getFileHandle(name, { create: true })).createSyncAccessHandle();
  access.write(new TextEncoder().encode(text), { at: 0 });
  access.close();
}

async function fileIn(folder: FileSystemDirectoryHandle, name: string): Promise<File | null> {
  try {
    return await (await folder.getFileHandle(name)).getFile();
  } catch {
    return null;
  }
}

/** Removes the oldest entries until there is enough room. @returns whether there is */
async function makeRoom(folder: FileSystemDirectoryHandle, bytes: number): Promise<boolean> {
  const { quota = 0 } = await navigator.storage.estimate();
  const budget = Math.min(BUDGET_BYTES, quota * SHARE_OF_QUOTA);
  if (bytes > budget) return false;
  const kept: File[] = [];
  for await (const [name, handle] of folder.entries()) {
    if (handle.kind !== 'file') continue;
    const file = await (handle as FileSystemFileHandle).getFile();
    if (!name.endsWith(UNDER_WAY)) kept.push(file);
    else if (Date.now() - file.lastModified > ABANDONED_MS) await folder.removeEntry(name).catch(() => undefined);
  }
  kept.sort((a, b) => a.lastModified - b.lastModified);
  let used = kept.reduce((sum, f) => sum + f.size, 0);
  for (const file of kept) {
    if (used + bytes <= budget) break;
    await folder.removeEntry(file.name).catch(() => undefined);
    used -= file.size;
  }
  return used + bytes <= budget;
}
