import { type Device, type DeviceType, findTypes, portsOf, type Rig, settingOf, settingsOf } from '#core/rig/index.ts';
import type { Evaluation } from '#core/signal/index.ts';
import type { Box, Context, SettingSeen } from './finding.ts';
import { leadsOf } from './leads.ts';
import { pictureRuns } from './picture-runs.ts';

/** Everything that rules look at, worked out once for all of them. */
export function contextOf(rig: Rig, evaluation: Evaluation): Context {
  const types = findTypes(rig);
  const boxes = new Map<string, Box>(
    rig.devices.map((device) => [device.id, boxOf(device, types.get(device.typeId)!)]),
  );
  const box = (deviceId: string): Box => boxes.get(deviceId)!;
  const leads = leadsOf(rig, types);
  const plugged = leads.filter((l) => !l.twin);
  return {
    rig,
    types,
    evaluation,
    boxes: [...boxes.values()],
    box,
    leads,
    plugged,
    pictures: pictureRuns(evaluation, box, rig),
  };
}

function boxOf(device: Device, type: DeviceType): Box {
  return {
    device,
    type,
    port: (id) => portsOf(type).get(id),
    setting: (id): SettingSeen | null => {
      const spec = settingsOf(type).get(id);
      return spec ? { ...settingOf(device, spec), spec } : null;
    },
  };
}
