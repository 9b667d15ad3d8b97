import { isSettingTask, READY_LEVELS, type ReadyLevel, type Rig, settingKey } from '#core/model/rig/index.ts';
import { type Finding, type Question, tally } from '#core/rules/index.ts';
import { type Evaluation, type Pair, rolesOf } from '#core/signal/index.ts';

/** A part of all: what is confirmed, what is measured. */
interface Share {
  readonly done: number;
  readonly of: number;
}

/** How far a rig is, and by what. */
export interface Readiness {
  readonly blockers: number;
  readonly fixes: number;
  /** Devices, ends and wants are there, and nothing is wrong with them. */
  readonly drawn: boolean;
  /** What verdicts rest on: cables, switches and mutes on the ways of what is wanted. */
  readonly confirmed: Share;
  /** Listeners whose sound has to keep time or is mixed. */
  readonly measured: Share;
  readonly rehearsed: boolean;
  /** What ready means for this rig. */
  readonly goal: ReadyLevel;
  readonly ready: boolean;
}

/** What ready means where no one has said: nothing is wrong, and someone has looked at what that rests on. */
const USUAL_GOAL: ReadyLevel = 'confirmed';
export const goalOf = (rig: Rig): ReadyLevel => rig.session.ready ?? USUAL_GOAL;
/** Whether a level is asked for: the goal, and all that come before it. */
export const asksFor = (rig: Rig, level: ReadyLevel): boolean =>
  READY_LEVELS.indexOf(level) <= READY_LEVELS.indexOf(goalOf(rig));

/** What a rig has to say before anything can be judged; null where it is all there. */
export const missingIn = ({ devices, sources, listeners, plan }: Rig): 'devices' | 'ends' | 'plan' | null =>
  devices.length === 0
    ? 'devices'
    : sources.length === 0 || listeners.length === 0
      ? 'ends'
      : plan.length === 0
        ? 'plan'
        : null;

const isWanted = ({ want, ways }: Pair): boolean => (want === 'must' || want === 'must-not') && ways.length > 0;

/**
 * What the verdicts on wanted pairs rest on and someone has looked at: cables, and switches and mutes that are set, on
 * their ways. Keys as of questions: `lead:cable`, `setting:device.setting`.
 */
function confirmedIn(rig: Rig, { pairs }: Evaluation): Set<string> {
  const wanted = pairs.filter(isWanted);
  const set = new Set(wanted.flatMap((p) => p.ways.flatMap((w) => w.settings)));
  const passed = new Set(wanted.flatMap((p) => p.ways.flatMap((w) => w.deviceIds)));
  const confirmed = new Set<string>();
  for (const cable of rig.cables)
    if (cable.medium === 'lead' && cable.known === 'confirmed')
      if (passed.has(cable.from.deviceId) && passed.has(cable.to.deviceId)) confirmed.add(`lead:${cable.id}`);
  for (const device of rig.devices)
    for (const [settingId, { known, value }] of Object.entries(device.settings))
      if (known === 'confirmed' && typeof value !== 'number' && set.has(settingKey(device.id, settingId)))
        confirmed.add(`setting:${device.id}.${settingId}`);
  return confirmed;
}

/** Listeners that a take tells something of: mixes that go out or are kept, and wherever time is in doubt. */
export function measurable(rig: Rig, { pairs }: Evaluation): { readonly listenerId: string; readonly done: boolean }[] {
  const roles = rolesOf(rig);
  return rig.listeners.flatMap((listener) => {
    const own = pairs.filter((p) => p.listenerId === listener.id && p.want === 'must' && p.ways.length > 0);
    const inDoubt = own.some((p) => p.verdict.word.startsWith('perhaps-'));
    const isMix = roles.listener(listener) === 'mix' && own.length > 0;
    if (!inDoubt && !isMix) return [];
    const isMeasured = rig.measurements.some((m) => 'listenerId' in m && m.listenerId === listener.id);
    return [{ listenerId: listener.id, done: isMeasured && !inDoubt }];
  });
}

/**
 * How far a rig is on its way to ready.
 * @param questions  what is still to be looked at, see `questionsOf`
 * @param rehearsed  a session of the rig as it is went well
 */
export function readiness(
  rig: Rig,
  evaluation: Evaluation,
  findings: readonly Finding[],
  questions: readonly Question[],
  rehearsed: boolean,
): Readiness {
  const { stops, fixes } = tally(rig, evaluation, findings);
  const open = new Set([
    ...questions.map((q) => q.id),
    ...rig.tasks.map((t) => (isSettingTask(t) ? `setting:${t.id}` : `lead:${t.cableId}`)),
  ]);
  const known = [...confirmedIn(rig, evaluation)].filter((key) => !open.has(key)).length;
  const takes = measurable(rig, evaluation);
  const goal = goalOf(rig);
  const drawn = missingIn(rig) === null && stops + fixes === 0;
  const measured = { done: takes.filter((t) => t.done).length, of: takes.length };
  const met: Record<ReadyLevel, boolean> = {
    drawn,
    confirmed: open.size === 0,
    measured: measured.done === measured.of,
    rehearsed,
  };
  return {
    blockers: stops,
    fixes,
    drawn,
    confirmed: { done: known, of: known + open.size },
    measured,
    rehearsed,
    goal,
    ready: READY_LEVELS.every((level) => met[level] || !asksFor(rig, level)),
  };
}
