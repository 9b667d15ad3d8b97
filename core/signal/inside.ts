import { memoized } from '#core/base/memo/index.ts';
import {
  type Device,
  type DeviceType,
  type LevelClass,
  portOf,
  type SettingSpec,
  type SettingValue,
  type Stage,
  settingKey,
  settingOf,
  settingsOf,
  type Way,
} from '#core/model/rig/index.ts';
import {
  add,
  DB_SPL_AT_1_PASCAL,
  dbuFromDbv,
  exactly,
  frameMs,
  type Interval,
  negate,
  powerFromDb,
  type Rate,
  scale as scaleInterval,
  sum,
} from '#core/model/units/index.ts';
import type { BlockedEdge, DelayTerm, Disabled, Door, Edge, Node, Scale } from './graph.ts';
import { type Link, newWayId, placeOf } from './layout.ts';
import { say } from './sayings.ts';

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

const range = ([low, nominal, high]: readonly [number, number, number]): Interval => ({ low, nominal, high });

type InsideWay = Link | BlockedEdge | Disabled;

interface Inside {
  readonly type: DeviceType;
  readonly frameRate: Rate;
  readonly nodes: readonly Node[];
  /** What each way of the type is here: open, shut, or without one of its ends. */
  readonly ways: readonly InsideWay[];
  readonly wayIds: Map<string, number>;
  readonly links: readonly Link[];
  readonly shut: readonly BlockedEdge[];
  readonly disabled: readonly Disabled[];
}
const insides = new WeakMap<Device, Inside>();

/**
 * What a device with its settings contributes: its channels, the open ways between them, and the shut ones.
 * @param like  the same device with other settings: ways that none of these is on stay the very same
 */
export function insideOf(device: Device, type: DeviceType, frameRate: Rate, like?: Device): Inside {
  const known = insides.get(device);
  if (known && known.type === type && known.frameRate === frameRate) return known;
  const before = like && insideAlike(device, type, frameRate, like);
  const changed = before && changedSettings(like, device);
  const nodes = before?.nodes ?? nodesFor(device, type);
  const context: Context = { frameRate, device, type, settings: settingsOf(type) };
  const wayIds = before?.wayIds ?? new Map<string, number>();
  const settingIds = settingsOnWays(type);
  const ways = type.inside.map((way, i): InsideWay => {
    if (before && !settingIds[i]!.some((id) => changed!.has(id))) return before.ways[i]!;
    return insideWay(context, way, wayIds);
  });
  const inside = {
    type,
    frameRate,
    nodes,
    ways,
    wayIds,
    links: ways.filter((w) => 'edge' in w),
    shut: ways.filter((w) => 'doors' in w),
    disabled: ways.filter((w) => 'end' in w),
  };
  insides.set(device, inside);
  return inside;
}

/** What is known of a device that differs in settings alone. */
function insideAlike(device: Device, type: DeviceType, frameRate: Rate, like: Device): Inside | undefined {
  const before = insides.get(like);
  const same = like.id === device.id && like.name === device.name && like.ends === device.ends;
  return same && before?.type === type && before.frameRate === frameRate ? before : undefined;
}

function changedSettings({ settings: a }: Device, { settings: b }: Device): ReadonlySet<string> {
  const differs = (id: string) => a[id] !== b[id] && (a[id]?.value !== b[id]?.value || a[id]?.known !== b[id]?.known);
  return new Set([...Object.keys(a), ...Object.keys(b)].filter(differs));
}

/** The settings on each path of a type. */
const settingsOnWays = memoized((type: DeviceType): readonly (readonly string[])[] =>
  type.inside.map((way) => way.stages.flatMap((stage) => ('setting' in stage ? [stage.setting] : []))),
);

const nodesFor = (device: Device, type: DeviceType): Node[] =>
  type.ports.flatMap((spec) =>
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

function insideWay(context: Context, way: Way, wayIds: Map<string, number>): InsideWay {
  const { device, type } = context;
  const [from, to] = [placeOf(type, way.from), placeOf(type, way.to)];
  const ends = [way.from, way.to].map(portOf);
  const off = ends.find((portId) => device.ends?.[portId]?.disabled);
  if (off !== undefined) return { from, to, end: { deviceId: device.id, portId: off } };
  const ports = ends.join(' ');
  const wayId = wayIds.get(ports) ?? newWayId();
  wayIds.set(ports, wayId);
  const edge = insideEdge(context, way, wayId);
  if (!('doors' in edge)) return { edge, from, to };
  return { from, to, deviceId: device.id, settingId: edge.doors[0]!.settingId, doors: edge.doors };
}

interface Context {
  frameRate: Rate;
  device: Device;
  type: DeviceType;
  settings: ReadonlyMap<string, SettingSpec>;
}

const settingValue = ({ device, settings }: Pick<Context, 'device' | 'settings'>, id: string): SettingValue =>
  settingOf(device, settings.get(id)!).value;

/** What the stages of one way do together; or, where doors on it are shut, which. */
function insideEdge(context: Context, way: Way, wayId: number): Edge | { doors: readonly Door[] } {
  const doors = shutDoors(context, way);
  if (doors.length > 0) return { doors };
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
    if ('setting' in stage) settings.push(settingKey(device.id, stage.setting));
    const effect = effectOf(context, stage);
    gainDb = add(gainDb, effect.gainDb);
    if (effect.noiseDb !== null) noises.push({ db: effect.noiseDb, gainSoFar: gainDb.nominal });
    if (effect.ceilingDb !== null) ceilingDb = Math.min(ceilingDb, effect.ceilingDb - gainDb.nominal);
    switch (stage.do) {
      case 'delay':
      case 'latency':
        delays.push(delayTerm(context, stage));
        break;
      case 'convert':
        conversions++;
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
    powerGain: powerFromDb(gainDb.nominal),
    noisePower: noises.reduce((power, n) => power + powerFromDb(n.db + gainDb.nominal - n.gainSoFar), 0),
    ceilingDb,
    conversions,
    polarity,
    lowHz,
    highHz,
    clock,
    settings,
    stages: way.stages,
  };
}

/** Every setting that shuts a way as it stands, with what would open it: a level goes to its mark, or as far up as it may. */
function shutDoors(context: Context, { stages }: Way): Door[] {
  const doors: Door[] = [];
  for (const stage of stages) {
    if (stage.do === 'door') {
      if (settingValue(context, stage.setting) !== stage.openWhen)
        doors.push({ settingId: stage.setting, opensAt: stage.openWhen });
    } else if (stage.do === 'gain') {
      const spec = context.settings.get(stage.setting) as SettingSpec & { kind: 'gain' };
      if (spec.offAtMin && (settingValue(context, stage.setting) as number) <= spec.min)
        doors.push({ settingId: stage.setting, opensAt: Math.min(0, spec.max) });
    }
  }
  return doors;
}

/** What one stage does to the level of what passes it. */
export interface StageEffect {
  /** Changes of scale count as gains. */
  readonly gainDb: Interval;
  /** The scale behind it; null where it stays. */
  readonly scale: Scale | null;
  /** Where it clips, and what noise it adds, both in the scale behind it. */
  readonly ceilingDb: number | null;
  readonly noiseDb: number | null;
}
const effect = (gainDb: Interval, rest: Partial<StageEffect> = {}): StageEffect => ({
  gainDb,
  scale: null,
  ceilingDb: null,
  noiseDb: null,
  ...rest,
});
const NONE = effect(exactly(0));

export const stageEffect = (device: Device, type: DeviceType, stage: Stage): StageEffect =>
  effectOf({ device, settings: settingsOf(type) }, stage);

function effectOf(context: Pick<Context, 'device' | 'settings'>, stage: Stage): StageEffect {
  switch (stage.do) {
    case 'gain':
      return effect(exactly(settingValue(context, stage.setting) as number));
    case 'fixed-gain':
      return effect(exactly(stage.db));
    case 'convert': {
      // Full scale is a ceiling on the digital side, whichever way the signal goes.
      const full = range(stage.fullScaleDbu);
      return stage.to === 'digital'
        ? effect(negate(full), { scale: 'dbfs', ceilingDb: 0 })
        : effect(full, { scale: 'dbu', ceilingDb: full.nominal });
    }
    case 'hear':
      return effect(add(range(stage.sensitivityDbvPerPa), exactly(dbuFromDbv(-DB_SPL_AT_1_PASCAL))), { scale: 'dbu' });
    case 'radiate':
      return effect(range(stage.splAt0Dbu), { scale: 'spl' });
    case 'ceiling':
      return effect(exactly(0), { ceilingDb: stage.db });
    case 'noise':
      return effect(exactly(0), { noiseDb: stage.db });
    default:
      return NONE;
  }
}

function delayTerm(context: Context, stage: Stage & { do: 'delay' | 'latency' }): DelayTerm {
  const { device, type, settings } = context;
  const perFrame = frameMs(context.frameRate);
  if (stage.do === 'latency') {
    const figure = type.figures[stage.figure]!;
    const ms = figure.unit === 'frames' ? scaleInterval(range(figure.range), perFrame) : range(figure.range);
    const pair = type.together?.find((t) => t.figures[0] === stage.figure);
    const differs = pair && scaleInterval(range(pair.differs), figure.unit === 'frames' ? perFrame : 1);
    return {
      key: `${device.id}.${stage.figure}`,
      label: `${device.name}: ${figure.label}`,
      ms,
      kind: figure.kind,
      source: figure.source,
      ...(differs && { beside: { key: `${device.id}.${pair.figures[1]}`, ms: differs, source: pair.source } }),
    };
  }
  const spec = settings.get(stage.setting) as SettingSpec & { kind: 'delay' };
  const setting = settingOf(device, spec);
  const ms = exactly((setting.value as number) * (spec.unit === 'frames' ? perFrame : 1));
  const source = setting.known === 'assumed' ? say.asDrawnNotConfirmed() : say.asSetOnDevice();
  return { key: settingKey(device.id, stage.setting), label: `${device.name}: ${spec.name}`, ms, kind: 'set', source };
}
