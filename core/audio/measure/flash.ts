import { nearestRate, type Rate } from '#core/model/units/index.ts';

/** The picture's grid of cells, in each of which brightness is averaged: a flash may be small in the picture. */
export const GRID_COLUMNS = 16;
export const GRID_ROWS = 9;
export const GRID_CELLS = GRID_COLUMNS * GRID_ROWS;

/** Brightness over time: one row of cells a frame, values 0 to 255; frame times as the file states them. */
export interface Brightness {
  readonly timesMs: Float64Array;
  /** `GRID_CELLS` values a frame, row by row. */
  readonly cells: Float32Array;
}

/** A frame in which something lights up that was dark in the frame before. */
export interface Flash {
  readonly atMs: number;
  readonly frame: number;
  /** Step of the brightest cell relative to its usual fluctuation. */
  readonly strength: number;
  /** Which cell, counted row by row. */
  readonly cell: number;
}

/** The mean of each frame: what the lane shows. */
export function meanBrightness({ timesMs, cells }: Brightness): Float32Array {
  const mean = new Float32Array(timesMs.length);
  for (let f = 0; f < mean.length; f++) {
    let sum = 0;
    for (let c = 0; c < GRID_CELLS; c++) sum += cells[f * GRID_CELLS + c]!;
    mean[f] = sum / GRID_CELLS;
  }
  return mean;
}

/** The rate at which frames come, from the median of their distances; null for fewer than two. */
export function frameRateOf(timesMs: Float64Array): Rate | null {
  if (timesMs.length < 2) return null;
  const steps = timesMs.slice(1).map((t, i) => t - timesMs[i]!);
  steps.sort();
  const middle = steps[steps.length >> 1]!;
  // Stamps may be whole ms: the mean of the usual steps is nearer the truth than any one of them.
  const usual = steps.filter((s) => Math.abs(s - middle) < middle / 2);
  return nearestRate(1000 / (usual.reduce((a, b) => a + b, 0) / usual.length));
}

/** Spacing of the frames of a variable-rate video: nine of ten intervals are between these, ms. */
export interface UnevenFrames {
  readonly fromMs: number;
  readonly toMs: number;
}

/** Time stamps may be rounded to whole milliseconds: an interval is off by at most this. */
const ROUNDED_MS = 1.1;
const UNEVEN = { off: 0.15, share: 0.1 } as const;

/**
 * Frames that come as they are made, as a program that records a screen writes them; null where they come evenly, a lost
 * one here and there aside.
 */
export function unevenFrames(timesMs: Float64Array): UnevenFrames | null {
  if (timesMs.length < 12) return null;
  const steps = timesMs.slice(1).map((t, i) => t - timesMs[i]!);
  const sorted = steps.slice().sort();
  const middle = sorted[sorted.length >> 1]!;
  const off = steps.filter((s) => Math.abs(s - middle) > Math.max(ROUNDED_MS, UNEVEN.off * middle)).length;
  if (off <= UNEVEN.share * steps.length) return null;
  const at = (part: number) => sorted[Math.round(part * (sorted.length - 1))]!;
  return { fromMs: at(0.05), toMs: at(0.95) };
}

/** A flash lights up at least this much (of 255), and stands this far over the cell's own restlessness. */
const MIN_STEP = 24;
const MIN_STRENGTH = 8;
/** Two flashes are at least this far apart. */
const APART_MS = 150;
/** Number of frames before over which levels are averaged. */
const BEFORE_FRAMES = 4;
/** A step this strong in most of the picture at once, that stays, is a cut and not a flash. */
const CUT_SHARE = 0.6;
const STAYS_FRAMES = 30;

/** Frames in which a flash begins, by the cell that steps up most over its own usual change. Cuts are left out. */
export function findFlashes(brightness: Brightness): Flash[] {
  const { timesMs, cells } = brightness;
  const frames = timesMs.length;
  const restless = usualChange(brightness);
  const flashes: Flash[] = [];
  for (let f = 1; f < frames; f++) {
    let best = { strength: 0, cell: -1 };
    let lit = 0;
    for (let c = 0; c < GRID_CELLS; c++) {
      const step = stepAt(cells, f, c);
      if (step < MIN_STEP) continue;
      lit++;
      const strength = step / restless[c]!;
      if (strength > best.strength) best = { strength, cell: c };
    }
    if (best.cell < 0 || best.strength < MIN_STRENGTH) continue;
    if (lit > GRID_CELLS * CUT_SHARE && stays(cells, frames, f, best.cell)) continue;
    const last = flashes.at(-1);
    const flash = { atMs: timesMs[f]!, frame: f, ...best };
    if (!last || flash.atMs - last.atMs > APART_MS) flashes.push(flash);
  }
  return flashes;
}

/** How much brighter a cell is than in the frames just before. */
function stepAt(cells: Float32Array, frame: number, cell: number): number {
  const from = Math.max(0, frame - BEFORE_FRAMES);
  let before = 0;
  for (let f = from; f < frame; f++) before = Math.max(before, cells[f * GRID_CELLS + cell]!);
  return cells[frame * GRID_CELLS + cell]! - before;
}

function stays(cells: Float32Array, frames: number, frame: number, cell: number): boolean {
  const later = Math.min(frames - 1, frame + STAYS_FRAMES);
  const before = cells[(frame - 1) * GRID_CELLS + cell]!;
  const at = cells[frame * GRID_CELLS + cell]!;
  return cells[later * GRID_CELLS + cell]! > before + 0.7 * (at - before);
}

/** Mean change from frame to frame of each cell, the largest changes left out; never taken to be below one step in 255. */
function usualChange({ timesMs, cells }: Brightness): Float32Array {
  const frames = timesMs.length;
  const usual = new Float32Array(GRID_CELLS);
  const changes = new Float32Array(Math.max(0, frames - 1));
  for (let c = 0; c < GRID_CELLS; c++) {
    for (let f = 1; f < frames; f++)
      changes[f - 1] = Math.abs(cells[f * GRID_CELLS + c]! - cells[(f - 1) * GRID_CELLS + c]!);
    changes.sort();
    const kept = Math.floor(changes.length * 0.9);
    let sum = 0;
    for (let i = 0; i < kept; i++) sum += changes[i]!;
    usual[c] = Math.max(1, kept > 0 ? sum / kept : 0);
  }
  return usual;
}
