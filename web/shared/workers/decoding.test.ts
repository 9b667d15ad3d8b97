import fc from 'fast-check';
import { describe, expect, it, vi } from 'vitest';
import { bytesInMemory, openWav, wavHeader } from '#core/audio/samples/index.ts';
import { inMemory } from './decoded.ts';
import { opusFramesOf, readMp3Note } from './gapless.ts';
import { wholePagesOf } from './ogg.ts';
import { paced } from './paced.ts';
import { overHoles } from './resume.ts';

const text = (s: string) => [...s].map((c) => c.charCodeAt(0));

describe('what encoders put around the sound', () => {
  it('in an MP3 is told in its first frame: the delays, and where the sound ends', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(9, 17, 32),
        fc.constantFrom('Xing', 'Info'),
        fc.integer({ min: 0, max: 15 }),
        fc.integer({ min: 0, max: 4095 }),
        fc.integer({ min: 0, max: 4095 }),
        fc.integer({ min: 10, max: 1_000_000 }),
        (side, tag, flags, before, behind, frames) => {
          const fields = [
            ...(flags & 1 ? [frames >> 24, frames >> 16, frames >> 8, frames].map((v) => v & 255) : []),
            ...(flags & 2 ? [0, 0, 9, 9] : []),
            ...(flags & 4 ? new Array<number>(100).fill(7) : []),
            ...(flags & 8 ? [0, 0, 0, 50] : []),
          ];
          const delays = [before >> 4, ((before & 15) << 4) | (behind >> 8), behind & 255];
          const frame = Uint8Array.from([
            ...[0xff, 0xfb, 0x90, 0x64],
            ...new Array<number>(side).fill(0),
            ...text(tag),
            ...[0, 0, 0, flags],
            ...fields,
            ...text('coder3.10'),
            ...new Array<number>(12).fill(1),
            ...delays,
            ...new Array<number>(60).fill(0),
          ]);
          const note = readMp3Note(frame, 44_100)!;
          expect(note.shiftS).toBeCloseTo(-(before + 529) / 44_100, 12);
          if (flags & 1) expect(note.endS).toBeCloseTo(Math.max(0, frames * 1152 - before - behind) / 44_100, 9);
          else expect(note.endS).toBeNull();
        },
      ),
    );
  });
  it('is not read out of a first frame that is sound', () => {
    fc.assert(
      fc.property(fc.uint8Array({ minLength: 0, maxLength: 512 }), (frame) => {
        const holds = ['Xing', 'Info'].some((tag) => Buffer.from(frame.subarray(0, 52)).includes(tag));
        if (!holds) expect(readMp3Note(frame, 48_000)).toBeNull();
      }),
    );
  });
  it.each([
    [[0x08], 960],
    [[0xfc], 960],
    [[0x78], 960],
    [[0xe0], 120],
    [[0xfd], 1920],
    [[0xff, 3], 2880],
    [[0x18], 2880],
  ])('in an Opus packet that begins with %j is counted in frames of 48 kHz: %i', (head, frames) => {
    expect(opusFramesOf({ data: Uint8Array.from(head) })).toBe(frames);
  });
});

/** An Ogg page with so many segments of so many bytes each. */
const page = (segments: number, bytes: number) => [
  ...text('OggS'),
  ...new Array<number>(22).fill(0),
  segments,
  ...new Array<number>(segments).fill(bytes),
  ...new Array<number>(segments * bytes).fill(0x4f),
];

describe('an Ogg file', () => {
  it('is read to the last page that is whole, wherever it breaks off', async () => {
    const pages = [page(1, 19), page(3, 255), page(255, 100), page(2, 7)];
    const whole = pages.flat();
    const ends = pages.map((_, n) => pages.slice(0, n + 1).flat().length);
    for (let size = ends[0]!; size <= whole.length; size += 13) {
      const found = await wholePagesOf(bytesInMemory(Uint8Array.from(whole.slice(0, size))));
      expect(found ?? size).toBe(ends.findLast((e) => e <= size));
    }
  });
  it('that is whole, and any other file, is left as it is', async () => {
    for (const bytes of [page(1, 19), text('RIFF and so on'), [], text('Og')])
      expect(await wholePagesOf(bytesInMemory(Uint8Array.from(bytes)))).toBeNull();
  });
});

/** A decoder of pieces of 0.02 s that gives up within each of the damaged stretches. */
const decoder = (damaged: readonly (readonly [number, number])[], endS: number) =>
  async function* (fromS: number | undefined) {
    for (let n = Math.floor((fromS ?? 0) / 0.02); n < Math.round(endS / 0.02); n++) {
      const timestamp = n * 0.02;
      if (damaged.some(([a, b]) => timestamp >= a && timestamp < b)) throw new Error('cannot be decoded');
      yield { timestamp, duration: 0.02 };
    }
  };

describe('a damaged file', () => {
  it('is decoded on both sides of each damage, each told once', async () => {
    const damaged = [
      [1, 1.3],
      [4, 4.05],
    ] as const;
    const holes: number[] = [];
    const times: number[] = [];
    for await (const { timestamp } of overHoles(decoder(damaged, 6), undefined, 6, (s) => holes.push(s)))
      times.push(timestamp);
    expect(holes.map((s) => Number(s.toFixed(2)))).toEqual([1, 4]);
    expect(times.filter((t) => t < 1).length).toBe(50);
    // It is found again within as much as was lost, and a step.
    expect(times.find((t) => t > 1)).toBeLessThan(1.8);
    expect(times.at(-1)).toBeCloseTo(5.98, 6);
  });
  it('of which nothing can be decoded says what the decoder says', async () => {
    const all = overHoles(decoder([[0, 9]], 9), undefined, 9, () => undefined);
    await expect(all.next()).rejects.toThrow('cannot be decoded');
  });
});

describe('decoded sound', () => {
  it('in memory is what was written, in any pieces', async () => {
    const sink = inMemory();
    await sink.begin({ sampleRateHz: 44_100, channels: 2, layout: null });
    const wanted: number[] = [];
    for (let n = 0; n < 40; n++) {
      const frames = 1 + ((n * 7919) % 60_000);
      const x = Float32Array.from({ length: frames + 5 }, (_, i) => n + i / 1e5);
      await sink.write([x, x.map((v) => -v)], frames);
      wanted.push(...x.subarray(0, frames));
    }
    const made = sink.finish(['as it was']);
    expect(made).toMatchObject({ sampleRateHz: 44_100, channels: 2, frames: wanted.length, notes: ['as it was'] });
    const [left, right] = await made.read(0, made.frames);
    expect(Buffer.from(left!.buffer).equals(Buffer.from(Float32Array.from(wanted).buffer))).toBe(true);
    expect(right![12]).toBe(-left![12]!);
  });
  it('kept has a head that our own reader reads, with its layout and to the end of the file', async () => {
    const layout = ['front-left', 'front-right', 'front-center', 'lfe', 'back-left', 'back-right'] as const;
    const head = wavHeader({ channels: 6, sampleRateHz: 48_000, layout });
    const samples = Float32Array.from({ length: 60 }, (_, i) => i * 1.5 - 40);
    const recording = await openWav(bytesInMemory(Uint8Array.from([...head, ...new Uint8Array(samples.buffer)])));
    expect(recording).toMatchObject({ channels: 6, frames: 10, layout });
    expect([...(await recording.read(3, 1)).map((c) => c[0])]).toEqual([...samples.subarray(18, 24)]);
  });
});

describe('how far a work is', () => {
  it('is told ten times a second at most, and at its end', () => {
    vi.useFakeTimers({ toFake: ['performance'] });
    const told: number[] = [];
    const tell = paced((done) => told.push(done));
    for (let i = 0; i <= 1000; i++) {
      tell(i / 1000);
      vi.advanceTimersByTime(1);
    }
    vi.useRealTimers();
    expect(told.length).toBeLessThan(13);
    expect(told[0]).toBe(0);
    expect(told.at(-1)).toBe(1);
  });
});
