import { HOP_S } from '#core/audio/measure/index.ts';

/** Seconds from the start of the take. */
export interface Stretch {
  readonly fromS: number;
  readonly toS: number;
}

/** Where someone speaks: a flag for every 100 ms. */
export type Talk = Uint8Array;

/** Speech threshold below the loudest words, dB; the relative gate of BS.1770 for what counts. */
const UNDER_MEAN = 10 ** (-10 / 10);
/** No one speaks so quietly: the absolute gate of BS.1770, -70 LUFS. */
const MIN_POWER = 1e-7;
/** Gaps this short are between two words, s. */
const GAP_HOPS = 4;
/** What is shorter is a cough. */
const MIN_HOPS = 3;
/** A long speech is judged piece by piece, as long as the short-term window. */
const PIECE_HOPS = 30;

/** Where the voice of a track speaks: over a relative gate, small gaps closed, what is too short left out. */
export function talkOf(hops: Float64Array): Talk {
  const counted = hops.filter((p) => p > MIN_POWER);
  const gate = Math.max(MIN_POWER, UNDER_MEAN * mean(counted));
  // The mean of what passes the first gate sets the second, as pauses would pull it down.
  const least = Math.max(MIN_POWER, UNDER_MEAN * mean(counted.filter((p) => p > gate)));
  const talk = Uint8Array.from(hops, (p) => (p > least ? 1 : 0));
  fillRuns(talk, 0, GAP_HOPS);
  fillRuns(talk, 1, MIN_HOPS);
  return talk;
}

const mean = (values: Float64Array): number => values.reduce((a, b) => a + b, 0) / Math.max(1, values.length);

/** Turns runs of `value` that are no longer than `most` (for 1: shorter) into the other; those at the ends stay. */
function fillRuns(talk: Talk, value: 0 | 1, most: number): void {
  for (let at = 0; at < talk.length; ) {
    let end = at;
    while (end < talk.length && talk[end] === talk[at]) end++;
    const short = value === 0 ? end - at <= most && at > 0 && end < talk.length : end - at < most;
    if (talk[at] === value && short) talk.fill(1 - value, at, end);
    at = end;
  }
}

/** Where anyone speaks. */
export const anyTalk = (talks: readonly Talk[], length: number): Talk =>
  Uint8Array.from({ length }, (_, i) => (talks.some((t) => t[i] === 1) ? 1 : 0));

/** Where it is on, in order: hops from, to. */
export function runsOf(talk: Talk): [from: number, to: number][] {
  const out: [number, number][] = [];
  for (let at = 0; at < talk.length; at++) {
    if (talk[at] !== 1) continue;
    let end = at;
    while (end < talk.length && talk[end] === 1) end++;
    out.push([at, end]);
    at = end;
  }
  return out;
}

/** The pieces in which talk is judged, in order: phrases, long ones cut evenly. */
export const piecesOf = (talk: Talk): [from: number, to: number][] =>
  runsOf(talk).flatMap(([from, to]) => {
    const parts = Math.ceil((to - from) / PIECE_HOPS);
    const cut = (p: number) => from + Math.round(((to - from) * p) / parts);
    return Array.from({ length: parts }, (_, p): [number, number] => [cut(p), cut(p + 1)]);
  });

/** A stretch of talk of about this length, s, to listen to and to try settings on: the one with most speech. */
export function pieceOfTalk(talk: Talk, seconds: number): Stretch {
  const length = Math.min(talk.length, Math.round(seconds / HOP_S));
  let said = talk.subarray(0, length).reduce((a, b) => a + b, 0);
  let [most, best] = [said, 0];
  for (let at = 1; at + length <= talk.length; at++) {
    said += talk[at + length - 1]! - talk[at - 1]!;
    if (said > most) [most, best] = [said, at];
  }
  return { fromS: best * HOP_S, toS: (best + length) * HOP_S };
}
