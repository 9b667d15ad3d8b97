import { say } from '#core/audio/measure/sayings.ts';
import type { FftOf } from '#core/audio/samples/index.ts';
import { dbFromPower, powerFromDb } from '#core/model/units/index.ts';
import { type Fault, sideName } from './fault.ts';

/** Power over frequency, one side of one take: Welch's mean of Hann windows. Full-scale sine: 0 dB in all its bins together. */
export interface Spectrum {
  readonly binHz: number;
  /** Power in each bin, a sine of full scale as 1. */
  readonly power: Float64Array;
}

export interface Floor {
  /** What is left when nothing else sounds, within `bandHz`, dBFS; null where that never happens. */
  readonly floorDbfs: number | null;
  /** From 1 kHz up to 14, or as far as the rate allows. */
  readonly bandHz: readonly [low: number, high: number];
  /** Power of what is loud, dBFS. */
  readonly programmeDbfs: number | null;
  /** The part of the time at which only the floor is heard. */
  readonly restPart: number;
}

/** Width of a bin, Hz: fine enough to show the valleys between the partials of a note. */
const BIN_HZ = 12;
/** Frames looked at; of long takes every second, third one and so on. */
const MAX_FRAMES = 6000;
const BANDS_HZ = [1000, 2000, 3500, 5500, 8500, 14_000];
/** Bins of noise are exponentially distributed: a quarter of them are below 0.288 of the mean. */
const QUARTER = 0.25;
const QUARTER_OF_NOISE = -Math.log(1 - QUARTER);
/** The quietest frames of a band; those within this range above them belong to the floor too, as noise scatters. */
const QUIETEST = 0.05;
const NEAR_DB = 3;
const SCATTER_DB = 1;
/**
 * A floor stands for so much of the time at least: in pauses, where it is nearly all there is; under sounds that never
 * pause, much longer, or it is theirs.
 */
const REST_PART = { pauses: 0.1, under: 0.4 } as const;
/** Where the loudest frames hardly exceed it, the noise is the program. */
const MIN_OVER_DB = 3;
const PAUSE_DB = { overFloor: 3, underProgramme: 15 } as const;
/** Programme over floor: below the first it is heard in pauses, below the second all the time (typical). */
const HISS_DB = { watch: 37, fix: 30 } as const;
/** A floor so low is heard by no one, however quiet the take is. */
const INAUDIBLE_DBFS = -78;
/** Frames within this range of the loudest twentieth are loud. */
const LOUD_DB = 15;

interface Frame {
  readonly bandsDb: Float64Array;
  readonly power: number;
  /** Within the bands, partials and all. */
  readonly bandsPower: number;
}

/** Frames of one channel as they run: the spectrum of all, and the floor under them. */
export function floorMeter(fftOf: FftOf, sampleRateHz: number, frames: number) {
  const size = 2 ** Math.max(8, Math.round(Math.log2(sampleRateHz / BIN_HZ)));
  const fft = fftOf(size);
  const binHz = sampleRateHz / size;
  const stride = Math.max(1, Math.ceil(frames / size / MAX_FRAMES)) * size;
  const window = Float64Array.from({ length: size }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * (i + 0.5)) / size));
  const windowPower = window.reduce((sum, w) => sum + w * w, 0);
  const edges = BANDS_HZ.filter((hz) => hz < 0.45 * sampleRateHz).map((hz) => Math.round(hz / binHz));
  const joined = new Float32Array(size);
  const spectrum = new Float32Array(size);
  const power = new Float64Array(size / 2 + 1);
  const all: Frame[] = [];
  let filled = 0;
  let skip = 0;
  const take = () => {
    let own = 0;
    for (let i = 0; i < size; i++) {
      own += joined[i]! * joined[i]!;
      joined[i]! *= window[i]!;
    }
    fft.forward(joined, spectrum);
    // A sine of full scale has a mean square of a half: twice that, and both of its halves, make 1.
    const k = 4 / (size * windowPower);
    const bins = new Float64Array(size / 2 + 1);
    for (let b = 1; b < size / 2; b++) {
      bins[b] = k * (spectrum[2 * b]! ** 2 + spectrum[2 * b + 1]! ** 2);
      power[b]! += bins[b]!;
    }
    const bandsDb = Float64Array.from({ length: Math.max(0, edges.length - 1) }, (_, e) => {
      const part = bins.slice(edges[e]!, edges[e + 1]!).sort();
      const noise = (part[Math.floor(QUARTER * part.length)]! / QUARTER_OF_NOISE) * part.length;
      return dbFromPower(Math.max(noise, 1e-20));
    });
    let bandsPower = 0;
    for (let b = edges[0] ?? 0; b < (edges.at(-1) ?? 0); b++) bandsPower += bins[b]!;
    all.push({ bandsDb, bandsPower, power: (2 * own) / size });
  };
  return {
    push(x: Float32Array): void {
      for (let at = 0; at < x.length; ) {
        if (skip > 0) {
          const by = Math.min(skip, x.length - at);
          skip -= by;
          at += by;
          continue;
        }
        const count = Math.min(size - filled, x.length - at);
        joined.set(x.subarray(at, at + count), filled);
        filled += count;
        at += count;
        if (filled === size) {
          take();
          filled = 0;
          skip = stride - size;
        }
      }
    },
    spectrum: (): Spectrum => ({ binHz, power: power.map((p) => p / Math.max(1, all.length)) }),
    floor: (): Floor => readFloor(all, [(edges[0] ?? 0) * binHz, (edges.at(-1) ?? 0) * binHz]),
  };
}

function readFloor(frames: readonly Frame[], bandHz: Floor['bandHz']): Floor {
  const bands = frames[0]?.bandsDb.length ?? 0;
  const nothing = { floorDbfs: null, programmeDbfs: null, restPart: 0, bandHz };
  if (frames.length < 10 || bands === 0) return nothing;
  const at = (values: readonly number[], part: number) =>
    [...values].sort((a, b) => a - b)[Math.floor(part * values.length)]!;
  const quietest = Array.from({ length: bands }, (_, b) =>
    at(
      frames.map((f) => f.bandsDb[b]!),
      QUIETEST,
    ),
  );
  const needed = Math.ceil(0.8 * bands);
  const resting = frames.filter((f) => quietest.filter((db, b) => f.bandsDb[b]! < db + NEAR_DB).length >= needed);
  const restPart = resting.length / frames.length;
  const loudest = at(
    frames.map((f) => f.power),
    0.95,
  );
  const loud = frames.filter((f) => f.power >= loudest * powerFromDb(-LOUD_DB));
  const mean = (values: readonly number[]) => values.reduce((a, b) => a + b, 0) / values.length;
  const programmeDbfs = loudest > 0 ? dbFromPower(mean(loud.map((f) => f.power))) : null;
  const floor = Math.max(1e-20, mean(resting.map((f) => f.bandsDb.reduce((sum, db) => sum + powerFromDb(db), 0))));
  // In the quietest of them nothing else is left, where there are pauses at all.
  const pauses =
    at(
      resting.map((f) => f.bandsPower),
      QUARTER,
    ) <
      floor * powerFromDb(PAUSE_DB.overFloor) &&
    dbFromPower(
      Math.max(
        1e-20,
        at(
          resting.map((f) => f.power),
          QUARTER,
        ),
      ),
    ) <
      (programmeDbfs ?? 0) - PAUSE_DB.underProgramme;
  // A floor stays where it is; what fades only passes by.
  const heights = resting.map((f) => mean(quietest.map((db, b) => f.bandsDb[b]! - db)));
  const middle = mean(heights);
  const scatterDb = Math.sqrt(mean(heights.map((h) => (h - middle) ** 2)));
  const stands = scatterDb <= SCATTER_DB && restPart >= (pauses ? REST_PART.pauses : REST_PART.under);
  if (!stands) return floorByMinima(frames, programmeDbfs, bandHz) ?? { ...nothing, programmeDbfs, restPart };
  return { floorDbfs: dbFromPower(floor), programmeDbfs, restPart, bandHz };
}

/** Quantiles along time of a band that is met bare now and then: from the first to the second it rises by no more than noise scatters. */
const BARE = { low: 0.03, middle: 0.1, high: 0.2 } as const;
const BARE_RISE_DB = 2.5;
/** Minimum fraction of bands, and the tolerance between the thirds of the take. */
const BARE_BANDS = 0.6;
const SAME_DB = 3;
const PARTS = 3;

/**
 * A floor under sound that never pauses: at any time some band of it rests, and each of them comes back to the same
 * level again and again (minimum statistics; Martin 2001). What decays goes on falling instead.
 * @returns null where there is none
 */
function floorByMinima(frames: readonly Frame[], programmeDbfs: number | null, bandHz: Floor['bandHz']): Floor | null {
  const quantile = (sorted: Float64Array, part: number) => sorted[Math.floor(part * sorted.length)]!;
  const sortedOf = (of: readonly Frame[], b: number) => Float64Array.from(of, (f) => f.bandsDb[b]!).sort();
  const bands = Array.from({ length: frames[0]!.bandsDb.length }, (_, b) => {
    const sorted = sortedOf(frames, b);
    const middle = quantile(sorted, BARE.middle);
    const isBare = quantile(sorted, BARE.high) - quantile(sorted, BARE.low) <= BARE_RISE_DB;
    const length = Math.floor(frames.length / PARTS);
    const isSteady = Array.from({ length: PARTS }, (_, p) => frames.slice(p * length, (p + 1) * length)).every(
      (part) => Math.abs(quantile(sortedOf(part, b), BARE.middle) - middle) <= SAME_DB,
    );
    const bare = sorted.filter((db) => db < middle + NEAR_DB).length / sorted.length;
    return { stands: isBare && isSteady, db: isBare ? middle : quantile(sorted, BARE.low), bare };
  });
  const standing = bands.filter((b) => b.stands);
  if (standing.length < BARE_BANDS * bands.length) return null;
  const parts = standing.map((b) => b.bare).sort((a, b) => a - b);
  return {
    floorDbfs: dbFromPower(bands.reduce((sum, b) => sum + powerFromDb(b.db), 0)),
    programmeDbfs,
    restPart: parts[parts.length >> 1]!,
    bandHz,
  };
}

/** Noise that is always present, too close below the program. */
export function hissOf({ floorDbfs, programmeDbfs, restPart }: Floor, channel: number, channels: number): Fault[] {
  if (floorDbfs === null || programmeDbfs === null || floorDbfs < INAUDIBLE_DBFS) return [];
  const overDb = programmeDbfs - floorDbfs;
  if (overDb >= HISS_DB.watch || overDb < MIN_OVER_DB) return [];
  return [
    {
      id: 'hiss',
      severity: overDb < HISS_DB.fix ? 'fix' : 'watch',
      evidence: say.steadyNoiseAtDbfs({
        side: sideName(channel, channels),
        floorDbfs: floorDbfs.toFixed(0),
        overDb: overDb.toFixed(0),
        restPart: Math.round(100 * restPart),
      }),
      atS: [],
      channel: channels > 1 ? channel : null,
    },
  ];
}
