import { SaidError, type Text } from '#core/base/said/index.ts';
import { hertz, type Rate, rate } from '#core/model/units/index.ts';
import { say } from './sayings.ts';

/** A picture mode, progressive: how many pixels, how often. */
export interface Mode {
  readonly width: number;
  readonly height: number;
  readonly rate: Rate;
}

export type Chroma = '4:4:4' | '4:2:2' | '4:2:0';

/** How a mode's pixels are coded. RGB counts as 4:4:4. */
export interface Coding {
  /** Bits a component: 8, 10, 12 or 16. */
  readonly bits: number;
  readonly chroma: Chroma;
}

/** Why a mode or coding is none, in a sentence that says what to write. */
export class PictureError extends SaidError {
  constructor(what: Text) {
    super(what);
    this.name = 'PictureError';
  }
}

const MAX_PIXELS = 16_384;
const MAX_HERTZ = 1000;

/** Parses '1920x1080@59.94'; 59.94 and the like mean the rate times 1000/1001. @throws PictureError */
export function parseMode(text: string): Mode {
  const found = /^(\d{2,5})x(\d{2,5})@(\d{1,4}(?:\.\d{1,3})?)$/.exec(text.trim());
  if (!found) throw new PictureError(say.isNotVideoMode({ text }));
  const [width, height, hz] = found.slice(1).map(Number) as [number, number, number];
  if (width < 64 || height < 64 || width > MAX_PIXELS || height > MAX_PIXELS)
    throw new PictureError(say.xIsOutRange({ width, height, most: MAX_PIXELS }));
  if (hz < 1 || hz > MAX_HERTZ) throw new PictureError(say.fpsIsOutRange({ hz, most: MAX_HERTZ }));
  return { width, height, rate: pictureRate(hz) };
}

/** 59.94 is 60000/1001, 23.976 is 24000/1001; whole rates are themselves. */
export function pictureRate(hz: number): Rate {
  if (Number.isInteger(hz)) return rate(hz);
  const whole = Math.round(hz * 1.001);
  return Math.abs(hz - whole / 1.001) < 0.006 ? rate(whole * 1000, 1001) : rate(Math.round(hz * 1000), 1000);
}

const BITS = [8, 10, 12, 16];

/** @throws PictureError for a coding that no link knows */
export function checkCoding({ bits, chroma }: Coding): void {
  if (!BITS.includes(bits)) throw new PictureError(say.bitsPerComponentAre({ bits, all: BITS.join(', ') }));
  if (chroma === '4:2:2' && bits > 12) throw new PictureError(say.carriesAtMostBits());
}

export function parseChroma(text: string): Chroma {
  if (text === '4:4:4' || text === '4:2:2' || text === '4:2:0') return text;
  throw new PictureError(say.isNotChromaFormat({ text }));
}

/** '1920 x 1080, 59.94 a second' */
export const modeName = ({ width, height, rate: r }: Mode): Text =>
  say.fps({ width, height, rate: Number(hertz(r).toFixed(3)) });
