import {
  type Cable,
  type Device,
  type DeviceType,
  findTypes,
  type LevelClass,
  type PortSpec,
  type Rig,
  type SettingSpec,
  type SettingValue,
  type Stage,
  settingOf,
  type Way,
} from '#core/rig/index.ts';
import {
  add,
  airMs,
  DB_SPL_AT_1_PASCAL,
  dbFromRatio,
  dbuFromDbv,
  exactly,
  frameMs,
  type Interval,
  negate,
  type Rate,
  scale as scaleInterval,
  sum,
  sumByPower,
} from '#core/units/index.ts';
import type { DelayTerm, Edge, Graph, Node, Scale, Shut } from './graph.ts';

const SCALE_OF: Record<LevelClass, Scale> = {
  air: 'spl',
  light: 'dbfs',
  microphone: 'dbu',
  line: 'dbu',
  headphone: 'dbu',
  speaker: 'dbu',
  digital: 'dbfs',
  software: 'dbfs',
};

/** The scale in which a port's level is read. */
export const scaleOf = (level: LevelClass): Scale => SCALE_OF[level];

/** Cables without delay and the closest that a microphone stands, so that no air path gains without end. */
const CLOSEST_M = 0.01;
const range = ([low, nominal, high]: readonly [number, number, number]): Interval => ({ low, nominal, high });

/**
 * The rig with its settings as a graph of channels: nodes are (device, port, channel), edges the open ways inside
 * devices and the cables between them. No kind of device is known here: everything follows from its type's data.
 * What a device or cable that did not change contributes is kept, so an edit costs what it touches.
 */
export function expand(rig: Rig): Graph {
  const types = findTypes(rig);
  const nodes: Node[] = [];
  const firstOf = new Map<string, number>();
  const typeOf = new Map<string, DeviceType>();
  const links: Link[] = [];
  const shut: Shut[] = [];
  for (const device of rig.devices) {
    const first = nodes.length;
    const type = types.get(device.typeId)!;
    firstOf.set(device.id, first);
    typeOf.set(device.id, type);
    const inside = insideOf(device, type, rig.session.frameRate);
    for (const node of inside.nodes) nodes.push(node);
    for (const { edge, from, to } of inside.links) links.push({ edge, from: first + from, to: first + to });
    for (const door of inside.shut) shut.push({ ...door, from: first + door.from, to: first + door.to });
  }
  for (const cable of rig.cables) {
    const [fromType, toType] = [typeOf.get(cable.from.deviceId)!, typeOf.get(cable.to.deviceId)!];
    const [from, to] = [firstOf.get(cable.from.deviceId)!, firstOf.get(cable.to.deviceId)!];
    for (const link of cableLinks(cable, fromType, toType))
      links.push({ edge: link.edge, from: from + link.from, to: to + link.to });
  }
  const nodesOf = (ref: { readonly deviceId: string; readonly portId: string }): number[] => {
    const type = typeOf.get(ref.deviceId);
    const layout = type && layoutOf(type).get(ref.portId);
    return layout ? layout.spec.channels.map((_, i) => firstOf.get(ref.deviceId)! + layout.first + i) : [];
  };
  return { nodes, shut, nodesOf, ...inColumns(nodes.length, links) };
}

/** An edge with its ends: as positions within its devices at first, within the whole graph in the end. */
interface Link {
  readonly edge: Edge;
  readonly from: number;
  readonly to: number;
}

function inColumns(nodeCount: number, links: readonly Link[]): Pick<Graph, 'edges' | 'from' | 'to' | 'firstEdge'> {
  const firstEdge = new Int32Array(nodeCount + 1);
  for (const link of links) firstEdge[link.from + 1]!++;
  for (let n = 0; n < nodeCount; n++) firstEdge[n + 1]! += firstEdge[n]!;
  const next = firstEdge.slice();
  const edges: Edge[] = new Array(links.length);
  const from = new Int32Array(links.length);
  const to = new Int32Array(links.length);
  for (const link of links) {
    const e = next[link.from]!++;
    edges[e] = link.edge;
    from[e] = link.from;
    to[e] = link.to;
  }
  return { edges, from, to, firstEdge };
}

type Layout = ReadonlyMap<string, { readonly first: number; readonly spec: PortSpec }>;
const layouts = new WeakMap<DeviceType, Layout>();

/** Where the channels of each port of a type stand among the nodes of a device. */
function layoutOf(type: DeviceType): Layout {
  const known = layouts.get(type);
  if (known) return known;
  const layout = new Map<string, { first: number; spec: PortSpec }>();
  let first = 0;
  for (const spec of type.ports) {
    layout.set(spec.id, { first, spec });
    first += spec.channels.length;
  }
  layouts.set(type, layout);
  return layout;
}

function placeOf(type: DeviceType, place: string): number {
  const [portId, channelId] = place.split('.') as [string, string];
  const { first, spec } = layoutOf(type).get(portId)!;
  return first + spec.channels.findIndex((c) => c.id === channelId);
}

interface Inside {
  readonly type: DeviceType;
  readonly frameRate: Rate;
  readonly nodes: readonly Node[];
  readonly links: readonly Link[];
  readonly shut: readonly Shut[];
}
const insides = new WeakMap<Device, Inside>();
/** Numbers of ways are only compared, never stored: a plain count serves. */
let nextWayId = 1;

function insideOf(device: Device, type: DeviceType, frameRate: Rate): Inside {
  const known = insides.get(device);
  if (known && known.type === type && known.frameRate === frameRate) return known;
  const nodes = type.ports.flatMap((spec) =>
    spec.channels.map(
      (c): Node => ({
        deviceId: device.id,
        portId: spec.id,
        channelId: c.id,
        carries: c.carries,
        scale: SCALE_OF[spec.level],
      }),
    ),
  );
  const context: Context = { frameRate, device, type, settings: new Map(type.settings.map((s) => [s.id, s])) };
  const links: Link[] = [];
  const shut: Shut[] = [];
  const wayIds = new Map<string, number>();
  for (const way of type.inside) {
    const [from, to] = [placeOf(type, way.from), placeOf(type, way.to)];
    const ports = `${way.from.split('.')[0]} ${way.to.split('.')[0]}`;
    const wayId = wayIds.get(ports) ?? nextWayId++;
    wayIds.set(ports, wayId);
    const edge = insideEdge(context, way, wayId);
    if ('shutBy' in edge) shut.push({ from, to, deviceId: device.id, settingId: edge.shutBy });
    else links.push({ edge, from, to });
  }
  const inside = { type, frameRate, nodes, links, shut };
  insides.set(device, inside);
  return inside;
}

interface Context {
  frameRate: Rate;
  device: Device;
  type: DeviceType;
  settings: ReadonlyMap<string, SettingSpec>;
}

const settingValue = ({ device, settings }: Context, id: string): SettingValue =>
  settingOf(device, settings.get(id)!).value;

/** What the stages of one way do together; or, where a door on it is shut, which setting shuts it. */
function insideEdge(context: Context, way: Way, wayId: number): Edge | { shutBy: string } {
  const { device } = context;
  let gainDb = exactly(0);
  let ceilingDb = Number.POSITIVE_INFINITY;
  let conversions = 0;
  let polarity: 1 | -1 = 1;
  let lowHz = 0;
  let highHz = Number.POSITIVE_INFINITY;
  let clock: string | null = null;
  const delays: DelayTerm[] = [];
  const noises: { db: number; gainSoFar: number }[] = [];
  const settings: string[] = [];
  for (const stage of way.stages) {
    if ('setting' in stage) settings.push(`${device.id}.${stage.setting}`);
    const step = gainOf(context, stage);
    if (step === 'shut') return { shutBy: (stage as { setting: string }).setting };
    gainDb = add(gainDb, step);
    switch (stage.do) {
      case 'delay':
      case 'latency':
        delays.push(delayTerm(context, stage));
        break;
      case 'noise':
        noises.push({ db: stage.db, gainSoFar: gainDb.nominal });
        break;
      case 'ceiling':
        ceilingDb = Math.min(ceilingDb, stage.db - gainDb.nominal);
        break;
      case 'convert':
        conversions++;
        // Full scale is a ceiling on the digital side, whichever way the signal goes.
        ceilingDb = Math.min(ceilingDb, stage.to === 'digital' ? -gainDb.nominal : step.nominal - gainDb.nominal);
        break;
      case 'band':
        lowHz = Math.max(lowHz, stage.lowHz);
        highHz = Math.min(highHz, stage.highHz);
        break;
      case 'invert':
        polarity = polarity === 1 ? -1 : 1;
        break;
      case 'clock':
        clock = device.id;
        break;
    }
  }
  return {
    wayId,
    via: { deviceId: device.id },
    gainDb,
    delays,
    delayMs: sum(delays.map((d) => d.ms)),
    noiseDb: sumByPower(noises.map((n) => n.db + gainDb.nominal - n.gainSoFar)),
    ceilingDb,
    conversions,
    polarity,
    lowHz,
    highHz,
    clock,
    settings,
  };
}

/** What a stage adds in decibels; changes of scale count as gains. `shut` where nothing passes. */
function gainOf(context: Context, stage: Stage): Interval | 'shut' {
  switch (stage.do) {
    case 'gain': {
      const spec = context.settings.get(stage.setting) as SettingSpec & { kind: 'gain' };
      const db = settingValue(context, stage.setting) as number;
      return spec.offAtMin && db <= spec.min ? 'shut' : exactly(db);
    }
    case 'fixed-gain':
      return exactly(stage.db);
    case 'door':
      return settingValue(context, stage.setting) === stage.openWhen ? exactly(0) : 'shut';
    case 'convert':
      return stage.to === 'digital' ? negate(range(stage.fullScaleDbu)) : range(stage.fullScaleDbu);
    case 'hear':
      return add(range(stage.sensitivityDbvPerPa), exactly(dbuFromDbv(-DB_SPL_AT_1_PASCAL)));
    case 'radiate':
      return range(stage.splAt0Dbu);
    default:
      return exactly(0);
  }
}

function delayTerm(context: Context, stage: Stage & { do: 'delay' | 'latency' }): DelayTerm {
  const { device, type, settings } = context;
  const perFrame = frameMs(context.frameRate);
  if (stage.do === 'latency') {
    const figure = type.figures[stage.figure]!;
    const ms = figure.unit === 'frames' ? scaleInterval(range(figure.range), perFrame) : range(figure.range);
    return {
      key: `${device.id}.${stage.figure}`,
      label: `${device.name}: ${figure.label}`,
      ms,
      kind: figure.kind,
      source: figure.source,
    };
  }
  const spec = settings.get(stage.setting) as SettingSpec & { kind: 'delay' };
  const setting = settingOf(device, spec);
  const ms = exactly((setting.value as number) * (spec.unit === 'frames' ? perFrame : 1));
  const source = setting.known === 'assumed' ? 'as drawn, not looked at' : 'as set on the device';
  return { key: `${device.id}.${stage.setting}`, label: `${device.name}: ${spec.name}`, ms, kind: 'set', source };
}

interface KnownCable {
  readonly from: DeviceType;
  readonly to: DeviceType;
  readonly links: readonly Link[];
}
const cables = new WeakMap<Cable, KnownCable>();

function cableLinks(cable: Cable, fromType: DeviceType, toType: DeviceType): readonly Link[] {
  const known = cables.get(cable);
  if (known && known.from === fromType && known.to === toType) return known.links;
  const from = layoutOf(fromType).get(cable.from.portId)!;
  const to = layoutOf(toType).get(cable.to.portId)!;
  const edge = cableEdge(cable, from.spec);
  const links = channelPairs(cable, from.spec, to.spec).map(([f, t]) => ({
    edge,
    from: from.first + f,
    to: to.first + t,
  }));
  cables.set(cable, { from: fromType, to: toType, links });
  return links;
}

function cableEdge(cable: Cable, from: PortSpec): Edge {
  const air = cable.medium === 'air';
  const ms = exactly(air ? airMs(cable.lengthM) : 0);
  const term: DelayTerm = {
    key: `cable:${cable.id}`,
    label: `${cable.lengthM} m of air`,
    ms,
    kind: 'standard',
    source: 'speed of sound at 20 °C, 343 m/s',
  };
  return {
    wayId: nextWayId++,
    via: { cableId: cable.id },
    gainDb: exactly(air ? -dbFromRatio(Math.max(cable.lengthM, CLOSEST_M) / (from.referenceM ?? 1)) : 0),
    delays: air ? [term] : [],
    delayMs: ms,
    noiseDb: Number.NEGATIVE_INFINITY,
    ceilingDb: Number.POSITIVE_INFINITY,
    conversions: 0,
    polarity: 1,
    lowHz: 0,
    highHz: Number.POSITIVE_INFINITY,
    clock: null,
    settings: [],
  };
}

/** Like goes to like: one to all, all to one, otherwise by order; or as the cable's own map says. */
function channelPairs(cable: Cable, from: PortSpec, to: PortSpec): [number, number][] {
  const at = (port: PortSpec, id: string) => port.channels.findIndex((c) => c.id === id);
  if (cable.map) return cable.map.map((pair) => [at(from, pair.from), at(to, pair.to)]);
  return (['sound', 'picture'] as const).flatMap((carries) => {
    const indices = (port: PortSpec) => port.channels.flatMap((c, i) => (c.carries === carries ? [i] : []));
    const [outs, ins] = [indices(from), indices(to)];
    if (outs.length === 1) return ins.map((i): [number, number] => [outs[0]!, i]);
    if (ins.length === 1) return outs.map((o): [number, number] => [o, ins[0]!]);
    return outs.slice(0, ins.length).map((o, i): [number, number] => [o, ins[i]!]);
  });
}
