import type { Rig } from '#core/model/rig/index.ts';
import { deviceName, type Graph, type ReceivedPath, SCALE_UNITS } from '#core/signal/index.ts';
import { formatNumber } from '#web/shared/parts/index.ts';

export interface BoxStep {
  readonly name: string;
  readonly gainDb: number;
  readonly leaves: string;
}

/** Edges of one device taken together, with the level that leaves it. */
export function stepsOf(rig: Rig, graph: Graph, way: ReceivedPath): BoxStep[] {
  const steps: { deviceId: string; gainDb: number; levelDb: number; node: number }[] = [];
  const arrivals = [];
  for (let at: ReceivedPath['arrival'] | null = way.arrival; at; at = at.from) arrivals.unshift(at);
  for (const arrival of arrivals) {
    const { deviceId } = graph.nodes[arrival.node]!;
    const gainDb = arrival.edge?.gainDb.nominal ?? 0;
    const last = steps[steps.length - 1];
    if (last?.deviceId === deviceId) {
      last.gainDb += gainDb;
      last.levelDb = arrival.levelDb;
      last.node = arrival.node;
    } else steps.push({ deviceId, gainDb, levelDb: arrival.levelDb, node: arrival.node });
  }
  return steps.map((s) => ({
    name: deviceName(rig, s.deviceId),
    gainDb: s.gainDb,
    leaves: `${formatNumber(s.levelDb)} ${SCALE_UNITS[graph.nodes[s.node]!.scale]}`,
  }));
}
