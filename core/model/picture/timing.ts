import { hertz, type Rate } from '#core/model/units/index.ts';
import type { Mode } from './mode.ts';

/** What a mode takes on the line, blanking included. */
export interface Timing {
  readonly totalWidth: number;
  readonly totalHeight: number;
  readonly pixelClockHz: number;
  readonly source: 'CTA-861' | 'CVT reduced blanking' | 'EDID';
}

/** Totals of CTA-861 formats: size, then total width and height by whole frames per second. */
const CTA: Record<string, Readonly<Record<number, readonly [number, number]>>> = {
  '640x480': { 60: [800, 525] },
  '720x480': { 60: [858, 525], 120: [858, 525] },
  '720x576': { 50: [864, 625], 100: [864, 625] },
  '1280x720': {
    24: [3300, 750],
    25: [3960, 750],
    30: [3300, 750],
    48: [2500, 750],
    50: [1980, 750],
    60: [1650, 750],
    100: [1980, 750],
    120: [1650, 750],
  },
  '1920x1080': {
    24: [2750, 1125],
    25: [2640, 1125],
    30: [2200, 1125],
    48: [2750, 1125],
    50: [2640, 1125],
    60: [2200, 1125],
    100: [2640, 1125],
    120: [2200, 1125],
  },
  ...Object.fromEntries(
    ['3840x2160', '4096x2160'].map((size) => [
      size,
      {
        24: [5500, 2250],
        25: [5280, 2250],
        30: [4400, 2250],
        48: [5500, 2250],
        50: [5280, 2250],
        60: [4400, 2250],
        100: [5280, 2250],
        120: [4400, 2250],
      } as const,
    ]),
  ),
  '7680x4320': {
    24: [11_000, 4500],
    25: [10_800, 4400],
    30: [9000, 4400],
    48: [11_000, 4500],
    50: [10_800, 4400],
    60: [9000, 4400],
    100: [10_560, 4500],
    120: [8800, 4500],
  },
};

/**
 * The timing of a mode: its CTA-861 totals; otherwise CVT reduced blanking, version 1 or 2, whichever takes more, so that
 * a link said to carry it does.
 */
export function timingOf(mode: Mode): Timing {
  const whole = wholeRate(mode.rate);
  const totals = whole === null ? undefined : CTA[`${mode.width}x${mode.height}`]?.[whole];
  if (totals) {
    const [totalWidth, totalHeight] = totals;
    return { totalWidth, totalHeight, pixelClockHz: totalWidth * totalHeight * hertz(mode.rate), source: 'CTA-861' };
  }
  const [v1, v2] = [reducedBlankingV1(mode), reducedBlankingV2(mode)];
  return v1.pixelClockHz >= v2.pixelClockHz ? v1 : v2;
}

/** 60 for 60 and for 59.94; null for a rate that is neither whole nor a whole one times 1000/1001. */
function wholeRate({ num, den }: Rate): number | null {
  if (den === 1) return num;
  return den === 1001 && num % 1000 === 0 ? num / 1000 : null;
}

/** Blanking has to last this long, microseconds (VESA CVT 1.2). */
const MIN_VERTICAL_US = 460;

function blankingLines({ height, rate }: Mode, leastLines: number): number {
  const lineUs = (1e6 / hertz(rate) - MIN_VERTICAL_US) / height;
  return Math.max(Math.floor(MIN_VERTICAL_US / lineUs) + 1, leastLines);
}

/** Lines of vertical sync by the shape of the picture. */
function syncLines({ width, height }: Mode): number {
  const is = (w: number, h: number) => height * w === width * h;
  if (is(4, 3)) return 4;
  if (is(16, 9)) return 5;
  if (is(16, 10)) return 6;
  return is(5, 4) || is(15, 9) ? 7 : 10;
}

function reducedBlankingV1(mode: Mode): Timing {
  const totalWidth = Math.floor(mode.width / 8) * 8 + 160;
  const totalHeight = mode.height + blankingLines(mode, 3 + syncLines(mode) + 6);
  const stepHz = 250_000;
  const pixelClockHz = Math.floor((totalWidth * totalHeight * hertz(mode.rate)) / stepHz) * stepHz;
  return { totalWidth, totalHeight, pixelClockHz, source: 'CVT reduced blanking' };
}

function reducedBlankingV2(mode: Mode): Timing {
  const totalWidth = mode.width + 80;
  const totalHeight = mode.height + blankingLines(mode, 1 + 8 + 6);
  const stepHz = 1000;
  const pixelClockHz = Math.floor((totalWidth * totalHeight * hertz(mode.rate)) / stepHz) * stepHz;
  return { totalWidth, totalHeight, pixelClockHz, source: 'CVT reduced blanking' };
}
