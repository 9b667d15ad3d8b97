import type { FftOf, Recording } from '#core/audio/samples/index.ts';
import { fineRateHz, type LagReading, MIN_Z, readLag } from './lag.ts';
import { fitLine, type Line, type Reading } from './line.ts';
import { MeasureError } from './measure-error.ts';
import { say } from './sayings.ts';
import { type Candidate, searchLags } from './search.ts';
import { durationS, rms } from './windows.ts';

/** The offset between two recordings of one sound. */
export interface Offset {
  /** Positive: the same sound stands later in `other`. With drift, the offset at the start of `ref`. */
  readonly offsetMs: number;
  /** One standard deviation of it. */
  readonly spreadMs: number;
  /** 0 to 1; below 0.5 the two do not hold the same sound. */
  readonly confidence: number;
  /** Positive: `other` runs longer. Null where the takes are too short or too noisy to tell. */
  readonly driftPpm: number | null;
  readonly driftSdPpm: number | null;
  readonly polarity: 1 | -1;
  /** The readings along the recordings, for charts. */
  readonly points: readonly OffsetPoint[];
}

interface OffsetPoint {
  readonly atMs: number;
  readonly offsetMs: number;
  readonly z: number;
  readonly agrees: boolean;
}

/** First readings, that find the line; and last ones, that measure it. Where little is common to both, windows are shorter. */
const FIRST: Windows = { lengthS: 1.5, everyS: 30, fewest: 10, most: 16 };
const LAST: Windows = { lengthS: 1, everyS: 20, fewest: 9, most: 40 };
const SHORTEST_WINDOW_S = 0.3;
/** How far a reading may be from the line predicted so far: at first, and once the line is known. */
const FIRST_MARGIN_S = 0.006;
const FASTEST_DRIFT = 400e-6;
const JUMP_S = 0.2;
const LINE_MARGIN_S = 0.002;
const SHORTEST_S = 0.5;
const SILENT_RMS = 3.2e-5;
/** Readings are never trusted to be better than this. */
const BEST_READING_S = 2e-6;
/** The drift is reported once it is known this well. */
const TELLABLE_PPM = 1.5;

/**
 * How much later `other` stands than `ref`, and how fast that changes: generalised cross-correlation of pieces at a low
 * rate for the place, then along both recordings at full rate with parts of a sample, then a robust line.
 * Reads only what it needs: memory does not grow with the recordings.
 * @throws MeasureError `too-short` (under 0.5 s), `silent` (under -90 dBFS RMS wherever it listened)
 */
export async function measureOffset(
  fftOf: FftOf,
  ref: Recording,
  other: Recording,
  onProgress?: (done: number) => void,
): Promise<Offset> {
  for (const [name, recording] of [
    ['first', ref],
    ['second', other],
  ] as const) {
    if (durationS(recording) < SHORTEST_S) throw new MeasureError('too-short', say.which({ order: name }));
    if (await isSilent(recording)) throw new MeasureError('silent', say.which({ order: name }));
  }
  const candidates = await searchLags(fftOf, ref, other, (done) => onProgress?.(done * 0.5));
  const found = await offsetNear(fftOf, ref, other, candidates, confidenceOfSearched);
  onProgress?.(1);
  return found;
}

/** The same with candidates for the offset given: each is followed along both, and the best is returned. */
export async function offsetNear(
  fftOf: FftOf,
  ref: Recording,
  other: Recording,
  candidates: readonly Candidate[],
  confidenceOf: (tracked: Tracked, candidate: Candidate) => number = confidenceOfFollowed,
): Promise<Offset> {
  let best: { readonly tracked: Tracked; readonly confidence: number } | undefined;
  for (const candidate of candidates) {
    const tracked = await track(fftOf, ref, other, candidate);
    if (!best || tracked.evidence > best.tracked.evidence)
      best = { tracked, confidence: confidenceOf(tracked, candidate) };
    if (best.confidence > SURE) break;
  }
  if (!best)
    return { offsetMs: 0, spreadMs: 0, confidence: 0, driftPpm: null, driftSdPpm: null, polarity: 1, points: [] };
  return toOffset(best.tracked, best.confidence);
}

const SILENCE_LOOKS = 48;
async function isSilent(recording: Recording): Promise<boolean> {
  const length = durationS(recording);
  const count = Math.floor(recording.sampleRateHz * Math.min(1, length));
  for (let i = 0; i < SILENCE_LOOKS; i++) {
    const at = Math.floor(((recording.frames - count) * i) / (SILENCE_LOOKS - 1));
    if (rms(await recording.readMono(at, count)) > SILENT_RMS) return false;
    if (length <= 1) return true;
  }
  return true;
}

interface Windows {
  readonly lengthS: number;
  readonly everyS: number;
  readonly fewest: number;
  readonly most: number;
}

interface Tracked {
  line: Line;
  /** Lags as they would be without the steps of lost buffers, and those steps. */
  points: (LagReading & { stepS: number })[];
  /** Readings taken together: a sum of independent z, over the square root of their number. */
  evidence: number;
}

/** Follows a candidate along both recordings, then reads again with the drift taken out. */
async function track(fftOf: FftOf, ref: Recording, other: Recording, candidate: Candidate): Promise<Tracked> {
  const rate = fineRateHz(ref, other);
  const { times, lengthS } = windowsOf(ref, other, candidate, FIRST);
  const first = times.reduce(
    (best, t, i) => (Math.abs(t - candidate.atS) < Math.abs(times[best]! - candidate.atS) ? i : best),
    0,
  );
  const readings: { atS: number; lagS: number; z: number }[] = [];
  // From where the candidate was found to both ends, each reading helping to place the next.
  const order = [...times.keys()].sort((a, b) => Math.abs(a - first) - Math.abs(b - first));
  for (const i of order) {
    const atS = times[i]!;
    const known = readings.filter((r) => r.z >= MIN_Z);
    const near = known.reduce<{ atS: number; lagS: number }>(
      (best, r) => (Math.abs(r.atS - atS) < Math.abs(best.atS - atS) ? r : best),
      candidate,
    );
    const slope =
      known.length >= 3
        ? fitLine(
            known.map((r) => ({ x: r.atS, y: r.lagS, weight: 1 })),
            BEST_READING_S,
          ).slope
        : 0;
    const distance = Math.abs(atS - near.atS);
    const margin = FIRST_MARGIN_S + distance * (known.length >= 3 ? FASTEST_DRIFT / 8 : FASTEST_DRIFT);
    const guess = near.lagS + slope * (atS - near.atS);
    const reading = await readLag(fftOf, { ref, other, rate, lengthS }, atS, guess, margin, slope);
    // Where it is not found among those that are, a buffer may have been lost: it is looked for further off.
    const lost = known.length >= 3 && (!reading || reading.z < MIN_Z);
    const far = lost ? await readLag(fftOf, { ref, other, rate, lengthS }, atS, guess, JUMP_S, slope) : null;
    const found = far && far.z >= MIN_Z ? far : reading;
    if (found) readings.push(found);
  }
  const weigh = (r: { atS: number; lagS: number; z: number }): Reading => ({
    x: r.atS,
    y: r.lagS,
    weight: r.z >= MIN_Z ? r.z * r.z : 0,
  });
  const usable = readings.some((r) => r.z >= MIN_Z);
  // Behind a lost buffer all stands otherwise: it is read as if nothing were lost.
  const steps = stepsOf(readings.filter((r) => r.z >= MIN_Z));
  const rough = usable
    ? fitLine(
        readings.map((r) => weigh({ ...r, lagS: r.lagS - steps(r.atS) })),
        BEST_READING_S,
      )
    : undefined;
  const slope = rough && rough.slopeSd < 50e-6 ? rough.slope : 0;
  const start = rough ? rough.start + (rough.slope - slope) * candidate.atS : candidate.lagS;
  const points: Tracked['points'] = [];
  const last = windowsOf(ref, other, candidate, LAST);
  for (const atS of last.times) {
    const reading = await readLag(
      fftOf,
      { ref, other, rate, lengthS: last.lengthS },
      atS,
      start + slope * atS + steps(atS),
      LINE_MARGIN_S,
      slope,
    );
    if (reading) points.push({ ...reading, lagS: reading.lagS - steps(atS), stepS: steps(atS) });
  }
  const line = fitLine(
    points.map((p) => (points.some((q) => q.z >= MIN_Z) ? weigh(p) : { x: p.atS, y: p.lagS, weight: p.z })),
    BEST_READING_S,
  );
  // A slope that can't be told from zero, over a short stretch, is zero.
  const settled =
    Math.abs(line.slope) > 4 * line.slopeSd || line.slopeSd < TELLABLE_PPM * 1e-6 ? line : withoutSlope(points, line);
  const heard = heardIn(points);
  return { line: settled, points, evidence: evidenceOf(heard.length > 0 ? heard : points, settled) };
}

/** What jumps by more than this between two readings, and stays there, is no drift. */
const MIN_STEP_S = 0.002;
const FEWEST_BEHIND = 2;

/** How far the lag has jumped at a time, relative to the start: from readings along both recordings, most of which agree on a slope. */
function stepsOf(readings: readonly { readonly atS: number; readonly lagS: number }[]): (atS: number) => number {
  const sorted = [...readings].sort((a, b) => a.atS - b.atS);
  const between = sorted.slice(1).map((r, i) => ({ r, rise: r.lagS - sorted[i]!.lagS, run: r.atS - sorted[i]!.atS }));
  const slopes = between.filter((b) => b.run > 0).map((b) => b.rise / b.run);
  const slope = slopes.sort((a, b) => a - b)[slopes.length >> 1] ?? 0;
  const level = (i: number) => sorted[i]!.lagS - slope * sorted[i]!.atS;
  const jumps: { readonly atS: number; readonly stepS: number }[] = [];
  between.forEach(({ r, rise, run }, i) => {
    const stepS = rise - slope * run;
    if (Math.abs(stepS) < MIN_STEP_S || i + 1 < FEWEST_BEHIND || sorted.length - i - 1 < FEWEST_BEHIND) return;
    const near = (k: number, s: number) => k < 0 || k >= sorted.length || Math.abs(level(k) - s) < MIN_STEP_S / 2;
    const stays = [1, 2, 3].every((k) => near(i + k, level(i) + stepS));
    const stood = [0, 1, 2].every((k) => near(i - k, level(i)));
    if (stays && stood) jumps.push({ atS: r.atS - run / 2, stepS });
  });
  return (atS) => jumps.reduce((sum, j) => (atS > j.atS ? sum + j.stepS : sum), 0);
}

function withoutSlope(points: Tracked['points'], line: Line): Line {
  const strong = points.filter((_, i) => line.agrees[i]);
  const weights = strong.reduce((sum, p) => sum + p.z * p.z, 0);
  if (weights === 0) return line;
  const start = strong.reduce((sum, p) => sum + p.z * p.z * p.lagS, 0) / weights;
  const squares = strong.reduce((sum, p) => sum + (p.lagS - start) ** 2, 0);
  const residualSd = strong.length > 1 ? Math.sqrt(squares / (strong.length - 1)) : line.residualSd;
  return {
    ...line,
    start,
    slope: 0,
    residualSd,
    startSd: Math.max(BEST_READING_S, residualSd) / Math.sqrt(Math.max(1, strong.length)),
  };
}

/** Windows in `ref` for which `other` has sound as well: spread over all of it, nearer together where it is short. */
function windowsOf(
  ref: Recording,
  other: Recording,
  { lagS }: Candidate,
  wanted: Windows,
): { times: number[]; lengthS: number } {
  const from = Math.max(0, -lagS);
  const common = Math.min(durationS(ref), durationS(other) - lagS) - from;
  const lengthS = Math.max(SHORTEST_WINDOW_S, Math.min(wanted.lengthS, common / 5));
  const room = common - lengthS;
  if (room <= 0) return { times: [from], lengthS };
  const count = Math.max(
    2,
    Math.min(wanted.fewest, Math.ceil((2 * room) / lengthS)),
    Math.min(wanted.most, Math.round(room / wanted.everyS)),
  );
  return { times: Array.from({ length: count }, (_, i) => from + (room * i) / (count - 1)), lengthS };
}

/** Prominence that pure chance reaches within the line's neighborhood. */
const CHANCE_Z = 2.2;
/** Cap on one window's weight, so that a single shared sound can't make two takes match. */
const MAX_Z = 7;
const ON_LINE_S = 0.0004;

/** Windows this far below the loudest of either hold no speech: they count neither for a line nor against it. */
const PAUSE = 10 ** (-25 / 20);

/** The windows in which there is something to be heard, in both. */
function heardIn(points: Tracked['points']): Tracked['points'] {
  const loudest = [0, 1].map((side) => Math.max(...points.map((p) => p.levels[side]!)));
  return points.filter((p) => p.z >= MIN_Z || p.levels.every((level, side) => level > PAUSE * loudest[side]!));
}

/** How much the windows speak for the line, taken together: the sum of what is beyond chance, over the root of their number. */
function evidenceOf(points: Tracked['points'], line: Line): number {
  if (points.length === 0) return 0;
  const beyond = points.map((p) =>
    Math.abs(p.lagS - line.start - line.slope * p.atS) < ON_LINE_S ? Math.min(MAX_Z, p.z) - CHANCE_Z : -CHANCE_Z / 2,
  );
  return beyond.reduce((sum, z) => sum + z, 0) / Math.sqrt(points.length);
}

/** From here on no other place is tried. */
const SURE = 0.95;
const chanceOf = (logOdds: number): number => 1 / (1 + Math.exp(-logOdds));

/**
 * How likely an offset is right that was looked for everywhere: by what the windows say together, and by how far its
 * place stood out in the search. A logistic fit to a thousand pairs of speech, music, games and noise of other programs
 * and of the stand-ins, of one sound and of two, in rooms, over telephones, in noise and behind silence; shown on a
 * thousand others (docs/measuring.md).
 */
const SEARCHED = { evidence: 0.365, lnScore: 2.259, constant: -8.383 } as const;
const confidenceOfSearched = ({ evidence }: Tracked, { score }: Candidate): number =>
  chanceOf(SEARCHED.evidence * evidence + SEARCHED.lnScore * Math.log(Math.max(1, score)) + SEARCHED.constant);

/**
 * The same where the place was known or supposed: evidence at which same and other sound are equally likely, and how fast
 * it turns.
 */
const EVEN_EVIDENCE = 7;
const TURN = 0.6;
const confidenceOfFollowed = ({ evidence }: Tracked): number => chanceOf((evidence - EVEN_EVIDENCE) / TURN);

function toOffset(tracked: Tracked, confidence: number): Offset {
  const { line, points } = tracked;
  const sign = points.reduce((sum, p, i) => sum + (line.agrees[i] ? p.polarity * p.z : 0), 0);
  const tellable = line.slopeSd * 1e6 < TELLABLE_PPM;
  return {
    offsetMs: line.start * 1000,
    spreadMs: line.startSd * 1000,
    confidence,
    driftPpm: tellable ? line.slope * 1e6 : null,
    driftSdPpm: tellable ? line.slopeSd * 1e6 : null,
    polarity: sign < 0 ? -1 : 1,
    points: points.map((p, i) => ({
      atMs: p.atS * 1000,
      offsetMs: (p.lagS + p.stepS) * 1000,
      z: p.z,
      agrees: line.agrees[i]!,
    })),
  };
}
