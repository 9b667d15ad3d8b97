import { keyOf, listOf, type Text } from '#core/base/said/index.ts';
import {
  type DeviceType,
  findPort,
  findSetting,
  findTypes,
  isHardware,
  momentName,
  type Rig,
  records,
  settingAt,
} from '#core/model/rig/index.ts';
import { type Figures, figuresFor } from '#core/routing/variants/index.ts';
import { evaluate, evaluationAt, type Pair, rolesOf } from '#core/signal/index.ts';
import { isInComputer, matchOf, namedAsOwn, plannedAsOwn } from './carry.ts';
import { say } from './sayings.ts';
import { type Brief, briefOf } from './ways/brief.ts';
import { drawWay, type WayKind, waysFor } from './ways/kinds.ts';

/** A way to build it, as a rig, in numbers. */
export interface Option {
  readonly kind: Omit<WayKind, 'draw'>;
  readonly rig: Rig;
  readonly figures: Figures;
  /** What of it has to be bought: devices that are not owned, low and high, euros; leads count whole. */
  readonly toBuyEur: readonly [number, number];
  /** Sources of a full mix whose level can be set independently, out of this many. */
  readonly apart: number;
  readonly together: number;
  /** Inputs of mixers and interfaces that stay free, and outputs. */
  readonly freeIns: number;
  readonly freeOuts: number;
  /** Wants that it cannot bring: who does not hear whom, or hears what they must not. */
  readonly cannot: readonly Text[];
  /** No other is at least as good in every measure and better in one. */
  readonly unbeaten: boolean;
}

/** What ways are held against each other by: of each, less is better. */
export const MEASURES = {
  cannot: (o) => o.cannot.length,
  toBuy: (o) => (o.toBuyEur[0] + o.toBuyEur[1]) / 2,
  boxes: (o) => o.figures.boxes,
  leads: (o) => o.figures.leads,
  single: (o) => o.figures.single,
  conversions: (o) => o.figures.conversions,
  latest: (o) => o.figures.latestMs,
  balance: (o) => o.together - o.apart,
  noise: (o) => -(o.figures.leastSnrDb ?? 0),
  free: (o) => -(o.freeIns + o.freeOuts),
  wrong: (o) => o.figures.stops + o.figures.fixes,
} as const satisfies Record<string, (o: Option) => number>;
export type MeasureId = keyof typeof MEASURES;
export const MEASURE_IDS = Object.keys(MEASURES) as readonly MeasureId[];
/** How much each counts, 0 and more. */
export type Weights = Readonly<Record<MeasureId, number>>;
export const USUAL_WEIGHTS: Weights = {
  cannot: 5,
  toBuy: 2,
  boxes: 1,
  leads: 1,
  single: 1,
  conversions: 1,
  latest: 1,
  balance: 3,
  noise: 1,
  free: 0,
  wrong: 1,
};

/** Maximum number of evaluations for the settings of one alternative and moment: sends and switches, not everything possible. */
const EVALUATIONS_EACH = 40;

/** One's own desk among the ways. */
export const OWN = 'own';
const OWN_KIND: Option['kind'] = {
  id: OWN,
  name: say.yourRigAsIt(),
  says: say.whatYouHaveNow(),
};

/**
 * One's own desk, and the ways to build what it is for: each drawn with the same plan, moments and names, its settings
 * looked for, all judged by the same model. `onDone` is told the share that is done. Takes some seconds for all: for a
 * worker.
 */
export function optionsFor(rig: Rig, onDone: (share: number) => void = () => undefined): Option[] {
  const brief = briefOf(rig);
  const kinds = waysFor(brief);
  const drawn = kinds.map((kind, i) => {
    const option = optionOf(kind, brief, rig);
    onDone((i + 1) / kinds.length);
    return option;
  });
  const all = [judged(OWN_KIND, rig, rig, []), ...drawn];
  return all.map((o) => ({ ...o, unbeaten: !all.some((other) => other !== o && beats(other, o)) }));
}

type Drawn = Omit<Option, 'unbeaten'>;

function optionOf({ draw, ...kind }: WayKind, brief: Brief, own: Rig): Drawn {
  const { rig: bare, refused } = drawWay({ draw, ...kind }, brief, own);
  const match = matchOf(own, bare);
  const made = plannedAsOwn(own, namedAsOwn(own, bare, match), match, EVALUATIONS_EACH);
  return judged(kind, made, own, [...match.leftOut.map((name) => say.isNotInIt({ name })), ...refused]);
}

/** A way in figures; its wants are looked at in every moment. */
function judged(kind: Option['kind'], rig: Rig, own: Rig, lacks: readonly Text[]): Drawn {
  const [freeIns, freeOuts] = freeEnds(rig);
  return {
    kind,
    rig,
    figures: figuresFor(rig),
    toBuyEur: toBuy(rig, own),
    ...apartIn(rig, evaluate(rig).pairs),
    freeIns,
    freeOuts,
    cannot: [...cannotOf(rig), ...lacks],
  };
}

/** Requirements that are not met: in every moment, or in those listed. Single tracks are left to the builder; what plays inside the computer is the same in all. */
function cannotOf(rig: Rig): Text[] {
  const roles = rolesOf(rig);
  const moments = [null, ...rig.moments.map((m) => m.id)];
  const sources = new Map(rig.sources.filter((s) => !isInComputer(rig, s)).map((s) => [s.id, s.name]));
  const listeners = new Map(rig.listeners.filter((l) => roles.listener(l) !== 'track').map((l) => [l.id, l.name]));
  const found = new Map<string, { readonly says: Text; readonly at: (string | null)[] }>();
  for (const moment of moments)
    for (const { sourceId, listenerId, verdict } of evaluationAt(rig, moment).pairs) {
      const [source, listener] = [sources.get(sourceId), listeners.get(listenerId)];
      if (source === undefined || listener === undefined) continue;
      if (verdict.word !== 'missing' && verdict.word !== 'unwanted') continue;
      const says = verdict.word === 'missing' ? say.noAt({ source, listener }) : say.atButMustNot({ source, listener });
      const key = keyOf(says);
      found.set(key, { says, at: [...(found.get(key)?.at ?? []), moment] });
    }
  return [...found.values()].map(({ says, at }) =>
    at.length === moments.length
      ? says
      : say.in({
          says,
          names: listOf(
            'and',
            at.map((m) => momentName(rig, m)),
          ),
        }),
  );
}

/** How many of the sources that a whole program must have can be balanced by a level of their own. */
function apartIn(rig: Rig, pairs: readonly Pair[]): { apart: number; together: number } {
  const types = findTypes(rig);
  const roles = rolesOf(rig);
  const mix = rig.listeners.find(
    (l) => roles.listener(l) === 'mix' && findPort(rig, types, l.sound)?.does === 'stream',
  );
  const wanted = pairs.filter((p) => p.listenerId === mix?.id && p.want === 'must');
  const isLevel = (key: string) => {
    const { deviceId, settingId } = settingAt(key);
    const spec = findSetting(rig, types, deviceId, settingId);
    return spec?.kind === 'gain' || spec?.kind === 'mute';
  };
  const levels = wanted.map((p) => new Set(p.ways.flatMap((w) => w.settings).filter(isLevel)));
  const apart = levels.filter((own, i) => [...own].some((key) => !levels.some((l, j) => j !== i && l.has(key)))).length;
  return { apart, together: wanted.length };
}

/** Devices of a way that no one owns yet, each owned one used once, and all its cables. */
function toBuy(rig: Rig, owned: Rig): [number, number] {
  const have = new Map<string, number>();
  for (const d of owned.devices) if (!d.toGet) have.set(d.typeId, (have.get(d.typeId) ?? 0) + 1);
  const types = findTypes(rig);
  let [low, high] = [0, 0];
  for (const { typeId } of rig.devices) {
    const left = have.get(typeId) ?? 0;
    if (left > 0) have.set(typeId, left - 1);
    else {
      const [a, b] = types.get(typeId)!.priceEur ?? [0, 0];
      low += a;
      high += b;
    }
  }
  return [low, high];
}

/** It has meters of its own and ends to spare: a mixer, an interface. */
const hasRoom = (type: DeviceType): boolean => isHardware(type) && !records(type) && type.shows?.levels === 'on-it';

function freeEnds(rig: Rig): [ins: number, outs: number] {
  const types = findTypes(rig);
  const taken = new Set(rig.cables.flatMap((c) => [c.from, c.to]).map((r) => `${r.deviceId}/${r.portId}`));
  let [ins, outs] = [0, 0];
  for (const device of rig.devices) {
    const type = types.get(device.typeId)!;
    if (!hasRoom(type)) continue;
    for (const port of type.ports) {
      if (port.direction === 'inside' || taken.has(`${device.id}/${port.id}`)) continue;
      if (port.direction === 'in') ins++;
      else outs++;
    }
  }
  return [ins, outs];
}

const ALIKE = 1e-9;
function beats(a: Drawn, b: Drawn): boolean {
  let better = false;
  for (const id of MEASURE_IDS) {
    const [x, y] = [a, b].map((o) => MEASURES[id]({ ...o, unbeaten: false })) as [number, number];
    if (x > y + ALIKE) return false;
    if (x < y - ALIKE) better = true;
  }
  return better;
}

/** Score of each alternative by the user's weights, 0 (worst in everything) to 1: each measure as a share of its range over all. */
export function scoresOf(options: readonly Option[], weights: Weights): number[] {
  const total = MEASURE_IDS.reduce((sum, id) => sum + weights[id], 0);
  const ranges = new Map(
    MEASURE_IDS.map((id) => {
      const values = options.map(MEASURES[id]);
      return [id, { low: Math.min(...values), high: Math.max(...values) }] as const;
    }),
  );
  return options.map((o) => {
    if (total === 0) return 0;
    const sum = MEASURE_IDS.reduce((s, id) => {
      const { low, high } = ranges.get(id)!;
      return s + weights[id] * (high > low ? (high - MEASURES[id](o)) / (high - low) : 1);
    }, 0);
    return sum / total;
  });
}
