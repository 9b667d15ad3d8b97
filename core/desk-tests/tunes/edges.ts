import type { Interval } from '#core/model/units/index.ts';
import { type BandLevel, MIDDLE_HZ, OCTAVES } from './bands.ts';
import { swell, tuneOf } from './tune.ts';

/** Octaves that are no further under the middle than this are there. */
export const PRESENT_DB = -12;

/** Where a band ends, Hz, 3 dB down: beyond the tune's range, or null where unknown. */
export type BandEdge = Interval | 'beyond' | null;
export interface BandEdges {
  readonly low: BandEdge;
  readonly high: BandEdge;
}
type End = keyof BandEdges;

/** One standard deviation of an octave's level, more the lower it is: microphones, rooms and coders are not flat. */
const sdOf = (db: number): number => 2 + Math.abs(db) / 12;
/** What is as low as this is gone: how low it is then is a matter of what leaks. */
const GONE_DB = -36;
/** Ends are given within two standard deviations. */
const WITHIN = 4;
/** What fits no better is no end of a band, but something else. */
const FITS = 9;
/** How steeply filters fall, times 6 dB an octave; the last one like a wall. */
const ORDERS = [1, 2, 3, 4, 8, 1000];
const LOWEST_HZ = 60;
const PER_OCTAVE = 24;
const CORNERS_HZ = Array.from({ length: 8 * PER_OCTAVE + 1 }, (_, i) => LOWEST_HZ * 2 ** (i / PER_OCTAVE));

/**
 * Where the band of a way ends, closer than by octaves: a tune read octave by octave is held against what filters of
 * every corner and steepness leave of one. Those that fit within the spread tell how close it is known.
 * @param bands  octave by octave, as a reading has them
 */
export function edgesOf(bands: readonly BandLevel[]): BandEdges {
  if (bands.every((b) => b.db === null)) return { low: null, high: null };
  return { low: edgeOf(bands, 'low'), high: edgeOf(bands, 'high') };
}

function edgeOf(bands: readonly BandLevel[], end: End): BandEdge {
  const isOnSide = ({ lowHz, highHz }: BandLevel) => (end === 'low' ? highHz <= MIDDLE_HZ[1] : lowHz >= MIDDLE_HZ[0]);
  const own = bands.map((b, i) => ({ ...b, i })).filter(isOnSide);
  const misfit = (levels: readonly number[]): number =>
    own.reduce((sum, { db, atMostDb, i }) => {
      const level = Math.max(GONE_DB, levels[i]!);
      const read = Math.max(GONE_DB, db ?? atMostDb ?? 0);
      if (db === null && (atMostDb === null || level <= read)) return sum;
      return sum + ((read - level) / sdOf(read)) ** 2;
    }, 0);
  const fits = filters(end).map(({ hz, levels }) => ({ hz, misfit: misfit(levels) }));
  const best = fits.reduce((a, b) => (b.misfit < a.misfit ? b : a));
  if (misfit(bands.map(() => 0)) <= best.misfit + WITHIN) {
    const outermost = end === 'low' ? bands[0]! : bands.at(-1)!;
    return outermost.db === null ? null : 'beyond';
  }
  if (best.misfit > FITS) return null;
  const near = fits.filter((f) => f.misfit <= best.misfit + WITHIN).map((f) => f.hz);
  return { low: twoDigits(Math.min(...near)), nominal: twoDigits(best.hz), high: twoDigits(Math.max(...near)) };
}

/** No end is known closer. */
const twoDigits = (hz: number): number => Number(hz.toPrecision(2));

interface Filter {
  readonly hz: number;
  /** How loud each octave of a tune is read behind it, dB against the middle. */
  readonly levels: readonly number[];
}
const made: { [E in End]?: readonly Filter[] } = {};

function filters(end: End): readonly Filter[] {
  made[end] ??= (() => {
    const energies = energiesOf();
    return ORDERS.flatMap((order) => CORNERS_HZ.map((hz) => ({ hz, levels: levelsBehind(energies, end, hz, order) })));
  })();
  return made[end];
}

interface Energy {
  readonly hz: number;
  energy: number;
}
const BINS = 12;
const STEPS = 24;
/** Tunes that represent all: their glides are alike. */
const LIKE_ALL = 4;

/** Energy distribution of a tune within each octave, in equal steps of pitch. */
function energiesOf(): Energy[][] {
  const energies = OCTAVES.map(({ lowHz, highHz }) =>
    Array.from({ length: BINS }, (_, i): Energy => ({ hz: lowHz * (highHz / lowHz) ** ((i + 0.5) / BINS), energy: 0 })),
  );
  for (let id = 0; id < LIKE_ALL; id++)
    for (const { fromHz, toHz, lengthS, gain } of tuneOf(id))
      for (let i = 0; i < STEPS; i++) {
        const at = (i + 0.5) / STEPS;
        const hz = fromHz * (toHz / fromHz) ** at;
        const o = OCTAVES.findIndex(({ lowHz, highHz }) => hz >= lowHz && hz < highHz);
        if (o < 0) continue;
        const { lowHz, highHz } = OCTAVES[o]!;
        const bin = Math.floor((BINS * Math.log(hz / lowHz)) / Math.log(highHz / lowHz));
        energies[o]![bin]!.energy += lengthS * (gain * swell(at)) ** 2;
      }
  return energies;
}

function levelsBehind(energies: readonly (readonly Energy[])[], end: End, cornerHz: number, order: number): number[] {
  const passed = energies.map((bins) => {
    let [all, sum] = [0, 0];
    for (const { hz, energy } of bins) {
      all += energy;
      sum += energy / Math.sqrt(1 + (end === 'high' ? hz / cornerHz : cornerHz / hz) ** (2 * order));
    }
    return sum / all;
  });
  const middle = passed.filter((_, i) => OCTAVES[i]!.lowHz >= MIDDLE_HZ[0] && OCTAVES[i]!.highHz <= MIDDLE_HZ[1]);
  const reference = Math.sqrt(middle.reduce((sum, p) => sum + p * p, 0) / middle.length);
  return passed.map((p) => 20 * Math.log10(Math.max(1e-6, p / reference)));
}
