import { describe, expect, it } from 'vitest';
import { testFft } from '#core/audio/samples/fft.testkit.ts';
import { recordingOf, seededNormal, seededRandom } from '#core/audio/samples/index.ts';
import { game, voice } from '#core/desk-tests/stand-ins/index.ts';
import { changesOf, clicksFor } from './index.ts';

const RATE = 48_000;
const FRAME_MS = 1000 / 60;
const times = Array.from({ length: 10 }, (_, i) => 1.2 + 1.05 * i + 0.013 * (i % 4));

/** A menu's beep, always the same: two short tones. */
function beeps(at: readonly number[], lateS: number, seconds: number, gain: number): Float32Array {
  const out = new Float32Array(seconds * RATE);
  for (const t of at) {
    const first = (t + lateS) * RATE;
    for (let i = Math.ceil(first); i < first + 0.06 * RATE && i < out.length; i++) {
      const s = (i - first) / RATE;
      out[i]! +=
        gain * Math.exp(-s / 0.02) * (Math.sin(2 * Math.PI * 1800 * s) + 0.6 * Math.sin(2 * Math.PI * 2700 * s));
    }
  }
  return out;
}
/** The region as a picture of 60 frames has it: another entry is lit from each click on. */
function region(at: readonly number[], seconds: number) {
  const normal = seededNormal(3);
  const frames = seconds * 60;
  const values = new Float32Array(frames * 8);
  for (let f = 0; f < frames; f++) {
    const entry = at.filter((t) => t <= f / 60).length % 8;
    for (let c = 0; c < 8; c++) values[f * 8 + c] = 60 + (c === entry ? 90 : 0) + 1.5 * normal();
  }
  return { timesMs: Float64Array.from({ length: frames }, (_, f) => f * FRAME_MS), cells: 8, values };
}

describe('a menu that is clicked', () => {
  it('changes in the frame that first shows it', () => {
    const found = changesOf(region(times, 13));
    expect(found).toHaveLength(10);
    found.forEach((ms, i) => {
      expect(ms - 1000 * times[i]!).toBeGreaterThanOrEqual(-0.001);
      expect(ms - 1000 * times[i]!).toBeLessThan(FRAME_MS);
    });
    expect(changesOf(region([], 5))).toEqual([]);
  });
  it.each([0.132, -0.05, 0.71])('is matched with its clicks under a game and a voice, %f s late', async (lateS) => {
    const [bang, talk] = [game(13 * RATE, RATE, 5), voice(150)(13 * RATE, RATE, 6)];
    const sound = beeps(times, lateS, 13, 0.2).map((v, i) => v + 0.25 * bang[i]! + 0.25 * talk[i]!);
    const clicks = await clicksFor(await testFft(), recordingOf([sound], RATE), changesOf(region(times, 13)), FRAME_MS);
    const heard = clicks.filter((c) => c.clickMs !== null);
    expect(heard.length).toBeGreaterThanOrEqual(8);
    const off = heard.map((c) => c.clickMs! - 1000 * times[clicks.indexOf(c)]! - 1000 * lateS);
    for (const ms of off) expect(Math.abs(ms)).toBeLessThan(2);
  });
  it('is not matched with sound that does not keep time with it', async () => {
    const random = seededRandom(8);
    const elsewhere = Array.from({ length: 10 }, () => 1 + 5.5 * (1 + random()));
    for (const sound of [voice(150)(13 * RATE, RATE, 9), beeps(elsewhere, 0, 13, 0.3), new Float32Array(13 * RATE)]) {
      const clicks = await clicksFor(
        await testFft(),
        recordingOf([sound], RATE),
        times.map((t) => 1000 * t),
        FRAME_MS,
      );
      expect(clicks.filter((c) => c.clickMs !== null)).toEqual([]);
    }
    const few = await clicksFor(await testFft(), recordingOf([beeps(times, 0, 13, 1)], RATE), [1200, 2300], FRAME_MS);
    expect(few.map((c) => c.clickMs)).toEqual([null, null]);
  });
});
