import { applyEdit, type Edit, type PlanCell, type Rig } from '#core/model/rig/index.ts';
import type { Finding } from '#core/rules/index.ts';
import type { Evaluation, Pair } from '#core/signal/index.ts';
import { type Found, foundIn } from './find.ts';
import type { Guide, GuideStep } from './guide.ts';

/** What of a rig a guide is about here, by the names of the guide; more than one where someone may choose. */
export type Cast = Readonly<Record<string, readonly Found[]>>;
/** The one that is meant of each; the first where no one has chosen. */
export type Chosen = Readonly<Record<string, string>>;

/**
 * How a step stands: `done`; `open`, there is something to do; `missing`, something that it is about is not in the rig;
 * `look`, no one can tell but by looking.
 */
type StepState = 'done' | 'open' | 'missing' | 'look';

export interface Followed {
  readonly step: GuideStep;
  readonly state: StepState;
  /** The pair that it is about. */
  readonly pair: Pair | null;
  /** What stands against it. */
  readonly findings: readonly Finding[];
}

export const castOf = (rig: Rig, { seeks }: Guide): Cast =>
  Object.fromEntries(Object.entries(seeks).map(([name, sought]) => [name, foundIn(rig, sought)]));

const idOf = (cast: Cast, chosen: Chosen, name: string): string | null =>
  (cast[name]?.find((f) => f.id === chosen[name]) ?? cast[name]?.[0])?.id ?? null;

/** The name of what is meant; null where there is none. */
export const nameOf = (cast: Cast, chosen: Chosen, name: string): string | null =>
  cast[name]?.find((f) => f.id === idOf(cast, chosen, name))?.name ?? null;

/** How every step of a guide stands on a rig. */
export function followGuide(
  rig: Rig,
  evaluation: Evaluation,
  findings: readonly Finding[],
  guide: Guide,
  chosen: Chosen,
): Followed[] {
  const cast = castOf(rig, guide);
  const pairOf = (from: string, to: string): Pair | null => {
    const [sourceId, listenerId] = [idOf(cast, chosen, from), idOf(cast, chosen, to)];
    return evaluation.pairs.find((p) => p.sourceId === sourceId && p.listenerId === listenerId) ?? null;
  };
  return guide.steps.map((step): Followed => {
    if (step.do === 'have')
      return { step, state: idOf(cast, chosen, step.of) ? 'done' : 'missing', pair: null, findings: [] };
    if (step.do === 'open') return { step, state: 'look', pair: null, findings: [] };
    if (step.do === 'clear') {
      const against = findings.filter((f) => !f.dismissed && step.rules.includes(f.rule));
      return { step, state: against.length === 0 ? 'done' : 'open', pair: null, findings: against };
    }
    const pair = pairOf(step.from, step.to);
    if (!pair) return { step, state: 'missing', pair, findings: [] };
    const against = findings.filter(
      (f) => !f.dismissed && f.where.sourceId === pair.sourceId && f.where.listenerId === pair.listenerId,
    );
    return { step, state: isSo(step, pair) ? 'done' : 'open', pair, findings: against };
  });
}

type PairStep = Extract<GuideStep, { readonly from: string }>;

/** Whether a pair is as a step wants it. */
export function isSo(step: PairStep, { ways, verdict, besides, want }: Pair): boolean {
  const [first] = ways;
  switch (step.do) {
    case 'apart':
      return !first || (want === 'must-not' && verdict.word !== 'unwanted');
    case 'reach':
    case 'proof':
      return first !== undefined;
    case 'once':
      return first !== undefined && verdict.word !== 'twice';
    case 'time':
      return (
        first !== undefined &&
        !['early', 'late', 'perhaps-early', 'perhaps-late', 'perhaps-either'].includes(verdict.word)
      );
    case 'alone':
      return first !== undefined && besides.length === 0;
    case 'quick':
      return first !== undefined && first.delay.value.nominal <= step.withinMs;
  }
}

/** What a step asks of the plan: the cell that says so; null for steps that the plan does not speak of. */
export function wantOfStep(rig: Rig, { step, pair }: Followed): Edit | null {
  if (!pair || !('from' in step)) return null;
  const { sourceId, listenerId } = pair;
  const before = rig.plan.find((c) => c.sourceId === sourceId && c.listenerId === listenerId);
  const want: PlanCell['want'] = step.do === 'apart' ? 'must-not' : 'must';
  const cell: PlanCell = {
    ...before,
    sourceId,
    listenerId,
    want,
    ...(step.do === 'alone' && { ownTrack: true }),
    ...(step.do === 'time' && { keepTime: true }),
  };
  return JSON.stringify(cell) === JSON.stringify(before) ? null : { kind: 'set-plan', sourceId, listenerId, cell };
}

/** The rig with what a step asks for in its plan: to look for what makes it so. */
export function asking(rig: Rig, followed: Followed): Rig {
  const edit = wantOfStep(rig, followed);
  const done = edit && applyEdit(rig, edit);
  return done?.ok ? done.rig : rig;
}
