import { hertz } from '#core/model/units/index.ts';
import { type Coding, checkCoding, type Mode } from './mode.ts';
import { type Timing, timingOf } from './timing.ts';

/** HDMI links by what they carry, the smallest first: TMDS by its character rate in MHz, FRL by its raw Gbit/s. */
export const LINKS = [
  'tmds-165',
  'tmds-340',
  'tmds-600',
  'frl-9',
  'frl-18',
  'frl-24',
  'frl-32',
  'frl-40',
  'frl-48',
] as const;
export type Link = (typeof LINKS)[number];

/** As people say it: TMDS by its line rate, ten bits a character on three lanes. */
export const linkName = (link: Link): string => {
  const [kind, n] = link.split('-') as [string, string];
  return `${kind === 'tmds' ? Number(((Number(n) * 30) / 1000).toFixed(2)) : n} Gbit/s`;
};

/** What a mode asks of a link. */
export interface Need {
  readonly timing: Timing;
  /** Bits a pixel on the line: 24 for 4:2:2, whatever its depth. */
  readonly bitsPerPixel: number;
  readonly dataRateGbps: number;
  /** TMDS characters a second. */
  readonly characterRateHz: number;
  /** Raw FRL rate that it fills. */
  readonly frlGbps: number;
  /** The smallest that carries it; null where none does without compression. */
  readonly minimumLink: Link | null;
}

const bitsOf = ({ bits, chroma }: Coding): number => (chroma === '4:2:2' ? 24 : (chroma === '4:4:4' ? 3 : 1.5) * bits);

/** TMDS carries 8 bits a character and lane: deeper color takes more of them, 4:2:2 always as many as 8 bits do. */
function characterRate(clockHz: number, { bits, chroma }: Coding): number {
  if (chroma === '4:2:2') return clockHz;
  return (clockHz * bits) / 8 / (chroma === '4:2:0' ? 2 : 1);
}

/** FRL codes 16 bits as 18; what framing and error correction leave; and the tolerance of clocks (HDMI 2.1, as in numbers). */
const FRL_BITS = 18;
const FRL_LEFT = 0.974;
const FRL_TOLERANCE = 1.005;

function frlRate(mode: Mode, timing: Timing, bitsPerPixel: number): number {
  const active = 1.5 * Math.ceil((bitsPerPixel * mode.width) / 24);
  const blank = Math.ceil((bitsPerPixel * (timing.totalWidth - mode.width)) / 24);
  return ((active + blank) * timing.totalHeight * hertz(mode.rate) * FRL_TOLERANCE * FRL_BITS) / FRL_LEFT;
}

/**
 * What a mode asks of an HDMI link, and the smallest link that carries it. Stream compression is not assumed.
 * @throws PictureError for a coding that no link knows
 */
export function needOf(mode: Mode, coding: Coding, timing: Timing = timingOf(mode)): Need {
  checkCoding(coding);
  const bitsPerPixel = bitsOf(coding);
  const characterRateHz = characterRate(timing.pixelClockHz, coding);
  const frlGbps = frlRate(mode, timing, bitsPerPixel) / 1e9;
  return {
    timing,
    bitsPerPixel,
    dataRateGbps: (timing.pixelClockHz * bitsPerPixel) / 1e9,
    characterRateHz,
    frlGbps,
    minimumLink: LINKS.find((link) => carries(link, characterRateHz, frlGbps)) ?? null,
  };
}

function carries(link: Link, characterRateHz: number, frlGbps: number): boolean {
  const [kind, limit] = link.split('-') as [string, string];
  return kind === 'tmds' ? characterRateHz <= Number(limit) * 1e6 : frlGbps <= Number(limit);
}

/** Whether a link is enough for what another one is needed for. */
export const isEnough = (link: Link, need: Need): boolean => {
  const [kind] = link.split('-');
  // A faster link speaks the slower ones' language too.
  return kind === 'frl' && need.characterRateHz <= 600e6 ? true : carries(link, need.characterRateHz, need.frlGbps);
};

/** What a USB connection leaves for video, Gbit/s: isochronous as video class devices use it, or bulk (typical, USB 2); USB 3 by its signalling. */
export const USB_VIDEO_GBPS = { 'usb-2-isochronous': 0.19, 'usb-2-bulk': 0.28, 'usb-5': 3.2, 'usb-10': 7 } as const;

/** What uncompressed video takes on USB, Gbit/s: visible pixels only, 16 bits each in 4:2:2, 12 in 4:2:0. */
export const usbVideoGbps = ({ width, height, rate }: Mode, chroma: '4:2:2' | '4:2:0'): number =>
  (width * height * hertz(rate) * (chroma === '4:2:2' ? 16 : 12)) / 1e9;
