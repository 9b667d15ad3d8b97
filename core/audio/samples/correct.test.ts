import { describe, expect, it } from 'vitest';
import { bytesInMemory, corrected, openWav, recordingOf, wavPieces } from './index.ts';

const RATE = 48_000;
const SECONDS = 4;
const sine = (hz: number, first = 0, step = 1, frames = SECONDS * RATE): Float32Array =>
  Float32Array.from({ length: frames }, (_, n) => Math.sin((2 * Math.PI * hz * (first + n * step)) / RATE));
const one = (readAt: number, step: number) => [{ fromFrame: 0, readAt, step }];
const db = (x: number): number => 20 * Math.log10(Math.max(x, 1e-12));

async function bytesOf(pieces: AsyncIterable<Uint8Array>): Promise<Uint8Array> {
  const parts: Uint8Array[] = [];
  for await (const p of pieces) parts.push(p);
  const all = new Uint8Array(parts.reduce((n, p) => n + p.length, 0));
  let at = 0;
  for (const p of parts) {
    all.set(p, at);
    at += p.length;
  }
  return all;
}

describe('a recording that is moved and stretched', () => {
  it('is the wave itself, read elsewhere: within 0.01 dB, all else 100 dB down, from 40 Hz to 20 kHz', async () => {
    for (const [first, step] of [
      [0.37, 1],
      [-1234.56, 1 + 150e-6],
      [777.123, 1 - 31e-6],
    ] as const)
      for (const hz of [40, 997, 5000, 12_000, 17_000, 20_000]) {
        const moved = corrected(recordingOf([sine(hz)], RATE), one(first, step));
        const from = Math.max(0, Math.ceil(-first)) + 200;
        const [got] = await moved.read(from, 40_000);
        const wanted = sine(hz, first + from * step, step, 40_000);
        let [gw, ww] = [0, 0];
        for (let i = 0; i < 40_000; i++) {
          gw += got![i]! * wanted[i]!;
          ww += wanted[i]! * wanted[i]!;
        }
        const gain = gw / ww;
        const rest = got!.reduce((most, v, i) => Math.max(most, Math.abs(v - gain * wanted[i]!)), 0);
        expect(Math.abs(db(gain)), `${hz} Hz`).toBeLessThan(0.01);
        expect(db(rest), `${hz} Hz, ${first}, ${step}`).toBeLessThan(-100);
      }
  });
  it('goes on elsewhere where a buffer was lost, without a click, the same in any pieces', async () => {
    const x = sine(300);
    const cut = [
      { fromFrame: 0, readAt: 0.25, step: 1 },
      { fromFrame: 48_000.4, readAt: 48_000.4 - 480, step: 1 + 20e-6 },
    ];
    const mended = corrected(recordingOf([x], RATE), cut);
    const [whole] = await mended.read(0, mended.frames);
    const place = (n: number, of: (typeof cut)[number]) =>
      Math.sin((2 * Math.PI * 300 * (of.readAt + (n - of.fromFrame) * of.step)) / RATE);
    for (const n of [2000, 30_000, 47_990]) expect(whole![n]!).toBeCloseTo(place(n, cut[0]!), 4);
    for (const n of [48_400, 90_000, 180_000]) expect(whole![n]!).toBeCloseTo(place(n, cut[1]!), 4);
    let step = 0;
    for (let n = 47_900; n < 48_500; n++) step = Math.max(step, Math.abs(whole![n]! - whole![n - 1]!));
    expect(step).toBeLessThan(((2 * Math.PI * 300) / RATE) * 1.5);
    const [a, b] = [await mended.read(47_000, 1100), await mended.read(48_100, 900)];
    expect([...a[0]!, ...b[0]!]).toEqual([...whole!.subarray(47_000, 49_000)]);
  });
  it('begins with silence where it is moved later, ends where it ends, and is the same in any pieces', async () => {
    const x = sine(440);
    const later = corrected(recordingOf([x, x.map((v) => -v)], RATE), one(-4800, 1));
    expect(later.frames).toBe(SECONDS * RATE + 4800);
    const [left, right] = await later.read(0, later.frames);
    expect(left!.slice(0, 4760).every((v) => v === 0)).toBe(true);
    for (let i = 5000; i < 9000; i++) {
      expect(left![i]!).toBeCloseTo(x[i - 4800]!, 6);
      expect(right![i]!).toBeCloseTo(-x[i - 4800]!, 6);
    }
    const stretched = corrected(recordingOf([x], RATE), one(10.5, 1 + 100e-6));
    const [whole] = await stretched.read(1000, 3000);
    const [a, b] = [await stretched.read(1000, 1234), await stretched.read(2234, 1766)];
    expect([...a[0]!, ...b[0]!]).toEqual([...whole!]);
    expect((await stretched.readMono(1000, 10))[3]).toBe(whole![3]);
    expect(() => corrected(later, one(0, 1.01))).toThrow(RangeError);
  });
});

describe('a WAV that is written piece by piece', () => {
  it('is read again within its 24 bits, with its time reference where that is asked for', async () => {
    const x = sine(1000, 0, 1, 300_001);
    const over = x.map((v) => 1.5 * v);
    const told: number[] = [];
    const bytes = await bytesOf(wavPieces(recordingOf([x, over, x], 44_100), { onProgress: (p) => told.push(p) }));
    const read = await openWav(bytesInMemory(bytes));
    expect([read.channels, read.frames, read.sampleRateHz]).toEqual([3, 300_001, 44_100]);
    const [a, b] = await read.read(0, 300_001);
    for (let i = 0; i < 300_001; i += 97) {
      expect(Math.abs(a![i]! - x[i]!)).toBeLessThan(2e-7);
      expect(Math.abs(b![i]! - Math.max(-1, Math.min(1, over[i]!)))).toBeLessThan(3e-7);
    }
    expect(told.at(-1)).toBe(1);
    const timed = await bytesOf(wavPieces(recordingOf([x.slice(0, 1001)], RATE), { timeReference: 172_800_123 }));
    expect((await openWav(bytesInMemory(timed))).frames).toBe(1001);
    const at = 12 + 8 + 338;
    expect(new DataView(timed.buffer).getBigUint64(at, true)).toBe(172_800_123n);
    expect(String.fromCharCode(...timed.slice(12, 16))).toBe('bext');
    expect(timed.length % 2).toBe(0);
  });
  it('refuses what no plain WAV holds', async () => {
    const long = { ...recordingOf([new Float32Array(1)], RATE), frames: 2 ** 31 };
    await expect(bytesOf(wavPieces(long))).rejects.toThrow('samples.recordingIsTooLong');
  });
});
