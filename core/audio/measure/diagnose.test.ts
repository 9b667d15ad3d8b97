import { beforeAll, describe, expect, it } from 'vitest';
import { testFft } from '#core/audio/samples/fft.testkit.ts';
import { type FftOf, recordingOf, seededNormal } from '#core/audio/samples/index.ts';
import { type Said, type Text, textOf } from '#core/base/said/index.ts';
import { noise, voice } from '#core/desk-tests/stand-ins/index.ts';
import { casesOf } from '#core/model/units/proofs.testkit.ts';
import { diagnose } from './diagnose.ts';
import { FAULT_IDS, type Fault, sidesMeter } from './faults/index.ts';
import { cleanTake, faultyTake, recordingOfTake } from './faults/takes.testkit.ts';

let fftOf: FftOf;
beforeAll(async () => {
  fftOf = await testFft();
});

const RATE = 48_000;
const SECONDS = 9;
const FRAMES = RATE * SECONDS;
const made = (f: (i: number) => number): Float32Array => Float32Array.from({ length: FRAMES }, (_, i) => f(i));
const faultsOf = async (...channels: Float32Array[]): Promise<readonly Fault[]> =>
  (await diagnose(fftOf, recordingOf(channels, RATE))).faults;
const idsOf = async (...channels: Float32Array[]) => (await faultsOf(...channels)).map((f) => f.id);
const only = async (id: string, ...channels: Float32Array[]): Promise<Fault> => {
  const found = (await faultsOf(...channels)).find((f) => f.id === id);
  if (!found) throw new Error(`${id} was not found.`);
  return found;
};
/** A voice as a careful take has it: peaks at -9 dBFS, a floor at -75. */
const spoken = (seed = 1): Float32Array => {
  const floor = noise(FRAMES, RATE, seed + 9);
  return voice(140)(FRAMES, RATE, seed).map((v, i) => 1.4 * v + 0.0018 * floor[i]!);
};
/** A figure that is told with a fault. */
const figure = (evidence: Text, name: string): number => Number((evidence as Said).params[name]);

describe('a diagnosis', () => {
  it.each(FAULT_IDS)('finds %s, faint and plain', async (id) => {
    for (const [strength, seed] of [
      [0.3, 431],
      [0.9, 442],
    ] as const) {
      const take = faultyTake(fftOf, id, strength, seed);
      const { faults } = await diagnose(fftOf, recordingOfTake(take));
      expect(
        faults.map((f) => f.id),
        `${take.what}, strength ${strength}`,
      ).toContain(id);
    }
  });
  it('says nothing of takes with nothing wrong, of one in fifty at most', async () => {
    const alarms: string[] = [];
    for (let seed = 5100; seed < 5100 + casesOf(12, 50); seed++) {
      const take = cleanTake(fftOf, seed);
      const { faults } = await diagnose(fftOf, recordingOfTake(take));
      if (faults.length > 0) alarms.push(`${seed} ${take.what}: ${faults.map((f) => textOf(f.evidence)).join('; ')}`);
    }
    expect(alarms.length, alarms.join('\n')).toBeLessThanOrEqual(1);
  });
  it('takes tones, sweeps and noise for what they are', async () => {
    const normal = seededNormal(3);
    const tone = (hz: number) => made((i) => Math.round(3276 * Math.sin((2 * Math.PI * hz * i) / RATE)) / 32768);
    for (const hz of [110, 440, 997, 1000]) expect(await idsOf(tone(hz)), `${hz} Hz`).toEqual([]);
    expect(await idsOf(made(() => 0.1 * normal()))).toEqual([]);
    expect(await idsOf(made((i) => 0.2 * Math.sin(2 * Math.PI * 40 * (i / RATE) ** 3)))).toEqual([]);
    // A bass is not the AC power, however near it stands: 49 Hz (G), 61.7 Hz (B).
    for (const hz of [49, 61.74])
      expect(await idsOf(made((i) => 0.1 * Math.sin((2 * Math.PI * hz * i) / RATE)))).toEqual([]);
  });
});

describe('evidence', () => {
  it('names the level at which tops were cut, and that they were turned down', async () => {
    const cut = spoken().map((v) => 0.4 * Math.max(-0.5, Math.min(0.5, 3 * v)));
    const { evidence, atS } = await only('clipping', cut);
    expect(figure(evidence, 'level')).toBeCloseTo(20 * Math.log10(0.2), 1);
    expect(evidence).toMatchObject({ params: { turned: 'down' } });
    expect(Math.abs(cut[Math.round(atS[0]! * RATE)]!)).toBeCloseTo(0.2, 4);
  });
  it('names an echo’s delay to a millisecond and its level to 3 dB', async () => {
    for (const [ms, db] of [
      [60, -10],
      [130, -6],
      [420, -14],
    ] as const) {
      const by = Math.round((ms * RATE) / 1000);
      const x = spoken(7);
      const { evidence } = await only(
        'echo',
        x.map((v, i) => v + 10 ** (db / 20) * (x[i - by] ?? 0)),
      );
      expect(Math.abs(figure(evidence, 'delayMs') - ms)).toBeLessThanOrEqual(1);
      expect(Math.abs(figure(evidence, 'quieterDb') + db)).toBeLessThanOrEqual(3);
    }
  });
  it('names the level of hum to 1.5 dB, on one side alone as well, and in the left against the right', async () => {
    const mains = (phase: number) =>
      made((i) => [1, 3].reduce((s, k) => s + Math.sin((2 * Math.PI * 50.04 * k * i) / RATE + phase) / k, 0));
    const level = 0.004;
    const [a, b] = [mains(0), mains(Math.PI)];
    const both = await only('hum-50', ...[a, b].map((h, c) => spoken(2 + c).map((v, i) => v + level * h[i]!)));
    expect(both.channel).toBeNull();
    const expected = 20 * Math.log10(level * Math.hypot(1, 1 / 3));
    expect(Math.abs(figure((both.evidence as Said).params.first as Said, 'levelDbfs') - expected)).toBeLessThan(1.5);
    const one = await only(
      'hum-50',
      spoken(2),
      spoken(3).map((v, i) => v + level * b[i]!),
    );
    expect(one.channel).toBe(1);
  });
  it('names where sound was lost, also across two pieces of the file, and tells a pause from a gap', async () => {
    const x = made((i) => 0.2 * Math.sin(i / 31) * Math.sin(i / 7.3) + 0.02 * Math.sin(i / 1.7));
    const lost = x.slice();
    // Pieces of four seconds are read: one of the gaps lies across their border.
    const places = [RATE * 4 - 100, RATE * 6].map((from) =>
      x.findIndex((v, i) => i >= from && Math.min(Math.abs(v), Math.abs(x[i + 481]!)) > 0.08),
    );
    expect(places[0]).toBeLessThan(RATE * 4);
    for (const at of places) lost.fill(0, at + 1, at + 481);
    const { evidence, atS } = await only('dropouts', lost);
    expect(evidence).toMatchObject({ params: { found: [{ params: { gaps: 2 } }], longest: '10.0' } });
    expect(atS.map((s) => Math.round(s * RATE))).toEqual(places.map((at) => at + 1));
    const faded = x.map((v, i) => v * Math.max(0, Math.sin(i / 20_000)));
    expect(await idsOf(faded)).not.toContain('dropouts');
  });
  it('finds a buffer that was played twice', async () => {
    const x = spoken(4);
    const at = x.findIndex((v, i) => i > RATE && Math.abs(v) > 0.2);
    x.copyWithin(at, at - 1024, at);
    const { evidence, atS } = await only('dropouts', x);
    expect(evidence).toMatchObject({ params: { found: [{ params: { repeats: 1 } }], longest: '21.3' } });
    expect(Math.abs(atS[0]! * RATE - at)).toBeLessThanOrEqual(2);
  });
  it('tells a constant from the mean of a lopsided wave', async () => {
    const { evidence } = await only(
      'dc-offset',
      spoken().map((v) => v + 0.02),
    );
    expect(figure(evidence, 'percent')).toBeCloseTo(2, 1);
    expect(
      await idsOf(made((i) => 0.2 * (Math.max(0, Math.sin(i / 40)) - 0.2) * Math.max(0, Math.sin(i / 30_000)))),
    ).not.toContain('dc-offset');
  });
  it('weighs what is quiet, hot, and silent by the figures of the take', async () => {
    const x = spoken();
    expect(
      await only(
        'too-quiet',
        x.map((v) => v / 20),
      ),
    ).toMatchObject({ severity: 'fix' });
    expect(
      await only(
        'too-hot',
        x.map((v) => v * 2.83),
      ),
    ).toMatchObject({ severity: 'watch' });
    expect(await faultsOf(made(() => 0))).toMatchObject([
      { id: 'silent', evidence: { code: 'measure.allSamplesAreZero' } },
    ]);
  });
  it('says of two sides what they are to each other', async () => {
    const x = spoken();
    expect(
      await only(
        'one-sided',
        x,
        x.map((v) => v / 100),
      ),
    ).toMatchObject({ severity: 'fix', channel: 1 });
    expect(
      (
        await only(
          'one-sided',
          x.map(() => 0),
          x,
        )
      ).evidence,
    ).toMatchObject({ code: 'measure.sideEmpty', params: { side: { code: 'measure.left' } } });
    expect(
      await only(
        'polarity-inverted',
        x,
        x.map((v) => -v),
      ),
    ).toMatchObject({ severity: 'fix' });
    expect((await only('dual-mono', x, x.slice())).evidence).toMatchObject({ params: { rest: 'sample' } });
    // Panned is not the same: one side is louder.
    expect(
      await idsOf(
        x,
        x.map((v) => 0.8 * v),
      ),
    ).not.toContain('dual-mono');
  });
});

describe('odd takes', () => {
  it('of many hours are answered: blocks are counted, not handed over as arguments', () => {
    // Ten blocks a second, as at any rate; at 100 Hz four hours are made in a moment.
    const meter = sidesMeter(2, 100);
    const x = Float32Array.from({ length: 4 * 3600 * 100 }, (_, i) => 0.1 * Math.sin(i));
    meter.push([x, x.map((v) => -v)]);
    expect(meter.result().map((f) => f.id)).toEqual(['polarity-inverted']);
  });
  it('of one sample, of few bits, and of many channels are answered', async () => {
    const one = await diagnose(fftOf, recordingOf([new Float32Array([0.5])], RATE));
    expect(one.faults.map((f) => f.id)).toEqual(['dc-offset']);
    expect(one.levels.integratedLufs).toBeNull();
    const coarse = spoken().map((v) => Math.round(v * 127) / 128);
    expect(await idsOf(coarse)).not.toContain('clipping');
    const many = recordingOf(
      Array.from({ length: 32 }, () => new Float32Array(RATE)),
      RATE,
    );
    await expect(diagnose(fftOf, many)).rejects.toMatchObject({ code: 'no-layout' });
    const broken = recordingOf([new Float32Array(RATE).fill(Number.NaN)], RATE);
    await expect(diagnose(fftOf, broken)).rejects.toMatchObject({ code: 'not-a-number' });
  });
  it('tell how far they are', async () => {
    const parts: number[] = [];
    await diagnose(fftOf, recordingOf([spoken()], RATE), (part) => parts.push(part));
    expect(parts).toEqual([...parts].sort((a, b) => a - b));
    expect(parts.at(-1)).toBe(1);
  });
});
