import { CODE_BITS, type CodeRead, powerOf, readCells } from './code.ts';
import { cellAt, GAP, PANEL_COLUMNS, PANEL_ROWS } from './layout.ts';
import { crossing, type Point, type Projection, projection, type Quad, widthOf } from './quad.ts';

/** Brightness of one picture, 0 to 255, `stride` bytes a row. */
export interface Luma {
  readonly width: number;
  readonly height: number;
  readonly stride: number;
  readonly bytes: Uint8Array;
}

/** A panel as one picture shows it. */
export interface PanelRead extends CodeRead {
  readonly quad: Quad;
  /** Brightness of each bit's cell and of its inverse, in turn: black 0, white 1. */
  readonly cells: Float32Array;
}

/** Pictures are looked over at about this width; a panel a tenth as wide still has cells of three pixels then. */
const SEARCH_WIDTH = 480;
/** Thresholds between the darkest and the brightest at which bright shapes are separated from their surroundings. */
const LEVELS = [0.25, 0.4, 0.55, 0.7, 0.85];
const MIN_RANGE = 16;
const SMALLEST_PX = 22;
/** The ring covers 36 of the panel's 96 cells, 34 without its gap. */
const RING_SHARE = { least: 0.16, most: 0.62 };
const SIDES = { least: 0.45, most: 2.4 };

/**
 * Finds every panel in a picture and reads it: bright rings are looked for at several levels, their corners made fine in
 * the picture itself, and only what then reads as a code is one. Turned pictures are read as well.
 */
export function findPanels(luma: Luma): PanelRead[] {
  const factor = Math.max(1, Math.round(luma.width / SEARCH_WIDTH));
  const small = shrunk(luma, factor);
  const [dark, bright] = rangeOf(small.bytes);
  if (bright - dark < MIN_RANGE) return [];
  const found: PanelRead[] = [];
  for (const level of LEVELS) {
    for (const quad of ringsAt(small, dark + level * (bright - dark))) {
      const large = scaled(quad, factor);
      if (found.some((f) => holds(f.quad, large))) continue;
      const read = readTurned(luma, large);
      if (read) found.push(read);
    }
  }
  return found;
}

/** Reads a panel again where it was just before, or has moved by a little. */
export function readAgain(luma: Luma, before: Quad): PanelRead | null {
  const quad = refined(luma, before, widthOf(before) / PANEL_COLUMNS);
  return (quad && readAt(luma, quad)) ?? readAt(luma, before);
}

function readTurned(luma: Luma, quad: Quad): PanelRead | null {
  for (let turn = 0; turn < 4; turn++) {
    const turned = [0, 1, 2, 3].map((i) => quad[(i + turn) % 4]!) as unknown as Quad;
    const fine = refined(luma, turned, widthOf(turned) / PANEL_COLUMNS);
    const read = (fine && readAt(luma, fine)) ?? readAt(luma, turned);
    if (read) return read;
  }
  return null;
}

/** Means of whole blocks. */
function shrunk({ width, height, stride, bytes }: Luma, factor: number): Luma {
  const [w, h] = [Math.floor(width / factor), Math.floor(height / factor)];
  if (factor === 1) return { width: w, height: h, stride, bytes };
  const out = new Uint8Array(w * h);
  const sums = new Float64Array(w);
  for (let y = 0; y < h; y++) {
    sums.fill(0);
    for (let dy = 0; dy < factor; dy++) {
      let at = (y * factor + dy) * stride;
      for (let x = 0; x < w; x++) {
        let sum = 0;
        for (let dx = 0; dx < factor; dx++) sum += bytes[at++]!;
        sums[x]! += sum;
      }
    }
    for (let x = 0; x < w; x++) out[y * w + x] = sums[x]! / (factor * factor);
  }
  return { width: w, height: h, stride: w, bytes: out };
}

/** Dark and bright of a picture: all but its outermost hundredths. */
function rangeOf(bytes: Uint8Array): readonly [number, number] {
  const counts = new Uint32Array(256);
  for (let i = 0; i < bytes.length; i++) counts[bytes[i]!]!++;
  const at = (share: number) => {
    let left = share * bytes.length;
    let v = 0;
    while (v < 255 && left > counts[v]!) left -= counts[v++]!;
    return v;
  };
  return [at(0.01), at(0.995)];
}

/** Corners of bright shapes that could be rings: each found by the pixels furthest out along both diagonals. */
function ringsAt({ width, height, stride, bytes }: Luma, level: number): Quad[] {
  const labels = new Int32Array(width * height).fill(-1);
  const stack = new Int32Array(width * height);
  const out: Quad[] = [];
  for (let start = 0; start < labels.length; start++) {
    const sx = start % width;
    const sy = (start - sx) / width;
    if (labels[start] !== -1 || bytes[sy * stride + sx]! <= level) continue;
    let top = 0;
    let count = 0;
    stack[top++] = start;
    labels[start] = start;
    const ends = { ul: start, lr: start, ur: start, ll: start };
    let [ul, lr, ur, ll] = [
      Number.POSITIVE_INFINITY,
      Number.NEGATIVE_INFINITY,
      Number.NEGATIVE_INFINITY,
      Number.POSITIVE_INFINITY,
    ];
    while (top > 0) {
      const at = stack[--top]!;
      const x = at % width;
      const y = (at - x) / width;
      count++;
      if (x + y < ul) [ul, ends.ul] = [x + y, at];
      if (x + y > lr) [lr, ends.lr] = [x + y, at];
      if (x - y > ur) [ur, ends.ur] = [x - y, at];
      if (x - y < ll) [ll, ends.ll] = [x - y, at];
      for (let dy = -1; dy <= 1; dy++) {
        const ny = y + dy;
        if (ny < 0 || ny >= height) continue;
        for (let dx = -1; dx <= 1; dx++) {
          const nx = x + dx;
          if (nx < 0 || nx >= width) continue;
          const next = ny * width + nx;
          if (labels[next] !== -1 || bytes[ny * stride + nx]! <= level) continue;
          labels[next] = start;
          stack[top++] = next;
        }
      }
    }
    // The corner pixel's outer corner, not its middle.
    const corner = (at: number, dx: number, dy: number): Point => ({
      x: (at % width) + dx,
      y: Math.floor(at / width) + dy,
    });
    const quad: Quad = [corner(ends.ul, 0, 0), corner(ends.ur, 1, 0), corner(ends.lr, 1, 1), corner(ends.ll, 0, 1)];
    if (couldBeRing(quad, count)) out.push(quad);
  }
  return out;
}

function couldBeRing(quad: Quad, count: number): boolean {
  const [a, b, c, d] = quad;
  const across = Math.hypot(b.x - a.x, b.y - a.y);
  const down = Math.hypot(d.x - a.x, d.y - a.y);
  if (Math.max(across, down) < SMALLEST_PX || Math.min(across, down) < SMALLEST_PX / 2) return false;
  if (across / down < SIDES.least || across / down > SIDES.most) return false;
  const area = Math.abs((c.x - a.x) * (d.y - b.y) - (d.x - b.x) * (c.y - a.y)) / 2;
  return count > RING_SHARE.least * area && count < RING_SHARE.most * area;
}

const scaled = (quad: Quad, k: number): Quad => quad.map((p) => ({ x: p.x * k, y: p.y * k })) as unknown as Quad;

/** Whether the center of one is within the other's width: the same panel at another threshold. */
function holds(known: Quad, other: Quad): boolean {
  const [dx, dy] = [0, 1].map((axis) => {
    const mean = (q: Quad) => q.reduce((sum, p) => sum + (axis ? p.y : p.x), 0) / 4;
    return mean(known) - mean(other);
  }) as [number, number];
  return Math.hypot(dx, dy) < widthOf(known) / 4;
}

/** Places along a side at which its edge is looked for, clear of the corners and of the gap. */
const ALONG = [0.1, 0.42, 0.5, 0.58, 0.66, 0.74, 0.82, 0.9];
const EDGE_STEPS = 24;

/** The corners to subpixel precision: the ring's outer edge is located along every side, and a line fitted through it. */
function refined(luma: Luma, quad: Quad, cellPx: number): Quad | null {
  const lines: [Point, Point][] = [];
  for (let side = 0; side < 4; side++) {
    const [p, q] = [quad[side]!, quad[(side + 1) % 4]!];
    const length = Math.hypot(q.x - p.x, q.y - p.y);
    if (length === 0) return null;
    // Outwards is to the left of the way round.
    const [nx, ny] = [(q.y - p.y) / length, -(q.x - p.x) / length];
    const found: { along: number; out: number }[] = [];
    for (const along of ALONG) {
      const out = edgeNear(luma, p.x + along * (q.x - p.x), p.y + along * (q.y - p.y), nx, ny, cellPx);
      if (out !== null) found.push({ along, out });
    }
    if (found.length < 4) return null;
    const { start, slope } = robustLine(found);
    const place = (along: number): Point => ({
      x: p.x + along * (q.x - p.x) + nx * (start + slope * along),
      y: p.y + along * (q.y - p.y) + ny * (start + slope * along),
    });
    lines.push([place(0), place(1)]);
  }
  const corners = lines.map((line, side) => crossing(...lines[(side + 3) % 4]!, ...line));
  return corners.every((c) => c !== null) ? (corners as unknown as Quad) : null;
}

/** How far out of a place the picture falls from bright to dark, half way between both; null where it does not. */
function edgeNear(luma: Luma, x: number, y: number, nx: number, ny: number, cellPx: number): number | null {
  const reach = 0.9 * cellPx;
  let [low, high] = [255, 0];
  const values = new Float32Array(EDGE_STEPS + 1);
  for (let i = 0; i <= EDGE_STEPS; i++) {
    const out = -reach + (2 * reach * i) / EDGE_STEPS;
    const v = between(luma, x + out * nx, y + out * ny);
    values[i] = v;
    low = Math.min(low, v);
    high = Math.max(high, v);
  }
  if (high - low < MIN_RANGE / 2) return null;
  const half = (low + high) / 2;
  // From the outside in: the first rise through half.
  for (let i = EDGE_STEPS; i > 0; i--) {
    if (values[i]! < half && values[i - 1]! >= half) {
      const part = (values[i - 1]! - half) / (values[i - 1]! - values[i]!);
      return -reach + (2 * reach * (i - 1 + part)) / EDGE_STEPS;
    }
  }
  return null;
}

/** Brightness between pixels, whose centers are at halves. */
function between({ width, height, stride, bytes }: Luma, x: number, y: number): number {
  const px = Math.max(0, Math.min(width - 1.001, x - 0.5));
  const py = Math.max(0, Math.min(height - 1.001, y - 0.5));
  const x0 = Math.floor(px);
  const y0 = Math.floor(py);
  const fx = px - x0;
  const fy = py - y0;
  const at = y0 * stride + x0;
  const upper = bytes[at]! + (bytes[at + 1]! - bytes[at]!) * fx;
  const lower = bytes[at + stride]! + (bytes[at + stride + 1]! - bytes[at + stride]!) * fx;
  return upper + (lower - upper) * fy;
}

/** A line through places of which a few may be wrong: the median of all slopes, then the median of what is left. */
function robustLine(found: readonly { along: number; out: number }[]): { start: number; slope: number } {
  const slopes: number[] = [];
  for (let i = 0; i < found.length; i++)
    for (let j = i + 1; j < found.length; j++)
      slopes.push((found[j]!.out - found[i]!.out) / (found[j]!.along - found[i]!.along));
  const slope = middle(slopes);
  return { slope, start: middle(found.map((f) => f.out - slope * f.along)) };
}

function middle(values: number[]): number {
  values.sort((a, b) => a - b);
  const at = values.length >> 1;
  return values.length % 2 ? values[at]! : (values[at - 1]! + values[at]!) / 2;
}

/** Samples each way across the middle of a cell, and how much of the cell they span. */
const SAMPLES = 5;
const SPAN = 0.5;
/** White and black differ at least by this, of 255. */
const MIN_CONTRAST = 10;
/** The gap is darker than half way to white, the ring elsewhere brighter. */
const RING_PLACES: readonly (readonly [number, number])[] = [
  [0.5, 4],
  [PANEL_COLUMNS - 0.5, 4],
  [6, PANEL_ROWS - 0.5],
  [8, PANEL_ROWS - 0.5],
  [8, 0.5],
  [10, 0.5],
  [3, PANEL_ROWS - 0.5],
];
const MARGIN_PLACES: readonly (readonly [number, number])[] = [
  [1.5, 3],
  [1.5, 5],
  [PANEL_COLUMNS - 1.5, 3],
  [PANEL_COLUMNS - 1.5, 5],
  [4, 1.5],
  [8, 1.5],
  [4, PANEL_ROWS - 1.5],
  [8, PANEL_ROWS - 1.5],
];
const GAP_PLACE = [(GAP.from + GAP.to) / 2, 0.5] as const;

function readAt(luma: Luma, quad: Quad): PanelRead | null {
  if (quad.some((p) => p.x < -1 || p.y < -1 || p.x > luma.width + 1 || p.y > luma.height + 1)) return null;
  const place = projection(quad);
  const mean = (x: number, y: number) => meanAround(luma, place, x, y);
  const ring = RING_PLACES.map(([x, y]) => mean(x, y));
  const margin = MARGIN_PLACES.map(([x, y]) => mean(x, y));
  const white = average(ring);
  const black = average(margin);
  const contrast = white - black;
  if (contrast < MIN_CONTRAST) return null;
  const half = (white + black) / 2;
  if (ring.some((v) => v < half) || margin.some((v) => v > half) || mean(...GAP_PLACE) > half) return null;
  const cells = new Float32Array(2 * CODE_BITS);
  for (let i = 0; i < cells.length; i++) {
    const { x, y } = cellAt(i >> 1, i % 2 === 1);
    cells[i] = Math.max(0, (mean(x, y) - black) / contrast);
  }
  const read = readCells(cells, powerOf([cells]));
  return read && { ...read, quad, cells };
}

function meanAround(luma: Luma, place: Projection, x: number, y: number): number {
  const { width, height, stride, bytes } = luma;
  const at = { x: 0, y: 0 };
  let sum = 0;
  for (let i = 0; i < SAMPLES; i++) {
    const v = (y + SPAN * ((i + 0.5) / SAMPLES - 0.5)) / PANEL_ROWS;
    for (let j = 0; j < SAMPLES; j++) {
      place((x + SPAN * ((j + 0.5) / SAMPLES - 0.5)) / PANEL_COLUMNS, v, at);
      const px = Math.max(0, Math.min(width - 1, Math.floor(at.x)));
      const py = Math.max(0, Math.min(height - 1, Math.floor(at.y)));
      sum += bytes[py * stride + px]!;
    }
  }
  return sum / (SAMPLES * SAMPLES);
}

const average = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / values.length;
