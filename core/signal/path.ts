import { findDevice, type Rig } from '#core/model/rig/index.ts';
import type { Arrival } from './arrival.ts';
import type { DelayTerm, Edge, Graph } from './graph.ts';

/** A path read back from where it ends: edges from the source to here, the delay's addends, settings, devices. */
export interface Path {
  readonly edges: readonly Edge[];
  readonly terms: readonly DelayTerm[];
  /** `device.setting` of everything that can be set on the way. */
  readonly settings: readonly string[];
  /** In the order they are met, the one it starts from first. */
  readonly deviceIds: readonly string[];
}

export function readPath(graph: Graph, arrival: Arrival): Path {
  const steps: Arrival[] = [];
  for (let at: Arrival | null = arrival; at; at = at.from) steps.push(at);
  const edges: Edge[] = [];
  const terms: DelayTerm[] = [];
  const settings: string[] = [];
  const deviceIds: string[] = [];
  for (let i = steps.length - 1; i >= 0; i--) {
    const step = steps[i]!;
    const deviceId = graph.nodes[step.node]!.deviceId;
    if (deviceIds[deviceIds.length - 1] !== deviceId) deviceIds.push(deviceId);
    const { edge } = step;
    if (!edge) continue;
    edges.push(edge);
    for (const term of edge.delays) terms.push(term);
    for (const setting of edge.settings) settings.push(setting);
  }
  return { edges, terms, settings, deviceIds };
}

export const deviceName = (rig: Rig, deviceId: string): string => findDevice(rig, deviceId)?.name ?? deviceId;
