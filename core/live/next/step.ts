import type { Text } from '#core/base/said/index.ts';
import type { Caution } from '#core/live/run/index.ts';
import type { Carried } from '#core/model/rig/index.ts';
import type { Stage } from '#core/rules/index.ts';
import type { Readiness } from './ready.ts';

/** What one key does for a step, or where it leads. */
export type Act =
  /** Settings or cables to change: one of the two verbs. */
  | ({ readonly do: 'change' } & Carried)
  /** Something assumed to be looked at: answers of a question. */
  | { readonly do: 'answer'; readonly questionId: string; readonly answers: readonly Answered[] }
  /** Items of the to-do list, at one device. */
  | { readonly do: 'task'; readonly taskIds: readonly string[] }
  /** No change that is known mends it: it is mended otherwise, or accepted with a reason. */
  | { readonly do: 'decide'; readonly findingId: string }
  /** A take of a listener. */
  | { readonly do: 'measure'; readonly listenerId: string }
  /** What only a person can say: devices, or who has to hear what. */
  | { readonly do: 'describe'; readonly what: 'devices' | 'ends' | 'plan' }
  /** The run, from silence to go. */
  | { readonly do: 'rehearse' };

interface Answered {
  readonly label: Text;
  readonly asDrawn: boolean;
  readonly changes: Carried['changes'];
}

/** One thing to do on the way to ready. */
export interface NextStep {
  /** The same for the same thing in the same rig. */
  readonly id: string;
  readonly act: Act;
  /** What to do, as a sentence. */
  readonly says: Text;
  /** Why: what is wrong, or what is not known. */
  readonly why: Text;
  /** What goes with it. */
  readonly takesAway: {
    readonly blockers: number;
    readonly fixes: number;
    /** Pairs whose verdict is in doubt until then. */
    readonly doubts: number;
  };
  readonly findingIds: readonly string[];
  /** Where in the work what it mends is looked at; null where it mends nothing. */
  readonly stage: Stage | null;
  /** The device that one stands at; null where it is no one place. */
  readonly deviceId: string | null;
  /** Someone at the far side of a call does it. */
  readonly far: boolean;
  /** Typical, without the way there, s. */
  readonly seconds: number;
  readonly cautions: readonly Caution[];
  readonly after: readonly string[];
}

/** The whole way from a rig as it is to what ready means for it. */
export interface Ahead {
  /** How far the rig is now. */
  readonly readiness: Readiness;
  /** In the order in which to do them. */
  readonly steps: readonly NextStep[];
  /** With the walking, typical, s. */
  readonly seconds: number;
  /** Issues that were not planned for, as there are too many: they are planned once these are gone. */
  readonly further: number;
}
