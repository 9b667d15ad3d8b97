import type { Figure, Rate } from '#core/model/units/index.ts';
import { framesFromMs } from '#core/model/units/index.ts';
import { parts as say } from '#words/index.ts';

const MINUS = '−';

/** A number with a true minus and at most this many decimals. */
export const formatNumber = (x: number, decimals = 0): string => {
  const text = Math.abs(x).toFixed(decimals);
  return x < 0 && Number(text) !== 0 ? `${MINUS}${text}` : text;
};

/** With its sign always: +64, −12, 0. */
export const formatSigned = (x: number, decimals = 0): string => {
  const text = formatNumber(x, decimals);
  return x > 0 && Number(text) !== 0 ? `+${text}` : text;
};

/** As many digits as the spread deserves: one below it. */
export const decimalsFor = (spread: number): number => (spread >= 5 ? 0 : spread >= 0.2 ? 1 : spread >= 0.02 ? 2 : 3);

/** Its range beside a typical figure, ± two standard deviations at a measured one; nothing where it is exact. */
export function formatSpread({ kind, value, spread }: Figure): string {
  if (kind === 'measured' && spread) return `±${formatNumber(2 * spread.sd, decimalsFor(2 * spread.sd))}`;
  if (value.low === value.high) return '';
  return say.toOf({ low: formatNumber(value.low), high: formatNumber(value.high) });
}

/** 'late', 'early' or neither, in words: 64 ms late. */
export function formatOffset(ms: number, decimals = 0): string {
  const text = formatNumber(Math.abs(ms), decimals);
  return Number(text) === 0 ? say.ms() : say.msOf({ text, early: ms > 0 ? say.late() : say.early() });
}

export const formatFrames = (ms: number, rate: Rate): string => {
  const frames = framesFromMs(ms, rate);
  return say.frames({ frames: formatNumber(frames, 1) });
};

/** Minutes and seconds of a take; with parts of a second where asked. */
export function formatClock(ms: number, decimals = 0): string {
  const sign = ms < 0 ? MINUS : '';
  const total = Math.abs(ms) / 1000;
  const minutes = Math.floor(total / 60);
  const seconds = (total - minutes * 60).toFixed(decimals);
  return `${sign}${String(minutes).padStart(2, '0')}:${seconds.padStart(decimals ? decimals + 3 : 2, '0')}`;
}

/** Hours, minutes and seconds: how long a day has gone on. */
export function formatSpan(ms: number): string {
  const total = Math.floor(Math.abs(ms) / 1000);
  const two = (n: number) => String(n).padStart(2, '0');
  return `${ms < 0 ? MINUS : ''}${Math.floor(total / 3600)}:${two(Math.floor((total % 3600) / 60))}:${two(total % 60)}`;
}

const day = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' });
export const formatDate = (iso: string): string => day.format(new Date(iso));

export function formatBytes(bytes: number): string {
  const units = ['bytes', 'kB', 'MB', 'GB'];
  const power = Math.min(units.length - 1, bytes < 1000 ? 0 : Math.floor(Math.log10(bytes) / 3));
  return `${formatNumber(bytes / 1000 ** power, power > 1 ? 1 : 0)} ${units[power]}`;
}

export const formatHz = (hz: number): string =>
  hz >= 1000
    ? say.khz({ n1000: formatNumber(hz / 1000, hz < 10_000 && hz % 1000 !== 0 ? 1 : 0) })
    : say.hz({ hz: formatNumber(hz) });

/** Between which frequencies something passes; 0 and Infinity where nothing ends it. */
export function sayBand({ lowHz, highHz }: { readonly lowHz: number; readonly highHz: number }): string {
  if (Number.isFinite(highHz))
    return lowHz > 0
      ? say.toOfAlso({ lowHz: formatHz(lowHz), highHz: formatHz(highHz) })
      : say.upTo({ highHz: formatHz(highHz) });
  return lowHz > 0 ? say.from({ lowHz: formatHz(lowHz) }) : say.fullBand();
}

/** '12 dB under', 'as loud', '3 dB over'. */
export function sayUnder(db: number): string {
  const whole = Math.round(db);
  if (whole === 0) return say.asLoud();
  return say.db({ whole: Math.abs(whole), where: whole > 0 ? 'below' : 'above' });
}

/** Decimals that a figure is worth. */
export const decimalsOf = ({ kind, value }: Figure): number =>
  kind === 'typical' || Number.isInteger(value.nominal) ? 0 : 1;

/** A figure's text with its unit, where it has none yet. */
export const withUnit = (text: string, { unit }: Figure): string => (text.includes(unit) ? text : `${text} ${unit}`);
