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
import { boxesOf, groupsOf } from './groups.ts';
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
  /** The boxes that it is drawn between. */
  readonly fromBox: string;
  readonly toBox: string;
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
  /** Whether it stands for a group, folded or open; null for a device by itself. */
  readonly group: 'folded' | 'open' | null;
  /** Names of what is folded into it. */
  readonly holds: readonly string[];
}

/** What is to be drawn, before it has its places. */
export interface MapPlan {
  readonly layer: Layer;
  readonly boxes: readonly MapBox[];
  /** The box that each device is drawn in. */
  readonly boxOf: ReadonlyMap<string, string>;
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

/** Everything is set in letters of this size: a whole rig is looked at from two thirds of it. */
export const LETTER_PX = 18;
export const BOX = { widthPx: 156, linePx: 21, firstLinePx: 21, padPx: 8 };
const CHARACTERS = 15;
const MAX_LINES = 3;
/** Names of what is folded into a box that are listed; the rest is counted. */
const MAX_HELD = 4;

/** Sockets, not ends, are what a map has: ends behind one socket are one place. */
const socketOf = (types: ReadonlyMap<string, DeviceType>, rig: Rig, ref: PortRef): string => {
  const device = findDevice(rig, ref.deviceId)!;
  return portsOf(types.get(device.typeId)!).get(ref.portId)?.socket ?? ref.portId;
};

/** Lines of a layer, in the order of their cables; those within a folded group are not seen. */
export function linesOf(
  rig: Rig,
  evaluation: Evaluation,
  layer: Layer = 'all',
  boxOf: ReadonlyMap<string, string> = boxesOf(rig, NONE),
): MapLine[] {
  const types = findTypes(rig);
  const box = (ref: PortRef): string => boxOf.get(ref.deviceId)!;
  if (layer === 'power') return powerLines(rig, boxOf);
  const lines = new Map<string, MapLine>();
  for (const cable of rig.cables) {
    if (box(cable.from) === box(cable.to) && cable.from.deviceId !== cable.to.deviceId) continue;
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
      fromBox: box(cable.from),
      toBox: box(cable.to),
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

const powerLines = (rig: Rig, boxOf: ReadonlyMap<string, string>): MapLine[] =>
  rig.devices.flatMap((device): MapLine[] =>
    device.fedBy && boxOf.get(device.fedBy) !== boxOf.get(device.id)
      ? [
          {
            id: `feeds-${device.id}`,
            cableIds: [],
            medium: 'power',
            from: { deviceId: device.fedBy, portId: 'power' },
            to: { deviceId: device.id, portId: 'power' },
            fromBox: boxOf.get(device.fedBy)!,
            toBox: boxOf.get(device.id)!,
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
export function lineMap(
  rig: Rig,
  evaluation: Evaluation,
  layer: Layer = 'all',
  last?: LineMap,
  folded: ReadonlySet<string> = NONE,
): LineMap {
  const plan = planMap(rig, evaluation, layer, last, folded);
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

const NONE: ReadonlySet<string> = new Set();

/** What a layer of the map shows of a rig, with some groups folded. */
export function planMap(
  rig: Rig,
  evaluation: Evaluation,
  layer: Layer,
  last?: MapPlan,
  folded: ReadonlySet<string> = NONE,
): MapPlan {
  const types = findTypes(rig);
  const boxOf = boxesOf(rig, folded);
  const groups = new Map(groupsOf(rig).map((g) => [g.id, g]));
  const lines = kept(linesOf(rig, evaluation, layer, boxOf), last?.lines, (l) => l.id);
  const joined = new Set(lines.flatMap((l) => [l.fromBox, l.toBox]));
  // What is not plugged yet has to be seen, or no one plugs it; strips and batteries have a layer of their own.
  const devices = rig.devices.filter(
    (d) => boxOf.get(d.id) === d.id && (joined.has(d.id) || (layer === 'all' && types.get(d.typeId)!.ports.length > 0)),
  );
  const boxes = devices.map((device): MapBox => {
    const held = (groups.get(device.id)?.memberIds ?? []).filter((id) => boxOf.get(id) === device.id);
    const isHere = (id: string): boolean => boxOf.get(id) === device.id;
    return {
      deviceId: device.id,
      name: device.name,
      lines: breakName(device.name),
      typeName: types.get(device.typeId)!.name,
      listenerIds: rig.listeners.filter((l) => isHere(l.sound.deviceId)).map((l) => l.id),
      sourceIds: rig.sources.filter((s) => isHere(s.sound.deviceId)).map((s) => s.id),
      on: device.on ?? null,
      group: groups.has(device.id) ? (held.length > 0 ? 'folded' : 'open') : null,
      holds: held.map((id) => findDevice(rig, id)!.name),
    };
  });
  const portOf = (ref: PortRef) => {
    if (layer === 'power') return 'power';
    const socket = socketOf(types, rig, ref);
    return boxOf.get(ref.deviceId) === ref.deviceId ? socket : `${ref.deviceId}.${socket}`;
  };
  const wires: Wire[] = lines.map((l) => ({
    id: l.id,
    from: { node: l.fromBox, port: portOf(l.from) },
    to: { node: l.toBox, port: portOf(l.to) },
    weak: l.medium === 'air' || l.medium === 'light',
    thicknessPx: Math.max(1, Math.min(MAX_STRANDS, l.strands.length)) * STRAND_PITCH,
  }));
  const shapes = shapesOf(rig, types, boxes, wires);
  return { layer, boxOf, boxes: kept(boxes, last?.boxes, (b) => b.deviceId), lines, shapes, wires };
}

/** One line below a box's name: who hears there, or what is folded into it. */
export interface BoxFact {
  readonly kind: 'listener' | 'holds' | 'more';
  /** The listener's id, the name of what is folded, or how many more. */
  readonly of: string;
}

export function factsOf({ listenerIds, holds }: Pick<MapBox, 'listenerIds' | 'holds'>): BoxFact[] {
  const all: BoxFact[] = [
    ...holds.map((of): BoxFact => ({ kind: 'holds', of })),
    ...listenerIds.map((of): BoxFact => ({ kind: 'listener', of })),
  ];
  // A box by itself names everyone who hears there.
  if (holds.length === 0 || all.length <= MAX_HELD + 1) return all;
  return [...all.slice(0, MAX_HELD), { kind: 'more', of: String(all.length - MAX_HELD) }];
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
    // What leads into a folded group comes after its own sockets.
    const sorted = (ports: ReadonlySet<string> | undefined) => [
      ...order.filter((p) => ports?.has(p)),
      ...[...(ports ?? [])].filter((p) => !order.includes(p)),
    ];
    return {
      id: box.deviceId,
      widthPx: BOX.widthPx,
      headPx: BOX.firstLinePx + BOX.padPx + (box.lines.length - 1 + factsOf(box).length) * BOX.linePx,
      ins: sorted(used.ins.get(box.deviceId)),
      outs: sorted(used.outs.get(box.deviceId)),
    };
  });
}
