import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { peakMeter } from '#core/audio/measure/index.ts';
import { seededNormal } from '#core/audio/samples/index.ts';
import { dbFromPower, dbFromRatio, ratioFromDb } from '#core/model/units/index.ts';
import { limitWhole } from './chain.ts';
import {
  applyGain,
  type CompressorSettings,
  compressorGain,
  deEssInPlace,
  gateGain,
  highPass,
  responseDb,
  staticGainDb,
  type Treatment,
  treat,
} from './index.ts';

const RATE = 48_000;
const sine = (hz: number, db: number, seconds = 1, rate = RATE): Float32Array =>
  Float32Array.from(
    { length: Math.round(seconds * rate) },
    (_, i) => ratioFromDb(db) * Math.sin((2 * Math.PI * hz * i) / rate),
  );
const rmsDb = (x: Float32Array): number => dbFromPower((2 * x.reduce((p, v) => p + v * v, 0)) / x.length);
const tail = (x: Float32Array): Float32Array => x.subarray(x.length >> 1);
const truePeakDb = (channels: readonly Float32Array[]): number => {
  const meter = peakMeter(channels.length, RATE);
  meter.push(channels);
  return dbFromRatio(meter.result().truePeak);
};

describe('the static curve', () => {
  const settings: CompressorSettings = { thresholdDbfs: -24, ratio: 3, kneeDb: 6, attackMs: 5, releaseMs: 120 };
  it('leaves what is below its knee, and takes two of three decibels above', () => {
    expect(staticGainDb(-27, settings)).toBe(0);
    expect(staticGainDb(-24, settings)).toBeCloseTo(-0.5, 6);
    expect(staticGainDb(-12, settings)).toBeCloseTo(-8, 6);
  });
  it('never breaks nor turns, whatever its settings', () => {
    const wide = { min: 1, max: 20, noNaN: true };
    fc.assert(
      fc.property(fc.double(wide), fc.double({ min: 0, max: 24, noNaN: true }), (ratio, kneeDb) => {
        const curve = (db: number) => db + staticGainDb(db, { ...settings, ratio, kneeDb });
        for (let db = -60; db < 0; db += 0.25) {
          const rise = curve(db + 0.25) - curve(db);
          expect(rise).toBeGreaterThanOrEqual(0.25 / ratio - 1e-9);
          expect(rise).toBeLessThanOrEqual(0.25 + 1e-9);
        }
      }),
    );
  });
  it('is what the compressor does to a sine, within 0.1 dB, at every level, ratio and rate', () => {
    for (const rate of [16_000, 44_100, 48_000, 96_000])
      for (const ratio of [2, 4, 10])
        for (const level of [-40, -26, -24, -20, -12, -3]) {
          const own = { ...settings, ratio };
          const x = [sine(1000, level, 1, rate)];
          applyGain(x, compressorGain(x, own, rate));
          const wanted = level + staticGainDb(level, own);
          expect(Math.abs(rmsDb(tail(x[0]!)) - wanted), `${level} dBFS at ${ratio}:1, ${rate} Hz`).toBeLessThan(0.1);
        }
  });
  it('is reached in the attack, and left in the release: to 1/e of the way', () => {
    const key = [new Float32Array(2 * RATE).fill(ratioFromDb(-12)).fill(0, RATE)];
    const gain = compressorGain(key, settings, RATE);
    expect(gain[Math.round(0.005 * RATE)]!).toBeCloseTo(-8 * (1 - 1 / Math.E), 1);
    expect(gain[RATE - 1]!).toBeCloseTo(-8, 2);
    expect(gain[RATE + Math.round(0.125 * RATE)]! / -8).toBeCloseTo(1 / Math.E, 1);
  });
});

describe('a gate', () => {
  const settings = { thresholdDbfs: -40, rangeDb: 20, attackMs: 1, holdMs: 100, releaseMs: 50 };
  it('takes down what is quiet by its range, leaves what is loud, and holds between words', () => {
    const x = [sine(400, -50, 3)];
    x[0]!.set(sine(400, -20, 1), RATE);
    const gain = gateGain(x, settings, RATE);
    expect(gain[RATE - 1]!).toBeCloseTo(-20, 1);
    expect(gain[RATE + Math.round(0.01 * RATE)]!).toBeGreaterThan(-0.1);
    // Held 100 ms after the envelope has fallen through: the tail of the word is kept.
    expect(gain[2 * RATE + Math.round(0.1 * RATE)]!).toBeGreaterThan(-0.1);
    expect(gain[3 * RATE - 1]!).toBeCloseTo(-20, 1);
  });
});

describe('a de-esser', () => {
  const settings = { hz: 5000, thresholdDbfs: -40, rangeDb: 8 };
  it('takes down what hisses, by no more than its range, and leaves the vowel', () => {
    const hiss = [sine(9000, -20)];
    deEssInPlace(hiss, settings, RATE);
    const left = 10 ** (responseDb([highPass(5000, RATE)], 9000, RATE) / 10);
    expect(rmsDb(tail(hiss[0]!))).toBeCloseTo(-20 + dbFromRatio(1 - left * (1 - ratioFromDb(-8))), 1);
    const vowel = [sine(300, -20)];
    deEssInPlace(vowel, settings, RATE);
    expect(rmsDb(tail(vowel[0]!))).toBeCloseTo(-20, 1);
  });
  it('does nothing where there is nothing so high', () => {
    const x = [sine(300, -20, 1, 8000)];
    expect(deEssInPlace(x, settings, 8000).every((g) => g === 0)).toBe(true);
  });
});

describe('a limiter', () => {
  it('keeps true peaks under the ceiling, whatever comes, and both sides together', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1000 }), fc.double({ min: 0, max: 18, noNaN: true }), (seed, overDb) => {
        const normal = seededNormal(seed);
        const loud = ratioFromDb(overDb - 12);
        const x = [0, 1].map(() => Float32Array.from({ length: 24_000 }, () => loud * normal()));
        x[0]!.set(sine(11_025 + seed, 3, 0.1), 4000);
        x[1]![12_000] = 3;
        const { channels } = limitWhole(x, RATE, { ceilingDbtp: -1, releaseMs: 60 });
        expect(truePeakDb(channels)).toBeLessThan(-1);
      }),
      { numRuns: 25 },
    );
  });
  it('leaves alone, to the sample, what is under it', () => {
    const x = sine(997, -3, 0.5);
    const { channels, limited } = limitWhole([x], RATE, { ceilingDbtp: -1, releaseMs: 60 });
    expect(channels[0]).toEqual(x);
    expect(limited).toEqual({ mostDb: -0, frames: 0 });
  });
  it('says what it took', () => {
    const { limited } = limitWhole([sine(997, 5, 0.5)], RATE, { ceilingDbtp: -1, releaseMs: 60 });
    expect(limited.mostDb).toBeCloseTo(6.25, 1);
    expect(limited.frames).toBeGreaterThan(0.45 * RATE);
  });
});

describe('a treatment', () => {
  const none: Treatment = {
    lowCut: null,
    gate: null,
    presence: null,
    deEss: null,
    compressor: null,
    makeupDb: 0,
    limiter: null,
  };
  it('of nothing changes nothing, and never what it was given', () => {
    const x = sine(500, -10);
    const given = x.slice();
    expect(treat([x], RATE, none).channels[0]).toEqual(given);
    treat([x], RATE, { ...none, lowCut: { hz: 200 }, makeupDb: 6 });
    expect(x).toEqual(given);
  });
  it('goes through all of its steps', () => {
    const x = [sine(1000, -10), sine(1000, -10)];
    const compressor = { thresholdDbfs: -20, ratio: 2, kneeDb: 0, attackMs: 1, releaseMs: 100 };
    const { channels, gains } = treat(x, RATE, { ...none, compressor, makeupDb: 3 });
    expect(rmsDb(tail(channels[1]!))).toBeCloseTo(-12, 1);
    expect(gains.compressor![RATE - 1]!).toBeCloseTo(-5, 1);
    expect(gains.gate).toBeUndefined();
  });
});
