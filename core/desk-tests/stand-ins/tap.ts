import { type FftOf, resample, seededRandom } from '#core/audio/samples/index.ts';
import { renderTune, SILENCE_S, TUNE_S } from '#core/desk-tests/tunes/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { type Arrival, difference, evaluate, uncertain } from '#core/signal/index.ts';
import { renderTrack, type Truth } from './render.ts';
import type { SourceMaker } from './sources.ts';

/** What a stand-in plays in place of a source: its tune, begun at some moment, on a clock of its own. */
export interface StandInPlayer {
  readonly sourceId: string;
  readonly tune: number;
  /** When its first note begins, in the session's time. */
  readonly startS: number;
  readonly ppm: number;
}

export const tuneFrom =
  ({ tune, startS, ppm }: StandInPlayer): SourceMaker =>
  (frames, rate) =>
    resample(renderTune(tune, rate), (SILENCE_S - startS) * rate, 1 / (1 + ppm * 1e-6), frames);

const STARTS_WITHIN_S = 2;
const MAX_PLAYER_PPM = 40;

/** Players as hands press them: all within two seconds, each on its own clock. */
export function standInPlayers(
  tunes: readonly { readonly sourceId: string; readonly tune: number }[],
  seed: number,
): StandInPlayer[] {
  const random = seededRandom(seed);
  return tunes.map(({ sourceId, tune }) => ({
    sourceId,
    tune,
    startS: 1 + STARTS_WITHIN_S * random(),
    ppm: MAX_PLAYER_PPM * (2 * random() - 1),
  }));
}

const MAX_CLOCK_PPM = 60;

/** True figures that no one knows: every typical delay somewhere within its range, every clock a little off. */
export function hiddenTruth(rig: Rig, seed: number): Truth {
  const random = seededRandom(seed);
  const delaysMs: Record<string, number> = {};
  const clocksPpm: Record<string, number> = {};
  for (const { ways } of evaluate(rig).pairs)
    for (const way of ways) {
      // Twice by chance, so that the middle is likelier than the ends.
      for (const { term } of uncertain(difference(way.soundTerms, [])))
        delaysMs[term.key] ??= term.ms.low + ((random() + random()) / 2) * (term.ms.high - term.ms.low);
      if (way.clock) clocksPpm[way.clock] ??= MAX_CLOCK_PPM * (2 * random() - 1);
    }
  return { delaysMs, clocksPpm };
}

/** How long a stand-in's take is: every tune to its end, and what comes late. */
export const TAP_TAKE_S = 1 + STARTS_WITHIN_S + TUNE_S + 2;

export interface TapTakeOptions {
  /** The rig as the desk really is. */
  readonly rig: Rig;
  readonly truth: Truth;
  readonly listenerId: string;
  readonly players: readonly StandInPlayer[];
  readonly sampleRateHz: number;
  readonly seed: number;
  /** Whether a way is alive at the desk: not through a device that is off. */
  readonly alive: (arrival: Arrival) => boolean;
}

/** The take of a listener while all stand-ins play: every tune by every way that is alive. */
export const renderTapTake = (fftOf: FftOf, { players, alive, ...rest }: TapTakeOptions): Float32Array =>
  renderTrack(fftOf, {
    ...rest,
    sounds: Object.fromEntries(players.map((p) => [p.sourceId, tuneFrom(p)])),
    seconds: TAP_TAKE_S,
    // Everybody presses record at some moment of their own.
    startS: seededRandom(rest.seed + 3)(),
    alive,
    banded: true,
  });
