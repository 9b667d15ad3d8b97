import type { FftOf } from '#core/audio/samples/index.ts';
import { dbFromPower } from '#core/model/units/index.ts';
import { FLOOR } from './envelopes.ts';

/** A burst is looked at in these bands, from the voice's body to where wood and skin have next to nothing left. */
const EDGES_HZ = [300, 600, 1000, 1600, 2500, 4000, 6300, 10_000, 16_000] as const;
const BANDS = EDGES_HZ.length - 1;
const FIRST_HIGH = 3;
const LOW = 3;
/** Length of a window, and where they stand against the burst's beginning, seconds. */
const WINDOW_S = 512 / 48_000;
const BURST_S = -96 / 48_000;
const BEFORE_S = Array.from({ length: 6 }, (_, k) => (-700 - 256 * k) / 48_000);
const BEHIND_S = [2880 / 48_000, 4000 / 48_000] as const;
/** Floor of a band's level, relative to the burst: less than this counts as this. */
const MIN_NET = 0.02;
const clamped = (value: number, low: number, high: number): number => Math.min(high, Math.max(low, value));

/** A burst, band by band. */
export interface Bands {
  /** How much the high bands rise over the loudest just before, in the mean, dB. */
  readonly rise: number;
  /** How far what follows 60 to 90 ms later is over what was before: of all bands, and of the low ones, dB. */
  readonly stays: number;
  readonly staysLow: number;
  /** Level of the burst in the high bands, dBFS. */
  readonly netDb: number;
  /** Each band of it against their mean, dB. */
  readonly shape: readonly number[];
}

/** Length of the stretch analyzed around a burst, s. */
export const AROUND_S = { before: -BEFORE_S.at(-1)!, behind: BEHIND_S[1] + WINDOW_S } as const;

/** @returns looks at the burst that begins at a sample of a block */
export function bandReader(fftOf: FftOf, sampleRateHz: number): (samples: Float32Array, at: number) => Bands {
  const size = 2 ** Math.round(Math.log2(WINDOW_S * sampleRateHz));
  const fft = fftOf(size);
  const shape = Float32Array.from({ length: size }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * (i + 0.5)) / size));
  const bins = EDGES_HZ.map((hz) => Math.max(1, Math.round((hz * size) / sampleRateHz)));
  // Above half the sample rate there is nothing: the highest complete band stands in for the rest.
  const whole = Math.max(1, EDGES_HZ.filter((hz) => hz <= sampleRateHz / 2).length - 1);
  const x = new Float32Array(size);
  const spectrum = new Float32Array(size);
  const powersAt = (samples: Float32Array, from: number): number[] => {
    for (let i = 0; i < size; i++) x[i] = (samples[from + i] ?? 0) * shape[i]!;
    fft.forward(x, spectrum);
    return Array.from({ length: BANDS }, (_, band) => {
      const b = Math.min(band, whole - 1);
      let power = 0;
      for (let k = bins[b]!; k < Math.max(bins[b]! + 1, bins[b + 1]!); k++)
        power += spectrum[2 * k]! ** 2 + spectrum[2 * k + 1]! ** 2;
      return power / size;
    });
  };
  const db = (power: number) => dbFromPower(Math.max(FLOOR, power));
  const mean = (values: readonly number[]) => values.reduce((a, b) => a + b, 0) / values.length;
  return (samples, at) => {
    const read = (atS: number) => powersAt(samples, at + Math.round(atS * sampleRateHz));
    const burst = read(BURST_S);
    const before = BEFORE_S.map(read).reduce((most, powers) => most.map((v, b) => Math.max(v, powers[b]!)));
    const [near, far] = BEHIND_S.map(read);
    const rises = burst.map((v, b) => db(v) - db(before[b]!));
    const stays = burst.map((_, b) => clamped(db((near![b]! + far![b]!) / 2) - db(before[b]!), -5, 20));
    const net = burst.map((v, b) => Math.max(v - before[b]!, v * MIN_NET));
    const levels = net.map(db);
    return {
      rise: mean(rises.slice(FIRST_HIGH).map((r) => clamped(r, 0, 20))),
      stays: mean(stays),
      staysLow: mean(stays.slice(0, LOW)),
      netDb: db(net.slice(FIRST_HIGH).reduce((a, b) => a + b, 0)),
      shape: levels.map((l) => l - mean(levels)),
    };
  };
}
