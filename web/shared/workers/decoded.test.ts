import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { findDecoded, placeFor, writeDecoded } from './decoded.ts';
import type { TakeBytes } from './take-source.ts';

/** The browser's private files, in memory: as much of them as keeping sound needs, with a quota and a clock. */
function privateFiles(quotaBytes: number) {
  const files = new Map<string, { bytes: Uint8Array<ArrayBuffer>; atMs: number }>();
  let nowMs = 1_700_000_000_000;
  /** So many bytes more can be written before the disk is full. */
  let roomBytes = Number.POSITIVE_INFINITY;
  const handleOf = (first: string) => {
    let name = first;
    return {
      kind: 'file',
      async getFile() {
        const { bytes, atMs } = files.get(name)!;
        return new File([bytes], name, { lastModified: atMs });
      },
      async createSyncAccessHandle() {
        return {
          write(bytes: Uint8Array, { at }: { at: number }) {
            const count = Math.min(bytes.length, roomBytes);
            roomBytes -= count;
            const before = files.get(name)!.bytes;
            const longer = new Uint8Array(Math.max(before.length, at + count));
            longer.set(before);
            longer.set(bytes.subarray(0, count), at);
            nowMs += 1000;
            files.set(name, { bytes: longer, atMs: nowMs });
            return count;
          },
          flush: () => undefined,
          close: () => undefined,
        };
      },
      async move(to: string) {
        files.set(to, files.get(name)!);
        files.delete(name);
        name = to;
      },
    };
  };
  const folder = {
    async getFileHandle(name: string, options?: { create: boolean }) {
      if (!files.has(name)) {
        if (!options?.create) throw new DOMException('not there', 'NotFoundError');
        files.set(name, { bytes: new Uint8Array(), atMs: nowMs });
      }
      return handleOf(name);
    },
    async removeEntry(name: string) {
      if (!files.delete(name)) throw new DOMException('not there', 'NotFoundError');
    },
    async *entries() {
      for (const name of [...files.keys()]) yield [name, handleOf(name)] as const;
    },
  };
  return {
    files,
    fill: (bytes: number) => {
      roomBytes = bytes;
    },
    pass: (ms: number) => {
      nowMs += ms;
    },
    now: () => nowMs,
    storage: {
      getDirectory: async () => ({ getDirectoryHandle: async () => folder }),
      estimate: async () => ({ quota: quotaBytes }),
    },
  };
}

const FORMAT = { sampleRateHz: 48_000, channels: 2, layout: ['front-left', 'front-right'] as const };
const FRAMES = 1000;
const BYTES = 4 * 2 * FRAMES;
const planes = (seed: number) =>
  [0, 1].map((c) => Float32Array.from({ length: FRAMES }, (_, i) => Math.sin(seed + i / (7 + c))));

async function keep(place: string, seed: number, notes: readonly string[] = []): Promise<boolean> {
  const writer = await writeDecoded(place, BYTES);
  if (!writer) return false;
  await writer.begin(FORMAT);
  // In pieces, as a decoder hands them out.
  for (let at = 0; at < FRAMES; at += 100)
    await writer.write(
      planes(seed).map((p) => p.subarray(at, at + 100)),
      100,
    );
  await writer.finish(notes);
  return true;
}

let disk: ReturnType<typeof privateFiles>;
const withQuota = (bytes: number) => {
  disk = privateFiles(bytes);
  vi.stubGlobal('navigator', { storage: disk.storage });
};
beforeEach(() => {
  vi.useFakeTimers({ toFake: ['Date'] });
  withQuota(1e9);
  vi.setSystemTime(disk.now());
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe('decoded sound', () => {
  it('is found again to the bit, with its layout and what was odd about its file', async () => {
    expect(await findDecoded('a')).toBeNull();
    expect(await keep('a', 1, ['It breaks off.'])).toBe(true);
    const found = (await findDecoded('a'))!;
    expect(found).toMatchObject({
      frames: FRAMES,
      sampleRateHz: 48_000,
      layout: FORMAT.layout,
      notes: ['It breaks off.'],
    });
    expect(await found.read(0, FRAMES)).toEqual(planes(1));
    expect((await keep('b', 2)) && (await findDecoded('b'))!.notes).toEqual([]);
  });
  it('goes when others need its room, what was kept longest first; what is too large for all of it is not kept', async () => {
    // A third of the quota is for it: two of them and a little.
    withQuota(3 * 2.5 * BYTES);
    for (const [i, place] of ['a', 'b', 'c'].entries()) expect(await keep(place, i)).toBe(true);
    expect(await findDecoded('a')).toBeNull();
    expect(await (await findDecoded('b'))!.read(0, FRAMES)).toEqual(planes(1));
    expect(await findDecoded('c')).not.toBeNull();
    expect(await writeDecoded('d', 3 * BYTES)).toBeNull();
    expect(disk.files.size).toBe(2);
  });
  it('of two that decode the same take at once the first one is kept, and both can read it', async () => {
    const [first, second] = [(await writeDecoded('a', BYTES))!, (await writeDecoded('a', BYTES))!];
    for (const writer of [first, second]) {
      await writer.begin(FORMAT);
      await writer.write(planes(5), FRAMES);
    }
    const read = [await first.finish([]), await second.finish([])];
    for (const recording of read) expect(await recording.read(0, FRAMES)).toEqual(planes(5));
    expect([...disk.files.keys()]).toEqual(['a']);
  });
  it('leaves nothing behind where the disk is full or the decoder gives up, and what pages left behind goes in a day', async () => {
    disk.fill(200);
    const writer = (await writeDecoded('a', BYTES))!;
    await writer.begin(FORMAT);
    const large = planes(1).map((p) => new Float32Array(200_000).fill(p[0]!));
    await expect(
      (async () => {
        await writer.write(large, 200_000);
        await writer.write(large, 200_000);
      })(),
    ).rejects.toMatchObject({ name: 'QuotaExceededError' });
    await writer.abandon();
    expect(disk.files.size).toBe(0);
    disk.fill(Number.POSITIVE_INFINITY);
    await writeDecoded('b', BYTES);
    expect([...disk.files.keys()].filter((name) => name.endsWith('.part'))).toHaveLength(1);
    expect(await keep('c', 3)).toBe(true);
    expect([...disk.files.keys()].filter((name) => name.endsWith('.part'))).toHaveLength(1);
    vi.setSystemTime(disk.now() + 2 * 24 * 3600 * 1000);
    expect(await keep('d', 4)).toBe(true);
    expect([...disk.files.keys()].sort()).toEqual(['c', 'd']);
  });
  it('is not kept where a browser has no private files', async () => {
    vi.stubGlobal('navigator', { storage: { getDirectory: async () => Promise.reject(new Error('off')) } });
    expect(await writeDecoded('a', BYTES)).toBeNull();
    expect(await findDecoded('a')).toBeNull();
  });
  it('has its place by its file’s name, size, ends and track, and by nothing else', async () => {
    const bytes = (name: string, fill: (i: number) => number, size = 400_000): TakeBytes => {
      const all = Uint8Array.from({ length: size }, (_, i) => fill(i) & 255);
      return { name, size, read: async (at, length) => all.subarray(at, at + length) };
    };
    const plain = await placeFor(
      bytes('a', (i) => i),
      1,
    );
    expect(
      await placeFor(
        bytes('a', (i) => i),
        1,
      ),
    ).toBe(plain);
    const others = await Promise.all([
      placeFor(
        bytes('b', (i) => i),
        1,
      ),
      placeFor(
        bytes('a', (i) => i),
        2,
      ),
      placeFor(
        bytes('a', (i) => i + 1),
        1,
      ),
      placeFor(
        bytes('a', (i) => (i === 399_999 ? 7 : i)),
        1,
      ),
      placeFor(
        bytes('a', (i) => i, 400_001),
        1,
      ),
    ]);
    expect(new Set([plain, ...others]).size).toBe(6);
    expect(plain).toMatch(/^[0-9a-f]{64}$/);
  });
});
