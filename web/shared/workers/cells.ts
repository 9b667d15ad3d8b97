import type { VideoSample } from 'mediabunny';
import { GRID_CELLS, GRID_COLUMNS, GRID_ROWS } from '#core/audio/measure/index.ts';
import type { Luma } from '#core/desk-tests/slates/index.ts';

/** Fine reads the whole of each frame, coarse some strips of it: copying frames is what costs. */
export type Grain = 'fine' | 'coarse';

/** Subsampling step in both directions, px: enough for a mean, a fraction of the cost. */
const STRIDE = 8;
const COARSE_STRIPS = 2 * GRID_ROWS;
const STRIP_ROWS = 4;

/** Offset of luma (or green, where there is none) in a frame's bytes. */
interface Pixels {
  readonly bytes: number;
  readonly at: number;
  /** Samples wider than 8 bits are little-endian words with this many extra bits. */
  readonly wideShift: number | null;
}

function pixelsOf(format: string): Pixels {
  if (format.startsWith('RGB') || format.startsWith('BGR')) return { bytes: 4, at: 1, wideShift: null };
  if (format.endsWith('P12')) return { bytes: 2, at: 0, wideShift: 4 };
  if (format.endsWith('P10')) return { bytes: 2, at: 0, wideShift: 2 };
  return { bytes: 1, at: 0, wideShift: null };
}

/** The brightness of all of a frame, a byte a pixel; wide and colored samples are narrowed into `scratch`. */
function lumaOf(
  buffer: Uint8Array,
  plane: { offset: number; stride: number },
  width: number,
  height: number,
  { bytes, at, wideShift }: Pixels,
  scratch: (size: number) => Uint8Array,
): Luma {
  if (bytes === 1) return { width, height, stride: plane.stride, bytes: buffer.subarray(plane.offset) };
  const out = scratch(width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0, i = plane.offset + y * plane.stride + at; x < width; x++, i += bytes)
      out[y * width + x] = wideShift === null ? buffer[i]! : (buffer[i]! | (buffer[i + 1]! << 8)) >> wideShift;
  return { width, height, stride: width, bytes: out };
}

/**
 * Reads the mean brightness of each cell of the grid, frame after frame into the same memory.
 * @param onLuma  is shown all of a frame that was read finely, while it lasts
 */
export function cellReader(
  grain: Grain,
  onLuma?: (luma: Luma) => void,
): (sample: VideoSample) => Promise<Float32Array> {
  let buffer = new Uint8Array(0);
  const room = (size: number) => {
    if (buffer.length < size) buffer = new Uint8Array(size);
    return buffer;
  };
  let narrowed = new Uint8Array(0);
  const scratch = (size: number) => {
    if (narrowed.length < size) narrowed = new Uint8Array(size);
    return narrowed;
  };
  return async (sample) => {
    const { codedWidth: width, codedHeight: height } = sample;
    const pixels = pixelsOf(sample.format ?? '');
    const cells = new Float32Array(GRID_CELLS);
    const counts = new Uint32Array(GRID_CELLS);
    const add = (plane: { offset: number; stride: number }, y0: number, rows: number, step: number) => {
      for (let y = step >> 1; y < rows; y += step) {
        const row = Math.floor(((y0 + y) * GRID_ROWS) / height) * GRID_COLUMNS;
        addRow(buffer, plane.offset + y * plane.stride, width, pixels, cells, counts, row);
      }
    };
    if (grain === 'fine' || height < 2 * COARSE_STRIPS * STRIP_ROWS) {
      const [plane] = await sample.copyTo(room(sample.allocationSize()));
      add(plane!, 0, height, STRIDE);
      onLuma?.(lumaOf(buffer, plane!, width, height, pixels, scratch));
    } else {
      const even = width & ~1;
      const size = sample.allocationSize({ rect: { x: 0, y: 0, width: even, height: STRIP_ROWS } });
      const all = room(size * COARSE_STRIPS);
      const tops = Array.from(
        { length: COARSE_STRIPS },
        (_, i) => (((i + 0.5) * height) / COARSE_STRIPS - STRIP_ROWS / 2) & ~1,
      );
      const planes = await Promise.all(
        tops.map((y, i) =>
          sample.copyTo(all.subarray(i * size, (i + 1) * size), {
            rect: { x: 0, y, width: even, height: STRIP_ROWS },
          }),
        ),
      );
      for (const [i, [plane]] of planes.entries()) {
        add({ offset: i * size + plane!.offset, stride: plane!.stride }, tops[i]!, STRIP_ROWS, STRIP_ROWS / 2);
      }
    }
    for (let c = 0; c < GRID_CELLS; c++) cells[c]! /= Math.max(1, counts[c]!);
    return cells;
  };
}

function addRow(
  bytes: Uint8Array,
  line: number,
  width: number,
  { bytes: size, at, wideShift }: Pixels,
  cells: Float32Array,
  counts: Uint32Array,
  row: number,
): void {
  for (let x = STRIDE >> 1; x < width; x += STRIDE) {
    const i = line + x * size + at;
    const cell = row + Math.floor((x * GRID_COLUMNS) / width);
    cells[cell]! += wideShift === null ? bytes[i]! : (bytes[i]! | (bytes[i + 1]! << 8)) >> wideShift;
    counts[cell]!++;
  }
}

/** A part of the picture, as shares of its width and height. */
export interface Region {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Number of cells per region: enough to see one menu entry go dark and the next light up. */
const REGION_COLUMNS = 8;
const REGION_ROWS = 6;
export const REGION_CELLS = REGION_COLUMNS * REGION_ROWS;
const MIN_REGION_PX = 16;

/** Reads the mean brightness of each cell of a region, frame after frame into the same memory. */
export function regionReader(region: Region): (sample: VideoSample) => Promise<Float32Array> {
  let buffer = new Uint8Array(0);
  return async (sample) => {
    const { codedWidth, codedHeight } = sample;
    // Colors are stored for every second pixel: a rectangle begins and ends with them.
    const even = (v: number) => Math.round(v) & ~1;
    const x = Math.min(even(region.x * codedWidth), codedWidth - MIN_REGION_PX);
    const y = Math.min(even(region.y * codedHeight), codedHeight - MIN_REGION_PX);
    const width = Math.max(MIN_REGION_PX, Math.min(even(region.width * codedWidth), (codedWidth - x) & ~1));
    const height = Math.max(MIN_REGION_PX, Math.min(even(region.height * codedHeight), (codedHeight - y) & ~1));
    const rect = { x, y, width, height };
    const size = sample.allocationSize({ rect });
    if (buffer.length < size) buffer = new Uint8Array(size);
    const [plane] = await sample.copyTo(buffer, { rect });
    const { bytes, at, wideShift } = pixelsOf(sample.format ?? '');
    const cells = new Float32Array(REGION_CELLS);
    const counts = new Uint32Array(REGION_CELLS);
    for (let py = 0; py < height; py += 2)
      for (let px = 0; px < width; px += 2) {
        const i = plane!.offset + py * plane!.stride + px * bytes + at;
        const cell =
          Math.floor((py * REGION_ROWS) / height) * REGION_COLUMNS + Math.floor((px * REGION_COLUMNS) / width);
        cells[cell]! += wideShift === null ? buffer[i]! : (buffer[i]! | (buffer[i + 1]! << 8)) >> wideShift;
        counts[cell]!++;
      }
    for (let c = 0; c < REGION_CELLS; c++) cells[c]! /= Math.max(1, counts[c]!);
    return cells;
  };
}
