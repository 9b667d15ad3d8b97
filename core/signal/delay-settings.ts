import {
  findTypes,
  isSettingTask,
  type Known,
  type Rig,
  type SettingSpec,
  type SettingTask,
  settingKey,
  settingOf,
} from '#core/model/rig/index.ts';
import type { Evaluation } from './evaluate.ts';
import { deviceName } from './path.ts';

/** A delay that can be set and that acts on what one listener hears or sees. */
export interface DelaySetting {
  readonly deviceId: string;
  readonly deviceName: string;
  readonly spec: SettingSpec & { kind: 'delay' };
  readonly value: number;
  readonly known: Known;
  /** Sources whose sound it delays for this listener, by their loudest way. */
  readonly delaysSound: readonly string[];
  /** Sources whose picture it delays for this listener. */
  readonly delaysPicture: readonly string[];
  /** Other listeners that it delays something for. */
  readonly alsoListeners: readonly string[];
  /** Open until someone has done it at the desk. */
  readonly task: SettingTask | null;
}

/** Every delay setting on the ways to a listener, in the order of the rig. */
export function delaySettingsFor(rig: Rig, evaluation: Evaluation, listenerId: string): DelaySetting[] {
  const types = findTypes(rig);
  const here = evaluation.pairs.filter((p) => p.listenerId === listenerId);
  const elsewhere = evaluation.pairs.filter((p) => p.listenerId !== listenerId);
  return rig.devices.flatMap((device) =>
    types.get(device.typeId)!.settings.flatMap((spec): DelaySetting[] => {
      if (spec.kind !== 'delay') return [];
      const key = settingKey(device.id, spec.id);
      const delaysSound = here.filter((p) => p.ways[0]?.settings.includes(key)).map((p) => p.sourceId);
      const delaysPicture = here.filter((p) => p.picture?.settings.includes(key)).map((p) => p.sourceId);
      if (delaysSound.length + delaysPicture.length === 0) return [];
      const setting = settingOf(device, spec);
      const also = elsewhere.filter((p) => p.ways[0]?.settings.includes(key) || p.picture?.settings.includes(key));
      return [
        {
          deviceId: device.id,
          deviceName: deviceName(rig, device.id),
          spec,
          value: setting.value as number,
          known: setting.known,
          delaysSound,
          delaysPicture,
          alsoListeners: [...new Set(also.map((p) => p.listenerId))],
          task:
            rig.tasks.filter(isSettingTask).find((t) => t.deviceId === device.id && t.settingId === spec.id) ?? null,
        },
      ];
    }),
  );
}
