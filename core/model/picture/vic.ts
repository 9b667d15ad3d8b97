import { rate } from '#core/model/units/index.ts';
import type { Mode } from './mode.ts';

type Row = readonly [width: number, height: number, hz: number];

/** CTA-861 video identification codes of progressive formats; wide and narrow pixels of one size are one mode here. */
const ROWS: Record<number, Row> = {
  1: [640, 480, 60],
  2: [720, 480, 60],
  3: [720, 480, 60],
  4: [1280, 720, 60],
  16: [1920, 1080, 60],
  17: [720, 576, 50],
  18: [720, 576, 50],
  19: [1280, 720, 50],
  31: [1920, 1080, 50],
  32: [1920, 1080, 24],
  33: [1920, 1080, 25],
  34: [1920, 1080, 30],
  41: [1280, 720, 100],
  42: [720, 576, 100],
  43: [720, 576, 100],
  47: [1280, 720, 120],
  48: [720, 480, 120],
  49: [720, 480, 120],
  60: [1280, 720, 24],
  61: [1280, 720, 25],
  62: [1280, 720, 30],
  63: [1920, 1080, 120],
  64: [1920, 1080, 100],
  ...from(65, 1280, 720, [24, 25, 30, 50, 60, 100, 120]),
  ...from(72, 1920, 1080, [24, 25, 30, 50, 60, 100, 120]),
  ...from(93, 3840, 2160, [24, 25, 30, 50, 60]),
  ...from(98, 4096, 2160, [24, 25, 30, 50, 60]),
  ...from(103, 3840, 2160, [24, 25, 30, 50, 60]),
  108: [1280, 720, 48],
  109: [1280, 720, 48],
  111: [1920, 1080, 48],
  112: [1920, 1080, 48],
  114: [3840, 2160, 48],
  115: [4096, 2160, 48],
  116: [3840, 2160, 48],
  ...from(117, 3840, 2160, [100, 120, 100, 120]),
  ...from(194, 7680, 4320, [24, 25, 30, 48, 50, 60, 100, 120]),
  ...from(202, 7680, 4320, [24, 25, 30, 48, 50, 60, 100, 120]),
  ...from(218, 4096, 2160, [100, 120]),
};

function from(first: number, width: number, height: number, rates: readonly number[]): Record<number, Row> {
  return Object.fromEntries(rates.map((hz, i) => [first + i, [width, height, hz] as const]));
}

/** The mode of a code; null for interlaced, repeated-pixel and unknown ones. */
export function modeOfVic(vic: number): Mode | null {
  const row = ROWS[vic];
  return row ? { width: row[0], height: row[1], rate: rate(row[2]) } : null;
}
