import type { Said } from '#core/base/said/index.ts';
import { atMoment, editInMoment, type Moment, type Rig } from '#core/model/rig/index.ts';
import { type Evaluation, evaluate, evaluationAt } from '#core/signal/index.ts';
import { balanceRules } from './balance.ts';
import { briefRules } from './brief.ts';
import { cancelRules } from './cancels.ts';
import { computerRules } from './computers.ts';
import { contextOf } from './context.ts';
import { tried } from './doors.ts';
import { exclusiveRules } from './exclusive.ts';
import type { Finding, Fix, Rule, Severity } from './finding.ts';
import { gainRules } from './gain.ts';
import { groundingRules } from './grounding.ts';
import { lengthRules } from './lengths.ts';
import { levelRules } from './levels.ts';
import { loopRules } from './loops.ts';
import { movingRules } from './moving.ts';
import { pictureRules } from './picture.ts';
import { idleRules, planRules } from './plan.ts';
import { plugRules } from './plugs.ts';
import { powerRules } from './power.ts';
import { roomRules } from './room.ts';
import { routingRules } from './routing.ts';
import { say } from './sayings.ts';
import { usbRules } from './usb.ts';

/** Every rule that there is, family by family. */
export const RULES: readonly Rule[] = [
  ...levelRules,
  ...plugRules,
  ...pictureRules,
  ...powerRules,
  ...usbRules,
  ...computerRules,
  ...groundingRules,
  ...exclusiveRules,
  ...movingRules,
  ...roomRules,
  ...loopRules,
  ...cancelRules,
  ...gainRules,
  ...balanceRules,
  ...routingRules,
  ...briefRules,
  ...planRules,
  ...idleRules,
  ...lengthRules,
];

const WEIGHT: Record<Severity, number> = { stop: 0, fix: 1, watch: 2 };
const weightOf = ({ severity, dismissed }: Finding): number => WEIGHT[severity] + (dismissed ? 3 : 0);

/**
 * What is wrong or doubtful in a rig, the worst first; in the order of the rules within a severity; what was put aside
 * last. What is wrong in a later moment only is said of that moment. Pure.
 */
export function check(rig: Rig, evaluation: Evaluation = evaluate(rig)): Finding[] {
  const first = found(rig, evaluation);
  if (rig.moments.length === 0) return first.sort((a, b) => weightOf(a) - weightOf(b));
  const moments = rig.moments.map((moment) => ({
    moment,
    findings: found(atMoment(rig, moment.id), evaluationAt(rig, moment.id)),
  }));
  const known = new Set(first.map((f) => f.id));
  const everywhere = (id: string) => moments.every(({ findings }) => findings.some((f) => f.id === id));
  const plain = first.filter((f) => !OF_THE_WHOLE.has(f.rule) || everywhere(f.id));
  const later = moments.flatMap(({ moment, findings }) =>
    findings
      .filter((f) => !known.has(f.id) && !OF_THE_WHOLE.has(f.rule) && !OF_ALL_MOMENTS.has(f.rule))
      .map((f) => inMoment(rig, f, moment)),
  );
  return [...plain, ...later].sort((a, b) => weightOf(a) - weightOf(b));
}

/** The findings of some rules in the plain rig: for callers that ask often and need only those. */
export function checkBy(rig: Rig, evaluation: Evaluation, ruleIds: ReadonlySet<string>): Finding[] {
  const context = contextOf(rig, evaluation);
  return RULES.filter((r) => ruleIds.has(r.id)).flatMap((r) => r.check(context));
}

/** What is silent or shut in one moment is no matter: it has its turn in another. */
const OF_THE_WHOLE = new Set([
  'plan-source-nowhere',
  'plan-listener-silent',
  'brief-two-way',
  'exclusive-switched-off',
]);

/** Rules that look at all moments themselves, and run once. */
const OF_ALL_MOMENTS = new Set(['exclusive-ends']);

const found = (rig: Rig, evaluation: Evaluation): Finding[] => {
  const context = contextOf(rig, evaluation);
  return RULES.flatMap((r) => r.check(context));
};

function inMoment(rig: Rig, finding: Finding, { id, name }: Moment): Finding {
  const here = `${finding.id}@${id}`;
  const said = (text: Said) => say.inMoment({ name, text });
  return {
    ...finding,
    id: here,
    momentId: id,
    says: said(finding.says),
    asks: finding.asks && said(finding.asks),
    dismissed: rig.dismissed.find((a) => a.id === here) ?? null,
  };
}

/** The finding as its rule knows it, in the rig of its moment. */
const plainOf = (finding: Finding): Finding =>
  finding.momentId === null
    ? finding
    : { ...finding, id: finding.id.slice(0, -finding.momentId.length - 1), momentId: null };

/** Edits that mend a finding and break nothing that was right, each one step; of the moment that it belongs to. */
export function fixesOf(rig: Rig, finding: Finding, evaluation: Evaluation = evaluate(rig)): readonly Fix[] {
  const { momentId } = finding;
  if (momentId === null) return ruleFixes(rig, finding, evaluation);
  return ruleFixes(atMoment(rig, momentId), plainOf(finding), evaluationAt(rig, momentId)).map((fix) => ({
    ...fix,
    edit: editInMoment(rig, momentId, fix.edit),
  }));
}

/** Only the first finding of a kind is reported per source; the others have the same cause. */
const wasBehind = (first: Finding, next: Finding): boolean =>
  first.rule === next.rule && first.where.sourceId !== undefined && first.where.sourceId === next.where.sourceId;

/** Each fix is tried on the rig: the finding clears, no requirement breaks, and nothing equally bad appears. */
function ruleFixes(rig: Rig, finding: Finding, evaluation: Evaluation): readonly Fix[] {
  const context = contextOf(rig, evaluation);
  const offered = RULES.find((r) => r.id === finding.rule)?.fixes(context, finding) ?? [];
  if (offered.length === 0) return [];
  const before = new Set(found(rig, evaluation).map((f) => f.id));
  return offered.filter((fix) => {
    const done = tried(context, fix);
    if (done === null) return false;
    const after = found(done.rig, done.evaluation);
    if (!fix.partly && after.some((f) => f.id === finding.id)) return false;
    // What is heard at last may be out of time: that is Sync's, and was so before.
    const come = after.filter((f) => !before.has(f.id) && f.stage !== 'sync' && !wasBehind(finding, f));
    return come.every((f) => WEIGHT[f.severity] > WEIGHT[finding.severity]);
  });
}
