import type { VideoSample } from 'mediabunny';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { GRID_CELLS, GRID_COLUMNS, GRID_ROWS } from '#core/audio/measure/index.ts';
import { testFft } from '#core/audio/samples/fft.testkit.ts';
import { recordingOf } from '#core/audio/samples/index.ts';
import type { Luma } from '#core/desk-tests/slates/index.ts';
import { clapsAt, renderShotSound, renderSlateShot, type SlateShot } from '#core/desk-tests/stand-ins/index.ts';
import { rate } from '#core/model/units/index.ts';
import { cellReader, type Grain, regionReader } from './cells.ts';
import { lookAt, type Progress, someBeats } from './look.ts';
import { type Media, type Picture, sayUndecodable } from './media.ts';
import { openBytes } from './take-source.ts';

const WIDTH = 320;
const HEIGHT = 288;

/** A frame in memory, in the layouts that decoders hand out: 8-bit and 10-bit planes, two of them or one of four bytes. */
function frame(format: 'I420' | 'NV12' | 'I420P10' | 'RGBA', luma: (x: number, y: number) => number): VideoSample {
  const bytes = format === 'RGBA' ? 4 : format === 'I420P10' ? 2 : 1;
  const sizeOf = (width: number, height: number) =>
    format === 'RGBA' ? width * height * 4 : (width * height * bytes * 3) / 2;
  const rectOf = (options?: { rect?: DOMRectInit }) =>
    (options?.rect ?? { x: 0, y: 0, width: WIDTH, height: HEIGHT }) as {
      x: number;
      y: number;
      width: number;
      height: number;
    };
  return {
    format,
    codedWidth: WIDTH,
    codedHeight: HEIGHT,
    allocationSize: (options?: { rect?: DOMRectInit }) => sizeOf(rectOf(options).width, rectOf(options).height),
    async copyTo(out: Uint8Array, options?: { rect?: DOMRectInit }) {
      const { x: x0, y: y0, width, height } = rectOf(options);
      if (y0 % 2 || height % 2 || x0 % 2 || width % 2) throw new TypeError('not aligned with its colours');
      for (let y = 0; y < height; y++) {
        for (let x = 0; x < width; x++) {
          const v = luma(x0 + x, y0 + y);
          const at = (y * width + x) * bytes;
          if (format === 'RGBA') out.set([200, v, 13, 255], at);
          else if (format === 'I420P10') out.set([((v << 2) | 3) & 255, (v << 2) >> 8], at);
          else out[at] = v;
        }
      }
      out.fill(99, width * height * bytes, sizeOf(width, height));
      return [{ offset: 0, stride: width * bytes }];
    },
  } as unknown as VideoSample;
}

describe('brightness of a frame', () => {
  const cellOf = (x: number, y: number) =>
    Math.floor((y * GRID_ROWS) / HEIGHT) * GRID_COLUMNS + Math.floor((x * GRID_COLUMNS) / WIDTH);
  for (const grain of ['fine', 'coarse'] as Grain[]) {
    it.each(['I420', 'NV12', 'I420P10', 'RGBA'] as const)(`is read cell by cell, ${grain}, from %s`, async (format) => {
      const cells = await cellReader(grain)(frame(format, (x, y) => cellOf(x, y) + 40));
      expect([...cells]).toEqual(Array.from({ length: GRID_CELLS }, (_, c) => c + 40));
    });
    it(`forgets the frame before, ${grain}`, async () => {
      const read = cellReader(grain);
      await read(frame('I420', () => 250));
      expect(new Set(await read(frame('I420', () => 7)))).toEqual(new Set([7]));
    });
  }
  it.each(['I420', 'NV12', 'I420P10', 'RGBA'] as const)(
    'is shown whole where a slate is looked for, from %s',
    async (format) => {
      const shown: number[] = [];
      const read = cellReader('fine', (luma) => {
        for (const [x, y] of [
          [0, 0],
          [17, 5],
          [WIDTH - 1, HEIGHT - 1],
        ] as const)
          shown.push(luma.bytes[y * luma.stride + x]!);
      });
      await read(frame(format, (x, y) => (x + 2 * y) % 251));
      expect(shown).toEqual([0, 27, (WIDTH - 1 + 2 * (HEIGHT - 1)) % 251]);
    },
  );
  it('sees a small light finely; coarsely it sees what reaches into a strip', async () => {
    const light = (height: number) =>
      frame('I420', (x, y) => (x >= 160 && x < 180 && y >= 8 && y < 8 + height ? 255 : 10));
    const cell = cellOf(160, 10);
    expect((await cellReader('fine')(light(8)))[cell]!).toBeGreaterThan(25);
    expect((await cellReader('coarse')(light(16)))[cell]!).toBeGreaterThan(25);
  });
});

describe('a region of a frame', () => {
  it.each(['I420', 'NV12', 'I420P10', 'RGBA'] as const)(
    'is read cell by cell from %s, and from nowhere else',
    async (format) => {
      const inside = (x: number, y: number) => x >= 80 && x < 240 && y >= 72 && y < 216;
      const cells = await regionReader({ x: 0.25, y: 0.25, width: 0.5, height: 0.5 })(
        frame(format, (x, y) => (inside(x, y) ? 20 + Math.floor(((x - 80) * 8) / 160) : 250)),
      );
      expect([...cells.subarray(0, 8)]).toEqual([20, 21, 22, 23, 24, 25, 26, 27]);
      expect(Math.max(...cells)).toBe(27);
    },
  );
  it('is held within the picture, and never too small to be read', async () => {
    const all = await regionReader({ x: 0.99, y: 0.99, width: 0.5, height: 0.001 })(frame('I420', () => 77));
    expect(new Set(all)).toEqual(new Set([77, 0].filter((v) => [...all].includes(v))));
    expect([...all]).toContain(77);
  });
});

const fftOf = await testFft();
const RATE = 16_000;
const FPS = 50;

/** A picture that lights up at the instants given and tells what was looked at. */
function picture(durationS: number, flashesS: readonly number[]): Picture & { looked: [number, number, Grain][] } {
  const looked: [number, number, Grain][] = [];
  return {
    width: 64,
    height: 36,
    durationS,
    holesS: [],
    looked,
    async brightness(fromS, toS, grain) {
      looked.push([fromS, toS, grain]);
      const from = Math.max(0, Math.floor(fromS * FPS));
      const count = Math.max(0, Math.min(Math.ceil(toS * FPS), Math.ceil(durationS * FPS)) - from);
      const cells = new Float32Array(count * GRID_CELLS).fill(30);
      const timesMs = Float64Array.from({ length: count }, (_, i) => ((from + i) * 1000) / FPS);
      for (const flash of flashesS) {
        const at = Math.round(flash * FPS) - from;
        for (let f = Math.max(0, at); f < Math.min(count, at + 3); f++) cells[f * GRID_CELLS + 20] = 220;
      }
      return { timesMs, cells };
    },
    keyFrames: async () => undefined,
    region: async () => ({ timesMs: new Float64Array(), cells: 0, values: new Float32Array() }),
  };
}

/** A long picture that shows a slate from one time to another. */
function filmed(durationS: number, shot: SlateShot, fromS: number, toS: number) {
  const plain = picture(durationS, []);
  const dark = new Uint8Array(shot.width * shot.height).fill(40);
  const shows = (atMs: number): Luma =>
    atMs < 1000 * fromS || atMs > 1000 * toS
      ? { width: shot.width, height: shot.height, stride: shot.width, bytes: dark }
      : renderSlateShot(shot, Math.round((atMs * FPS) / 1000));
  const seen: Picture & { looked: [number, number, Grain][] } = {
    ...plain,
    async brightness(from, to, grain, onProgress, onLuma) {
      const read = await plain.brightness(from, to, grain);
      if (grain === 'fine') for (const atMs of read.timesMs) onLuma?.(shows(atMs), atMs);
      onProgress?.(1);
      return read;
    },
    async keyFrames(onLuma) {
      for (let s = 0; s < durationS; s += 4) onLuma(shows(1000 * s), 1000 * s);
    },
  };
  return seen;
}
const media = (sound: Media['sound'], shown: Picture | null): Media => ({
  sound,
  picture: shown,
  notices: [],
  close: () => undefined,
});
const clapping = (seconds: number, at: readonly number[]) => recordingOf([clapsAt(at)(seconds * RATE, RATE, 5)], RATE);

describe('a look at a take', () => {
  it('hears first, then sees only what lies around the claps', async () => {
    const shown = picture(60, [10, 10.5, 40, 50]);
    const progress: Progress[] = [];
    const look = await lookAt(fftOf, media(clapping(60, [10.08, 10.58, 40.08]), shown), false, (p) => progress.push(p));
    expect(look.sound!.claps).toHaveLength(3);
    expect(look.picture!.flashes.map((f) => f.atMs)).toEqual([10_000, 10_500, 40_000]);
    expect(shown.looked).toHaveLength(2);
    expect(shown.looked.every(([from, to, grain]) => to - from < 2.1 && grain === 'fine')).toBe(true);
    expect(look.picture!.frameRate).toEqual({ num: 50, den: 1 });
    expect([...new Set(progress.map((p) => p.what))]).toEqual(['waveform', 'claps', 'slates', 'picture']);
    // What was seen around the first two claps is told while the third one is looked at.
    const told = progress.flatMap((p) => (p.glance ? [p.glance] : []));
    expect(told.map((g) => [g.isPartial, g.picture!.flashes.map((f) => f.atMs)])).toEqual([[true, [10_000, 10_500]]]);
    expect(told[0]!.sound).toEqual(look.sound);
  });
  it('sees all of it when asked: finely around the claps, coarsely between, each stretch once', async () => {
    const shown = picture(60, [10, 50]);
    const look = await lookAt(fftOf, media(clapping(60, [10.08]), shown), true, () => undefined);
    expect(look.picture!.flashes.map((f) => f.atMs)).toEqual([10_000, 50_000]);
    expect(shown.looked.map(([, , grain]) => grain)).toEqual(['coarse', 'fine', 'coarse']);
    for (const [i, [from]] of shown.looked.entries()) if (i > 0) expect(from).toBe(shown.looked[i - 1]![1]);
    expect(shown.looked.at(-1)![1]).toBeGreaterThanOrEqual(60);
  });
  it('sees of a short picture what lies around its claps; all of it where that shows nothing, or when asked', async () => {
    const flashes = async (shown: Picture, whole: boolean) =>
      (await lookAt(fftOf, media(clapping(12, [3.1]), shown), whole, () => undefined)).picture!.flashes.length;
    const near = picture(12, [3]);
    expect(await flashes(near, false)).toBe(1);
    expect(near.looked.map(([, , grain]) => grain)).toEqual(['fine']);
    expect(near.looked[0]![1] - near.looked[0]![0]).toBeLessThan(2);
    const far = picture(12, [8]);
    expect(await flashes(far, false)).toBe(1);
    expect(far.looked.reduce((sum, [from, to]) => sum + to - from, 0)).toBeCloseTo(13);
    const asked = picture(12, [3]);
    expect(await flashes(asked, true)).toBe(1);
    expect(asked.looked).toEqual([[0, 13, 'fine']]);
  });
  it('sees a picture without sound from end to end', async () => {
    const mute = picture(90, [80]);
    const look = await lookAt(fftOf, media(null, mute), false, () => undefined);
    expect(look.sound).toBeNull();
    expect(look.durationMs).toBe(90_000);
    expect(look.picture!.flashes.map((f) => f.atMs)).toEqual([80_000]);
  });
  it('reads a slate where its beats are heard, and where only its picture tells of it', async () => {
    const shot: SlateShot = {
      slate: { rate: rate(60), id: 7 },
      width: 160,
      height: 90,
      rateHz: FPS,
      seconds: 60,
      zeroMs: 20_000,
    };
    const beats = renderShotSound({ ...shot, seconds: 60 }, 45, RATE).map((v, i) =>
      i > 20 * RATE && i < 30 * RATE ? v : 0,
    );
    const shown = filmed(60, shot, 20, 30);
    const look = await lookAt(fftOf, media(recordingOf([beats], RATE), shown), false, () => undefined);
    expect(look.sound!.chirps).toHaveLength(5);
    expect(look.picture!.slates).toHaveLength(1);
    expect(look.picture!.slates[0]).toMatchObject({ id: 7, offset: { count: 5 } });
    expect(Math.abs(look.picture!.slates[0]!.offset!.offsetMs - 45)).toBeLessThan(2);
    expect(shown.looked.reduce((s, [from, to]) => s + to - from, 0)).toBeLessThan(12);
    // A short one is looked at whole: a slate tells of each frame.
    const short = filmed(20, { ...shot, zeroMs: 5000 }, 5, 15);
    const clip = renderShotSound({ ...shot, zeroMs: 5000, seconds: 20 }, 45, RATE).map((v, i) =>
      i > 5 * RATE && i < 15 * RATE ? v : 0,
    );
    await lookAt(fftOf, media(recordingOf([clip], RATE), short), false, () => undefined);
    expect(short.looked).toEqual([[0, 21, 'fine']]);
    const mute = filmed(60, shot, 20, 30);
    const seen = await lookAt(fftOf, media(null, mute), false, () => undefined);
    expect(seen.picture!.slates).toHaveLength(1);
    expect(seen.picture!.slates[0]!.offset).toBeNull();
  });
  it('looks at some beats of a slate only: all of few, of many those well within each showing', () => {
    const beats = (fromS: number, count: number) =>
      Array.from({ length: count }, (_, i) => ({ atMs: 1000 * fromS + 2000 * i, kind: 0 as const, likeness: 1 }));
    expect(someBeats(beats(1, 3))).toEqual([1000, 3000, 5000]);
    expect(someBeats([...beats(20, 5), ...beats(80, 4)])).toEqual([22_000, 26_000, 82_000, 84_000]);
    const on = someBeats(beats(0, 300));
    expect(on.length).toBeLessThan(45);
    expect(on[0]).toBe(2000);
    expect(on.at(-1)).toBe(2000 * 298);
    expect(someBeats([])).toEqual([]);
  });
  it('of sound alone has no picture', async () => {
    const look = await lookAt(fftOf, media(clapping(3, [1]), null), false, () => undefined);
    expect(look).toMatchObject({ durationMs: 3000, picture: null });
  });
});

describe('a take kept by the server', () => {
  afterEach(() => vi.unstubAllGlobals());
  const serve = (bytes: Uint8Array<ArrayBuffer>) =>
    vi.stubGlobal('fetch', async (_: string, init: { headers: { Range: string } }) => {
      const [from, to] = /(\d+)-(\d+)/.exec(init.headers.Range)!.slice(1).map(Number) as [number, number];
      return new Response(bytes.slice(from, to + 1), {
        status: 206,
        headers: { 'Content-Range': `bytes ${from}-${Math.min(to, bytes.length - 1)}/${bytes.length}` },
      });
    });
  it('is read piece by piece, and no further than its end', async () => {
    serve(Uint8Array.from({ length: 1000 }, (_, i) => i % 251));
    const source = await openBytes({ url: '/api/takes/x/content' });
    expect(source.size).toBe(1000);
    expect([...(await source.read(300, 4))]).toEqual([49, 50, 51, 52]);
    expect((await source.read(990, 50)).length).toBe(10);
    expect((await source.read(1000, 50)).length).toBe(0);
  });
  it('that is gone is said to be gone', async () => {
    vi.stubGlobal('fetch', async () => new Response('', { status: 404 }));
    await expect(openBytes({ url: '/nowhere' })).rejects.toThrow(/The take no longer exists\. Choose its file/);
  });
});

describe('what cannot be decoded', () => {
  it('is said by its name, with what would mend it', () => {
    expect(sayUndecodable('picture', 'hevc')).toMatch(
      /can’t decode its video \(H\.265 \(HEVC\)\)\. To measure it, export its video as H\.264/,
    );
    expect(sayUndecodable('sound', 'ac3')).toMatch(/AC-3.*AAC or WAV/);
    expect(sayUndecodable('sound', 'strange')).toContain('(strange)');
    expect(sayUndecodable('picture', null)).toContain('(unknown)');
  });
});

it('a worker that says what core says speaks the page’s language', () => {
  const sources = import.meta.glob('./*.worker.ts', { query: '?raw', import: 'default', eager: true }) as Record<
    string,
    string
  >;
  const saying = Object.entries(sources).filter(([, text]) =>
    /'#core\/(intake|routing\/(plan|variants)|output|live)\//.test(text),
  );
  expect(saying.length).toBeGreaterThan(1);
  for (const [file, text] of saying) expect(text, file).toContain("import './spoken.ts'");
});
