import { beforeAll, describe, expect, it } from 'vitest';
import { testFft } from '#core/audio/samples/fft.testkit.ts';
import { corrected, type FftOf, recordingOf, resample, seededNormal } from '#core/audio/samples/index.ts';
import { convolve, game, noise, roomResponse, type SourceMaker, voice } from '#core/desk-tests/stand-ins/index.ts';
import { MeasureError, measureOffset } from './index.ts';

const RATE = 16_000;
let fftOf: FftOf;
beforeAll(async () => {
  fftOf = await testFft();
});

const addNoise = (x: Float32Array, snrDb: number, seed: number): Float32Array => {
  const normal = seededNormal(seed);
  const power = x.reduce((sum, v) => sum + v * v, 0) / x.length;
  const k = Math.sqrt(power) * 10 ** (-snrDb / 20);
  return x.map((v) => v + k * normal());
};
/** A telephone's band: crude, but nothing above 3.4 kHz or below 300 Hz is left to agree on. */
const telephone = (x: Float32Array): Float32Array => {
  const taps = 255;
  const h = new Float32Array(taps);
  for (let i = 0; i < taps; i++) {
    const t = i - 127;
    const low = (hz: number) => (t === 0 ? (2 * hz) / RATE : Math.sin((2 * Math.PI * hz * t) / RATE) / (Math.PI * t));
    h[i] = (low(3400) - low(300)) * (0.5 - 0.5 * Math.cos((2 * Math.PI * i) / (taps - 1)));
  }
  const y = convolve(fftOf, x, h);
  return resample(y, 127, 1, x.length);
};
interface Condition {
  readonly name: string;
  readonly other: (x: Float32Array) => Float32Array;
}
const CONDITIONS: Condition[] = [
  { name: 'as it is', other: (x) => x },
  { name: 'as loud a noise', other: (x) => addNoise(x, 0, 11) },
  { name: 'a room', other: (x) => convolve(fftOf, x, roomResponse(RATE, 0.5, 0, 12)) },
  { name: 'a telephone', other: telephone },
  {
    name: 'a room, a telephone and as loud a noise',
    other: (x) => addNoise(telephone(convolve(fftOf, x, roomResponse(RATE, 0.5, 0, 13))), 0, 14),
  },
  { name: 'the other polarity', other: (x) => x.map((v) => -v) },
];
const SOUNDS: [string, SourceMaker][] = [
  ['speech', voice(180)],
  ['a game', game],
];
const OFFSETS_MS = [0, 3.217, 640.55, 7999.9, -1234.56];

describe.each(SOUNDS)('the offset of %s', (_, make) => {
  it.each(CONDITIONS)('through $name is found within a twentieth of a millisecond', async ({ name, other }) => {
    for (const [i, offsetMs] of OFFSETS_MS.entries()) {
      const seconds = 6;
      const dry = make((seconds + 10) * RATE, RATE, 40 + i);
      const frames = seconds * RATE;
      const late = Math.max(0, offsetMs);
      const ref = dry.slice(0, frames);
      // The other recorder was started earlier or later: the sound stands `offsetMs` later in it.
      const heard = other(resample(dry, (-offsetMs * RATE) / 1000, 1, frames + Math.ceil((late * RATE) / 1000)));
      const found = await measureOffset(fftOf, recordingOf([ref], RATE), recordingOf([heard], RATE));
      expect(found.confidence, `${offsetMs} ms`).toBeGreaterThan(0.9);
      expect(Math.abs(found.offsetMs - offsetMs), `${offsetMs} ms`).toBeLessThan(0.05);
      expect(found.polarity).toBe(name === 'the other polarity' ? -1 : 1);
    }
  });
});

describe('two takes that do not hold the same sound', () => {
  const pairs: [string, SourceMaker, SourceMaker][] = [
    ['two talkers', voice(120), voice(210)],
    ['one talker, other words', voice(170), voice(170)],
    ['two games', game, game],
    ['two noises', noise, noise],
    ['a talker and a game', voice(140), game],
  ];
  it.each(pairs)('%s are told apart', async (_, a, b) => {
    for (let seed = 0; seed < 4; seed++) {
      const ref = recordingOf([a(7 * RATE, RATE, 100 + seed)], RATE);
      const other = recordingOf([b(8 * RATE, RATE, 900 + seed)], RATE);
      expect((await measureOffset(fftOf, ref, other)).confidence).toBeLessThan(0.2);
    }
  });
});

describe('two takes of one talk that begin long before anybody speaks', () => {
  it('are as sure as if they began with the talk: silence says nothing', async () => {
    const talk = voice(165)(50 * RATE, RATE, 61);
    const normal = seededNormal(62);
    const withLead = (x: Float32Array): Float32Array => {
      const out = Float32Array.from({ length: 45 * RATE + x.length }, () => 2e-4 * normal());
      for (let i = 0; i < x.length; i++) out[45 * RATE + i]! += x[i]!;
      return out;
    };
    const ref = withLead(talk.subarray(0, 45 * RATE));
    const other = withLead(convolve(fftOf, talk.slice(RATE, 47 * RATE), roomResponse(RATE, 0.4, 2, 63)));
    const found = await measureOffset(fftOf, recordingOf([ref], RATE), recordingOf([other], RATE));
    expect(Math.abs(found.offsetMs + 1000)).toBeLessThan(0.05);
    expect(found.confidence).toBeGreaterThan(0.95);
  });
});

describe('drift', () => {
  it.each([2, -31, 150])('of %i ppm is found within a tenth, with the offset at the start', async (ppm) => {
    const seconds = 240;
    const dry = voice(190)((seconds + 2) * RATE, RATE, 5);
    const ref = addNoise(dry.subarray(0, seconds * RATE), 20, 6);
    const offsetMs = 812.5;
    const other = addNoise(
      resample(dry, (-offsetMs * RATE) / 1000 / (1 + ppm * 1e-6), 1 / (1 + ppm * 1e-6), seconds * RATE),
      10,
      7,
    );
    const found = await measureOffset(fftOf, recordingOf([ref], RATE), recordingOf([other], RATE));
    expect(Math.abs(found.driftPpm! - ppm)).toBeLessThan(0.1);
    expect(Math.abs(found.offsetMs - offsetMs)).toBeLessThan(0.05);
    expect(found.points.filter((p) => p.agrees).length).toBeGreaterThan(6);
  });
  it('is not told where the take is too short to tell', async () => {
    const dry = voice(190)(3 * RATE, RATE, 5);
    const found = await measureOffset(
      fftOf,
      recordingOf([addNoise(dry, 3, 1)], RATE),
      recordingOf([addNoise(dry, 3, 2)], RATE),
    );
    expect(found.confidence).toBeGreaterThan(0.5);
    expect(found.driftPpm).toBeNull();
    expect(found.driftSdPpm).toBeNull();
  });
  it('is found between recorders of different rates', async () => {
    const high = voice(160)(20 * 48_000, 48_000, 9);
    const low = resample(high, 0, 48_000 / 44_100, 20 * 44_100 - 100);
    const found = await measureOffset(fftOf, recordingOf([high], 48_000), recordingOf([low], 44_100));
    expect(Math.abs(found.offsetMs)).toBeLessThan(0.02);
    expect(Math.abs(found.driftPpm ?? 0)).toBeLessThan(1);
  });
});

describe('what cannot be measured', () => {
  it('is refused by name', async () => {
    const sound = recordingOf([voice(150)(RATE * 2, RATE, 1)], RATE);
    const silence = recordingOf([new Float32Array(RATE * 2)], RATE);
    const blink = recordingOf([new Float32Array(RATE / 4)], RATE);
    await expect(measureOffset(fftOf, sound, silence)).rejects.toMatchObject({ name: 'MeasureError', code: 'silent' });
    await expect(measureOffset(fftOf, blink, sound)).rejects.toMatchObject({ code: 'too-short' });
    expect(new MeasureError('silent', 'the first').said).toMatchObject({ params: { which: 'the first' } });
  });
});

describe('a take that is corrected by what was measured', () => {
  it('lies to the first within 0.1 ms at its start, in its middle and at its end', async () => {
    const x = voice(160)(90 * RATE, RATE, 21);
    // It began 3.2 s later, its clock runs 75 ppm fast, and it is noisier.
    const other = addNoise(resample(x, 3.2 * RATE, 1 / (1 + 75e-6), 84 * RATE), 12, 22);
    const [ref, late] = [recordingOf([x], RATE), recordingOf([other], RATE)];
    const { offsetMs, driftPpm } = await measureOffset(fftOf, ref, late);
    const mended = corrected(late, [{ fromFrame: 0, readAt: (offsetMs / 1000) * RATE, step: 1 + driftPpm! * 1e-6 }]);
    const again = await measureOffset(fftOf, ref, mended);
    expect(Math.abs(again.driftPpm!)).toBeLessThan(1);
    for (const atS of [4, 42, 80]) {
      const [a] = await ref.read(atS * RATE, 6 * RATE);
      const [b] = await mended.read(atS * RATE, 6 * RATE);
      const piece = await measureOffset(fftOf, recordingOf([a!], RATE), recordingOf([b!], RATE));
      expect(Math.abs(piece.offsetMs), `${atS} s`).toBeLessThan(0.1);
    }
  });
});
