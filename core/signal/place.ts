import type { Arrival } from './arrival.ts';
import type { Pair, ReceivedPath } from './heard.ts';

/** One way of a source to a place; left and right of one way are one. */
export interface Way {
  arrival: Arrival;
  readonly sides: string[];
}

/** What arrives at one place, computed on demand and cached until something else arrives there. */
export interface Place {
  readonly nodes: readonly number[];
  readonly noiseDb: readonly number[];
  readonly heard: ReadonlyMap<number, readonly Way[]>;
  /** Of every source, the picture that comes first. */
  readonly first: ReadonlyMap<number, Arrival>;
  readonly pictures: Map<number, Pair['picture']>;
  /** The ways of a source as they are read against a picture, by source and where that is seen. */
  readonly read: Map<string, Read>;
}

interface Read {
  readonly source: number;
  readonly picture: Pair['picture'];
  readonly ways: readonly ReceivedPath[];
}

/** By `device/port`. */
export type Places = Map<string, Place>;
