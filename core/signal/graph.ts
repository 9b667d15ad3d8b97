import type { Text } from '#core/base/said/index.ts';
import type { PortRef, Rig, SettingValue, Stage } from '#core/model/rig/index.ts';
import type { FigureUnit, Interval } from '#core/model/units/index.ts';

/** The scale that a level is read in: sound pressure, volts against 0.775 V, or digital full scale. */
export type Scale = 'spl' | 'dbu' | 'dbfs';
export const SCALE_UNITS = { spl: 'dB SPL', dbu: 'dBu', dbfs: 'dBFS' } as const satisfies Record<Scale, FigureUnit>;

/** One channel of one port: a place where a tap can be put. */
export interface Node {
  readonly deviceId: string;
  readonly portId: string;
  readonly channelId: string;
  readonly carries: 'sound' | 'picture';
  readonly scale: Scale;
}

/** One addend of a path's delay, named so that the same figure on two paths is known to be the same. */
export interface DelayTerm {
  /** `device.figure`, `device.setting` or `cable:id`. */
  readonly key: string;
  /** Device and stage, as one would say it. */
  readonly label: Text;
  readonly ms: Interval;
  readonly kind: 'standard' | 'typical' | 'set';
  /** Another term that is uncertain together with this one: this less that. */
  readonly beside?: { readonly key: string; readonly ms: Interval; readonly source: Text };
  readonly source: Text;
}

/** What happens between one channel and the next, inside a device or through a cable. Fixed once the settings are. */
export interface Edge {
  /** Left and right of one way through a device, or of one cable, bear the same number; no others do. */
  readonly wayId: number;
  /** The device whose inside this is, or the cable. */
  readonly via: { readonly cableId: string } | { readonly deviceId: string };
  /** Changes of scale are gains too: every one of them only adds decibels. */
  readonly gainDb: Interval;
  readonly delays: readonly DelayTerm[];
  /** The sum of `delays`, ready for the tracing loop. */
  readonly delayMs: Interval;
  /** The nominal gain as a ratio of powers, and the edge's own noise at its end as a power over 0 dB of its scale: ready for the noise floor. */
  readonly powerGain: number;
  readonly noisePower: number;
  /** The level at its start above which something on it clips; Infinity for nothing. */
  readonly ceilingDb: number;
  readonly conversions: number;
  readonly polarity: 1 | -1;
  readonly lowHz: number;
  readonly highHz: number;
  /** Set where the samples are counted again by this device's clock. */
  readonly clock: string | null;
  /** `device.setting` of all that it passes, for 'what acts on this path'. */
  readonly settings: readonly string[];
  /** What it goes through within a device, in order; none for a cable. */
  readonly stages: readonly Stage[];
}

/** A setting that has to have this value for anything to pass. */
export interface Door {
  readonly settingId: string;
  readonly opensAt: SettingValue;
}

/** A way that is shut: nothing passes from one node to the other, and these settings are why. */
export interface BlockedEdge {
  readonly from: number;
  readonly to: number;
  readonly deviceId: string;
  /** The first of them that a signal meets. */
  readonly settingId: string;
  readonly doors: readonly Door[];
}

export interface Disabled {
  readonly from: number;
  readonly to: number;
  readonly end: PortRef;
}

/** Where a link of a program that follows the default of its computer would lead, were another device the default. */
export interface Elsewhere {
  readonly cableId: string;
  readonly from: PortRef;
  readonly to: PortRef;
}

/**
 * The rig with its settings as a graph of channels. The edges that leave node n are those from `firstEdge[n]` up to
 * `firstEdge[n + 1]`; edge e runs from node `from[e]` to node `to[e]`. Picture and sound never share an edge.
 */
export interface Graph {
  readonly nodes: readonly Node[];
  readonly edges: readonly Edge[];
  readonly from: Int32Array;
  readonly to: Int32Array;
  readonly firstEdge: Int32Array;
  /** The edges that lead to node n, in order: `into` from `firstInto[n]` up to `firstInto[n + 1]`. */
  readonly into: Int32Array;
  readonly firstInto: Int32Array;
  readonly shut: readonly BlockedEdge[];
  /** Ways that an end would have that is disabled in the system of its computer. */
  readonly disabled: readonly Disabled[];
  readonly elsewhere: readonly Elsewhere[];
  readonly cables: Rig['cables'];
  /** All nodes of a port, in the order of its channels; empty for an unknown one. */
  nodesOf(ref: { readonly deviceId: string; readonly portId: string }): readonly number[];
}
