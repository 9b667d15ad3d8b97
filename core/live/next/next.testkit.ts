import { applyEdit, carryOut, markDone, parseRig, type ReadyLevel, type Rig, tickTask } from '#core/model/rig/index.ts';
import { check, questionsOf } from '#core/rules/index.ts';
import { evaluationAt } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { clayHour } from '#demo/clay-hour.ts';
import { gliderCorner } from '#demo/glider-corner.ts';
import { mothNight } from '#demo/moth-night.ts';
import { quayDeskMixer, quayDeskStraight } from '#demo/quay-desk.ts';
import { quayTalk } from '#demo/quay-talk.ts';
import { skerryNet } from '#demo/skerry-net.ts';
import { type NextStep, type Readiness, readiness } from './index.ts';

export const DEMOS = [
  boathouse,
  clayHour,
  gliderCorner,
  mothNight,
  quayDeskMixer,
  quayDeskStraight,
  quayTalk,
  skerryNet,
].map((rig): Rig => parseRig(JSON.parse(JSON.stringify(rig))));

export const withGoal = (rig: Rig, ready: ReadyLevel): Rig => ({ ...rig, session: { ...rig.session, ready } });

/** The rig once someone has done a step, as the page does it; the same rig where nothing in it changes. */
export function did(rig: Rig, { act }: NextStep, verb: 'done' | 'to-do' = 'done', answer = 0): Rig {
  const at = '2026-12-01T10:00:00Z';
  const apply = (now: Rig, edit: Parameters<typeof applyEdit>[1]): Rig => {
    const done = applyEdit(now, edit);
    if (!done.ok) throw new Error(JSON.stringify(done.refusal));
    return done.rig;
  };
  switch (act.do) {
    case 'change':
      return apply(rig, carryOut(rig, act, verb, at));
    case 'answer':
      return apply(rig, markDone(rig, act.answers[answer % act.answers.length]!.changes));
    case 'task':
      return act.taskIds.reduce((now, id) => apply(now, tickTask(now, now.tasks.find((t) => t.id === id)!)), rig);
    case 'decide':
      return apply(rig, { kind: 'dismiss', dismissal: { id: act.findingId, reason: 'fine', at } });
    default:
      return rig;
  }
}

export function readinessOf(rig: Rig, rehearsed = false): Readiness {
  const evaluation = evaluationAt(rig, null);
  const findings = check(rig, evaluation);
  return readiness(rig, evaluation, findings, questionsOf(rig, evaluation, findings), rehearsed);
}
