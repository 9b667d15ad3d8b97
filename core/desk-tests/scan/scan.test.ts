import { beforeAll, describe, expect, it } from 'vitest';
import { band, filterInPlace } from '#core/audio/process/index.ts';
import { testFft } from '#core/audio/samples/fft.testkit.ts';
import { type FftOf, resample, seededNormal, seededRandom } from '#core/audio/samples/index.ts';
import { type Emission, type Heard, lengthOfRound, linksOf, readRound, SLOT_S, sweep } from './index.ts';

let fftOf: FftOf;
beforeAll(async () => {
  fftOf = await testFft();
});

interface Path {
  readonly from: string;
  readonly to: string;
  readonly gain: number;
  readonly delayMs: number;
  /** Output side to input channel. */
  readonly sides: readonly (readonly [0 | 1, 0 | 1])[];
}
const STRAIGHT = [
  [0, 0],
  [1, 1],
] as const;

interface Bench {
  readonly outputs: readonly string[];
  readonly inputs: readonly string[];
  readonly paths: readonly Path[];
  readonly noise?: number;
  /** How much faster an input counts. */
  readonly ppm?: Readonly<Record<string, number>>;
  readonly rateHz?: number;
  readonly spoil?: (x: Float32Array, rateHz: number) => void;
}

const ROUND_S = 0.5;

/** Rounds as a desk that is known would return them, each sweep put where it belongs by a sinc of its own. */
function play(bench: Bench, round: number, levelDbfs: number): { emissions: Emission[]; heard: Heard[] } {
  const { outputs, inputs, paths, noise = 0, ppm = {}, rateHz = 48_000, spoil } = bench;
  const roundS = ROUND_S + 2 * outputs.length * SLOT_S + 1;
  const beganS = 100 + round * roundS;
  const emissions = outputs.flatMap((outputId, k) =>
    ([0, 1] as const).map((side): Emission => {
      const atS = beganS + ROUND_S + (2 * k + side) * SLOT_S;
      return { outputId, side, atS, playedS: atS - 90, levelDbfs, lengthS: lengthOfRound(round) };
    }),
  );
  const heard = inputs.map((inputId, n): Heard => {
    const clock = 1 + (ppm[inputId] ?? 0) * 1e-6;
    const frames = Math.round(roundS * rateHz);
    const firstFrame = Math.round((beganS - 100) * rateHz * clock);
    const normal = seededNormal(31 * n + round + 1);
    const channels = [0, 1].map(() => Float32Array.from({ length: frames }, () => noise * normal()));
    const played = sweep(rateHz, levelDbfs, lengthOfRound(round));
    for (const { from, to, gain, delayMs, sides } of paths)
      if (to === inputId)
        for (const [side, channel] of sides) {
          const { atS } = emissions.find((e) => e.outputId === from && e.side === side)!;
          // By the input's own clock, from its first sample on.
          const at = ((atS + delayMs / 1000 - 100) * clock - firstFrame / rateHz) * rateHz;
          const whole = Math.floor(at);
          const placed = resample(played, at - whole === 0 ? 0 : whole - at, 1 / clock, played.length + 2);
          for (let i = 0; i < placed.length; i++) channels[channel]![whole + i]! += gain * placed[i]!;
        }
    for (const x of channels) spoil?.(x, rateHz);
    return {
      inputId,
      sampleRateHz: rateHz,
      fromS: 100 + firstFrame / rateHz / clock,
      clock,
      firstFrame,
      channels,
      isSteady: true,
    };
  });
  return { emissions, heard };
}

const scanned = (bench: Bench, levels: readonly number[] = [-66, -54, -42]) =>
  linksOf(
    levels.flatMap((level, round) => {
      const { emissions, heard } = play(bench, round, level);
      return heard.map((h) => readRound(fftOf, emissions, h));
    }),
  );

const OUTPUTS = ['a', 'b', 'c', 'd'];
const INPUTS = ['i', 'j', 'k', 'l', 'm', 'n'];
const dbOf = (gain: number) => 20 * Math.log10(Math.abs(gain));

describe('a scan of outputs and inputs', () => {
  it.each([1, 2, 3])('finds all links of desk %i, and none that is not there', (seed) => {
    const random = seededRandom(seed);
    const paths: Path[] = [];
    for (const from of OUTPUTS)
      for (const to of INPUTS)
        if (random() < 0.35)
          paths.push({
            from,
            to,
            gain: (random() < 0.3 ? -1 : 1) * 10 ** ((-30 * random()) / 20),
            delayMs: 400 * random(),
            sides: random() < 0.5 ? STRAIGHT : [[random() < 0.5 ? 0 : 1, random() < 0.5 ? 0 : 1]],
          });
    const ppm = { i: 0, j: 40, k: -120, l: 8, m: 0, n: 250 };
    const links = scanned({ outputs: OUTPUTS, inputs: INPUTS, paths, ppm, noise: 1e-5 });
    const key = (l: { outputId: string; inputId: string }) => l.outputId + l.inputId;
    expect(links.map(key).sort()).toEqual(paths.map((p) => p.from + p.to).sort());
    for (const p of paths) {
      const link = links.find((l) => key(l) === p.from + p.to)!;
      expect(Math.abs(link.delayMs - p.delayMs)).toBeLessThan(0.5);
      expect(Math.abs(link.levelDb - dbOf(p.gain))).toBeLessThan(0.5);
      expect(link.polarity).toBe(Math.sign(p.gain));
      expect(Math.abs(link.ppm! - ppm[p.to as keyof typeof ppm])).toBeLessThan(3);
      expect(link.again).toEqual([]);
      const expected = p.sides === STRAIGHT ? 'straight' : p.sides[0]![0] === 0 ? 'left-only' : 'right-only';
      expect(link.sides).toBe(expected);
    }
  });
  it('tells what arrives twice, and how far apart', () => {
    const twice = [
      { from: 'a', to: 'i', gain: 0.5, delayMs: 20, sides: STRAIGHT },
      { from: 'a', to: 'i', gain: 0.2, delayMs: 140, sides: STRAIGHT },
    ];
    const [link] = scanned({ outputs: ['a'], inputs: ['i'], paths: twice, noise: 1e-5 });
    expect(link!.delayMs).toBeCloseTo(20, 0);
    expect(link!.again).toHaveLength(1);
    expect(link!.again[0]!.afterMs).toBeCloseTo(120, 0);
    expect(link!.again[0]!.underDb).toBeCloseTo(dbOf(2.5), 0);
  });
  it('tells the band of a call, and the level within it', () => {
    const paths = [{ from: 'a', to: 'i', gain: 1, delayMs: 30, sides: STRAIGHT }];
    const narrow = (x: Float32Array, rateHz: number) => {
      for (let n = 0; n < 2; n++) filterInPlace(x, band(200, 3800, rateHz));
    };
    const [link] = scanned({ outputs: ['a'], inputs: ['i'], paths, noise: 1e-5, spoil: narrow });
    expect(link!.lowHz).toBeGreaterThan(100);
    expect(link!.lowHz).toBeLessThan(300);
    expect(link!.highHz).toBeGreaterThan(3000);
    expect(link!.highHz).toBeLessThan(6000);
    const [whole] = scanned({ outputs: ['a'], inputs: ['i'], paths, noise: 1e-5 });
    expect(whole!.lowHz).toBeLessThan(110);
    expect(whole!.highHz).toBeGreaterThan(10_000);
  });
  it('takes no harmonic of a device that clips for a link', () => {
    const paths = [{ from: 'b', to: 'i', gain: 1, delayMs: 5, sides: STRAIGHT }];
    const clip = (x: Float32Array) => {
      for (let i = 0; i < x.length; i++) x[i] = Math.tanh(150 * x[i]!) / 150;
    };
    const links = scanned({ outputs: ['a', 'b', 'c'], inputs: ['i'], paths, noise: 1e-6, spoil: clip }, [-42, -36]);
    expect(links.map((l) => l.outputId)).toEqual(['b']);
    expect(links[0]!.again).toEqual([]);
  });
  it('takes no steps of 16 bits for a link, though sweeps are hardly louder than they', () => {
    const paths = [
      { from: 'b', to: 'i', gain: -0.06, delayMs: 31, sides: [[0, 0]] as const },
      { from: 'b', to: 'i', gain: -0.03, delayMs: 58, sides: [[0, 0]] as const },
      { from: 'c', to: 'j', gain: 0.03, delayMs: 395, sides: STRAIGHT },
    ];
    const stepped = (x: Float32Array) => {
      for (let i = 0; i < x.length; i++) x[i] = Math.round(x[i]! * 32_768) / 32_768;
    };
    const bench = { outputs: ['a', 'b', 'c'], inputs: ['i', 'j'], paths, spoil: stepped, rateHz: 44_100 };
    const links = scanned(bench, [-66, -54, -54]);
    expect(links.map((l) => l.outputId + l.inputId).sort()).toEqual(['bi', 'cj']);
    const [twice, once] = [links.find((l) => l.outputId === 'b')!, links.find((l) => l.outputId === 'c')!];
    expect(twice.again.map((a) => Math.round(a.afterMs))).toEqual([27]);
    expect(once.again).toEqual([]);
    expect(once.levelDb).toBeCloseTo(dbOf(0.03), 0);
  });
  it('says from which level on it would have seen one, and finds none in noise', () => {
    const bench = { outputs: ['a', 'b'], inputs: ['i'], paths: [], noise: 0.01 };
    const { emissions, heard } = play(bench, 0, -42);
    const read = readRound(fftOf, emissions, heard[0]!);
    expect(read.sightings).toEqual([]);
    const [sees] = read.seesFromDb;
    expect(sees!.db).toBeGreaterThan(-40);
    expect(sees!.db).toBeLessThan(10);
    // What lies a little above is found.
    const just = { from: 'a', to: 'i', gain: 10 ** ((sees!.db + 3) / 20), delayMs: 50, sides: STRAIGHT };
    expect(scanned({ ...bench, paths: [just] }, [-42, -42]).map((l) => l.outputId)).toEqual(['a']);
  });
  it('says that an input was silent throughout', () => {
    const { emissions, heard } = play({ outputs: ['a'], inputs: ['i'], paths: [] }, 0, -42);
    expect(readRound(fftOf, emissions, heard[0]!)).toMatchObject({ silent: ['i'], sightings: [] });
  });
});
