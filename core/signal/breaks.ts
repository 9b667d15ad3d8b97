import type { Text } from '#core/base/said/index.ts';
import { bringsPowerOnly, endOf, PARTS, speakAlike } from '#core/model/plug/index.ts';
import {
  type Cable,
  cableIn,
  chosenDevice,
  computerOf,
  endName,
  findDevice,
  findPort,
  findTypes,
  onTwoComputers,
  type PortRef,
  type Rig,
  sameEnd,
  soundDeviceName,
  type Types,
} from '#core/model/rig/index.ts';
import type { Graph } from './graph.ts';
import { say } from './sayings.ts';

/** Something on the way that no setting of these devices mends. */
export type Break =
  /** A cable that is plugged and brings nothing over: its plugs do not fit, or short what it should carry. */
  | { readonly kind: 'lead'; readonly cableId: string }
  /** A link that takes other channels than those that the sound is on. */
  | { readonly kind: 'channels'; readonly cableId: string }
  /** An end that is disabled in the system of its computer. */
  | { readonly kind: 'disabled'; readonly end: PortRef }
  /** A program that goes with the default of its computer, which is another device than the one that leads there. */
  | { readonly kind: 'default'; readonly cableId: string; readonly other: PortRef }
  /** A device within which nothing leads from the one end to the other, whatever is set. */
  | { readonly kind: 'within'; readonly from: PortRef; readonly to: PortRef };

/** A shut door is opened with a finger; a cable is changed; what a device cannot do is believed last. */
const COST = { open: 0, door: 1, disabled: 2, default: 4, cable: 10, within: 100 };
/** Farther than this no way is worth telling. */
const MOST = 3 * COST.within;

interface Step {
  readonly to: number;
  readonly cost: number;
  readonly breaks: Break | null;
}

/**
 * What keeps a sound from a place that no way leads to as drawn: the fewest and smallest breaks on the way that comes
 * closest (Dijkstra over open ways, shut doors, leads that bring nothing over, and devices passed as if they led on). Empty
 * where the two hang together by nothing at all.
 */
export function breaksBetween(graph: Graph, source: PortRef, place: PortRef): readonly Break[] {
  const sounding = (ref: PortRef) => graph.nodesOf(ref).filter((n) => graph.nodes[n]!.carries === 'sound');
  const goals = new Set(sounding(place));
  const cost = new Float64Array(graph.nodes.length).fill(Number.POSITIVE_INFINITY);
  const cameBy = new Map<number, { readonly from: number; readonly breaks: Break | null }>();
  const layers = new Map<number, number[]>([[0, sounding(source)]]);
  for (const n of layers.get(0)!) cost[n] = 0;
  const stepsFrom = stepsOf(graph, sounding);
  for (let at = 0; at <= MOST; at++) {
    const layer = layers.get(at) ?? [];
    for (let i = 0; i < layer.length; i++) {
      const node = layer[i]!;
      if (cost[node] !== at) continue;
      if (goals.has(node)) return breaksTo(node, cameBy);
      for (const step of stepsFrom(node)) {
        const total = at + step.cost;
        if (total >= cost[step.to]!) continue;
        cost[step.to] = total;
        cameBy.set(step.to, { from: node, breaks: step.breaks });
        layers.set(total, [...(layers.get(total) ?? []), step.to]);
        if (step.cost === 0) layer.push(step.to);
      }
    }
  }
  return [];
}

function breaksTo(end: number, cameBy: ReadonlyMap<number, { from: number; breaks: Break | null }>): Break[] {
  const found: Break[] = [];
  for (let at = cameBy.get(end); at; at = cameBy.get(at.from)) if (at.breaks) found.unshift(at.breaks);
  return found;
}

function groupedBy<T, K>(items: readonly T[], keyOf: (item: T) => K): ReadonlyMap<K, readonly T[]> {
  const groups = new Map<K, T[]>();
  for (const item of items) {
    const group = groups.get(keyOf(item));
    if (group) group.push(item);
    else groups.set(keyOf(item), [item]);
  }
  return groups;
}

function stepsOf(graph: Graph, sounding: (ref: PortRef) => number[]): (node: number) => Step[] {
  const { cables } = graph;
  const key = ({ deviceId, portId }: PortRef) => `${deviceId}/${portId}`;
  const leaving = groupedBy(cables, (c) => key(c.from));
  const entering = new Set(cables.map((c) => key(c.to)));
  const left = groupedBy(cables, (c) => c.from.deviceId);
  const shut = groupedBy(graph.shut, (s) => s.from);
  const disabled = groupedBy(graph.disabled, (d) => d.from);
  const elsewhere = groupedBy(graph.elsewhere, (e) => key(e.from));
  /** Which cables the graph has between two ports: those bring something over. */
  const carrying = new Set<string>();
  graph.edges.forEach(({ via }) => void ('cableId' in via && carrying.add(via.cableId)));
  return (node) => {
    const here = graph.nodes[node]!;
    const steps: Step[] = [];
    for (let e = graph.firstEdge[node]!; e < graph.firstEdge[node + 1]!; e++)
      steps.push({ to: graph.to[e]!, cost: COST.open, breaks: null });
    for (const { to, end } of disabled.get(node) ?? [])
      steps.push({ to, cost: COST.disabled, breaks: { kind: 'disabled', end } });
    for (const { cableId, to: other, from } of elsewhere.get(key(here)) ?? [])
      for (const to of sounding(other)) {
        const isOther = graph.cables.some((c) => c.id === cableId && sameEnd(c.from, from));
        steps.push({
          to,
          cost: COST.default,
          breaks: { kind: 'default', cableId, other: isOther ? other : from },
        });
      }
    for (const s of shut.get(node) ?? []) steps.push({ to: s.to, cost: COST.door, breaks: null });
    for (const cable of leaving.get(key(here)) ?? []) {
      const kind = carrying.has(cable.id) ? 'channels' : 'lead';
      for (const to of sounding(cable.to)) steps.push({ to, cost: COST.cable, breaks: { kind, cableId: cable.id } });
    }
    // What came in by a cable and is led on by another one, as if the device joined the two.
    if (entering.has(key(here)))
      for (const cable of left.get(here.deviceId) ?? [])
        for (const to of sounding(cable.from))
          if (graph.nodes[to]!.portId !== here.portId)
            steps.push({
              to,
              cost: COST.within,
              breaks: { kind: 'within', from: { deviceId: here.deviceId, portId: here.portId }, to: cable.from },
            });
    return steps;
  };
}

/** 'Mixer: nothing leads from USB return to send 2, whatever is set' */
export function sayBreak(rig: Rig, found: Break): Text {
  const types = findTypes(rig);
  const end = (ref: PortRef) => endName(rig, types, ref);
  const device = (ref: PortRef) => findDevice(rig, ref.deviceId)?.name ?? ref.deviceId;
  if (found.kind === 'disabled') return say.isDisabledInIts({ device: device(found.end), end: end(found.end) });
  if (found.kind === 'within')
    return say.nothingInsideItLeads({ device: device(found.from), from: end(found.from), to: end(found.to) });
  const cable = cableIn(rig, found.cableId);
  if (found.kind === 'default') return sayDefault(rig, types, cable, found.other);
  const { from, to, medium } = cable;
  const between = say.ways({ from: device(from), fromEnd: end(from), to: device(to), toEnd: end(to) });
  const computer = ({ deviceId }: PortRef) => {
    const at = findDevice(rig, deviceId);
    return at ? computerOf(at, types.get(at.typeId)!) : null;
  };
  if (found.kind === 'lead' && medium === 'software' && onTwoComputers(computer(from), computer(to)))
    return say.theyRunOnTwo({ between });
  if (found.kind === 'lead' && bringsPowerOnly(PARTS.filter((p) => cable.parts?.includes(p.id))))
    return say.cableIsForCharging({ between });
  const [a, b] = [from, to].map((ref) => findPort(rig, types, ref)!);
  if (found.kind === 'lead' && medium === 'lead' && !speakAlike(endOf(a!), endOf(b!)))
    return say.outputSendsFormatThat({ between });
  return found.kind === 'lead' ? say.cablePassesNothingSince({ between }) : say.itsChannelsArentUsed({ between });
}

/** 'Game plays to the default output of Desk computer, which is Jack and not USB 3; make that the default, or choose it in the program' */
function sayDefault(rig: Rig, types: Types, cable: Cable, other: PortRef): Text {
  const chosen = chosenDevice(rig, types, cable);
  const name = (ref: PortRef) => soundDeviceName(rig, types, ref);
  const device = (id: string) => findDevice(rig, id)?.name ?? id;
  if (!chosen) return say.doesntReach({ from: name(cable.from), to: name(cable.to) });
  const program = chosen.at === 'to' ? cable.from : cable.to;
  return say.playsToDefaultOutput({
    app: device(program.deviceId),
    use: chosen.use,
    computer: device(chosen.computerId),
    default: name(chosen.ref),
    other: name(other),
  });
}
