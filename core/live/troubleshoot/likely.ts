import type { Rig } from '#core/model/rig/index.ts';
import { usualAnswer } from './readings.ts';
import type { Lineup, Suspect } from './suspects.ts';
import { type Complaint, SYMPTOMS, toldBy } from './symptoms.ts';

/** A complaint that this rig is likely to give cause for, with its share of all of them, 0 to 1. */
export interface Likely {
  readonly complaint: Complaint;
  readonly share: number;
}

const MOST = 6;

/**
 * What is most likely to be complained of on this rig: for each symptom of each source, how much of the faults' weight
 * would cause it, told at the listener where most of it would be heard. One of each symptom and source, the likeliest first.
 */
export function likelyComplaints(rig: Rig, lineup: Lineup): Likely[] {
  const total = lineup.suspects.reduce((sum, s) => sum + s.fault.weight, 0);
  const best = new Map<string, { complaint: Complaint; weight: number }>();
  for (const complaint of possible(rig)) {
    const told = toldBy(rig, complaint);
    const weight = lineup.suspects.reduce((sum, s) => (causes(lineup, s, told) ? sum + s.fault.weight : sum), 0);
    const key = `${complaint.symptomId} ${complaint.sourceId}`;
    if (weight > (best.get(key)?.weight ?? 0)) best.set(key, { complaint, weight });
  }
  return [...best.values()]
    .sort((a, b) => b.weight - a.weight)
    .slice(0, MOST)
    .map(({ complaint, weight }) => ({ complaint, share: weight / total }));
}

/** Of pairs that are wanted, and of whole listeners that are to hear anything. */
function possible(rig: Rig): Complaint[] {
  const must = rig.plan.filter((c) => c.want === 'must');
  const listeners = new Set(must.map((c) => c.listenerId));
  return SYMPTOMS.filter((s) => s.id !== 'nothing-at-all').flatMap(({ id, of }): Complaint[] =>
    of === 'all'
      ? [...listeners].map((listenerId) => ({ symptomId: id, listenerId, sourceId: null }))
      : must.map(({ sourceId, listenerId }) => ({ symptomId: id, listenerId, sourceId })),
  );
}

/** Whether a fault causes what was reported, and the rig as drawn does not. */
const causes = ({ drawn }: Lineup, { changes }: Suspect, told: ReturnType<typeof toldBy>): boolean =>
  told.every(({ key, answers }) => {
    const now = changes.get(key);
    return (
      now?.every((a) => answers.includes(a)) &&
      !(drawn.get(key) ?? [usualAnswer(key)]).every((a) => answers.includes(a))
    );
  });
