import type { Aside, Edit, Rig, SettingChange, Types } from '#core/rig/index.ts';
import type { Evaluation } from '#core/signal/index.ts';
import type { LeadSeen } from './leads.ts';

/** `stop`: will not work, or can harm; `fix`: will be heard or seen; `watch`: may be. */
export type Severity = 'stop' | 'fix' | 'watch';

/** A change that mends a finding: one step, that can be looked at before it is made. */
export interface Fix {
  readonly label: string;
  /** What is set, to be done at the desk or so already. */
  readonly changes: readonly SettingChange[];
  /** The same as one edit of the drawing. */
  readonly edit: Edit;
}

/** Where in the work it is looked at. */
export type Stage = 'wire' | 'route' | 'sync';

/** A figure that a finding rests on, with where it comes from. */
export interface Reason {
  readonly says: string;
  readonly source: string;
}

export interface Finding {
  /** The same for the same thing in the same rig: rule and place. */
  readonly id: string;
  readonly rule: string;
  readonly stage: Stage;
  readonly severity: Severity;
  readonly where: {
    readonly deviceIds: readonly string[];
    readonly cableIds: readonly string[];
    readonly sourceId?: string;
    readonly listenerId?: string;
  };
  /** One plain sentence. */
  readonly says: string;
  /** Where it rests on something assumed: what to look at, as a question. It is then asked, and not claimed. */
  readonly asks: string | null;
  readonly why: readonly Reason[];
  /** Put aside by somebody, with the reason; null while it counts. */
  readonly aside: Aside | null;
}

export interface Context {
  readonly rig: Rig;
  readonly types: Types;
  readonly evaluation: Evaluation;
  readonly leads: readonly LeadSeen[];
}

/** One rule: says what is wrong, or nothing where it cannot tell; and, when asked, what would mend it. */
export interface Rule {
  readonly id: string;
  readonly check: (context: Context) => readonly Finding[];
  /** Each tried on the rig, so it costs an evaluation or more: asked for one finding at a time. */
  readonly fixes: (context: Context, finding: Finding) => readonly Fix[];
}

type Draft = Omit<Finding, 'id' | 'rule' | 'stage' | 'asks' | 'where' | 'aside'> & {
  readonly at: string;
  readonly where?: Partial<Finding['where']>;
  readonly asks?: string | null;
};

/** A rule from what it finds; each finding's id is made of the rule and its place. */
export const rule = (
  stage: Stage,
  id: string,
  find: (context: Context) => readonly Draft[],
  fixes: Rule['fixes'] = () => [],
): Rule => ({
  id,
  check: (context) =>
    find(context).map(({ at, where, asks = null, ...draft }) => ({
      ...draft,
      id: `${id}:${at}`,
      aside: context.rig.aside.find((a) => a.id === `${id}:${at}`) ?? null,
      rule: id,
      stage,
      where: { deviceIds: [], cableIds: [], ...where },
      asks,
    })),
  fixes,
});
