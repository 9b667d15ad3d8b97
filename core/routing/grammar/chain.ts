import type { DeviceType } from '#core/model/rig/index.ts';
import type { Mention } from './mention.ts';
import type { Joint } from './phrases.ts';

/** Something that was named: what it was taken for, and where it is plugged as far as that was said. */
export interface Item {
  /** As typed, without socket and quotes. */
  readonly text: string;
  readonly mention: Mention;
  /** What it is called, in quotes. */
  readonly name: string | null;
  /** 'line in', 'out 7/8': the socket on it that was named. */
  readonly socket: string | null;
  /** Its position in the text. */
  readonly from: number;
  readonly to: number;
}
/** What is named together, and how it is joined to what was named before. */
export interface Hop {
  readonly joint: Joint | null;
  /** Each of what was named before has one of these: 'each with a mic'. */
  readonly each: boolean;
  readonly items: readonly Item[];
}
/** From hop to hop; a single hop where nothing was said of where it leads. */
export type Chain = readonly Hop[];

/** Whether something leads from one type to another, and at what cost; null where nothing fits. */
export type Fits = (from: DeviceType, to: DeviceType) => number | null;
