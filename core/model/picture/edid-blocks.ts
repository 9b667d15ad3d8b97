import { type Rate, rate } from '#core/model/units/index.ts';
import { type Mode, pictureRate } from './mode.ts';
import type { Timing } from './timing.ts';

/** A mode that a screen states, with its own timing where it states one. */
export interface StatedMode {
  readonly mode: Mode;
  readonly timing?: Timing;
  /** Only with its colors halved both ways (4:2:0). */
  readonly only420: boolean;
}

/** Bytes of a detailed timing or descriptor. */
export const DETAILED = 18;
const CLOCK_STEP_HZ = 10_000;
/** Below this it is no picture but noise. */
const MIN_HERTZ = 1;

/** A detailed timing; null for an interlaced one and for a descriptor that is none. */
export function readDetailed(bytes: Uint8Array, at: number): StatedMode | null {
  const b = (i: number) => bytes[at + i]!;
  const pixelClockHz = (b(0) | (b(1) << 8)) * CLOCK_STEP_HZ;
  if (pixelClockHz === 0 || b(17) & 0x80) return null;
  const width = b(2) | ((b(4) & 0xf0) << 4);
  const totalWidth = width + (b(3) | ((b(4) & 0x0f) << 8));
  const height = b(5) | ((b(7) & 0xf0) << 4);
  const totalHeight = height + (b(6) | ((b(7) & 0x0f) << 8));
  const hz = pixelClockHz / (totalWidth * totalHeight);
  if (width === 0 || height === 0 || hz < MIN_HERTZ) return null;
  return {
    mode: { width, height, rate: statedRate(hz, CLOCK_STEP_HZ / 2 / pixelClockHz) },
    timing: { totalWidth, totalHeight, pixelClockHz, source: 'EDID' },
    only420: false,
  };
}

/** Pixel clocks are quantized, so a rate can differ from the nominal one by at most this. */
function statedRate(hz: number, beside: number): Rate {
  for (const near of [rate(Math.round(hz)), rate(Math.round(hz * 1.001) * 1000, 1001)]) {
    if (Math.abs(near.num / near.den / hz - 1) <= beside + 1e-9) return near;
  }
  return pictureRate(Math.round(hz * 1000) / 1000);
}

const TEXT = 0xfc;

/** The name in a descriptor; null where it is another kind. */
export function readName(bytes: Uint8Array, at: number): string | null {
  if (bytes[at] !== 0 || bytes[at + 1] !== 0 || bytes[at + 3] !== TEXT) return null;
  const text = String.fromCharCode(...bytes.subarray(at + 5, at + DETAILED));
  return text.split('\n')[0]!.trim();
}

/** Established timings I, II and the first of III, by bit from the highest of byte 35 on; interlaced and odd sizes left out. */
const ESTABLISHED: readonly (readonly [number, number, number] | null)[] = [
  [720, 400, 70],
  [720, 400, 88],
  [640, 480, 60],
  [640, 480, 67],
  [640, 480, 72],
  [640, 480, 75],
  [800, 600, 56],
  [800, 600, 60],
  [800, 600, 72],
  [800, 600, 75],
  [832, 624, 75],
  null,
  [1024, 768, 60],
  [1024, 768, 70],
  [1024, 768, 75],
  [1280, 1024, 75],
  [1152, 870, 75],
];
const ESTABLISHED_AT = 35;
const STANDARD_AT = 38;
const STANDARD_COUNT = 8;
/** Height for 16 of width, by the two highest bits (EDID 1.3 and later). */
const HEIGHT_OF_16 = [10, 12, 12.8, 9];

/** Established and standard timings of the base block. */
export function readOldTimings(bytes: Uint8Array): StatedMode[] {
  const modes: StatedMode[] = [];
  const add = (width: number, height: number, hz: number) =>
    modes.push({ mode: { width, height, rate: rate(hz) }, only420: false });
  ESTABLISHED.forEach((row, i) => {
    if (row && bytes[ESTABLISHED_AT + (i >> 3)]! & (0x80 >> (i & 7))) add(...row);
  });
  for (let i = 0; i < STANDARD_COUNT; i++) {
    const [first, second] = [bytes[STANDARD_AT + 2 * i]!, bytes[STANDARD_AT + 2 * i + 1]!];
    if (first === 0 || (first === 1 && second === 1)) continue;
    const width = (first + 31) * 8;
    add(width, Math.round((width * HEIGHT_OF_16[second >> 6]!) / 16), (second & 0x3f) + 60);
  }
  return modes;
}
