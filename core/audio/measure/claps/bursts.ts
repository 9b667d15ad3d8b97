import type { FftOf, Recording } from '#core/audio/samples/index.ts';
import { dbFromPower } from '#core/model/units/index.ts';
import { AROUND_S, type Bands, bandReader } from './bands.ts';
import { type Envelopes, envelopesOf, FLOOR, HOP_MS } from './envelopes.ts';

/** A sudden sound: its own features, and those relative to what surrounds it; dB unless stated otherwise. */
export interface Burst extends Bands {
  readonly hop: number;
  readonly atS: number;
  /** Over the loudest hundredth of the seconds around. */
  readonly prominence: number;
  /** Over the loudest 2 ms of the 24 ms before. */
  readonly jump: number;
  /** Over the mean of the 60 ms before. */
  readonly overMean: number;
  /** Gone again after 4 to 8 ms, 15 to 30, 60 to 90, and 90 to 150 ms. */
  readonly fall: number;
  readonly fallSoon: number;
  readonly fallMid: number;
  readonly fallLate: number;
  /** Level below the body of the voice. */
  readonly lowRise: number;
  /** How far that is over what was before, 60 to 90 ms later. */
  readonly lowStays: number;
  /** The part of it above the voice's body, and the part of that at the top. */
  readonly share: number;
  readonly tilt: number;
  /** The second 2 ms against the first millisecond: below zero where it begins at once. */
  readonly onset: number;
}

/** Hops of a burst; of the stretches before it that it is held against; of the mean before. */
const BURST = 4;
const BEFORE_TRIED = 12;
const BEFORE_MEAN = 120;
const HEAD = 12;
/** A burst rises by this much at least over the loudest just before it. */
const MIN_JUMP_DB = 3;
/** Bursts closer together than this are one event; the most prominent one represents it. */
const APART = 120;
/** The neighborhood, to each side, and what of it belongs to the burst itself; in bins of a burst's length. */
const NEAR_BINS = 1250;
const OWN_BINS = { before: 20, behind: 100 } as const;
const LOUD_SHARE = 0.99;
/** Threshold below the loudest sound nearby at which a burst is masked. */
const MIN_PROMINENCE_DB = -12;
/** What still sounds as loud 60 to 90 ms later is a note or a voice; in the longest room a clap has lost this much. */
const MIN_FALL_DB = 4.5;

const db = (power: number): number => dbFromPower(Math.max(FLOOR, power));

interface Candidate {
  readonly hop: number;
  readonly stands: number;
  bands: Bands | null;
}

/** Everything in a recording that begins all at once, in order. */
export async function burstsOf(
  fftOf: FftOf,
  recording: Recording,
  onProgress?: (done: number) => void,
): Promise<Burst[]> {
  const { sampleRateHz } = recording;
  const around = {
    before: Math.ceil((AROUND_S.before + (APART * HOP_MS) / 1000) * sampleRateHz),
    behind: Math.ceil(AROUND_S.behind * sampleRateHz),
  };
  const readBands = bandReader(fftOf, sampleRateHz);
  const candidates: Candidate[] = [];
  let tried = 0;
  const envelopes = await envelopesOf(
    recording,
    around,
    ({ samples, start, lastHop }, so) => {
      // The last ones of a block wait for the next: all of a burst has to be there.
      for (; tried < lastHop - BURST || (lastHop === so.hops && tried < lastHop); tried++)
        addCandidate(candidates, so, tried);
      for (let c = candidates.length - 1; c >= 0 && !candidates[c]!.bands; c--)
        candidates[c]!.bands = readBands(samples, candidates[c]!.hop * so.hop - start);
    },
    onProgress,
  );
  const neighbourhood = loudestAround(envelopes);
  return candidates.flatMap(({ hop, bands }) => {
    const burst = burstAt(envelopes, neighbourhood, hop, sampleRateHz, bands!);
    return burst.prominence >= MIN_PROMINENCE_DB && burst.fallMid >= MIN_FALL_DB ? [burst] : [];
  });
}

/** The loudest burst's length that ends within the 24 ms before a hop. */
function loudestBefore({ high }: Envelopes, hop: number, gap: number): number {
  let most = 0;
  for (let k = 1; k <= BEFORE_TRIED; k++) {
    const from = hop - gap - BURST * k;
    most = Math.max(most, high(from, from + BURST));
  }
  return most;
}

function addCandidate(list: Candidate[], envelopes: Envelopes, hop: number): void {
  const burst = envelopes.high(hop, hop + BURST);
  if (hop < 2 * BURST || burst < 10 * FLOOR) return;
  const jump = db(burst) - db(loudestBefore(envelopes, hop, 2));
  if (jump < MIN_JUMP_DB) return;
  const next: Candidate = { hop, stands: db(burst) + jump, bands: null };
  const last = list.at(-1);
  if (!last || hop - last.hop >= APART) list.push(next);
  else if (next.stands > last.stands) list[list.length - 1] = next;
}

/** The power that the loudest hundredth around a hop is over, the burst itself left out. */
function loudestAround({ high, hops }: Envelopes): (hop: number) => number {
  const bins = Float32Array.from({ length: Math.floor(hops / BURST) }, (_, b) => high(b * BURST, (b + 1) * BURST));
  const near = new Float32Array(2 * NEAR_BINS);
  return (hop) => {
    const own = Math.floor(hop / BURST);
    let count = 0;
    for (let b = Math.max(0, own - NEAR_BINS); b < Math.min(bins.length, own + NEAR_BINS); b++)
      if (b < own - OWN_BINS.before || b > own + OWN_BINS.behind) near[count++] = bins[b]!;
    return near.subarray(0, count).sort()[Math.floor(count * LOUD_SHARE)] ?? 0;
  };
}

function burstAt(
  envelopes: Envelopes,
  loudestNear: (hop: number) => number,
  hop: number,
  sampleRateHz: number,
  bands: Bands,
): Burst {
  const { all, high, top } = envelopes;
  const low = (from: number, to: number) => all(from, to) - high(from, to);
  const burst = db(high(hop, hop + BURST));
  const head = db(high(hop, hop + HEAD));
  return {
    ...bands,
    hop,
    atS: (hop * envelopes.hop) / sampleRateHz,
    prominence: burst - db(loudestNear(hop)),
    jump: burst - db(loudestBefore(envelopes, hop, 2)),
    overMean: burst - db(high(hop - BEFORE_MEAN, hop - BURST)),
    fall: burst - db(high(hop + 8, hop + 16)),
    fallSoon: burst - db(high(hop + 30, hop + 60)),
    fallMid: burst - db(high(hop + 120, hop + 180)),
    fallLate: burst - db(high(hop + 180, hop + 300)),
    lowRise: db(low(hop, hop + HEAD)) - db(low(hop - BEFORE_MEAN, hop - BURST)),
    lowStays: db(low(hop + 120, hop + 180)) - db(low(hop - BEFORE_MEAN, hop - BURST)),
    share: head - db(all(hop, hop + HEAD)),
    tilt: db(top(hop, hop + HEAD)) - head,
    onset: db(high(hop + BURST, hop + 2 * BURST)) - db(high(hop, hop + 2)),
  };
}
