import { changedSince, listOfDay, todayOf } from '#core/live/run/index.ts';
import { applyEdit, isSettingTask, listenerIn, type Rig, type Task, tickTask } from '#core/model/rig/index.ts';
import type { SolveProgram } from '#core/routing/suggest/index.ts';
import { questionsOf } from '#core/rules/index.ts';
import { deviceName, evaluationAt } from '#core/signal/index.ts';
import { answered, clearIssues, glance } from './clear.ts';
import { BURDEN, type Draft, NOTHING, type Outcome } from './draft.ts';
import { orderJobs } from './order.ts';
import { asksFor, measurable, missingIn, readiness } from './ready.ts';
import { outcomeOf } from './remedies.ts';
import { isSafeFirst } from './safe.ts';
import { say } from './sayings.ts';
import { secondsFor, TYPICAL_SECONDS } from './seconds.ts';
import type { Ahead, NextStep } from './step.ts';
import { placeOfTask, sayTask } from './tasks.ts';
import { touchedBy } from './touched.ts';
import { type Places, placesIn } from './where.ts';

export interface Surroundings {
  /** Delays for all listeners at once are an integer program; without a solver they are not planned. */
  readonly solve: SolveProgram | null;
  /** The rig at the end of the last session that went well; null for none. */
  readonly last: Rig | null;
}

/**
 * The whole way from a rig as it is to ready: what is wrong, what has to be looked at, done and measured, in the order in
 * which the burden goes soonest, safely, and with little walking. Costs many evaluations: for a worker.
 */
export function planAhead(rig: Rig, { solve, last }: Surroundings): Ahead {
  const places = placesIn(rig);
  const start = outcomeOf(rig);
  const rehearsed = last !== null && changedSince(rig, last) === 0;
  const evaluation = evaluationAt(rig, null);
  const questions = questionsOf(rig, evaluation, start.findings);
  const now = readiness(rig, evaluation, start.findings, questions, rehearsed);
  const missing = missingIn(rig);
  if (missing) return { readiness: now, ...inOrder([toDescribe(missing)], places), further: 0 };
  const { drafts, end, further } = clearIssues(start, places, solve);
  const all = [...drafts];
  const at = asksFor(rig, 'confirmed') ? confirm(end, places, all) : end;
  if (asksFor(rig, 'measured')) all.push(...takesOf(at, places));
  if (asksFor(rig, 'rehearsed') && !rehearsed) all.push(rehearse(rig, last));
  return { readiness: now, ...inOrder(withAfter(all), places), further };
}

/** The first step, at once; null where that takes longer. The whole plan may begin with another one. */
export function firstStep(rig: Rig): NextStep | null {
  const missing = missingIn(rig);
  const draft = missing ? toDescribe(missing) : glance(outcomeOf(rig), placesIn(rig));
  return draft && stepOf(draft);
}

const toDescribe = (what: 'devices' | 'ends' | 'plan'): Draft => ({
  id: `describe:${what}`,
  act: { do: 'describe', what },
  says: { devices: say.describeDevices, ends: say.describeEnds, plan: say.describePlan }[what](),
  why: say.describeWhy(),
  takesAway: NOTHING,
  findingIds: [],
  stage: null,
  deviceId: null,
  far: false,
  seconds: TYPICAL_SECONDS.describe,
  cautions: [],
  after: [],
  relieves: BURDEN.fix,
});

/** Tasks that are open, and questions that are left once everything is as it is to be. */
function confirm(end: Outcome, places: Places, drafts: Draft[]): Outcome {
  let at = end;
  for (const tasks of byErrand(at.rig)) {
    drafts.push(errand(at.rig, tasks, places));
    for (const task of tasks) {
      const done = applyEdit(at.rig, tickTask(at.rig, task));
      if (done.ok) at = outcomeOf(done.rig);
    }
  }
  const known = new Set(drafts.map((d) => d.id));
  for (const question of questionsOf(at.rig, evaluationAt(at.rig, null), at.findings)) {
    if (known.has(`answer:${question.id}`)) continue;
    const taken = answered(at, question, places);
    if (!taken) continue;
    drafts.push(taken.draft);
    at = taken.after;
  }
  return at;
}

/** Tasks as one does them: all settings of a device at once, each cable by itself. */
function byErrand(rig: Rig): readonly (readonly Task[])[] {
  const errands = new Map<string, Task[]>();
  for (const task of rig.tasks) {
    const key = isSettingTask(task) ? task.deviceId : task.id;
    errands.set(key, [...(errands.get(key) ?? []), task]);
  }
  return [...errands.values()];
}

function errand(rig: Rig, tasks: readonly Task[], places: Places): Draft {
  const { deviceId } = placeOfTask(rig, tasks[0]!);
  const changes = tasks.map((t) =>
    isSettingTask(t)
      ? { deviceId: t.deviceId, settingId: t.settingId, value: t.before.value }
      : { cableId: t.cableId, cable: rig.cables.find((c) => c.id === t.cableId) ?? null },
  );
  return {
    id: `task:${tasks.map((t) => t.id).join()}`,
    act: { do: 'task', taskIds: tasks.map((t) => t.id) },
    says: say.taskAt({ device: deviceName(rig, deviceId), task: tasks.map((t) => sayTask(rig, t)) }),
    why: say.taskWhy(),
    takesAway: NOTHING,
    findingIds: [],
    stage: null,
    deviceId: places.at(deviceId),
    far: places.isFar(deviceId),
    seconds: secondsFor(rig, changes),
    cautions: [],
    after: [],
    relieves: BURDEN.errand * tasks.length,
  };
}

/** A take of each listener that has none, or whose time is in doubt. */
function takesOf({ rig }: Outcome, places: Places): Draft[] {
  const evaluation = evaluationAt(rig, null);
  return measurable(rig, evaluation)
    .filter((t) => !t.done)
    .map(({ listenerId }): Draft => {
      const listener = listenerIn(rig, listenerId);
      const inDoubt = evaluation.pairs.filter(
        (p) => p.listenerId === listenerId && p.want === 'must' && p.verdict.word.startsWith('perhaps-'),
      ).length;
      return {
        id: `measure:${listenerId}`,
        act: { do: 'measure', listenerId },
        says: say.measure({ listener: listener.name }),
        why: inDoubt > 0 ? say.measureWhy({ count: inDoubt }) : say.measureMixWhy(),
        takesAway: { ...NOTHING, doubts: inDoubt },
        findingIds: [],
        stage: null,
        deviceId: places.at(listener.sound.deviceId),
        far: places.isFar(listener.sound.deviceId),
        seconds: TYPICAL_SECONDS.measure,
        cautions: [],
        after: [],
        relieves: BURDEN.take + BURDEN.doubt * inDoubt,
      };
    });
}

function rehearse(rig: Rig, last: Rig | null): Draft {
  const { steps, checks } = todayOf(rig, listOfDay(null, last), last);
  const count = steps.length + checks.filter((c) => c.must).length;
  return {
    id: 'rehearse',
    act: { do: 'rehearse' },
    says: say.rehearse({ count }),
    why: say.rehearseWhy(),
    takesAway: NOTHING,
    findingIds: [],
    stage: null,
    deviceId: null,
    far: false,
    seconds: TYPICAL_SECONDS.runStep * count,
    cautions: [],
    after: [],
    relieves: BURDEN.take,
  };
}

/** What each step waits for: what it builds on, what was looked at for it, and what is safe. */
function withAfter(drafts: readonly Draft[]): Draft[] {
  return drafts.map((draft, i) => ({
    ...draft,
    after: [
      ...draft.after,
      ...drafts.filter((other, k) => other !== draft && waits(draft, other, k < i)).map((d) => d.id),
    ],
  }));
}

function waits(draft: Draft, other: Draft, isEarlier: boolean): boolean {
  if (draft.act.do === 'rehearse') return true;
  if (other.act.do === 'rehearse') return false;
  if (draft.act.do === 'measure') return other.act.do !== 'measure';
  if (other.act.do === 'measure') return false;
  if (isEarlier && (touchesSame(draft, other) || isLookedAtFor(draft, other) || isDelays(draft) || needs(draft, other)))
    return true;
  if (
    !isEarlier &&
    (touchesSame(draft, other) || isLookedAtFor(other, draft) || isDelays(other) || needs(other, draft))
  )
    return false;
  return isSafeFirst(other, draft);
}

/** Delays are worked out for the ways that sounds take then. */
const isDelays = ({ act, stage }: NextStep): boolean => act.do === 'change' && stage === 'sync';
const isLookedAtFor = (draft: NextStep, other: NextStep): boolean =>
  other.act.do === 'answer' && other.findingIds.some((id) => draft.findingIds.includes(id));

/** Whether a step plugs something into, or sets, the device that the other one puts in. */
function needs({ act }: NextStep, { act: before }: NextStep): boolean {
  if (act.do !== 'change' || before.do !== 'change' || before.first?.kind !== 'add-device') return false;
  const { id } = before.first.device;
  return act.changes.some((c) =>
    'settingId' in c ? c.deviceId === id : c.cable?.from.deviceId === id || c.cable?.to.deviceId === id,
  );
}

function touchesSame(a: NextStep, b: NextStep): boolean {
  const all = new Set(touchedBy(a.act));
  return touchedBy(b.act).some((key) => all.has(key));
}

function inOrder(drafts: readonly Draft[], places: Places): Pick<Ahead, 'steps' | 'seconds'> {
  const jobs = drafts.map(({ id, seconds, relieves, deviceId, after }) => ({
    id,
    seconds,
    relieves,
    place: deviceId ?? places.start,
    after,
  }));
  const { ids, seconds } = orderJobs(jobs, places.walk, places.start);
  const byId = new Map(drafts.map((d) => [d.id, d]));
  return { steps: ids.map((id) => stepOf(byId.get(id)!)), seconds };
}

function stepOf({ relieves: _, ...step }: Draft): NextStep {
  return step;
}
