import type { Edit } from './edit.ts';
import { findSetting, findTypes } from './lookup.ts';
import type { Rig, SettingValue, Task } from './schema.ts';

/** One setting to be changed. */
export interface SettingChange {
  readonly deviceId: string;
  readonly settingId: string;
  readonly value: SettingValue;
}

const openTask = (rig: Rig, change: Pick<SettingChange, 'deviceId' | 'settingId'>): Task | undefined =>
  rig.tasks.find((t) => t.deviceId === change.deviceId && t.settingId === change.settingId);

const storedSetting = (
  rig: Rig,
  { deviceId, settingId }: SettingChange,
): Rig['devices'][number]['settings'][string] | undefined =>
  rig.devices.find((d) => d.id === deviceId)?.settings[settingId];

/** *It is already so*: corrects the drawing. An open task for the setting is closed with it. */
export function alreadySo(rig: Rig, changes: readonly SettingChange[]): Edit {
  return {
    kind: 'batch',
    edits: changes.flatMap((change): Edit[] => {
      const task = openTask(rig, change);
      return [
        {
          kind: 'set-setting',
          deviceId: change.deviceId,
          settingId: change.settingId,
          setting: { value: change.value, known: 'seen' },
        },
        ...(task ? [{ kind: 'close-task' as const, taskId: task.id }] : []),
      ];
    }),
  };
}

/**
 * *To do at the desk*: draws the setting as it is to be, assumed until the task is ticked. A second proposal for
 * the same setting replaces the first one; a return to what stood before closes the task.
 * @param openedAt ISO 8601 time; the caller's clock
 */
export function toDoAtDesk(rig: Rig, changes: readonly SettingChange[], openedAt: string): Edit {
  const types = findTypes(rig);
  // What the rig says nothing of stands at the type's default.
  const defaultOf = ({ deviceId, settingId, value }: SettingChange): SettingValue =>
    findSetting(rig, types, deviceId, settingId)?.default ?? value;
  return {
    kind: 'batch',
    edits: changes.flatMap((change): Edit[] => {
      const { deviceId, settingId, value } = change;
      const open = openTask(rig, change);
      const before = open?.before ??
        storedSetting(rig, change) ?? { value: defaultOf(change), known: 'assumed' as const };
      const close: Edit[] = open ? [{ kind: 'close-task', taskId: open.id }] : [];
      if (before.value === value) return [...close, { kind: 'set-setting', deviceId, settingId, setting: before }];
      return [
        ...close,
        { kind: 'set-setting', deviceId, settingId, setting: { value, known: 'assumed' } },
        { kind: 'open-task', task: { id: `${deviceId}.${settingId}`, deviceId, settingId, before, openedAt } },
      ];
    }),
  };
}

/** Somebody did it: the setting counts as seen, the task is closed. */
export function tickTask(rig: Rig, task: Task): Edit {
  const { deviceId, settingId } = task;
  const value = rig.devices.find((d) => d.id === deviceId)?.settings[settingId]?.value ?? task.before.value;
  return {
    kind: 'batch',
    edits: [
      { kind: 'set-setting', deviceId, settingId, setting: { value, known: 'seen' } },
      { kind: 'close-task', taskId: task.id },
    ],
  };
}

/** Not to be done after all: the drawing goes back to what stands at the desk. */
export const dropTask = (task: Task): Edit => ({
  kind: 'batch',
  edits: [
    { kind: 'set-setting', deviceId: task.deviceId, settingId: task.settingId, setting: task.before },
    { kind: 'close-task', taskId: task.id },
  ],
});

/** The rig as it stands at the desk: what is drawn and still to be done is taken back. */
export function asAtDesk(rig: Rig): Rig {
  if (rig.tasks.length === 0) return rig;
  return {
    ...rig,
    devices: rig.devices.map((device) => {
      const own = rig.tasks.filter((t) => t.deviceId === device.id);
      if (own.length === 0) return device;
      return {
        ...device,
        settings: { ...device.settings, ...Object.fromEntries(own.map((t) => [t.settingId, t.before])) },
      };
    }),
    tasks: [],
  };
}

/** Somebody looked at a lead: it is there, and so long. Null where the rig has no such lead. */
export function leadIsSo(rig: Rig, cableId: string, lengthM: number): Edit | null {
  const cable = rig.cables.find((c) => c.id === cableId);
  if (!cable) return null;
  return {
    kind: 'batch',
    edits: [
      { kind: 'unplug', cableId },
      { kind: 'plug', cable: { ...cable, lengthM, known: 'seen' } },
    ],
  };
}
