import { settingKey } from '#core/model/rig/index.ts';
import type { Evaluation } from './evaluate.ts';

/** Settings that act on something, by `device.setting`: something passes them, or stands before them while they alone are shut. */
export function actingSettings({ graph, arrivals, pictures }: Evaluation): Set<string> {
  const acting = new Set<string>();
  const there = (node: number) => arrivals[node]!.length > 0 || pictures[node]!.length > 0;
  for (const [e, edge] of graph.edges.entries())
    if (edge.settings.length > 0 && there(graph.from[e]!)) for (const key of edge.settings) acting.add(key);
  for (const shut of graph.shut)
    if (there(shut.from) && shut.doors.length === 1) acting.add(settingKey(shut.deviceId, shut.settingId));
  return acting;
}
