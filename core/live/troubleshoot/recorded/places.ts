import { findDevice, findListener, findTypes, type Rig } from '#core/model/rig/index.ts';
import { type Evaluation, ladderOf } from '#core/signal/index.ts';
import type { FaultSeen, Place, Scene } from './scene.ts';
import { SUSPECTS } from './suspects.ts';

const MAX_PLACES = 4;

/**
 * Which places of a rig could have made what a take of a listener shows, the most likely first. A reading of the rig's
 * own figures: shares of the noise, distances to ceilings, earth loops, second ways; nothing is claimed that it does
 * not hold.
 */
export function placesOf(rig: Rig, evaluation: Evaluation, listenerId: string, fault: FaultSeen): Place[] {
  const listener = findListener(rig, listenerId);
  if (!listener) return [];
  const pairs = evaluation.pairs.filter((p) => p.listenerId === listenerId && p.ways.length > 0);
  const types = findTypes(rig);
  const scene: Scene = {
    rig,
    evaluation,
    listener,
    pairs,
    ladders: pairs.map((p) => ladderOf(rig, evaluation.graph, evaluation.noiseDb, p.ways[0]!.arrival)),
    portOf: (ref) => types.get(findDevice(rig, ref.deviceId)?.typeId ?? '')?.ports.find((p) => p.id === ref.portId),
  };
  return SUSPECTS[fault.id](scene, fault)
    .sort((a, b) => b.weight - a.weight)
    .filter((p, i, all) => p.weight > 0.02 && all.findIndex((q) => q.where === p.where) === i)
    .slice(0, MAX_PLACES);
}
