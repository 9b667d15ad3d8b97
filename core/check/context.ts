import { type Device, type DeviceType, findTypes, portsOf, type Rig, settingOf, settingsOf } from '#core/rig/index.ts';
import type { Evaluation } from '#core/signal/index.ts';
import type { Box, Context, SettingSeen } from './finding.ts';
import { leadsOf } from './leads.ts';
import { pictureRuns } from './picture-runs.ts';

/** Everything that rules look at, worked out once for all of them. */
export function contextOf(rig: Rig, evaluation: Evaluation): Context {
  const types = findTypes(rig);
  const boxes = rig.devices.map((device) => boxOf(device, types.get(device.typeId)!));
  const byId = new Map(boxes.map((b) => [b.device.id, b]));
  const box = (deviceId: string): Box => byId.get(deviceId)!;
  const leads = leadsOf(rig, types);
  const plugged = leads.filter((l) => !l.twin);
  return {
    rig,
    types,
    evaluation,
    boxes,
    box,
    leads,
    plugged,
    pictures: pictureRuns(evaluation, box, rig),
  };
}

const kept = new WeakMap<Device, Box>();

/** The same box as long as the device and its type are the same. */
function boxOf(device: Device, type: DeviceType): Box {
  const before = kept.get(device);
  if (before?.type === type) return before;
  const box: Box = {
    device,
    type,
    port: (id) => portsOf(type).get(id),
    setting: (id): SettingSeen | null => {
      const spec = settingsOf(type).get(id);
      return spec ? { ...settingOf(device, spec), spec } : null;
    },
  };
  kept.set(device, box);
  return box;
}
