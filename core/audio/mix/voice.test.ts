import { beforeAll, describe, expect, it } from 'vitest';
import { treat } from '#core/audio/process/index.ts';
import { testFft } from '#core/audio/samples/fft.testkit.ts';
import { type FftOf, seededNormal } from '#core/audio/samples/index.ts';
import { hum, voice } from '#core/desk-tests/stand-ins/index.ts';
import { ratioFromDb } from '#core/model/units/index.ts';
import { measureVoice, pieceOfTalk, startingTreatment, talkOf, treatmentFigures } from './index.ts';

const RATE = 32_000;
const SECONDS = 16;
let fftOf: FftOf;
beforeAll(async () => {
  fftOf = await testFft();
});

/** A voice that speaks in the middle, over noise. */
function take(noiseDb: number): Float32Array {
  const talk = voice(180)(RATE * SECONDS, RATE, 5);
  const normal = seededNormal(6);
  return talk.map((v, i) => {
    const speaks = i > 3 * RATE && i < 12 * RATE;
    return (speaks ? v * ratioFromDb(5) : 0) + normal() * ratioFromDb(noiseDb);
  });
}

describe('talk', () => {
  it('is found to a fifth of a second, its small gaps closed', () => {
    const hops = Float64Array.from({ length: 100 }, (_, i) =>
      (i >= 20 && i < 50 && i !== 33) || (i >= 70 && i < 90) || i === 60 ? 1e-2 : 1e-5,
    );
    const talk = talkOf(hops);
    expect([...talk].join('')).toBe(
      `${'0'.repeat(20)}${'1'.repeat(30)}${'0'.repeat(20)}${'1'.repeat(20)}${'0'.repeat(10)}`,
    );
    expect(pieceOfTalk(talk, 3)).toEqual({ fromS: 2, toS: 5 });
    expect(pieceOfTalk(talk, 60)).toEqual({ fromS: 0, toS: 10 });
    expect([...talkOf(new Float64Array(5))]).toEqual([0, 0, 0, 0, 0]);
  });
});

describe('where to begin with a voice', () => {
  it('asks for a gate in a noisy room, and for none in a quiet one', async () => {
    const noisy = startingTreatment(await measureVoice(fftOf, [take(-50)], RATE), -1);
    const quiet = startingTreatment(await measureVoice(fftOf, [take(-80)], RATE), -1);
    expect(quiet.gate).toBeNull();
    expect(noisy.gate).not.toBeNull();
    // Between the noise's tops (some 12 dB over its level) and the voice's.
    expect(noisy.gate!.thresholdDbfs).toBeGreaterThan(-40);
    expect(noisy.gate!.thresholdDbfs).toBeLessThan(-18);
  });
  it('cuts higher where the mains hums', async () => {
    const mains = hum(50)(RATE * SECONDS, RATE, 0);
    const hummed = take(-80).map((v, i) => v + mains[i]! * ratioFromDb(-32));
    expect(startingTreatment(await measureVoice(fftOf, [hummed], RATE), -1).lowCut).toEqual({ hz: 110 });
    expect(startingTreatment(await measureVoice(fftOf, [take(-80)], RATE), -1).lowCut).toEqual({ hz: 80 });
  });
  it('compresses by some 3 to 6 dB on the loud tops, keeps peaks under the ceiling, and says what it cost', async () => {
    const x = [take(-60)];
    const measured = await measureVoice(fftOf, x, RATE);
    const start = startingTreatment(measured, -1);
    const { channels, gains } = treat(x, RATE, { ...start, gate: null, makeupDb: 12 });
    const taken = [...gains.compressor!].map((g) => -g).sort((a, b) => a - b);
    const most = taken[Math.floor(0.99 * taken.length)]!;
    expect(most).toBeGreaterThan(2.5);
    expect(most).toBeLessThan(7);
    const before = treatmentFigures(x, RATE, measured.talk);
    const treated = treatmentFigures(channels, RATE, measured.talk);
    expect(treated.truePeakDbtp!).toBeLessThan(-1);
    expect(treated.peakToLoudnessDb!).toBeLessThan(before.peakToLoudnessDb! - 1);
    // What comes up between the words is what compression costs.
    expect(treated.overNoiseLu!).toBeLessThan(before.overNoiseLu!);
    expect(before.overNoiseLu!).toBeGreaterThan(25);
  });
  it('begins with nothing where nobody speaks', async () => {
    const nobody = await measureVoice(fftOf, [new Float32Array(RATE * 3)], RATE);
    const start = startingTreatment(nobody, -1);
    expect([start.gate, start.deEss, start.compressor, start.presence]).toEqual([null, null, null, null]);
  });
});
