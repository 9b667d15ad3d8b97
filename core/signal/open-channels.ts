import { memoized } from '#core/base/memo/index.ts';
import {
  type DeviceType,
  findDevice,
  findListener,
  findTypes,
  portAt,
  portKey,
  type Rig,
  type SettingChange,
  settingKey,
} from '#core/model/rig/index.ts';
import { dbFromPower, powerFromDb } from '#core/model/units/index.ts';
import type { Arrival } from './arrival.ts';
import type { Evaluation } from './evaluate.ts';
import type { Edge } from './graph.ts';
import { noisesInto } from './noise.ts';

/** An input that is open to a listener and brings nothing that is wanted there: what its noise costs. */
export interface OpenChannel {
  readonly deviceId: string;
  readonly portId: string;
  /** How much lower the noise floor is with the channel muted, dB. */
  readonly costDb: number;
  /** The mute or level nearest to it that shuts it and nothing wanted; null where there is none. */
  readonly shut: SettingChange | null;
}

/** Smaller improvements are not reported: inaudible, dB. */
const TOLD_DB = 0.1;

/** `device.setting` of all that anything not unwanted passes, anywhere. */
const wantedSettings = memoized(
  (pairs: Evaluation['pairs']): ReadonlySet<string> =>
    new Set(
      pairs.flatMap(({ want, ways }) => (want === 'must-not' ? [] : ways.flatMap(({ settings }) => [...settings]))),
    ),
);

/** Every unused input that is open to a listener, the costliest first. */
export function openChannels(
  rig: Rig,
  { graph, arrivals, noiseDb, pairs }: Evaluation,
  listenerId: string,
): OpenChannel[] {
  const listener = findListener(rig, listenerId);
  const node = listener && graph.nodesOf(listener.sound).find((n) => graph.nodes[n]!.carries === 'sound');
  if (node === undefined || !Number.isFinite(noiseDb[node]!)) return [];
  const unwanted = new Set(
    rig.plan.filter((c) => c.listenerId === listenerId && c.want === 'must-not').map((c) => c.sourceId),
  );
  const used = new Set<Edge>();
  for (const arrival of arrivals[node]!) {
    if (unwanted.has(rig.sources[arrival.sourceIndex]!.id)) continue;
    for (let at: Arrival | null = arrival; at?.edge; at = at.from) used.add(at.edge);
  }
  // Never mute a channel that some destination requires.
  const elsewhere = wantedSettings(pairs);
  const usedHere = new Set([...used].flatMap((e) => e.settings));
  const isUsed = (setting: string): boolean => usedHere.has(setting) || elsewhere.has(setting);
  const total = powerFromDb(noiseDb[node]!);
  const types = findTypes(rig);
  const byInput = new Map<string, { edge: number; power: number }>();
  for (const { edge, power } of noisesInto(graph, node)) {
    const { deviceId, portId } = graph.nodes[graph.from[edge]!]!;
    const port = types.get(findDevice(rig, deviceId)!.typeId)!.ports.find((p) => p.id === portId)!;
    // The noise of a bus or an output is there whatever is shut.
    if (port.direction !== 'in' || used.has(graph.edges[edge]!) || !('deviceId' in graph.edges[edge]!.via)) continue;
    const key = portKey(deviceId, portId);
    const known = byInput.get(key);
    byInput.set(key, { edge: known?.edge ?? edge, power: Math.max(known?.power ?? 0, power) });
  }
  return [...byInput]
    .map(([key, { edge, power }]): OpenChannel => {
      const { deviceId, portId } = portAt(key);
      const rest = Math.max(total - power, total * 1e-9);
      return {
        deviceId,
        portId,
        costDb: dbFromPower(total / rest),
        shut: shutterOf(graph.edges, graph, edge, types, rig, isUsed),
      };
    })
    .filter((c) => c.costDb >= TOLD_DB)
    .sort((a, b) => b.costDb - a.costDb);
}

/** The first control after an input, within its device, that shuts the way and that nothing wanted passes. */
function shutterOf(
  edges: readonly Edge[],
  { firstEdge, to, nodes }: Evaluation['graph'],
  edge: number,
  types: ReadonlyMap<string, DeviceType>,
  rig: Rig,
  isUsed: (setting: string) => boolean,
): SettingChange | null {
  const deviceId = nodes[to[edge]!]!.deviceId;
  const type = types.get(findDevice(rig, deviceId)!.typeId)!;
  const open = [edge];
  const seen = new Set(open);
  for (let at = 0; at < open.length; at++) {
    for (const stage of edges[open[at]!]!.stages) {
      if (stage.do !== 'door' && stage.do !== 'gain') continue;
      const spec = type.settings.find((s) => s.id === stage.setting);
      if (!spec || isUsed(settingKey(deviceId, spec.id))) continue;
      if (spec.kind === 'mute') return { deviceId, settingId: spec.id, value: true };
      if (spec.kind === 'gain' && spec.offAtMin) return { deviceId, settingId: spec.id, value: spec.min };
    }
    const node = to[open[at]!]!;
    for (let e = firstEdge[node]!; e < firstEdge[node + 1]!; e++) {
      const via = edges[e]!.via;
      if (!('deviceId' in via) || via.deviceId !== deviceId || seen.has(e)) continue;
      seen.add(e);
      open.push(e);
    }
  }
  return null;
}
