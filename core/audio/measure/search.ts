import { type FftOf, fftSize, type Recording } from '#core/audio/samples/index.ts';
import { type Band, crossInto, whiten } from './correlate.ts';
import { durationS, readWindow, rms } from './windows.ts';

/** The rough search runs at this rate: enough for speech over a telephone, cheap over an hour. */
const SEARCH_RATE_HZ = 8000;
const SEARCH_BAND: Band = { lowHz: 120, highHz: 3800 };
/** A piece of the first recording that is looked for in the second. */
const PIECE_S = 4;
/** Length of the second recording that is transformed at a time. */
const CHUNK_S = 24;
/** Maximum number of pieces searched for, from all over the first: the two may overlap only in part. */
const PIECES = 5;
/** Pieces of each part that are listened into before the loudest is chosen. */
const TRIED_EACH = 4;
/** Peaks kept of each piece in each chunk. */
const PEAKS = 4;
/** Pieces agree where their lags are this close, and a little further apart the further apart the pieces are. */
const AGREE_S = 0.004;
const FASTEST_DRIFT = 300e-6;
const SILENT_RMS = 3e-5;

/** A lag worth a closer look: `lagS` at time `atS` of the first recording. */
export interface Candidate {
  readonly atS: number;
  readonly lagS: number;
  /** Combined prominence of the agreeing peaks. */
  readonly score: number;
}

interface Found {
  atS: number;
  lagS: number;
  z: number;
}

/**
 * Where pieces of `ref` are found in `other`, best first. Ranges grow until something stands out: first 30 s to each
 * side, then everything. Empty where either is silent.
 */
export async function searchLags(
  fftOf: FftOf,
  ref: Recording,
  other: Recording,
  onProgress?: (done: number) => void,
): Promise<Candidate[]> {
  const rate = Math.min(SEARCH_RATE_HZ, ref.sampleRateHz, other.sampleRateHz);
  const pieces = await choosePieces(ref, rate);
  const whole = durationS(other);
  let best: Candidate[] = [];
  for (const reachS of whole > 90 ? [30, Number.POSITIVE_INFINITY] : [Number.POSITIVE_INFINITY]) {
    const found: Found[] = [];
    if (reachS === Number.POSITIVE_INFINITY) {
      found.push(...(await findPieces(fftOf, pieces, other, rate, -PIECE_S, whole, onProgress)));
    } else {
      for (const piece of pieces) {
        found.push(
          ...(await findPieces(fftOf, [piece], other, rate, piece.atS - reachS, piece.atS + PIECE_S + reachS)),
        );
      }
    }
    best = agree(found);
    if ((best[0]?.score ?? 0) > SURE_SCORE) break;
  }
  return best.slice(0, 3);
}

/**
 * A score that chance does not reach: talkers of one voice, games and noises came to 22 at most; the same sound through
 * room, telephone and as loud a noise on both sides to 43 and more, to 26 by a single piece.
 */
const SURE_SCORE = 30;

interface Piece {
  readonly atS: number;
  readonly samples: Float32Array;
  readonly loudness: number;
}

/** The loudest of a few pieces in each part of the recording; silent parts have none. */
async function choosePieces(ref: Recording, rate: number): Promise<Piece[]> {
  const length = durationS(ref);
  const parts = Math.max(1, Math.min(PIECES, Math.floor(length / PIECE_S)));
  const pieces: Piece[] = [];
  for (let part = 0; part < parts; part++) {
    const span = length / parts - PIECE_S;
    const tries = span > 0 ? TRIED_EACH : 1;
    let best: Piece | null = null;
    for (let i = 0; i < tries; i++) {
      const atS = (part * length) / parts + (tries === 1 ? 0 : (span * i) / (tries - 1));
      const samples = await readWindow(ref, atS, Math.ceil(Math.min(PIECE_S, length) * rate), rate);
      const loudness = rms(samples);
      if (loudness > SILENT_RMS && loudness > (best?.loudness ?? 0)) best = { atS, samples, loudness };
    }
    if (best) pieces.push(best);
  }
  return pieces;
}

async function findPieces(
  fftOf: FftOf,
  pieces: readonly Piece[],
  other: Recording,
  rate: number,
  fromS: number,
  toS: number,
  onProgress?: (done: number) => void,
): Promise<Found[]> {
  const pieceFrames = Math.max(...pieces.map((p) => p.samples.length), 0);
  const start = Math.max(-pieceFrames / rate, fromS);
  const end = Math.min(durationS(other), toS);
  if (pieceFrames === 0 || end <= start) return [];
  const chunkFrames = Math.ceil(Math.min(CHUNK_S, end - start) * rate);
  const size = fftSize(chunkFrames + 2 * pieceFrames);
  const fft = fftOf(size);
  const padded = new Float32Array(size);
  const spectra = pieces.map((piece) => {
    padded.fill(0);
    padded.set(piece.samples);
    const spectrum = new Float32Array(size);
    fft.forward(padded, spectrum);
    whiten(spectrum, rate, SEARCH_BAND);
    return spectrum;
  });
  const found: Found[] = [];
  const chunk = new Float32Array(size);
  const product = new Float32Array(size);
  const usable = size - pieceFrames;
  for (let atS = start; atS < end; atS += usable / rate) {
    padded.fill(0);
    // The chunk fills the transform; lags for which a piece would run round its end belong to the next chunk.
    padded.set(await readWindow(other, atS, Math.min(size, Math.ceil((durationS(other) - atS) * rate)), rate));
    fft.forward(padded, chunk);
    whiten(chunk, rate, SEARCH_BAND);
    pieces.forEach((piece, p) => {
      product.set(chunk);
      crossInto(spectra[p]!, product);
      fft.inverse(product, padded);
      const lags = Math.min(usable, Math.ceil((end - atS) * rate));
      for (const peak of topPeaks(padded, lags, rate)) {
        found.push({ atS: piece.atS, lagS: atS + peak.lag / rate - piece.atS, z: peak.z });
      }
    });
    onProgress?.(Math.min(1, (atS - start + usable / rate) / (end - start)));
  }
  return found;
}

function topPeaks(c: Float32Array, lags: number, rate: number): { lag: number; z: number }[] {
  let power = 0;
  for (let i = 0; i < lags; i++) power += c[i]! * c[i]!;
  if (power === 0) return [];
  const k = 1 / Math.sqrt(power / lags);
  const apart = Math.ceil(rate * 0.003);
  const peaks: { lag: number; z: number }[] = [];
  let least = 0;
  for (let i = 1; i < lags - 1; i++) {
    const v = Math.abs(c[i]!);
    if (v <= least || v < Math.abs(c[i - 1]!) || v < Math.abs(c[i + 1]!)) continue;
    const near = peaks.findIndex((p) => Math.abs(p.lag - i) < apart);
    if (near >= 0) {
      if (peaks[near]!.z < v) peaks[near] = { lag: i, z: v };
    } else {
      peaks.push({ lag: i, z: v });
    }
    peaks.sort((p, q) => q.z - p.z);
    peaks.length = Math.min(PEAKS, peaks.length);
    if (peaks.length === PEAKS) least = peaks[PEAKS - 1]!.z;
  }
  return peaks.map((p) => ({ lag: p.lag, z: p.z * k }));
}

/** Lags that several pieces agree on, each piece counted once, the best together first. */
function agree(found: readonly Found[]): Candidate[] {
  const near = (a: Found, b: Found) => Math.abs(a.lagS - b.lagS) < AGREE_S + FASTEST_DRIFT * Math.abs(a.atS - b.atS);
  const candidates: Candidate[] = [];
  for (const first of [...found].sort((a, b) => b.z - a.z).slice(0, 24)) {
    if (candidates.some((c) => near({ ...c, z: 0 }, first))) continue;
    const byPiece = new Map<number, number>();
    for (const f of found) if (near(f, first)) byPiece.set(f.atS, Math.max(byPiece.get(f.atS) ?? 0, f.z));
    const score = Math.sqrt([...byPiece.values()].reduce((sum, z) => sum + z * z, 0));
    candidates.push({ atS: first.atS, lagS: first.lagS, score });
  }
  return candidates.sort((a, b) => b.score - a.score);
}
