import type { ListenerRole, SourceRole } from '#core/signal/index.ts';

/** What a device is there for, by its capabilities. */
export type Duty =
  | 'camera'
  | 'capture'
  | 'computer'
  | 'call'
  | 'recorder'
  | 'microphone'
  | 'headphones'
  | 'loudspeakers'
  | 'radio'
  | 'mixer';

/** What of a rig a guide is about: found by what it is, whatever it is called. */
export type Sought =
  | { readonly what: 'source'; readonly roles: readonly SourceRole[] }
  | { readonly what: 'listener'; readonly roles: readonly ListenerRole[] }
  | { readonly what: 'device'; readonly is: Duty };

/** Pages that a guide opens, on the rig. */
export type GuidePage =
  | 'bench'
  | 'bench/balance'
  | 'bench/blind'
  | 'level'
  | 'log'
  | 'next'
  | 'plan'
  | 'route'
  | 'run'
  | 'sync'
  | 'sync/paths'
  | 'tap'
  | 'trouble'
  | 'ways';

/** One thing to have or to do; `of`, `from` and `to` are names of what the guide seeks. */
export type GuideStep =
  /** It is in the rig. */
  | { readonly do: 'have'; readonly of: string }
  /** One is received by the other; not; once only; in time; soon enough; on a track of its own. */
  | { readonly do: 'reach' | 'apart' | 'once' | 'time' | 'alone'; readonly from: string; readonly to: string }
  | { readonly do: 'quick'; readonly from: string; readonly to: string; readonly withinMs: number }
  /** None of these issues is found. */
  | { readonly do: 'clear'; readonly rules: readonly string[] }
  /** It is done or shown on a page. */
  | { readonly do: 'open'; readonly page: GuidePage }
  /** The end: what is received there now. */
  | { readonly do: 'proof'; readonly from: string; readonly to: string };

/** A job that people come with, as data: what it is about, and what has to be so, in order. */
export interface Guide {
  readonly id: string;
  readonly seeks: Readonly<Record<string, Sought>>;
  readonly steps: readonly GuideStep[];
}
/** A guide is read at one go. */
export const MAX_STEPS = 7;

export const source = (...roles: SourceRole[]): Sought => ({ what: 'source', roles });
export const listener = (...roles: ListenerRole[]): Sought => ({ what: 'listener', roles });
export const device = (is: Duty): Sought => ({ what: 'device', is });
