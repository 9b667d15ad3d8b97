import {
  type Device,
  type DeviceType,
  type LevelClass,
  type SettingSpec,
  type SettingValue,
  type Stage,
  settingOf,
  type Way,
} from '#core/rig/index.ts';
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
} from '#core/units/index.ts';
import type { DelayTerm, Disabled, Door, Edge, Node, Scale, Shut } from './graph.ts';
import { type Link, newWayId, placeOf } from './layout.ts';

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

interface Inside {
  readonly type: DeviceType;
  readonly frameRate: Rate;
  readonly nodes: readonly Node[];
  readonly links: readonly Link[];
  readonly shut: readonly Shut[];
  readonly disabled: readonly Disabled[];
}
const insides = new WeakMap<Device, Inside>();

/** What a device with its settings contributes: its channels, the open ways between them, and the shut ones. */
export function insideOf(device: Device, type: DeviceType, frameRate: Rate): Inside {
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
  const disabled: Disabled[] = [];
  const isDisabled = (portId: string): boolean => device.ends?.[portId]?.disabled === true;
  const wayIds = new Map<string, number>();
  for (const way of type.inside) {
    const [from, to] = [placeOf(type, way.from), placeOf(type, way.to)];
    const ends = [way.from, way.to].map((place) => place.split('.')[0]!);
    const off = ends.find(isDisabled);
    if (off !== undefined) {
      disabled.push({ from, to, end: { deviceId: device.id, portId: off } });
      continue;
    }
    const ports = ends.join(' ');
    const wayId = wayIds.get(ports) ?? newWayId();
    wayIds.set(ports, wayId);
    const edge = insideEdge(context, way, wayId);
    if ('doors' in edge)
      shut.push({ from, to, deviceId: device.id, settingId: edge.doors[0]!.settingId, doors: edge.doors });
    else links.push({ edge, from, to });
  }
  const inside = { type, frameRate, nodes, links, shut, disabled };
  insides.set(device, inside);
  return inside;
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
    if ('setting' in stage) settings.push(`${device.id}.${stage.setting}`);
    const step = gainOf(context, stage);
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

/** What one stage of a device, with its settings, adds in decibels; changes of scale count as gains. */
export const stageGainDb = (device: Device, type: DeviceType, stage: Stage): Interval =>
  gainOf({ device, settings: new Map(type.settings.map((s) => [s.id, s])) }, stage);

function gainOf(context: Pick<Context, 'device' | 'settings'>, stage: Stage): Interval {
  switch (stage.do) {
    case 'gain':
      return exactly(settingValue(context, stage.setting) as number);
    case 'fixed-gain':
      return exactly(stage.db);
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
  const source = setting.known === 'assumed' ? 'as drawn, not looked at' : 'as set on the device';
  return { key: `${device.id}.${stage.setting}`, label: `${device.name}: ${spec.name}`, ms, kind: 'set', source };
}
