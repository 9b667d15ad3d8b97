import { describe, expect, it } from 'vitest';
import { seededNormal } from '#core/audio/samples/index.ts';
import { liveMeter } from './index.ts';

const RATE = 48_000;
const sine = (db: number, seconds: number, hz = 1000): Float32Array =>
  Float32Array.from({ length: seconds * RATE }, (_, i) => 10 ** (db / 20) * Math.sin((2 * Math.PI * hz * i) / RATE));
/** Pushed as a browser hands it over: 128 frames at a time. */
const readingOf = (...channels: Float32Array[]) => {
  const meter = liveMeter(channels.length, RATE);
  for (let at = 0; at < channels[0]!.length; at += 128) meter.push(channels.map((x) => x.subarray(at, at + 128)));
  return meter.reading();
};

describe('a live meter', () => {
  it('reads a steady tone alike on all its scales', () => {
    const read = readingOf(sine(-20, 4), sine(-20, 4));
    expect(read.peakDbfs).toBeCloseTo(-20, 1);
    expect(read.truePeakDbtp).toBeCloseTo(-20, 1);
    expect(read.vuDbfs).toBeCloseTo(-20, 1);
    expect(read.momentaryLufs).toBeCloseTo(-20, 1);
    expect(read.shortTermLufs).toBeCloseTo(-20, 1);
    expect(read).toMatchObject({ clips: 0 });
    expect(read.correlation).toBeCloseTo(1, 6);
  });
  it('shows 99 % of a tone after 300 ms, and the peak falls by 20 dB in 1.7 s', () => {
    expect(readingOf(sine(-6, 0.3)).vuDbfs! + 6).toBeCloseTo(20 * Math.log10(0.99), 1);
    const faded = new Float32Array(2.7 * RATE);
    faded.set(sine(-6, 1));
    const read = readingOf(faded);
    expect(read.peakDbfs).toBeCloseTo(-26, 1);
    expect(read.highestDbfs).toBeCloseTo(-6, 2);
    expect(read.momentaryLufs).toBeNull();
  });
  it('counts what clips once a run, and not the top of a full wave', () => {
    const cut = sine(6, 0.1, 500).map((v) => Math.max(-1, Math.min(1, v)));
    expect(readingOf(cut).clips).toBe(100);
    expect(readingOf(sine(-0.1, 0.5)).clips).toBe(0);
  });
  it('tells an inverted side, two that have nothing to do with each other, and what rests', () => {
    const x = sine(-20, 1);
    expect(
      readingOf(
        x,
        x.map((v) => -v),
      ).correlation,
    ).toBeCloseTo(-1, 6);
    const normal = seededNormal(5);
    const noise = () => Float32Array.from({ length: RATE }, () => 0.01 * normal());
    expect(Math.abs(readingOf(noise(), noise()).correlation!)).toBeLessThan(0.1);
    expect(readingOf(x).correlation).toBeNull();
    const talk = noise();
    talk.set(sine(-10, 0.5));
    expect(Math.abs(readingOf(talk).restDbfs! - 20 * Math.log10(0.01) - 3)).toBeLessThan(1);
  });
  it('has nothing to tell of silence', () => {
    expect(readingOf(new Float32Array(RATE), new Float32Array(RATE))).toEqual({
      peakDbfs: null,
      highestDbfs: null,
      truePeakDbtp: null,
      momentaryLufs: null,
      shortTermLufs: null,
      vuDbfs: null,
      clips: 0,
      correlation: null,
      restDbfs: null,
    });
  });
});
