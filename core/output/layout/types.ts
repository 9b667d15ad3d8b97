/** A device to be set out: its ports stand on its sides, inputs left, outputs right, from the top down. */
export interface Shape {
  readonly id: string;
  readonly widthPx: number;
  /** Above the first port. */
  readonly headPx: number;
  readonly ins: readonly string[];
  readonly outs: readonly string[];
}

/** A line from an output to an input. */
export interface Wire {
  readonly id: string;
  readonly from: { readonly node: string; readonly port: string };
  readonly to: { readonly node: string; readonly port: string };
  /** Through air or by sight: where a loop has to be opened, it is opened here first. */
  readonly weak?: boolean;
  /** How broad it is drawn; its track is as broad. */
  readonly thicknessPx?: number;
}

interface Seat {
  /** Column, counted from the left. */
  readonly rank: number;
  /** Place in the column, counted from the top among devices and lines that pass. */
  readonly row: number;
}
/** Where devices sat in the last layout; they stay there as far as they can. */
export type Seats = ReadonlyMap<string, Seat>;

export interface Placed extends Seat {
  readonly xPx: number;
  readonly yPx: number;
  readonly widthPx: number;
  readonly heightPx: number;
}

export type Point = readonly [xPx: number, yPx: number];

export interface Drawing {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly boxes: ReadonlyMap<string, Placed>;
  /** Corners of every wire, from its output to its input; every stretch is level or upright. */
  readonly wires: ReadonlyMap<string, readonly Point[]>;
  /** How often lines of different outputs cross. */
  readonly crossings: number;
  readonly seats: Seats;
}

/** Pixels: between ports of a device, from the last port to its lower edge, between neighbors in a column, between lines that pass, between tracks. */
const PORT_PITCH = 16;
const FOOT = 6;
export const GAP = 16;
export const LINE_GAP = 12;
export const TRACK_GAP = 7;
export const CHANNEL_MARGIN = 14;
export const LINE_HEIGHT = 2;

export const heightOf = ({ headPx, ins, outs }: Shape): number =>
  headPx + Math.max(1, ins.length, outs.length) * PORT_PITCH + FOOT;
/** Where a port stands, from the top of its device. */
export const portOffset = ({ headPx }: Pick<Shape, 'headPx'>, index: number): number =>
  headPx + (index + 0.5) * PORT_PITCH;
