import type { Edit } from './edit.ts';
import { settingKey } from './keys.ts';
import { findCable, findDevice, findSetting, findTypes, isSettingTask } from './lookup.ts';
import type { Cable, LeadTask, Rig, SettingTask, Task } from './schema.ts';
import type { SettingValue } from './schema-type.ts';

/** One setting to be changed. */
export interface SettingChange {
  readonly deviceId: string;
  readonly settingId: string;
  readonly value: SettingValue;
}
/** One lead to be put in or changed; with `cable` null, to be taken out. */
export interface LeadChange {
  readonly cableId: string;
  readonly cable: Cable | null;
}
export type Change = SettingChange | LeadChange;

/** Settings as they are drawn, in one step: no one has looked at them. */
export const drawSettings = (changes: readonly SettingChange[]): Edit => ({
  kind: 'batch',
  edits: changes.map(({ deviceId, settingId, value }) => ({
    kind: 'set-setting',
    deviceId,
    settingId,
    setting: { value, known: 'assumed' },
  })),
});

type Place = Pick<SettingChange, 'deviceId' | 'settingId'>;
const settingTask = (rig: Rig, { deviceId, settingId }: Place): SettingTask | undefined =>
  rig.tasks.filter(isSettingTask).find((t) => t.deviceId === deviceId && t.settingId === settingId);
const leadTask = (rig: Rig, cableId: string): LeadTask | undefined =>
  rig.tasks.find((t): t is LeadTask => !isSettingTask(t) && t.cableId === cableId);

const storedSetting = (
  rig: Rig,
  { deviceId, settingId }: Place,
): Rig['devices'][number]['settings'][string] | undefined => findDevice(rig, deviceId)?.settings[settingId];
const cableOf = (rig: Rig, cableId: string): Cable | undefined => findCable(rig, cableId);

const closing = (task: Task | undefined): Edit[] => (task ? [{ kind: 'close-task', taskId: task.id }] : []);

/** The new cable, in place of the present one. */
const replug = (rig: Rig, cableId: string, cable: Cable | null): Edit[] => [
  ...(cableOf(rig, cableId) ? [{ kind: 'unplug' as const, cableId }] : []),
  ...(cable ? [{ kind: 'plug' as const, cable }] : []),
];

/** *It is already so*: corrects the drawing. An open task for the same is closed with it. */
export function markDone(rig: Rig, changes: readonly Change[]): Edit {
  return {
    kind: 'batch',
    edits: changes.flatMap((change): Edit[] => {
      if ('cableId' in change) {
        const cable = change.cable && { ...change.cable, known: 'confirmed' as const };
        return [...closing(leadTask(rig, change.cableId)), ...replug(rig, change.cableId, cable)];
      }
      const { deviceId, settingId, value } = change;
      return [
        { kind: 'set-setting', deviceId, settingId, setting: { value, known: 'confirmed' } },
        ...closing(settingTask(rig, change)),
      ];
    }),
  };
}

/**
 * *Add to-do*: draws the change as it will be, assumed until the task is ticked. A second proposal for
 * the same setting or cable replaces the first one; a return to the former value closes the task.
 * @param openedAt ISO 8601 time; the caller's clock
 * @param brings  the device that is put in with these cables
 */
export function addTasks(rig: Rig, changes: readonly Change[], openedAt: string, brings?: string): Edit {
  return {
    kind: 'batch',
    edits: changes.flatMap((change) =>
      'cableId' in change ? leadToDo(rig, change, openedAt, brings) : settingToDo(rig, change, openedAt),
    ),
  };
}

function settingToDo(rig: Rig, change: SettingChange, openedAt: string): Edit[] {
  const { deviceId, settingId, value } = change;
  const open = settingTask(rig, change);
  // What the rig doesn't mention has the default of its type.
  const preset = findSetting(rig, findTypes(rig), deviceId, settingId)?.default ?? value;
  const before = open?.before ?? storedSetting(rig, change) ?? { value: preset, known: 'assumed' as const };
  if (before.value === value) return [...closing(open), { kind: 'set-setting', deviceId, settingId, setting: before }];
  return [
    ...closing(open),
    { kind: 'set-setting', deviceId, settingId, setting: { value, known: 'assumed' } },
    { kind: 'open-task', task: { id: settingKey(deviceId, settingId), deviceId, settingId, before, openedAt } },
  ];
}

const sameLead = (a: Cable | null, b: Cable | null): boolean =>
  JSON.stringify(a && { ...a, known: null }) === JSON.stringify(b && { ...b, known: null });

const isAt = (cable: Cable | null | undefined, deviceId: string | undefined): boolean =>
  cable != null && deviceId !== undefined && [cable.from.deviceId, cable.to.deviceId].includes(deviceId);

function leadToDo(rig: Rig, { cableId, cable }: LeadChange, openedAt: string, brings?: string): Edit[] {
  const open = leadTask(rig, cableId);
  const before = open ? open.before : (cableOf(rig, cableId) ?? null);
  if (sameLead(before, cable)) return [...closing(open), ...replug(rig, cableId, before)];
  return [
    ...closing(open),
    ...replug(rig, cableId, cable && { ...cable, known: 'assumed' }),
    {
      kind: 'open-task',
      task: { id: `lead:${cableId}`, cableId, before, ...(isAt(cable, brings) && { brings }), openedAt },
    },
  ];
}

/** Someone did it: what it draws counts as confirmed, the task is closed. */
export function tickTask(rig: Rig, task: Task): Edit {
  if (!isSettingTask(task)) {
    const cable = cableOf(rig, task.cableId);
    const confirmed = cable ? replug(rig, task.cableId, { ...cable, known: 'confirmed' }) : [];
    return { kind: 'batch', edits: [...closing(task), ...confirmed] };
  }
  const { deviceId, settingId } = task;
  const value = storedSetting(rig, task)?.value ?? task.before.value;
  return {
    kind: 'batch',
    edits: [{ kind: 'set-setting', deviceId, settingId, setting: { value, known: 'confirmed' } }, ...closing(task)],
  };
}

/** Drops a task: the drawing returns to how the desk is now. */
export function dropTask(rig: Rig, task: Task): Edit {
  const back: Edit[] = isSettingTask(task)
    ? [{ kind: 'set-setting', deviceId: task.deviceId, settingId: task.settingId, setting: task.before }]
    : replug(rig, task.cableId, task.before);
  return { kind: 'batch', edits: [...back, ...closing(task), ...(isSettingTask(task) ? [] : withoutBox(rig, task))] };
}

/** A device that came with a cable is removed with its last cable. */
function withoutBox(rig: Rig, { cableId, brings }: LeadTask): Edit[] {
  if (!brings || !rig.devices.some((d) => d.id === brings)) return [];
  const others = rig.cables.filter((c) => c.id !== cableId && isAt(c, brings));
  return others.length > 0 ? [] : [{ kind: 'remove-device', deviceId: brings }];
}

/** The rig as the desk is now: drawn changes that are still to do are taken back. */
export function asAtDesk(rig: Rig): Rig {
  if (rig.tasks.length === 0) return rig;
  const settings = rig.tasks.filter(isSettingTask);
  const leads = rig.tasks.filter((t): t is LeadTask => !isSettingTask(t));
  const drawn = new Set(leads.map((t) => t.cableId));
  return {
    ...rig,
    devices: rig.devices.map((device) => {
      const own = settings.filter((t) => t.deviceId === device.id);
      if (own.length === 0) return device;
      return {
        ...device,
        settings: { ...device.settings, ...Object.fromEntries(own.map((t) => [t.settingId, t.before])) },
      };
    }),
    cables: [...rig.cables.filter((c) => !drawn.has(c.id)), ...leads.flatMap((t) => (t.before ? [t.before] : []))].sort(
      (a, b) => (a.id < b.id ? -1 : 1),
    ),
    tasks: [],
  };
}

/** Someone confirmed a cable and its length. Null where the rig has no such cable. */
export function leadIsSo(rig: Rig, cableId: string, lengthM: number): Edit | null {
  const cable = cableOf(rig, cableId);
  return cable ? markDone(rig, [{ cableId, cable: { ...cable, lengthM } }]) : null;
}
