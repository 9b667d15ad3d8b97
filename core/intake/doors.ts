import type { DeviceType, Edit } from '#core/model/rig/index.ts';
import { portOf } from '#core/model/rig/index.ts';
import type { Builder } from './builder.ts';

/** What opens the doors that stand shut by default between an input of a device and one of its outputs. */
export function openBetween(b: Builder, deviceId: string, inputId: string, outputId: string): Edit[] {
  const type = b.typeOf(deviceId);
  const edits = new Map<string, Edit>();
  for (const way of type.inside) {
    if (portOf(way.to) !== outputId || !comesFrom(type, portOf(way.from), inputId)) continue;
    for (const stage of way.stages) {
      if (stage.do !== 'door') continue;
      const spec = type.settings.find((s) => s.id === stage.setting);
      if (spec && spec.default !== stage.openWhen && !edits.has(spec.id))
        edits.set(spec.id, b.set(deviceId, spec.id, stage.openWhen));
    }
  }
  return [...edits.values()];
}

/** Whether an end within a type is an input, or a point behind it alone. */
const comesFrom = (type: DeviceType, portId: string, inputId: string): boolean =>
  portId === inputId || type.inside.some((w) => portOf(w.to) === portId && portOf(w.from) === inputId);
