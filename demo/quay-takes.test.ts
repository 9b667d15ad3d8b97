import { beforeAll, describe, expect, it } from 'vitest';
import { joinTakes, measureJumps, measureOffset } from '#core/audio/measure/index.ts';
import { testFft } from '#core/audio/samples/fft.testkit.ts';
import {
  bytesInMemory,
  channelOf,
  type FftOf,
  openWav,
  type Recording,
  recordingOf,
} from '#core/audio/samples/index.ts';
import { findChirps } from '#core/desk-tests/slates/index.ts';
import { QUAY_SECONDS, quayTruth, renderQuayCameraSound, renderQuayRecorder, renderThreeWays } from './quay-takes.ts';

let fftOf: FftOf;
let ways: Recording;
let first: Recording;
let second: Recording;
beforeAll(async () => {
  fftOf = await testFft();
  const open = (bytes: Uint8Array<ArrayBuffer>) => openWav(bytesInMemory(bytes));
  ways = await open(renderThreeWays(fftOf));
  first = await open(renderQuayRecorder('first')(fftOf));
  second = await open(renderQuayRecorder('second')(fftOf));
});

describe('the takes of Quay talk', () => {
  it('hold one microphone by three ways, each as late as it truly is', async () => {
    expect(ways.trackNames).toEqual(['Lapel, own jack', 'Radio, by the camera', 'Interface, by USB']);
    const { jack, radio, usb } = quayTruth.waysMs;
    for (const [track, ms] of [
      [1, radio],
      [2, usb],
    ] as const) {
      const found = await measureOffset(fftOf, channelOf(ways, 0), channelOf(ways, track));
      expect(Math.abs(found.offsetMs - (ms - jack))).toBeLessThan(0.05);
    }
  });
  it('hold slates at the start and at the end, and none between', async () => {
    for (const recording of [ways, first, recordingOf([renderQuayCameraSound()], 48_000)]) {
      const chirps = await findChirps(fftOf, recording);
      const middle = (1000 * QUAY_SECONDS) / 2;
      expect(chirps.filter((c) => c.atMs < middle).length).toBeGreaterThanOrEqual(3);
      expect(chirps.filter((c) => c.atMs > middle).length).toBeGreaterThanOrEqual(3);
      expect(chirps.every((c) => Math.abs(c.atMs - middle) > 8000)).toBe(true);
    }
  });
  it('lie on one timeline, whichever of them comes first', async () => {
    const groups = await joinTakes(fftOf, [second, ways, first]);
    expect(groups).toHaveLength(1);
    expect(groups[0]!.takes.map((t) => t.index)).toEqual([1, 2, 0]);
    const [, a, b] = groups[0]!.takes;
    expect(Math.abs(a!.startMs - 1000 * quayTruth.first.startS)).toBeLessThan(60);
    expect(Math.abs(b!.startMs - 1000 * quayTruth.second.startS)).toBeLessThan(60);
  });
  it('drift as their clocks do, and tell where the second lost a buffer', async () => {
    const clean = await measureOffset(fftOf, channelOf(ways, 0), first);
    expect(Math.abs(clean.driftPpm! - quayTruth.first.ppm)).toBeLessThan(2);
    const offset = await measureOffset(fftOf, first, second);
    const { jumps } = await measureJumps(fftOf, first, second, offset);
    expect(jumps).toHaveLength(1);
    expect(Math.abs(jumps[0]!.stepMs + quayTruth.lost.ms)).toBeLessThan(1);
    const atS = quayTruth.lost.atS + quayTruth.second.startS - quayTruth.first.startS;
    expect(Math.abs(jumps[0]!.atMs / 1000 - atS)).toBeLessThan(1);
  });
});
