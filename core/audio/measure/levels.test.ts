import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { layoutOfCount, recordingOf, seededNormal } from '#core/audio/samples/index.ts';
import { dbFromRatio } from '#core/model/units/index.ts';
import { loudnessMeter, measureLevels, peakMeter } from './index.ts';

const RATE = 48_000;
const sine = (hz: number, peak: number, seconds: number, rate = RATE, phase = 0): Float32Array =>
  Float32Array.from(
    { length: Math.round(seconds * rate) },
    (_, i) => peak * Math.sin((2 * Math.PI * hz * i) / rate + phase),
  );
const joined = (...parts: readonly Float32Array[]): Float32Array => {
  const out = new Float32Array(parts.reduce((n, p) => n + p.length, 0));
  parts.reduce((at, p) => {
    out.set(p, at);
    return at + p.length;
  }, 0);
  return out;
};
const db = (level: number): number => 10 ** (level / 20);
const levels = (channels: readonly Float32Array[], rate = RATE) => measureLevels(recordingOf([...channels], rate));
const truePeak = (x: Float32Array, rate = RATE): number => {
  const meter = peakMeter(1, rate);
  meter.push([x]);
  return dbFromRatio(meter.result().truePeak);
};

/** Signals of EBU Tech 3341, made from their published description: stereo sines of 1 kHz. */
const tone = (dbfs: number, seconds: number): Float32Array => sine(1000, db(dbfs), seconds);
const silence = (seconds: number): Float32Array => new Float32Array(Math.round(seconds * RATE));

describe('the minimum requirements of EBU Tech 3341', () => {
  it.each([
    ['1', [tone(-23, 20)], -23],
    ['2', [tone(-33, 20)], -33],
    ['3', [tone(-36, 10), tone(-23, 60), tone(-36, 10)], -23],
    ['4', [tone(-72, 10), tone(-36, 10), tone(-23, 60), tone(-36, 10), tone(-72, 10)], -23],
    ['5', [tone(-26, 20), tone(-20, 20.1), tone(-26, 20)], -23],
  ] as const)('case %s: integrated within 0.1 LU', async (_, parts, wanted) => {
    const x = joined(...parts);
    const { integratedLufs, maxShortTermLufs, maxMomentaryLufs } = await levels([x, x]);
    expect(Math.abs(integratedLufs! - wanted)).toBeLessThan(0.1);
    if (parts.length === 1) {
      expect(Math.abs(maxShortTermLufs! - wanted)).toBeLessThan(0.1);
      expect(Math.abs(maxMomentaryLufs! - wanted)).toBeLessThan(0.1);
    }
  });
  it('case 6: five channels, each weighed by where it stands; low effects and many tracks', async () => {
    const [front, center, back] = [tone(-28, 20), tone(-24, 20), tone(-30, 20)];
    const surround = async (channels: Float32Array[]) => {
      const { integratedLufs } = await measureLevels(recordingOf(channels, RATE, layoutOfCount(channels.length)));
      return integratedLufs!;
    };
    expect(Math.abs((await surround([front, front, center, back, back])) + 23)).toBeLessThan(0.1);
    // What is meant for low effects alone is left out, however loud.
    expect(Math.abs((await surround([front, front, center, tone(-6, 20), back, back])) + 23)).toBeLessThan(0.1);
    // Beside the listener a sound counts 1.5 dB more than behind, where there are both.
    const alone = (at: number) => Array.from({ length: 8 }, (_, c) => (c === at ? back : silence(20)));
    expect((await surround(alone(6))) - (await surround(alone(4)))).toBeCloseTo(10 * Math.log10(1.41), 3);
    expect(await surround(alone(4))).toBeCloseTo(await surround(alone(0)), 6);
    await expect(measureLevels(recordingOf([front, front, center], RATE))).rejects.toMatchObject({ code: 'no-layout' });
  });
  it('case 9: short-term stays at -23 LUFS from 3 s on', () => {
    const meter = loudnessMeter(2, RATE);
    const x = joined(...Array.from({ length: 5 }, () => joined(tone(-20, 1.34), tone(-30, 1.66))));
    meter.push([x, x]);
    for (const l of meter.shortTerm()) expect(Math.abs(l + 23)).toBeLessThan(0.1);
  });
  it('cases 10 and 13: the maximum is found wherever the tone begins', async () => {
    for (const k of [0, 3, 7, 13, 19]) {
      const short = joined(silence(k * 0.15), tone(-23, 3), silence(1));
      expect(Math.abs((await levels([short, short])).maxShortTermLufs! + 23)).toBeLessThan(0.1);
      const moment = joined(silence(k * 0.02), tone(-23, 0.4), silence(1));
      expect(Math.abs((await levels([moment, moment])).maxMomentaryLufs! + 23)).toBeLessThan(0.1);
    }
  });
  it('case 12: momentary stays at -23 LUFS from 400 ms on', async () => {
    const x = joined(...Array.from({ length: 12 }, () => joined(tone(-20, 0.18), tone(-30, 0.22))));
    expect(Math.abs((await levels([x, x])).maxMomentaryLufs! + 23)).toBeLessThan(0.1);
  });
  it.each([
    ['15', 0.25, 0, 0.5, -6],
    ['16', 0.25, 45, 0.5, -6],
    ['17', 1 / 6, 60, 0.5, -6],
    ['18', 1 / 8, 67.5, 0.5, -6],
    ['19', 0.25, 45, 1.41, 3],
  ] as const)('case %s: true peak within +0.2 and -0.4 dB', (_, part, degrees, peak, wanted) => {
    // Faded in and out: a sine that begins in its middle is a step, with a peak of its own.
    const x = sine(part * RATE, peak, 1, RATE, (degrees * Math.PI) / 180).map(
      (v, i, all) => v * Math.min(1, i / 480, (all.length - 1 - i) / 480),
    );
    const read = truePeak(x);
    expect(read - wanted).toBeLessThan(0.2);
    expect(read - wanted).toBeGreaterThan(-0.4);
  });
});

describe('true peak', () => {
  it('is that of the wave, however the samples lie on it: within 0.1 dB for sines up to 20 kHz, at any rate', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(44_100, 48_000, 96_000, 192_000),
        fc.double({ min: 100, max: 20_000, noNaN: true }),
        fc.double({ min: 0, max: 6.2, noNaN: true }),
        (rate, hz, phase) => {
          // Faded, so that the ends are no steps with peaks of their own.
          const x = sine(hz, 0.7, 0.2, rate, phase).map(
            (v, i, all) => v * Math.sin((Math.PI * (i + 0.5)) / all.length),
          );
          expect(Math.abs(truePeak(x, rate) - dbFromRatio(0.7))).toBeLessThan(0.1);
        },
      ),
      { numRuns: 60 },
    );
  });
  it('passes nothing over that could be higher, and is the same in pieces of any length', () => {
    const normal = seededNormal(4);
    const x = Float32Array.from({ length: 20_000 }, () => 0.2 * normal());
    const every = (piece: number): number => {
      const meter = peakMeter(1, RATE);
      for (let at = 0; at < x.length; at += piece) meter.push([x.subarray(at, at + piece)]);
      return meter.result().truePeak;
    };
    // A meter that has met nothing yet passes nothing over: the highest of all single looks is the truth.
    let most = 0;
    for (let at = 0; at < x.length; at += 500) {
      const meter = peakMeter(1, RATE);
      meter.push([x.subarray(Math.max(0, at - 64), at + 564)]);
      most = Math.max(most, meter.result().truePeak);
    }
    expect(every(x.length)).toBeLessThanOrEqual(most + 1e-9);
    for (const piece of [1, 17, 1000, 4096]) expect(every(piece)).toBeCloseTo(every(x.length), 7);
  });
});

describe('levels of a recording', () => {
  it('are none for silence, and told for a single sample', async () => {
    expect(await levels([silence(5)])).toEqual({
      integratedLufs: null,
      rangeLu: null,
      maxMomentaryLufs: null,
      maxShortTermLufs: null,
      truePeakDbtp: null,
      samplePeakDbfs: null,
    });
    const one = await levels([Float32Array.of(0.5)]);
    expect(one.samplePeakDbfs).toBeCloseTo(-6.02, 2);
    expect(one.integratedLufs).toBeNull();
  });
  it('refuse what cannot be measured in a sentence', async () => {
    const x = tone(-20, 1);
    await expect(levels([x, x, x])).rejects.toMatchObject({
      code: 'no-layout',
      said: { params: { which: { params: { channels: 3 } } } },
    });
    const broken = tone(-20, 10);
    broken[300_000] = Number.NaN;
    await expect(levels([broken])).rejects.toMatchObject({
      code: 'not-a-number',
      said: { params: { which: { params: { at: '4' } } } },
    });
    broken[300_000] = Number.POSITIVE_INFINITY;
    await expect(levels([broken])).rejects.toMatchObject({ code: 'not-a-number' });
  });
  it('say how far they are', async () => {
    const told: number[] = [];
    await measureLevels(recordingOf([tone(-20, 10)], RATE), (part) => told.push(part));
    expect(told.at(-1)).toBe(1);
    expect(told).toEqual([...told].sort((a, b) => a - b));
  });
});
