import type { SlateReading } from '#core/desk-tests/slates/index.ts';
import { secondsALoop } from '#core/desk-tests/slates/index.ts';
import { SILENCE_S, type TuneReading, wanderMs } from '#core/desk-tests/tunes/index.ts';

/** A tune's panel as found in a take's video, against its sound there. */
export interface TunePicture {
  readonly tune: number;
  /** Sound less picture, ms: positive where the sound comes after. */
  readonly offsetMs: number;
  /** Of the reading; what the player itself is off by is not in it. */
  readonly boundMs: number;
  /** Frames whose panel was read, of those that showed it. */
  readonly read: number;
  readonly of: number;
}

/** Maximum offset between a browser's audio and video, ms; a rendered film has none. */
export const PLAYER_SKEW_MS = 40;

/**
 * How late each tune's sound is against its panel: panel and tune have the same number, and the first note stands where
 * the panel has counted the silence before it.
 */
export function picturesOf(slates: readonly SlateReading[], tunes: readonly TuneReading[]): TunePicture[] {
  return tunes.flatMap(({ id, heard }): TunePicture[] => {
    const slate = slates
      .filter((s) => s.id === id)
      .reduce<SlateReading | null>((best, s) => (best && best.run.read >= s.run.read ? best : s), null);
    if (!slate || !heard) return [];
    const { phase, read, of } = slate.run;
    const loopMs = 1000 * secondsALoop(slate.rate);
    const apart = heard.atMs - phase.zeroMs - 1000 * SILENCE_S;
    const boundMs = phase.boundMs + wanderMs(heard);
    return [{ tune: id, offsetMs: apart - loopMs * Math.round(apart / loopMs), boundMs, read, of }];
  });
}
