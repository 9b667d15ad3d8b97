import type { Text } from '#core/base/said/index.ts';
import {
  type DeviceType,
  findDevice,
  findTypes,
  type Rig,
  type SettingSpec,
  type Stage,
} from '#core/model/rig/index.ts';
import { add, dbFromPower, type Interval, powerFromDb } from '#core/model/units/index.ts';
import type { Arrival } from './arrival.ts';
import type { Edge, Graph, Scale } from './graph.ts';
import { stageEffect } from './inside.ts';
import { deviceName } from './path.ts';
import { say } from './sayings.ts';

/** Peaks of a voice over its average: low, nominal, high (typical). */
export const CREST_DB: Interval = { low: 8, nominal: 12, high: 14 };

/** A control on the way whose gain can be set. */
export interface RungSetting {
  readonly deviceId: string;
  readonly spec: Extract<SettingSpec, { kind: 'gain' }>;
}

/** One step of a way: what stands after it. Levels in the scale that holds there. */
export interface Rung {
  /** Where it is, as one would say it: the device, and the stage. */
  readonly box: Text;
  readonly stage: Text;
  readonly deviceId: string | null;
  readonly setting: RungSetting | null;
  /** It is the volume of a headphone socket. */
  readonly phones: boolean;
  readonly scale: Scale;
  /** What the step itself does; changes of scale are in it. */
  readonly gainDb: number;
  readonly levelDb: Interval;
  /** Everything together that is no signal; null where nothing makes noise yet. */
  readonly noiseDb: number | null;
  /** Where it clips; null where nothing does. */
  readonly ceilingDb: number | null;
  readonly snrDb: number | null;
  /** From the usual peaks to the ceiling. */
  readonly headroomDb: number | null;
  /** Signal-to-noise lost at this stage, dB, and how much of that is noise added from outside the path. */
  readonly lostDb: number;
  readonly fromBesideDb: number;
}

export interface Ladder {
  readonly rungs: readonly Rung[];
  readonly conversions: number;
  /** Index of the rung that loses most; -1 where none loses a decibel. */
  readonly worst: number;
  /** Index of the rung with the least headroom; -1 where nothing clips. */
  readonly tightest: number;
}

/** Smaller losses of signal-to-noise are not reported, dB. */
const TOLD_DB = 1;

/** The way of one arrival as steps: level, noise, ceiling after each stage that does something to them. */
export function ladderOf(rig: Rig, graph: Graph, noiseDb: Float64Array, arrival: Arrival): Ladder {
  const steps: Arrival[] = [];
  for (let at: Arrival | null = arrival; at; at = at.from) steps.unshift(at);
  const walk = new Walk(rig, graph, noiseDb, steps[0]!);
  for (const step of steps.slice(1)) walk.pass(step.edge!, step.node);
  const rungs = withLosses(walk.rungs);
  const most = (of: (r: Rung) => number, least: number) =>
    rungs.reduce((best, r, i) => (of(r) > (best < 0 ? least : of(rungs[best]!)) ? i : best), -1);
  return {
    rungs,
    conversions: arrival.conversions,
    worst: most((r) => r.lostDb, TOLD_DB),
    tightest: most((r) => (r.headroomDb === null ? Number.NEGATIVE_INFINITY : -r.headroomDb), Number.NEGATIVE_INFINITY),
  };
}

interface Open {
  box: Text;
  stage: Text;
  deviceId: string | null;
  setting: RungSetting | null;
  phones: boolean;
  scale: Scale;
  gainDb: number;
  levelDb: Interval;
  noise: number;
  /** Part of the noise that was added from outside the path. */
  beside: number;
  ceilingDb: number;
}

/** State of the walk along a path: level, noise, and the stages so far. */
class Walk {
  readonly rungs: Open[] = [];
  private readonly types: ReadonlyMap<string, DeviceType>;
  private readonly rig: Rig;
  private readonly graph: Graph;
  private readonly noiseDb: Float64Array;

  constructor(rig: Rig, graph: Graph, noiseDb: Float64Array, start: Arrival) {
    this.rig = rig;
    this.graph = graph;
    this.noiseDb = noiseDb;
    this.types = findTypes(rig);
    const node = graph.nodes[start.node]!;
    this.rungs.push({
      box: deviceName(rig, node.deviceId),
      stage: rig.sources[start.sourceIndex]!.name,
      deviceId: node.deviceId,
      setting: null,
      phones: false,
      scale: node.scale,
      gainDb: 0,
      levelDb: { low: start.levelLowDb, nominal: start.levelDb, high: start.levelHighDb },
      noise: this.noiseAt(start.node),
      beside: 0,
      ceilingDb: Number.POSITIVE_INFINITY,
    });
  }

  private noiseAt(node: number): number {
    const db = this.noiseDb[node]!;
    return Number.isFinite(db) ? powerFromDb(db) : 0;
  }

  private get last(): Open {
    return this.rungs.at(-1)!;
  }

  pass(edge: Edge, to: number): void {
    const before = this.rungs.length;
    if ('deviceId' in edge.via) this.through(edge.via.deviceId, edge);
    else if (edge.gainDb.nominal !== 0) this.step(null, say.air(), say.distance(), edge.gainDb, null);
    const rung = this.last;
    const { deviceId, portId, scale } = this.graph.nodes[to]!;
    rung.scale = scale;
    const port = this.types.get(findDevice(this.rig, deviceId)!.typeId)!.ports.find((p) => p.id === portId)!;
    // Of the knobs before a headphone jack the last is its volume; the others set its input level.
    const volume = this.rungs.slice(before).findLast((own) => own.setting);
    if (volume && port.level === 'headphone' && port.direction === 'out') volume.phones = true;
    // What arrives here besides this path: other signals that are mixed in at this place.
    const there = this.noiseAt(to);
    if (there > rung.noise * (1 + 1e-9)) {
      rung.beside += there - rung.noise;
      rung.noise = there;
    }
    // Measured lower than what was expected to come along.
    if (there > 0 && there < rung.noise * (1 - 1e-9)) rung.noise = there;
  }

  private through(deviceId: string, edge: Edge): void {
    const device = findDevice(this.rig, deviceId)!;
    const type = this.types.get(device.typeId)!;
    for (const stage of edge.stages) {
      const { gainDb, scale, ceilingDb, noiseDb } = stageEffect(device, type, stage);
      const said = SAID[stage.do];
      if (said) {
        const setting = stage.do === 'gain' ? gainSetting(type, deviceId, stage) : null;
        this.step(deviceId, device.name, setting?.spec.name ?? said, gainDb, setting);
      }
      const rung = this.last;
      if (scale !== null) rung.scale = scale;
      if (ceilingDb !== null) rung.ceilingDb = Math.min(rung.ceilingDb, ceilingDb);
      if (noiseDb !== null) rung.noise += powerFromDb(noiseDb);
    }
  }

  private step(deviceId: string | null, box: Text, stage: Text, gainDb: Interval, setting: RungSetting | null): void {
    const { levelDb, noise, scale } = this.last;
    this.rungs.push({
      box,
      stage,
      deviceId,
      setting,
      phones: false,
      scale,
      gainDb: gainDb.nominal,
      levelDb: add(levelDb, gainDb),
      noise: noise * powerFromDb(gainDb.nominal),
      beside: 0,
      ceilingDb: Number.POSITIVE_INFINITY,
    });
  }
}

const SAID: Partial<Record<Stage['do'], Text>> = {
  gain: say.gain(),
  'fixed-gain': say.fixedGain(),
  convert: say.converter(),
  hear: say.capsule(),
  radiate: say.intoAir(),
};

function gainSetting(type: DeviceType, deviceId: string, stage: Stage & { do: 'gain' }): RungSetting | null {
  const spec = type.settings.find((s) => s.id === stage.setting);
  return spec?.kind === 'gain' ? { deviceId, spec } : null;
}

function withLosses(open: readonly Open[]): Rung[] {
  let before: number | null = null;
  return open.map((rung): Rung => {
    const { noise, beside, ceilingDb, levelDb, ...rest } = rung;
    const noiseDb = noise > 0 ? dbFromPower(noise) : null;
    const snrDb = noiseDb === null ? null : levelDb.nominal - noiseDb;
    const lostDb = before === null || snrDb === null ? 0 : Math.max(0, before - snrDb);
    const fromBesideDb = noise > beside && beside > 0 ? dbFromPower(noise / (noise - beside)) : 0;
    before = snrDb ?? before;
    const clips = Number.isFinite(ceilingDb);
    return {
      ...rest,
      levelDb,
      noiseDb,
      snrDb,
      lostDb,
      fromBesideDb: Math.min(lostDb, fromBesideDb),
      ceilingDb: clips ? ceilingDb : null,
      headroomDb: clips ? ceilingDb - levelDb.nominal - CREST_DB.nominal : null,
    };
  });
}
