import type { SaidValue, Text } from '#core/base/said/index.ts';
import type { Edit } from '#core/model/rig/index.ts';

/** What is wrong at the desk that the drawing does not show. */
export type FaultKind =
  | 'muted'
  | 'open'
  | 'turned-down'
  | 'turned-up'
  | 'switched'
  | 'delay'
  | 'lead-out'
  | 'one-side'
  | 'worn'
  | 'screen-broken'
  | 'wrong-socket'
  | 'wrong-device'
  | 'not-chosen'
  | 'radio'
  | 'no-power'
  | 'not-running'
  | 'broken'
  /** A link, lead or path through air that the drawing hasn't. */
  | 'monitored'
  | 'not-drawn';

/** What is heard or seen of everything that passes somewhere, beside which sources arrive there. */
export type Flag = 'hum' | 'hiss' | 'distorted' | 'drop-outs' | 'cut-up' | 'howl' | 'drifting' | 'picture-odd';

/** What no edit of the drawing can show: where it begins, and what everything behind it has of it. */
export interface Mark {
  readonly flag: Flag;
  readonly cableId?: string;
  readonly deviceId?: string;
}

/** A look at the thing itself, that settles a fault and all others that it would show. */
export interface DirectLook {
  readonly id: string;
  /** What to do, as an instruction. */
  readonly asks: Text;
  /** What it shows when all is well. */
  readonly well: Text;
  /** Devices that one goes to for it. */
  readonly deviceIds: readonly string[];
  /** How long it takes someone at the desk (typical). */
  readonly seconds: number;
}

/** A fault as an edit of the rig with a likelihood: the model predicts its effect. */
export interface Fault {
  readonly id: string;
  readonly kind: FaultKind;
  /** What is the matter, in a sentence. */
  readonly says: Text;
  /** What mends it, at the desk. */
  readonly mend: Text;
  /** The desk as it then is. Null: nothing in the drawing changes. */
  readonly edit: Edit | null;
  /** Devices that hand nothing on. */
  readonly dead: readonly string[];
  readonly marks: readonly Mark[];
  /** Against the others, before anything was heard (typical; see WEIGHTS). */
  readonly weight: number;
  /** Looks at the thing itself: at it alone, or at all that stands round it in one go. */
  readonly looks: readonly DirectLook[];
  /** What each of them shows then. */
  readonly shows: Text;
}

/** The answer that finds this fault where one looks at the thing itself: the same in every language, 'muted Channel 1, on'. */
export const answerOf = ({ kind, shows }: Fault): string =>
  [kind, leavesOf(shows).join(', ')].filter(Boolean).join(' ');

/** What a saying is about: names and values, whatever the words around them. */
const leavesOf = (value: SaidValue): string[] => {
  if (typeof value !== 'object') return [String(value)];
  if (!('code' in value)) return value.flatMap(leavesOf);
  return Object.values(value.params).flatMap((own) =>
    typeof own === 'object' && 'code' in own && Object.keys(own.params).length === 0
      ? [own.code.slice(own.code.indexOf('.') + 1)]
      : leavesOf(own),
  );
};

/**
 * How often each kind is what it was, against the others: what people who set up such desks say, in round numbers. Typical
 * figures; what was found at this desk before weighs more than they do.
 */
export const WEIGHTS: Record<FaultKind, number> = {
  muted: 8,
  'not-chosen': 5,
  'wrong-device': 6,
  'lead-out': 5,
  'turned-down': 4,
  'no-power': 4,
  switched: 4,
  radio: 4,
  'wrong-socket': 3,
  'one-side': 3,
  open: 3,
  'not-running': 3,
  'turned-up': 2,
  delay: 2,
  worn: 1.5,
  'screen-broken': 1,
  broken: 0.5,
  monitored: 4,
  'not-drawn': 4,
};
/** Where no one has looked at a setting, it stands otherwise more often. */
export const UNSEEN_TIMES = 1.5;
