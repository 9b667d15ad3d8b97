import type { Rate } from './time.ts';

/**
 * How frames are counted in a timecode: so many a second as a whole number, some left out where the true rate is a
 * thousandth lower. Rates over 30 are counted in pairs, as edit lists have it.
 */
export interface Counting {
  /** Frames that a second of timecode holds. */
  readonly perSecond: number;
  /** Numbers 0 and 1 (of 30) are left out at the start of each minute but every tenth: SMPTE ST 12-1. */
  readonly drop: boolean;
  /** Frames of the rate in one of the timecode. */
  readonly frames: number;
}

/** How a rate is counted; null where no timecode counts it. */
export function countingOf({ num, den }: Rate): Counting | null {
  const nominal = Math.round(num / den);
  const frames = nominal > 30 ? 2 : 1;
  const perSecond = nominal / frames;
  if (![24, 25, 30].includes(perSecond)) return null;
  return { perSecond, drop: perSecond === 30 && den === 1001, frames };
}

const two = (n: number): string => String(n).padStart(2, '0');

/** The timecode of a frame (of timecode), from 00:00:00:00 on; hours begin again after 24. */
export function timecode(frame: number, { perSecond, drop }: Counting): string {
  let n = frame;
  if (drop) {
    // 18 numbers are left out in ten minutes of 17982 frames, two in each minute but the first.
    const tens = Math.floor(n / 17_982);
    const rest = n % 17_982;
    n += 18 * tens + (rest < 1800 ? 0 : 2 * (1 + Math.floor((rest - 1800) / 1798)));
  }
  const seconds = Math.floor(n / perSecond);
  const parts = [Math.floor(seconds / 3600) % 24, Math.floor(seconds / 60) % 60, seconds % 60];
  return `${parts.map(two).join(':')}${drop ? ';' : ':'}${two(n % perSecond)}`;
}
