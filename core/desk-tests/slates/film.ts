import { FRAME_RATES, hertz, type Rate } from '#core/model/units/index.ts';
import { MAX_FRAMES } from './code.ts';

/** What one slate shows and plays: a frame number that anyone can read back, and a click with a chirp on every beat. */
export interface Slate {
  /** The rate that its frames are counted at. */
  readonly rate: Rate;
  /** Player number, 0 to 15, carried by the code. */
  readonly id: number;
}

export const SLATE_IDS = 16;

/** Beats come about this far apart, on a whole frame. */
const BEAT_S = 2;
/** Number of beats before the film repeats. */
export const BEATS = 8;
/**
 * Which chirp each beat plays, 0 rising, 1 falling. Any three in a row stand in one place of the loop only, so three
 * chirps tell which beat they are, however late the sound is.
 */
export const CHIRPS: readonly (0 | 1)[] = [0, 0, 0, 1, 0, 1, 1, 1];

export const framesABeat = (of: Rate): number => Math.round(hertz(of) * BEAT_S);
export const framesALoop = (of: Rate): number => BEATS * framesABeat(of);
export const secondsABeat = (of: Rate): number => framesABeat(of) / hertz(of);
export const secondsALoop = (of: Rate): number => framesALoop(of) / hertz(of);

/** Rates that a slate can be made for: a loop of ten bits has to hold eight beats. */
export const SLATE_RATES: readonly Rate[] = FRAME_RATES.filter((r) => framesALoop(r) < MAX_FRAMES);

/** Duration of the flash that begins each beat, for the eye and for where the code is too small. */
const FLASH_S = 0.1;
export const isLit = (frame: number, of: Rate): boolean => frame % framesABeat(of) < Math.round(FLASH_S * hertz(of));
