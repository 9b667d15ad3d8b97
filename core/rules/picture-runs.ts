import { type Mode, parseMode } from '#core/model/picture/index.ts';
import type { PortSpec, Rig } from '#core/model/rig/index.ts';
import type { Evaluation } from '#core/signal/index.ts';
import type { Box } from './box.ts';
import type { PictureRun } from './finding.ts';

const modes = new Map<string, Mode | null>();
/** A mode as switches name it, '3840x2160-60'; null for what is none. */
export function modeOf(value: string): Mode | null {
  let mode = modes.get(value);
  if (mode === undefined) {
    try {
      mode = parseMode(value.replace(/-(?=[\d.]+$)/, '@'));
    } catch {
      mode = null;
    }
    modes.set(value, mode);
  }
  return mode;
}

/** From every output that selects a video mode: all inputs that its video reaches through open settings. */
export function pictureRuns(evaluation: Evaluation, box: (deviceId: string) => Box, rig: Rig): PictureRun[] {
  return rig.devices.flatMap((device) =>
    box(device.id).type.ports.flatMap((port): PictureRun[] => {
      const { sends } = port.picture ?? {};
      if (!sends) return [];
      const from = box(device.id);
      const setting = from.setting(sends.mode);
      const mode = setting && modeOf(String(setting.value));
      if (!mode) return [];
      const bits = Number(sends.bits ? (from.setting(sends.bits)?.value ?? 8) : 8);
      const reached = reach(evaluation, box, device.id, port);
      const inputs = reached.filter((e) => e.port.direction === 'in');
      return [{ from, port, mode, bits, setting, reached, inputs }];
    }),
  );
}

function reach(
  { graph }: Evaluation,
  box: (deviceId: string) => Box,
  deviceId: string,
  port: PortSpec,
): PictureRun['reached'] {
  const open: { node: number; cableIds: readonly string[] }[] = [];
  const seen = new Set<number>();
  for (const node of graph.nodesOf({ deviceId, portId: port.id }))
    if (graph.nodes[node]!.carries === 'picture') {
      open.push({ node, cableIds: [] });
      seen.add(node);
    }
  const reached: { box: Box; port: PortSpec; cableIds: readonly string[] }[] = [];
  for (let i = 0; i < open.length; i++) {
    const { node, cableIds } = open[i]!;
    for (let e = graph.firstEdge[node]!; e < graph.firstEdge[node + 1]!; e++) {
      const to = graph.to[e]!;
      if (seen.has(to)) continue;
      seen.add(to);
      const { via } = graph.edges[e]!;
      const next = 'cableId' in via ? [...cableIds, via.cableId] : cableIds;
      open.push({ node: to, cableIds: next });
      const at = graph.nodes[to]!;
      const there = box(at.deviceId);
      reached.push({ box: there, port: there.port(at.portId)!, cableIds: next });
    }
  }
  return reached;
}
