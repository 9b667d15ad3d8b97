import { findDevice, findTypes, type PortSpec, type Rig } from '#core/model/rig/index.ts';
import type { Figure } from '#core/model/units/index.ts';
import type { DelayTerm, Door } from './graph.ts';
import { insideOf } from './inside.ts';
import { layoutOf } from './layout.ts';
import { delayMeasurements, settleDelay } from './offset.ts';
import { say } from './sayings.ts';

/** What a device does between one of its inputs and one of its outputs. */
export type Passage =
  /** The loudest way between their channels, its nominal gain and time; changes of scale are in the gain. */
  | { readonly passes: true; readonly gainDb: number; readonly delay: Figure; readonly sameScale: boolean }
  /** The fewest settings that would have to stand otherwise; in the order that a signal meets them. */
  | { readonly passes: false; readonly doors: readonly Door[] };

export interface ThroughBox {
  readonly inputs: readonly PortSpec[];
  readonly outputs: readonly PortSpec[];
  /** Null where no way leads from the one to the other, whatever is set. */
  at(inputId: string, outputId: string): Passage | null;
}

interface Reached {
  readonly gainDb: number;
  readonly delays: readonly DelayTerm[];
  readonly doors: readonly Door[];
}

/** Fewer doors first; of those the loudest. */
const better = (a: Reached, b: Reached | undefined): boolean =>
  !b || a.doors.length < b.doors.length || (a.doors.length === b.doors.length && a.gainDb > b.gainDb);

/** Inputs by outputs of one device with its settings: sound only, nothing of the rest of the rig. */
export function throughBox(rig: Rig, deviceId: string): ThroughBox {
  const device = findDevice(rig, deviceId)!;
  const type = findTypes(rig).get(device.typeId)!;
  const { nodes, links, shut } = insideOf(device, type, rig.session.frameRate);
  const measurements = delayMeasurements(rig.measurements);
  const next = new Map<number, (Reached & { to: number })[]>();
  const note = (from: number, to: number, gainDb: number, delays: readonly DelayTerm[], doors: readonly Door[]) => {
    const list = next.get(from) ?? [];
    list.push({ to, gainDb, delays, doors });
    next.set(from, list);
  };
  for (const { from, to, edge } of links) note(from, to, edge.gainDb.nominal, edge.delays, []);
  for (const { from, to, doors } of shut) note(from, to, 0, [], doors);
  const layout = layoutOf(type);
  const soundOf = (port: PortSpec): number[] =>
    port.channels.flatMap((c, i) => (c.carries === 'sound' ? [layout.get(port.id)!.first + i] : []));
  const withSound = type.ports.filter((p) => p.channels.some((c) => c.carries === 'sound'));
  const reachedBy = new Map<string, Map<number, Reached>>();
  const reach = (port: PortSpec): Map<number, Reached> => {
    const before = reachedBy.get(port.id);
    if (before) return before;
    const best = new Map<number, Reached>();
    const open = soundOf(port);
    for (const node of open) best.set(node, { gainDb: 0, delays: [], doors: [] });
    // Relaxation: a device has few nodes, and a way round inside it never makes anything better for long.
    for (let steps = 0; open.length > 0 && steps < nodes.length * nodes.length + nodes.length; steps++) {
      const node = open.shift()!;
      const at = best.get(node)!;
      for (const link of next.get(node) ?? []) {
        const reached = {
          gainDb: at.gainDb + link.gainDb,
          delays: link.delays.length > 0 ? [...at.delays, ...link.delays] : at.delays,
          doors: link.doors.length > 0 ? [...at.doors, ...link.doors] : at.doors,
        };
        if (!better(reached, best.get(link.to))) continue;
        best.set(link.to, reached);
        open.push(link.to);
      }
    }
    reachedBy.set(port.id, best);
    return best;
  };
  return {
    inputs: withSound.filter((p) => p.direction === 'in'),
    outputs: withSound.filter((p) => p.direction === 'out'),
    at(inputId, outputId) {
      const [input, output] = [inputId, outputId].map((id) => withSound.find((p) => p.id === id));
      if (!input || !output) return null;
      const best = reach(input);
      const found = soundOf(output)
        .flatMap((n) => best.get(n) ?? [])
        .reduce<Reached | undefined>((a, b) => (better(b, a) ? b : a), undefined);
      if (!found) return null;
      if (found.doors.length > 0) return { passes: false, doors: found.doors };
      const sameScale = nodes[soundOf(input)[0]!]!.scale === nodes[soundOf(output)[0]!]!.scale;
      const delay = settleDelay(measurements, say.throughDevice(), found.delays);
      return { passes: true, gainDb: found.gainDb, delay, sameScale };
    },
  };
}
