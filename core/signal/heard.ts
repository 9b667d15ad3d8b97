import type { PlanCell, SettingTask } from '#core/model/rig/index.ts';
import type { Figure, Interval } from '#core/model/units/index.ts';
import type { Arrival } from './arrival.ts';
import type { Band } from './band.ts';
import type { DelayTerm, Scale } from './graph.ts';
import type { SignedTerm } from './offset.ts';

/** The four states, and a dash for what is not looked at. */
export type State = 'good' | 'watch' | 'fix' | 'stop' | 'none';
export type TimeWord =
  | 'in-time'
  | 'late'
  | 'early'
  | 'perhaps-late'
  | 'perhaps-early'
  | 'perhaps-either'
  | 'twice'
  | 'too-loud'
  | 'too-quiet'
  | 'not-alone'
  | 'once-done'
  | 'missing'
  | 'unwanted'
  | 'no-picture'
  | 'not-heard';

export interface TimeVerdict {
  readonly state: State;
  readonly word: TimeWord;
  /** Sound minus picture of the loudest way, nominal; null without one. */
  readonly offsetMs: number | null;
  /** Where it is heard twice: how long after the loudest way the other comes, or before it. */
  readonly apart: Figure | null;
  /** Proposals on this way that no one has ticked. */
  readonly openTasks: readonly SettingTask[];
}

/** One way by which a source reaches a listener; left and right of the same way count once. */
export interface ReceivedPath {
  readonly arrival: Arrival;
  readonly levelDb: Interval;
  readonly scale: Scale;
  /** Floor of the place where it is heard, all noises together; null for none. */
  readonly noiseDb: number | null;
  readonly headroomDb: number | null;
  readonly delay: Figure;
  readonly band: Band;
  readonly conversions: number;
  readonly polarity: 1 | -1;
  readonly clock: string | null;
  readonly deviceIds: readonly string[];
  readonly sides: readonly string[];
  /** How long after the loudest way it comes; null for that itself, and for what it hides. */
  readonly afterFirst: Figure | null;
  /** Sound minus picture; null without a picture to keep time with. */
  readonly offset: Figure | null;
  readonly soundTerms: readonly DelayTerm[];
  readonly offsetTerms: readonly SignedTerm[];
  /** `device.setting` of all that can be set on the way. */
  readonly settings: readonly string[];
}

/** One source and one listener: what arrives, against which picture, and whether that is in time. */
export interface Pair {
  readonly sourceId: string;
  readonly listenerId: string;
  readonly want: PlanCell['want'] | null;
  /** Loudest first. */
  readonly ways: readonly ReceivedPath[];
  readonly picture: {
    readonly sourceId: string;
    readonly delay: Figure;
    readonly terms: readonly DelayTerm[];
    readonly settings: readonly string[];
  } | null;
  /** How far under the main voice it is heard there, dB; null for the voice itself, or where one of the two is not heard. */
  readonly underVoiceDb: number | null;
  /** For a source that has to be alone there: other sources nearly as loud; empty otherwise. */
  readonly besides: readonly string[];
  readonly verdict: TimeVerdict;
}
