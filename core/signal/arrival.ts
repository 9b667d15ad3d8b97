import type { Interval } from '#core/model/units/index.ts';
import type { Edge } from './graph.ts';

/** One source at one node by one path. The path is read back over `from`, not copied. */
export interface Arrival {
  readonly sourceIndex: number;
  readonly node: number;
  /** `levelLowDb <= levelDb <= levelHighDb`, also where copies have met. */
  levelDb: number;
  levelLowDb: number;
  levelHighDb: number;
  readonly delayMs: Interval;
  polarity: 1 | -1;
  readonly conversions: number;
  readonly lowHz: number;
  readonly highHz: number;
  /** The device whose clock counts the samples; null while nothing has. */
  readonly clock: string | null;
  /** Smallest headroom on the path so far, dB; Infinity where nothing can clip. */
  readonly headroomDb: number;
  /** A number made of the ways it took: equal for left and right of one way, and for nothing else that is known. */
  readonly way: number;
  /** The last edge of its path; null at the source. */
  readonly edge: Edge | null;
  from: Arrival | null;
  /** How loud it may be the other way up: copies that nearly cancel leave open which of them is the louder. -Infinity where that is known. */
  reverseDb: number;
  /** How many copies have met in it on its way: ways of equal length, added up. */
  copies: number;
  /** The copy that met it here upside down, at the same instant, and by how much it is quieter for that; null where none did. */
  cancelledBy: { readonly other: Arrival; readonly lossDb: number } | null;
}
