import { type FftOf, type Recording, seededRandom } from '#core/audio/samples/index.ts';
import { type BandLevel, bandsOf, type TakeStretch, UNTOLD_BANDS } from './bands.ts';
import { BASE_HZ, evened, eveningOf, readBaseband, tuneBaseband } from './baseband.ts';
import { BLOCK, groundOf, powersOf } from './blocks.ts';
import { type Chance, chanceOf, confidenceOf, FOUND_FROM, PERHAPS_FROM, standsOut, TWO_LOOKS } from './chance.ts';
import { type FineBlock, msOf } from './fine.ts';
import { jumpOf } from './jump.ts';
import { AS_PLAYED, bestLines, type Order } from './lines.ts';
import { bestPath, bestPathScores } from './paths.ts';
import { type OnLine, type Placed, placeAll } from './place.ts';
import { magnitudes, type Seconds } from './response.ts';
import { TUNE_GAIN, TUNES } from './tune.ts';
import { readWandering, type Wander, type Wandering, wanderOf } from './wander.ts';

/** How sure it is that a tune is in a take. */
type Word = 'found' | 'perhaps' | 'not-found';

/** One tune that was looked for in a take. */
export interface TuneReading {
  readonly id: number;
  readonly word: Word;
  /** How far over chance it stands, in its own spreads; found from 8, perhaps from 4. */
  readonly overChance: number;
  /** How likely it is there, 0 to 0.999; said only of what was found. */
  readonly confidence: number | null;
  /** Only of what was found. */
  readonly heard: TuneHeard | null;
}

export interface TuneHeard {
  /** When its first note begins by its strongest way, ms of the take. */
  readonly atMs: number;
  /** How much faster the take's clock counts than the player's; null where its delay moved. */
  readonly ppm: number | null;
  /** Of the file as it was made: 0 where the take holds it as loud. */
  readonly gainDb: number;
  /** Polarity relative to the strongest source of this take, 1 or -1; null where unknown. */
  readonly polarity: 1 | -1 | null;
  readonly seconds: Seconds;
  readonly jump: { readonly atMs: number; readonly ms: number } | null;
  /**
   * Not null where the delay moved all the while: how far its seconds lie beside `atMs`. Neither clock, polarity, band nor
   * second ways can be told then.
   */
  readonly wander: { readonly earliestMs: number; readonly latestMs: number } | null;
  readonly bands: readonly BandLevel[];
  /** Evidence: prominence of each second's correlation, and level of the source, in dB. */
  readonly blocks: readonly { readonly standsOut: number; readonly lateMs: number; readonly db: number }[];
  /** One point every two ms, dB under the strongest, from `-BEFORE_MS` on. */
  readonly response: readonly number[];
}

/** Offsets of the seconds of a tune from the median, where its delay moved: no single time is better. */
export const wanderMs = ({ wander }: Pick<TuneHeard, 'wander'>): number =>
  wander ? Math.max(wander.latestMs, -wander.earliestMs) : 0;

export interface TapReading {
  readonly tunes: readonly TuneReading[];
  /** The distribution by chance in this take: of seconds on a line, and on a path. */
  readonly chance: { readonly line: Chance; readonly path: Chance };
  readonly seconds: number;
}

export interface TapOptions {
  /** Tunes that someone may have played; all where absent. */
  readonly ids?: readonly number[];
  readonly onDone?: (share: number) => void;
}

/** Tunes that are never played, and orders of their seconds: what chance can make of a take. */
const NEVER_PLAYED = 5;
const ORDERS = 10;
const ORDER_SEED = 4;
const orders: readonly Order[] = (() => {
  const random = seededRandom(ORDER_SEED);
  return Array.from({ length: ORDERS }, (_, n) => {
    const order = [...AS_PLAYED];
    for (let i = order.length - 1; n > 0 && i > 0; i--) {
      const j = Math.floor(random() * (i + 1));
      [order[i], order[j]] = [order[j]!, order[i]!];
    }
    return order;
  });
})();

/** Minimum score of the path relative to the line for a delay to count as wandering: for a line, the line is the better test. */
const MIN_PATH = 0.85;
/** Shorter takes cannot hold enough of a tune. */
export const SHORTEST_S = 9;
const ALL_IDS = Array.from({ length: TUNES }, (_, id) => id);

/**
 * Reads which tunes one take holds, and how each arrived. Knows no rig: `core/desk-tests/tap-test` ties readings to paths.
 * What is not found may still be there: quieter than 30 dB under the loudest, or kept back by a program that lets voices
 * pass only.
 * @returns null for a take that is too short to hold a tune, or silent
 */
export async function readTap(
  fftOf: FftOf,
  sound: Recording,
  { ids = ALL_IDS, onDone = () => undefined }: TapOptions = {},
): Promise<TapReading | null> {
  const seconds = sound.frames / sound.sampleRateHz;
  if (seconds < SHORTEST_S) return null;
  const base = await readBaseband(sound, (share) => onDone(0.1 * share));
  const evening = eveningOf(fftOf, base);
  if (!evening.gains.some((g) => g > 0)) return null;
  const even = evened(fftOf, base, evening);
  const ground = groundOf(fftOf, even);
  let powers: Float32Array = new Float32Array(0);
  let wide: Float32Array = new Float32Array(0);
  const all = NEVER_PLAYED + ids.length;
  const maxima = { line: [] as number[], path: [] as number[] };
  for (let n = 0; n < NEVER_PLAYED; n++) {
    const scored = powersOf(ground, tuneBaseband(TUNES + n), ground.loudest, powers);
    powers = scored.powers;
    const [lines, room] = bestLines(scored, orders, wide);
    wide = room;
    maxima.line.push(...lines.map((l) => l.z));
    maxima.path.push(...bestPathScores(scored, wide, orders));
    onDone(0.1 + (0.6 * (n + 1)) / all);
  }
  const times = ground.lags / ground.loudest.lags;
  const chance = { line: chanceOf(maxima.line, times), path: chanceOf(maxima.path, times) };
  const seen: Seen[] = [];
  for (const [n, id] of ids.entries()) {
    const scored = powersOf(ground, tuneBaseband(id), { from: 0, lags: ground.lags }, powers);
    const [[line], room] = bestLines(scored, [AS_PLAYED], wide);
    wide = room;
    const onLine = standsOut(line!.z, chance.line) - TWO_LOOKS;
    const isLine = onLine >= FOUND_FROM;
    const { jump, used, isStraight } = jumpOf(scored, line!);
    // Most are on a line, or on two: no path is searched then.
    const path = isLine && (isStraight || jump) ? null : bestPath(scored, wide);
    const onPath = path ? standsOut(path.z, chance.path) - TWO_LOOKS : Number.NEGATIVE_INFINITY;
    const isSteady = !path || (isLine && onPath < MIN_PATH * onLine);
    const wander = isSteady ? null : wanderOf(scored, isLine ? line! : null, path);
    seen.push({ id, line: line!, overChance: wander ? Math.max(onLine, onPath) : onLine, jump, used, wander });
    onDone(0.1 + (0.6 * (NEVER_PLAYED + n + 1)) / all);
  }
  ground.correlator.free();
  const found = seen.filter((s) => s.overChance >= FOUND_FROM);
  const placed = placeAll(
    fftOf,
    even,
    evening,
    found.filter((s) => !s.wander),
  );
  const heard = new Map<number, TuneHeard>();
  for (const s of found)
    if (s.wander) heard.set(s.id, heardWandering(readWandering(fftOf, even, evening, s.id, s.wander)));
  const loudest = placed.reduce<Placed | null>((best, p) => (best && best.fine.gain >= p.fine.gain ? best : p), null);
  // Polarity is relative to the loudest of all, and one that wanders has no phase.
  const isTold = loudest && [...heard.values()].every((h) => h.gainDb <= gainDbOf(loudest.fine.gain));
  let stretch: TakeStretch | null = null;
  for (const [n, p] of placed.entries()) {
    const { bands, stretch: used }: Awaited<ReturnType<typeof bandsOf>> = await bandsOf(
      fftOf,
      sound,
      p.seen.id,
      p.fine,
      stretch,
    );
    stretch = used;
    heard.set(p.seen.id, heardOf(p, isTold ? loudest.fine.phase : null, bands));
    onDone(0.8 + (0.2 * (n + 1)) / placed.length);
  }
  return {
    chance,
    seconds,
    tunes: seen.map(({ id, overChance }): TuneReading => {
      const word: Word = overChance >= FOUND_FROM ? 'found' : overChance >= PERHAPS_FROM ? 'perhaps' : 'not-found';
      const confidence = word === 'found' ? confidenceOf(overChance, ids.length) : null;
      return { id, word, overChance, confidence, heard: heard.get(id) ?? null };
    }),
  };
}

interface Seen extends OnLine {
  readonly overChance: number;
  readonly wander: Wander | null;
}

/** Carriers this near a right angle to the strongest's say nothing of which way round it is. */
const MIN_COS = 0.35;
/** Lags a point of the response that is shown: two ms. */
const EVERY_RESPONSE = 8;
export const RESPONSE_STEP_MS = (1000 * EVERY_RESPONSE) / BASE_HZ;
const DEEPEST_DB = -80;

const dbOf = (x: number): number => 20 * Math.log10(Math.max(x, 1e-9));
const gainDbOf = (gain: number): number => dbOf(gain / TUNE_GAIN);

function heardOf(
  { seen, fine, response, seconds }: Placed,
  phase: number | null,
  bands: readonly BandLevel[],
): TuneHeard {
  const cos = phase === null ? 0 : Math.cos(fine.phase - phase);
  const size = magnitudes(response);
  const top = size.reduce((m, v) => Math.max(m, v), 1e-9);
  const points = new Array<number>(Math.ceil(size.length / EVERY_RESPONSE)).fill(DEEPEST_DB);
  for (let i = 0; i < size.length; i++) {
    const k = Math.floor(i / EVERY_RESPONSE);
    points[k] = Math.max(points[k]!, Math.round(dbOf(size[i]! / top)));
  }
  return {
    atMs: msOf(fine.at),
    ppm: fine.ppm,
    gainDb: gainDbOf(fine.gain),
    polarity: Math.abs(cos) < MIN_COS ? null : cos > 0 ? 1 : -1,
    seconds,
    jump: seen.jump && { atMs: msOf(fine.at) + (1000 * seen.jump.block * BLOCK) / BASE_HZ, ms: seen.jump.ms },
    wander: null,
    bands,
    blocks: fine.blocks.map(toldOf),
    response: points,
  };
}

const toldOf = (b: FineBlock): TuneHeard['blocks'][number] => ({
  standsOut: b.standsOut,
  lateMs: msOf(b.late),
  db: gainDbOf(b.gain),
});

const heardWandering = ({ at, gain, earliest, latest, blocks }: Wandering): TuneHeard => ({
  atMs: msOf(at),
  ppm: null,
  gainDb: gainDbOf(gain),
  polarity: null,
  seconds: { ways: [], noneAboveDb: 0 },
  jump: null,
  wander: { earliestMs: msOf(earliest), latestMs: msOf(latest) },
  bands: UNTOLD_BANDS,
  blocks: blocks.map(toldOf),
  response: [],
});
