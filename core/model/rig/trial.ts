import { drawSettings, type SettingChange } from './desk.ts';
import { applyEdit } from './edit.ts';
import { settingAt } from './keys.ts';
import { findDevice, findTypes, refuseValue, settingOf } from './lookup.ts';
import type { Rig } from './schema.ts';

/** Settings that are being tried and not yet decided: `device.setting` to value. */
export type Trial = Readonly<Record<string, number>>;

/** What the trial would change, held to each device's step and range; what it leaves as it is, or cannot be set, is left out. */
export function changesOf(rig: Rig, trial: Trial): SettingChange[] {
  const types = findTypes(rig);
  return Object.entries(trial).flatMap(([key, value]) => {
    const { deviceId, settingId } = settingAt(key);
    const device = findDevice(rig, deviceId);
    const spec = device && types.get(device.typeId)?.settings.find((s) => s.id === settingId);
    if (!device || !spec || refuseValue(spec, value) !== undefined || settingOf(device, spec).value === value)
      return [];
    return [{ deviceId, settingId, value }];
  });
}

/** The rig as it would be: the same rig when nothing is tried. */
export function tryOn(rig: Rig, trial: Trial): Rig {
  const changes = changesOf(rig, trial);
  if (changes.length === 0) return rig;
  const done = applyEdit(rig, drawSettings(changes));
  return done.ok ? done.rig : rig;
}

/** The nearest value that the device can be set to. */
export function heldTo({ min, max, step }: { min: number; max: number; step: number }, value: number): number {
  const steps = Math.round((Math.min(max, Math.max(min, value)) - min) / step);
  const held = min + Math.min(Math.floor((max - min) / step + 1e-9), steps) * step;
  return Number(held.toFixed(6));
}
