import { findTypes, type Rig } from '#core/model/rig/index.ts';
import type { Evaluation } from '#core/signal/index.ts';
import { type Box, boxOf } from './box.ts';
import type { Context } from './finding.ts';
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
