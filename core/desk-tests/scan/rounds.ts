import { median } from 'd3-array';
import type { FftOf } from '#core/audio/samples/index.ts';
import { type Again, type Arrival, arrivalIn, peaksOf } from './arrivals.ts';
import { type Responses, responsesIn } from './response.ts';
import type { ScanInput, ScanLinkSeen, Sides } from './scan.ts';
import { lengthOfRound } from './sweep.ts';

/** A sweep that was played by one side of an output. */
export interface Emission {
  readonly outputId: string;
  readonly side: 0 | 1;
  /** When it began, by the page's clock, s. */
  readonly atS: number;
  /** When it began, by the clock of the output, s. */
  readonly playedS: number;
  readonly levelDbfs: number;
  /** How long it is, s: the same for all of a round. */
  readonly lengthS: number;
}

/** What an input heard while a round was played. */
export interface Heard {
  readonly inputId: string;
  readonly sampleRateHz: number;
  /** When its first sample was taken, by the page's clock, s. */
  readonly fromS: number;
  /** How much faster its clock counts than the page's, as a factor. */
  readonly clock: number;
  /** Samples of this input before the first one. */
  readonly firstFrame: number;
  readonly channels: readonly Float32Array[];
  /** No sample was lost meanwhile, as far as its stamps tell. */
  readonly isSteady: boolean;
}

/** One sweep at one channel of an input. */
interface Sighting {
  readonly outputId: string;
  readonly inputId: string;
  readonly side: 0 | 1;
  readonly channel: number;
  /** Level of the path: what was heard against what was played, dB. */
  readonly levelDb: number;
  readonly delayMs: number;
  /** When it arrived by the clock of the input, and began by that of the output, s. */
  readonly arrivedS: number;
  readonly playedS: number;
  /** Level at which it arrived, dBFS peak. */
  readonly heardDbfs: number;
  readonly arrival: Arrival;
}

/** What one round tells. */
export interface RoundRead {
  readonly sightings: readonly Sighting[];
  /** The quietest path that this input could have shown of an output, dB; by output and input. */
  readonly seesFromDb: readonly { readonly outputId: string; readonly inputId: string; readonly db: number }[];
  /** Inputs without one sample that isn't zero. */
  readonly silent: readonly string[];
}

/** A path shows where its peak is so far over the noise, dB. */
const SHOWS_DB = 18;
/** Half a step of 16 bits, dBFS peak: what is quieter may be lost on the way, however silent an input is. */
const LEAST_DBFS = -90;

/** One round, of all inputs. */
export const joinReads = (reads: readonly RoundRead[]): RoundRead => ({
  sightings: reads.flatMap((r) => r.sightings),
  seesFromDb: reads.flatMap((r) => r.seesFromDb),
  silent: reads.flatMap((r) => r.silent),
});

/** Reads what one round of sweeps became at an input. */
export function readRound(fftOf: FftOf, emissions: readonly Emission[], heard: Heard): RoundRead {
  const lengthS = emissions[0]?.lengthS ?? lengthOfRound(0);
  const read = heard.channels.map((samples) => {
    const of = responsesIn(fftOf, samples, heard.sampleRateHz, lengthS);
    return of && { of, peaks: peaksOf(of) };
  });
  const sightings = read.flatMap((one, channel) =>
    one ? emissions.flatMap((e) => sight(fftOf, one, e, heard, channel)) : [],
  );
  const isSilent = read.every((one) => one === null);
  return {
    sightings,
    silent: isSilent ? [heard.inputId] : [],
    seesFromDb: [...new Map(emissions.map((e) => [e.outputId, e])).values()].map(({ outputId, levelDbfs }) => {
      const noise = Math.max(0, ...read.map((one) => one?.of.noise ?? 0));
      const byNoise = 20 * Math.log10(Math.max(noise, 1e-9)) + SHOWS_DB - levelDbfs;
      return { outputId, inputId: heard.inputId, db: Math.max(byNoise, LEAST_DBFS - levelDbfs) };
    }),
  };
}

function sight(
  fftOf: FftOf,
  { of, peaks }: { of: Responses; peaks: readonly number[] },
  emission: Emission,
  heard: Heard,
  channel: number,
): Sighting[] {
  const { outputId, side, atS, playedS, levelDbfs } = emission;
  const beganS = (atS - heard.fromS) * heard.clock;
  const arrival = arrivalIn(fftOf, of, peaks, beganS);
  // Under a step of 16 bits there is only what such steps make of louder ones.
  if (!arrival || arrival.levelDb < LEAST_DBFS) return [];
  return [
    {
      outputId,
      inputId: heard.inputId,
      side,
      channel,
      playedS,
      levelDb: arrival.levelDb - levelDbfs,
      heardDbfs: arrival.levelDb,
      delayMs: 1000 * arrival.atS,
      arrivedS: heard.firstFrame / heard.sampleRateHz + beganS + arrival.atS,
      arrival,
    },
  ];
}

/** Rounds that a path has to be seen in. */
const ENOUGH_ROUNDS = 2;
/** Levels are read where they are so far over the steps of 16 bits, dB: nearer, those change them. */
const OVER_STEPS_DB = 9;
/** What browsers say of their own delays is off by this between rounds at most, ms: more is another path. */
const AGREE_MS = 25;
/** Delays of steady rounds lie within this, ms: those that most agree with count. */
const STEADY_MS = 6;
/** A side this far under the other isn't counted to it, dB: what one channel leaks into the next. */
const SIDE_UNDER_DB = 24;
/** Clocks by pairs of rounds agree within this, parts per million. */
const AGREE_PPM = 6;

/** Paths that were seen in two rounds or more. */
export function linksOf(rounds: readonly RoundRead[]): ScanLinkSeen[] {
  const pairs = new Map<string, Sighting[]>();
  for (const s of rounds.flatMap((r) => r.sightings)) {
    const key = JSON.stringify([s.outputId, s.inputId]);
    pairs.set(key, [...(pairs.get(key) ?? []), s]);
  }
  const links = [...pairs.values()].flatMap((all) => linkOf(all) ?? []);
  // Nothing arrives before it is played: what stamps are off by, they are off by for all.
  const early = Math.min(0, ...links.map((l) => l.delayMs));
  return links.map((l) => ({ ...l, delayMs: l.delayMs - early }));
}

function linkOf(all: readonly Sighting[]): ScanLinkSeen | null {
  const middleMs = steadyOf(all.map((s) => s.delayMs));
  const agreeing = all.filter((s) => Math.abs(s.delayMs - middleMs) < AGREE_MS);
  const sides = [0, 1].flatMap((side) =>
    [0, 1].map((channel) => agreeing.filter((s) => s.side === side && s.channel === channel)),
  );
  const seen = sides.filter((s) => s.length > 1);
  if (seen.length === 0) return null;
  const levelOf = (s: readonly Sighting[]) =>
    s.length > 1 ? median(s, (one) => one.levelDb)! : Number.NEGATIVE_INFINITY;
  const loudest = seen.reduce((best, s) => (levelOf(s) > levelOf(best) ? s : best));
  const levelDb = levelOf(loudest);
  const [ll, lr, rl, rr] = sides.map((s) => levelOf(s) > levelDb - SIDE_UNDER_DB) as [
    boolean,
    boolean,
    boolean,
    boolean,
  ];
  const hasTwoChannels = agreeing.some((s) => s.channel === 1);
  const clearest = loudest.reduce((a, b) => (b.arrival.overNoiseDb > a.arrival.overNoiseDb ? b : a));
  const delays = loudest.map((s) => s.delayMs);
  const whole = loudest.filter((s) => s.heardDbfs > LEAST_DBFS + OVER_STEPS_DB);
  const levels = (whole.length > 0 ? whole : loudest).map((s) => s.levelDb);
  return {
    outputId: clearest.outputId,
    inputId: clearest.inputId,
    levelDb: median(levels)!,
    delayMs: steadyOf(delays),
    spreadMs: (Math.max(...delays) - Math.min(...delays)) / 2,
    polarity: clearest.arrival.polarity,
    sides: hasTwoChannels ? sidesOf(ll, lr, rl, rr) : sidesOf(ll, ll, rl, rl),
    ppm: ppmOf(loudest),
    lowHz: clearest.arrival.lowHz,
    highHz: clearest.arrival.highHz,
    again: clearest.arrival.again.filter(
      (a) => loudest.filter((s) => s.arrival.again.some((b) => isSame(a, b))).length >= ENOUGH_ROUNDS,
    ),
    levelSpreadDb: Math.max(...levels) - Math.min(...levels),
    responseDb: clearest.arrival.responseDb,
  };
}

/** The median of the values that most others are near to: of two groups alike, the later rounds'. */
function steadyOf(values: readonly number[]): number {
  const near = values.map((v) => values.filter((other) => Math.abs(other - v) <= STEADY_MS));
  return median(near.reduce((best, group) => (group.length >= best.length ? group : best)))!;
}

/** Second paths agree between rounds within this, ms and dB. */
const AGAIN_MS = 1;
const AGAIN_DB = 4;
const isSame = (a: Again, b: Again): boolean =>
  Math.abs(a.afterMs - b.afterMs) < AGAIN_MS && Math.abs(a.underDb - b.underDb) < AGAIN_DB;

/** @param ll  whether the output's left side arrives at the input's left, and so on */
function sidesOf(ll: boolean, lr: boolean, rl: boolean, rr: boolean): Sides {
  if (ll && lr && rl && rr) return 'both-in-each';
  if ((ll || lr) && !rl && !rr) return 'left-only';
  if ((rl || rr) && !ll && !lr) return 'right-only';
  if (ll && rr && !lr && !rl) return 'straight';
  if (lr && rl && !ll && !rr) return 'crossed';
  return 'mono';
}

/** How much faster the input's clock counts than the output's, by the time between sightings; null where they disagree. */
function ppmOf(sightings: readonly Sighting[]): number | null {
  const inOrder = [...sightings].sort((a, b) => a.playedS - b.playedS);
  const each = inOrder.slice(1).map((s, i) => {
    const before = inOrder[i]!;
    return 1e6 * ((s.arrivedS - before.arrivedS) / (s.playedS - before.playedS) - 1);
  });
  const middle = median(each);
  if (middle === undefined) return null;
  const agreeing = each.filter((ppm) => Math.abs(ppm - middle) < AGREE_PPM);
  if (2 * agreeing.length <= each.length) return null;
  const [first, last] = [inOrder[0]!, inOrder.at(-1)!];
  return agreeing.length === each.length
    ? 1e6 * ((last.arrivedS - first.arrivedS) / (last.playedS - first.playedS) - 1)
    : agreeing.reduce((a, b) => a + b, 0) / agreeing.length;
}

/** A path this much quieter than what was played is worth seeing, dB. */
const WORTH_SEEING_DB = -36;

/** Rounds in which an output was loud enough for every input. */
const clearRounds = (rounds: readonly RoundRead[], outputId: string): number =>
  rounds.filter((round) => {
    const sees = round.seesFromDb.filter((s) => s.outputId === outputId);
    return sees.length > 0 && sees.every((s) => s.db <= WORTH_SEEING_DB);
  }).length;

/** Whether an output is loud enough as it is. */
export const isLoudEnough = (rounds: readonly RoundRead[], outputId: string): boolean =>
  clearRounds(rounds, outputId) > 0;

/** Whether an output has been loud enough, often enough. */
export const isClear = (rounds: readonly RoundRead[], outputId: string): boolean =>
  clearRounds(rounds, outputId) >= ENOUGH_ROUNDS;

/** What an input could see at best: of the output that it could see the least of. */
export function sightOf(rounds: readonly RoundRead[], inputId: string): Pick<ScanInput, 'seesFromDb' | 'silent'> {
  const best = new Map<string, number>();
  for (const { outputId, inputId: of, db } of rounds.flatMap((r) => r.seesFromDb))
    if (of === inputId) best.set(outputId, Math.min(db, best.get(outputId) ?? Number.POSITIVE_INFINITY));
  return {
    seesFromDb: Math.max(LEAST_DBFS, ...best.values()),
    silent: rounds.every((r) => r.silent.includes(inputId)),
  };
}
