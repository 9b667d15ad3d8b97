import { describe, expect, it } from 'vitest';
import { testFft } from '#core/audio/samples/fft.testkit.ts';
import {
  corrected,
  type Recording,
  recordingOf,
  resample,
  seededNormal,
  seededRandom,
} from '#core/audio/samples/index.ts';
import { convolve, game, roomResponse, voice } from '#core/desk-tests/stand-ins/index.ts';
import { bestLag, joinTakes, piecesOf, stretchOfJoined } from './index.ts';

const RATE = 16_000;
const REACH = 50;
const BAND = { sampleRateHz: RATE, band: { lowHz: 120, highHz: 7000 } };

/** Pieces of sessions as recorders have them: each with a room, noise and a clock of its own. */
async function takesOf(
  sessions: readonly Float32Array[],
  cuts: readonly { session: number; fromS: number; toS: number; recorder: number }[],
): Promise<Recording[]> {
  const fftOf = await testFft();
  return cuts.map(({ session, fromS, toS, recorder }, n) => {
    const normal = seededNormal(n + 100 * recorder);
    const heard = convolve(fftOf, sessions[session]!, roomResponse(RATE, 0.3, 6 + recorder, recorder));
    const ppm = (recorder - 2) * 25;
    const x = resample(heard, fromS * RATE, 1 / (1 + ppm * 1e-6), Math.round((toS - fromS) * RATE));
    const gain = 0.3 + 0.2 * recorder;
    return recordingOf([x.map((v) => gain * v + 0.004 * normal())], RATE);
  });
}
const session = (seed: number, seconds: number): Float32Array => {
  const [a, b, c] = [voice(110 + 13 * seed), voice(190 - 7 * seed), game].map((make, i) =>
    make(seconds * RATE, RATE, seed * 10 + i),
  );
  return a!.map((v, i) => v + 0.7 * b![i]! + 0.3 * c![i]!);
};

describe('takes joined by what they hold', () => {
  it('twelve of five recorders, in any order and each through a room of its own, lie right within 3 ms', async () => {
    const random = seededRandom(5);
    const sessions = [session(1, 90), session(2, 70)];
    const cuts = Array.from({ length: 12 }, (_, i) => {
      const s = i < 7 ? 0 : 1;
      const length = s === 0 ? 90 : 70;
      const fromS = Math.abs(random()) * (length - 40);
      return { session: s, fromS, toS: fromS + 25 + 14 * Math.abs(random()), recorder: i % 5 };
    }).sort(() => random());
    const groups = await joinTakes(await testFft(), await takesOf(sessions, cuts));
    expect(groups.map((g) => g.takes.length).sort()).toEqual([5, 7]);
    for (const { takes, contradictsMs } of groups) {
      const first = cuts[takes[0]!.index]!;
      for (const t of takes) {
        const own = cuts[t.index]!;
        expect(own.session).toBe(first.session);
        expect(Math.abs(t.startMs - 1000 * (own.fromS - first.fromS))).toBeLessThan(3);
      }
      expect(contradictsMs).toBeLessThan(4);
    }
  });
  it('those that hold nothing in common stay alone, silence too', async () => {
    const alone = [session(3, 30), session(4, 30), new Float32Array(20 * RATE)].map((x) => recordingOf([x], RATE));
    const groups = await joinTakes(await testFft(), alone);
    expect(groups.map((g) => g.takes.length)).toEqual([1, 1, 1]);
    expect(groups.flatMap((g) => g.takes.map((t) => t.startMs))).toEqual([0, 0, 0]);
  });
  it('lie to the sample where they are written anew, whatever their clocks, directly or by way of another', async () => {
    const fftOf = await testFft();
    const heard = session(8, 100);
    const cuts = [
      { fromS: 11.3, toS: 60, ppm: 70 },
      { fromS: 44.21, toS: 98, ppm: -60 },
      { fromS: 2.17, toS: 52, ppm: -25 },
    ];
    const takes = cuts.map(({ fromS, toS, ppm }) =>
      recordingOf([resample(heard, fromS * RATE, 1 / (1 + ppm * 1e-6), Math.round((toS - fromS) * RATE))], RATE),
    );
    const [group] = await joinTakes(fftOf, takes);
    expect(group!.takes.map((t) => t.index)).toEqual([2, 0, 1]);
    const first = cuts[2]!;
    for (const take of group!.takes) {
      const { fromS, toS } = cuts[take.index]!;
      const written = corrected(takes[take.index]!, piecesOf([stretchOfJoined(take)], RATE));
      const wanted = recordingOf([resample(heard, first.fromS * RATE, 1 / (1 + first.ppm * 1e-6), 97 * RATE)], RATE);
      for (const share of [0.05, 0.5, 0.9]) {
        const at = Math.round((fromS - first.fromS + share * (toS - fromS)) * RATE);
        const [ref, other] = [await wanted.readMono(at, RATE), await written.readMono(at - REACH, RATE + 2 * REACH)];
        const peak = bestLag(fftOf, { ...BAND, ref, other, lowestLag: 0, highestLag: 2 * REACH });
        expect(Math.abs(peak!.lag - REACH), `take ${take.index} at ${share}`).toBeLessThan(0.1);
      }
    }
  });
  it('by way of a third, though two of them share no moment', async () => {
    const cuts = [
      { session: 0, fromS: 0, toS: 22, recorder: 0 },
      { session: 0, fromS: 34, toS: 58, recorder: 1 },
      { session: 0, fromS: 12, toS: 48, recorder: 2 },
    ];
    const done: number[] = [];
    const [group, ...more] = await joinTakes(await testFft(), await takesOf([session(6, 60)], cuts), (d) =>
      done.push(d),
    );
    expect(more).toEqual([]);
    expect(group!.takes.map((t) => t.index)).toEqual([0, 2, 1]);
    expect(group!.takes.map((t) => Math.round(t.startMs / 10))).toEqual([0, 1200, 3400]);
    expect(done.at(-1)).toBe(1);
    for (const [i, d] of done.entries()) if (i > 0) expect(d).toBeGreaterThan(done[i - 1]! - 1e-9);
  });
});
