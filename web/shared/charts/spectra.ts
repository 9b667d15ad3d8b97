import { scaleLinear, scaleLog } from 'd3-scale';
import { line } from 'd3-shape';
import type { Spectrogram, Spectrum, ThirdOctave } from '#core/audio/measure/index.ts';

/** Levels between these go from paper to ink. */
const SHADES_DB = { none: -100, full: -25 } as const;

/** A spectrogram as pixels, RGBA, time across, the lowest row at the bottom: one color, its opacity the level. */
export function shade({ db, columns, rows }: Spectrogram, [red, green, blue]: readonly number[]): Uint8ClampedArray {
  const pixels = new Uint8ClampedArray(4 * columns * rows);
  const scale = 255 / (SHADES_DB.full - SHADES_DB.none);
  for (let c = 0; c < columns; c++)
    for (let r = 0; r < rows; r++) {
      const p = 4 * ((rows - 1 - r) * columns + c);
      pixels[p] = red!;
      pixels[p + 1] = green!;
      pixels[p + 2] = blue!;
      pixels[p + 3] = (db[c * rows + r]! - SHADES_DB.none) * scale;
    }
  return pixels;
}

export const SPECTRUM_HEIGHT = 170;
const LEFT_PX = 40;
const HZ = { low: 25, high: 20_000 } as const;
const HZ_TICKS = [50, 100, 200, 500, 1000, 2000, 5000, 10_000];
const MIN_SPAN_DB = 60;

export interface SpectrumLayout {
  readonly path: string;
  readonly bars: readonly {
    readonly band: ThirdOctave;
    readonly x: number;
    readonly width: number;
    readonly y: number;
  }[];
  readonly bottom: number;
  readonly hzTicks: readonly { readonly label: string; readonly px: number }[];
  readonly dbTicks: readonly { readonly db: number; readonly px: number }[];
}

/** A spectrum as a line, its third octaves as bars, over the logarithm of frequency. */
export function layoutSpectrum(spectrum: Spectrum, bands: readonly ThirdOctave[], widthPx: number): SpectrumLayout {
  const { binHz, power } = spectrum;
  const bottom = SPECTRUM_HEIGHT - 20;
  const x = scaleLog()
    .domain([HZ.low, HZ.high])
    .range([LEFT_PX, widthPx - 4]);
  const top = 10 * Math.ceil(Math.max(-120, ...bands.map((b) => b.db)) / 10);
  const least = Math.min(top - MIN_SPAN_DB, 10 * Math.floor(Math.max(-130, lowest(bands)) / 10));
  const y = scaleLinear().domain([least, top]).range([bottom, 10]).clamp(true);
  const points: [number, number][] = [];
  // Where many bins share a pixel, the loudest of them.
  for (let b = Math.ceil(HZ.low / binHz), px = -1; b < power.length && b * binHz <= HZ.high; b++) {
    const at = x(b * binHz);
    const db = y(10 * Math.log10(Math.max(power[b]!, 1e-20)));
    const last = points.at(-1);
    if (last && at - px < 1) last[1] = Math.min(last[1], db);
    else {
      points.push([at, db]);
      px = at;
    }
  }
  return {
    path: line().digits(1)(points) ?? '',
    bars: bands
      .filter((b) => b.highHz > HZ.low)
      .map((band) => ({
        band,
        x: x(Math.max(HZ.low, band.lowHz)) + 0.5,
        width: Math.max(1, x(Math.min(HZ.high, band.highHz)) - x(Math.max(HZ.low, band.lowHz)) - 1),
        y: y(band.db),
      })),
    bottom,
    hzTicks: HZ_TICKS.map((hz) => ({ label: hz >= 1000 ? `${hz / 1000}k` : `${hz}`, px: x(hz) })),
    dbTicks: scaleLinear()
      .domain([least, top])
      .ticks(5)
      .map((db) => ({ db, px: y(db) })),
  };
}

const lowest = (bands: readonly ThirdOctave[]): number => bands.reduce((least, b) => Math.min(least, b.db), 0);
