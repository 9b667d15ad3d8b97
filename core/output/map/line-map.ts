import { connectorOf } from '#core/model/plug/index.ts';
import {
  type Cable,
  type DeviceType,
  findDevice,
  findTypes,
  type PortRef,
  portsOf,
  type Rig,
} from '#core/model/rig/index.ts';
import { type Drawing, layout, type Shape, type Wire } from '#core/output/layout/index.ts';
import type { Evaluation } from '#core/signal/index.ts';
import { strengthOf } from './strength.ts';

/** What of the rig is drawn: everything, or one kind of line alone. */
export const LAYERS = ['all', 'sound', 'picture', 'usb', 'power'] as const;
export type Layer = (typeof LAYERS)[number];

/** A source on a line: how strong it is there, 0 (silent) to 1 (full). */
interface Strand {
  readonly sourceId: string;
  readonly strength: number;
}

/** A line of the map: one cable, or several that share their plugs at both ends and run the same way. */
export interface MapLine {
  readonly id: string;
  readonly cableIds: readonly string[];
  readonly medium: Cable['medium'] | 'power';
  readonly from: PortRef;
  readonly to: PortRef;
  /** Loudest first; none where no sound arrives. */
  readonly strands: readonly Strand[];
  readonly picture: boolean;
  /** Sound could pass, and none does. */
  readonly silent: boolean;
}

export interface MapBox {
  readonly deviceId: string;
  readonly name: string;
  /** Names broken into lines that fit the device. */
  readonly lines: readonly string[];
  readonly typeName: string;
  /** Who hears here. */
  readonly listenerIds: readonly string[];
  /** Sources that begin here. */
  readonly sourceIds: readonly string[];
  /** The computer that it runs on. */
  readonly on: string | null;
}

/** What is to be drawn, before it has its places. */
export interface MapPlan {
  readonly layer: Layer;
  readonly boxes: readonly MapBox[];
  readonly lines: readonly MapLine[];
  readonly shapes: readonly Shape[];
  readonly wires: readonly Wire[];
}

export interface LineMap extends MapPlan {
  readonly drawing: Drawing;
}

/** Lines side by side in one cable: how far apart, and how many at most are drawn. */
export const STRAND_PITCH = 4;
export const MAX_STRANDS = 4;

/** Names are set large: a whole rig is looked at from half its size. */
export const BOX = { widthPx: 138, namePx: 18, linePx: 20, firstLinePx: 20, badgePx: 17, padPx: 8 };
const CHARACTERS = 15;
const MAX_LINES = 3;

/** Sockets, not ends, are what a map has: ends behind one socket are one place. */
const socketOf = (types: ReadonlyMap<string, DeviceType>, rig: Rig, ref: PortRef): string => {
  const device = findDevice(rig, ref.deviceId)!;
  return portsOf(types.get(device.typeId)!).get(ref.portId)?.socket ?? ref.portId;
};

/** Lines of a layer, in the order of their cables. */
export function linesOf(rig: Rig, evaluation: Evaluation, layer: Layer = 'all'): MapLine[] {
  const types = findTypes(rig);
  if (layer === 'power') return powerLines(rig);
  const lines = new Map<string, MapLine>();
  for (const cable of rig.cables) {
    const carries = carriesOf(evaluation, cable);
    if (layer === 'sound' && !carries.sound) continue;
    if (layer === 'picture' && !carries.picture) continue;
    if (layer === 'usb' && !isUsb(types, rig, cable)) continue;
    const from = socketOf(types, rig, cable.from);
    const to = socketOf(types, rig, cable.to);
    const key = `${cable.from.deviceId} ${from} ${cable.to.deviceId} ${to}`;
    const strands = strandsOf(rig, evaluation, cable);
    const known = lines.get(key);
    lines.set(key, {
      id: known?.id ?? cable.id,
      cableIds: [...(known?.cableIds ?? []), cable.id],
      medium: cable.medium,
      from: known?.from ?? cable.from,
      to: known?.to ?? cable.to,
      strands: merge(known?.strands ?? [], strands),
      picture: (known?.picture ?? false) || carries.picture,
      silent: (known?.silent ?? true) && carries.sound && strands.length === 0,
    });
  }
  return [...lines.values()];
}

function carriesOf({ graph }: Evaluation, cable: Cable): { sound: boolean; picture: boolean } {
  let [sound, picture] = [false, false];
  for (const node of graph.nodesOf(cable.from)) {
    for (let e = graph.firstEdge[node]!; e < graph.firstEdge[node + 1]!; e++) {
      const { via } = graph.edges[e]!;
      if (!('cableId' in via) || via.cableId !== cable.id) continue;
      if (graph.nodes[node]!.carries === 'sound') sound = true;
      else picture = true;
    }
  }
  return { sound, picture };
}

const isUsb = (types: ReadonlyMap<string, DeviceType>, rig: Rig, cable: Cable): boolean =>
  cable.medium === 'lead' &&
  [cable.from, cable.to].some((ref) => {
    const device = findDevice(rig, ref.deviceId)!;
    const port = portsOf(types.get(device.typeId)!).get(ref.portId)!;
    return connectorOf(port.connector)?.kind === 'usb';
  });

/** Sources that arrive at the far end by this cable. */
function strandsOf(rig: Rig, { graph, arrivals }: Evaluation, cable: Cable): Strand[] {
  const strength = new Map<string, number>();
  for (const node of graph.nodesOf(cable.to)) {
    for (const arrival of arrivals[node]!) {
      const via = arrival.edge?.via;
      if (!via || !('cableId' in via) || via.cableId !== cable.id) continue;
      const { id } = rig.sources[arrival.sourceIndex]!;
      const now = strengthOf(arrival.levelDb, graph.nodes[node]!.scale);
      strength.set(id, Math.max(strength.get(id) ?? 0, now));
    }
  }
  return [...strength].map(([sourceId, s]) => ({ sourceId, strength: s })).sort((a, b) => b.strength - a.strength);
}

function merge(a: readonly Strand[], b: readonly Strand[]): Strand[] {
  const all = new Map(a.map((s) => [s.sourceId, s.strength]));
  for (const s of b) all.set(s.sourceId, Math.max(all.get(s.sourceId) ?? 0, s.strength));
  return [...all].map(([sourceId, strength]) => ({ sourceId, strength })).sort((x, y) => y.strength - x.strength);
}

const powerLines = (rig: Rig): MapLine[] =>
  rig.devices.flatMap((device): MapLine[] =>
    device.fedBy
      ? [
          {
            id: `feeds-${device.id}`,
            cableIds: [],
            medium: 'power',
            from: { deviceId: device.fedBy, portId: 'power' },
            to: { deviceId: device.id, portId: 'power' },
            strands: [],
            picture: false,
            silent: false,
          },
        ]
      : [],
  );

/** Words set on as few lines as fit; what is too long for one is cut. */
export function breakName(name: string, characters = CHARACTERS, most = MAX_LINES): string[] {
  const lines: string[] = [];
  for (const word of name.split(/\s+/)) {
    const last = lines[lines.length - 1];
    if (last !== undefined && `${last} ${word}`.length <= characters) lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word);
  }
  const kept = lines.slice(0, most);
  return kept.map((line, i) => {
    const cut = i === most - 1 && lines.length > most;
    return line.length > characters || cut ? `${line.slice(0, characters - 1)}…` : line;
  });
}

/** The rig as a line map: devices in columns by the order of the signal, lines between their sockets. */
export function lineMap(rig: Rig, evaluation: Evaluation, layer: Layer = 'all', last?: LineMap): LineMap {
  const plan = planMap(rig, evaluation, layer, last);
  return { ...plan, drawing: drawingOf(plan, last) };
}

/** The plan set out; where nothing of what stands on the page changed, the drawing that is there. */
export const drawingOf = (plan: MapPlan, last?: LineMap): Drawing =>
  last && isSetOut(plan, last) ? last.drawing : layout(plan.shapes, plan.wires, last?.drawing.seats);

/** Whether a map has every device and line of the plan just as they are. */
export const isSetOut = ({ shapes, wires }: MapPlan, last: LineMap): boolean =>
  same(shapes, last.shapes) && same(wires, last.wires);

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/** Values of a list; those that an earlier list has just so are the same ones, so that nothing is drawn again for them. */
function kept<T>(now: readonly T[], before: readonly T[] | undefined, idOf: (value: T) => string): readonly T[] {
  const known = new Map(before?.map((v) => [idOf(v), v]));
  return now.map((value) => {
    const was = known.get(idOf(value));
    return was !== undefined && same(was, value) ? was : value;
  });
}

/** What a layer of the map shows of a rig. */
export function planMap(rig: Rig, evaluation: Evaluation, layer: Layer, last?: MapPlan): MapPlan {
  const types = findTypes(rig);
  const lines = kept(linesOf(rig, evaluation, layer), last?.lines, (l) => l.id);
  const joined = new Set(lines.flatMap((l) => [l.from.deviceId, l.to.deviceId]));
  // What is not plugged yet has to be seen, or no one plugs it; strips and batteries have a layer of their own.
  const devices = rig.devices.filter(
    (d) => joined.has(d.id) || (layer === 'all' && types.get(d.typeId)!.ports.length > 0),
  );
  const boxes = devices.map(
    (device): MapBox => ({
      deviceId: device.id,
      name: device.name,
      lines: breakName(device.name),
      typeName: types.get(device.typeId)!.name,
      listenerIds: rig.listeners.filter((l) => l.sound.deviceId === device.id).map((l) => l.id),
      sourceIds: rig.sources.filter((s) => s.sound.deviceId === device.id).map((s) => s.id),
      on: device.on ?? null,
    }),
  );
  const portOf = (ref: PortRef) => (layer === 'power' ? 'power' : socketOf(types, rig, ref));
  const wires: Wire[] = lines.map((l) => ({
    id: l.id,
    from: { node: l.from.deviceId, port: portOf(l.from) },
    to: { node: l.to.deviceId, port: portOf(l.to) },
    weak: l.medium === 'air' || l.medium === 'light',
    thicknessPx: Math.max(1, Math.min(MAX_STRANDS, l.strands.length)) * STRAND_PITCH,
  }));
  const shapes = shapesOf(rig, types, boxes, wires);
  return { layer, boxes: kept(boxes, last?.boxes, (b) => b.deviceId), lines, shapes, wires };
}

/** Only sockets that are in use are drawn, in the order of the device. */
function shapesOf(
  rig: Rig,
  types: ReadonlyMap<string, DeviceType>,
  boxes: readonly MapBox[],
  wires: readonly Wire[],
): Shape[] {
  const used = { ins: new Map<string, Set<string>>(), outs: new Map<string, Set<string>>() };
  const note = (side: 'ins' | 'outs', { node, port }: Wire['from']) => {
    const ports = used[side].get(node) ?? new Set();
    used[side].set(node, ports.add(port));
  };
  for (const wire of wires) {
    note('outs', wire.from);
    note('ins', wire.to);
  }
  return boxes.map((box) => {
    const type = types.get(findDevice(rig, box.deviceId)!.typeId)!;
    const order = ['power', ...new Set(type.ports.map((p) => p.socket ?? p.id))];
    const sorted = (ports: ReadonlySet<string> | undefined) => order.filter((p) => ports?.has(p));
    return {
      id: box.deviceId,
      widthPx: BOX.widthPx,
      headPx: BOX.firstLinePx + BOX.padPx + (box.lines.length - 1) * BOX.linePx + box.listenerIds.length * BOX.badgePx,
      ins: sorted(used.ins.get(box.deviceId)),
      outs: sorted(used.outs.get(box.deviceId)),
    };
  });
}
