import type { Said } from '#core/base/said/index.ts';
import {
  type Cable,
  endName,
  findCable,
  findDevice,
  findSetting,
  findTypes,
  isSettingTask,
  type LeadTask,
  type Rig,
  type SettingTask,
  sayValue,
  type Task,
  unitOf,
} from '#core/model/rig/index.ts';
import { deviceName } from '#core/signal/index.ts';
import { say } from './sayings.ts';

/** Where the task is done: at the device that is set, or the one that the cable goes into. */
export function placeOfTask(rig: Rig, task: Task): { deviceId: string; portId: string | null } {
  if (isSettingTask(task)) return { deviceId: task.deviceId, portId: null };
  const at = (findCable(rig, task.cableId) ?? task.before)?.to;
  return { deviceId: at?.deviceId ?? '', portId: at?.portId ?? null };
}

/** 'Channel 1, delay: 0 to 128 ms'; 'Unplug the cable from Console, HDMI' */
export const sayTask = (rig: Rig, task: Task): Said =>
  isSettingTask(task) ? saySettingTask(rig, task) : sayLeadTask(rig, task);

function saySettingTask(rig: Rig, task: SettingTask): Said {
  const spec = findSetting(rig, findTypes(rig), task.deviceId, task.settingId);
  const now = findDevice(rig, task.deviceId)?.settings[task.settingId]?.value ?? task.before.value;
  const isOff = (value: typeof now): boolean => spec?.kind === 'value' && value === spec.off;
  const isFigure = typeof now === 'number' && !isOff(now);
  const word = (value: typeof now) =>
    typeof value === 'number' && isFigure && !isOff(value) ? String(value) : sayValue(spec, value);
  return say.settingTask({
    settingId: spec?.name ?? task.settingId,
    value: word(task.before.value),
    now: word(now),
    unit: isFigure && unitOf(spec) ? ` ${unitOf(spec)}` : '',
  });
}

function sayLeadTask(rig: Rig, task: LeadTask): Said {
  const now = findCable(rig, task.cableId);
  const types = findTypes(rig);
  const end = (ref: Cable['from']) => `${deviceName(rig, ref.deviceId)}, ${endName(rig, types, ref)}`;
  if (!now) return task.before ? say.unplugCableFrom({ from: end(task.before.from) }) : say.cableThatNoLonger();
  const way = say.socketPair({ from: end(now.from), to: end(now.to) });
  return task.before
    ? say.changeCableM({ way, lengthM: now.lengthM })
    : say.connectMCable({ way, lengthM: now.lengthM });
}
