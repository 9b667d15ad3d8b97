import {
  applyEdit,
  type DeviceType,
  drawSettings,
  type Edit,
  findPort,
  findSetting,
  findTypes,
  isHardware,
  type PlanCell,
  type Rig,
  records,
} from '#core/rig/index.ts';
import { evaluate, type ListenerRole, type Pair, rolesOf, type SourceRole } from '#core/signal/index.ts';
import { makeItSo } from '#core/solve/index.ts';
import { type Figures, figuresFor } from '#core/variant/index.ts';
import { type Brief, briefOf } from './ways/brief.ts';
import { drawWay, type WayKind, waysFor } from './ways/kinds.ts';

/** A way to build it, as a rig, in numbers. */
export interface Option {
  readonly kind: Omit<WayKind, 'draw'>;
  readonly rig: Rig;
  readonly figures: Figures;
  /** What of it has to be bought: boxes that are not owned, low and high, euros; leads count whole. */
  readonly toBuyEur: readonly [number, number];
  /** Sources of a whole programme whose level can be set without another’s: of so many. */
  readonly apart: number;
  readonly together: number;
  /** Inputs of mixers and interfaces that stay free, and outputs. */
  readonly freeIns: number;
  readonly freeOuts: number;
  /** Wants that it cannot bring: who does not hear whom, or hears what they must not. */
  readonly cannot: readonly string[];
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

/** So many evaluations are spent on the settings of one way: sends and switches, not everything that could be tried. */
const EVALUATIONS_EACH = 40;

/**
 * The ways to build what a rig is for, each drawn, its settings looked for, judged by the same model. `onDone` is told
 * the share that is done. Takes about a second for all: for a worker.
 */
export function optionsFor(rig: Rig, onDone: (share: number) => void = () => undefined): Option[] {
  const brief = briefOf(rig);
  const wants = wantsOf(rig);
  const kinds = waysFor(brief);
  const drawn = kinds.map((kind, i) => {
    const option = optionOf(kind, brief, wants, rig);
    onDone((i + 1) / kinds.length);
    return option;
  });
  return drawn.map((o) => ({ ...o, unbeaten: !drawn.some((other) => other !== o && beats(other, o)) }));
}

type Drawn = Omit<Option, 'unbeaten'>;

function optionOf(kind: WayKind, brief: Brief, wants: ReadonlyMap<string, PlanCell['want']>, like: Rig): Drawn {
  const { rig, refused } = drawWay(kind, brief, like);
  const planned = withPlan(rig, wants);
  const made = makeItSo(planned, evaluate(planned), EVALUATIONS_EACH);
  const done = applyEdit(planned, drawSettings(made.changes));
  const final = done.ok ? done.rig : planned;
  const name = (list: readonly { readonly id: string; readonly name: string }[], id: string) =>
    list.find((e) => e.id === id)!.name;
  const { pairs } = evaluate(final);
  const cannot = pairs.flatMap((p) =>
    p.verdict.word === 'missing'
      ? [`${name(final.listeners, p.listenerId)} does not hear ${name(final.sources, p.sourceId)}`]
      : p.verdict.word === 'unwanted'
        ? [`${name(final.listeners, p.listenerId)} hears ${name(final.sources, p.sourceId)}, and must not`]
        : [],
  );
  const { draw: _, ...told } = kind;
  const [freeIns, freeOuts] = freeEnds(final);
  return {
    kind: told,
    rig: final,
    figures: figuresFor(final),
    toBuyEur: toBuy(final, like),
    ...apartIn(final, pairs),
    freeIns,
    freeOuts,
    cannot: [...cannot, ...lacking(final, brief), ...refused],
  };
}

/** How many of the sources that a whole programme must have can be balanced by a level of their own. */
function apartIn(rig: Rig, pairs: readonly Pair[]): { apart: number; together: number } {
  const types = findTypes(rig);
  const roles = rolesOf(rig);
  const mix = rig.listeners.find(
    (l) => roles.listener(l) === 'mix' && findPort(rig, types, l.sound)?.does === 'stream',
  );
  const wanted = pairs.filter((p) => p.listenerId === mix?.id && p.want === 'must');
  const isLevel = (key: string) => {
    const [deviceId, settingId] = key.split('.') as [string, string];
    const spec = findSetting(rig, types, deviceId, settingId);
    return spec?.kind === 'gain' || spec?.kind === 'mute';
  };
  const levels = wanted.map((p) => new Set(p.ways.flatMap((w) => w.settings).filter(isLevel)));
  const apart = levels.filter((own, i) => [...own].some((key) => !levels.some((l, j) => j !== i && l.has(key)))).length;
  return { apart, together: wanted.length };
}

/** Listeners that the brief has and the way has not. */
function lacking(rig: Rig, brief: Brief): string[] {
  const own = briefOf(rig);
  return [
    ...(brief.backup && !own.backup ? ['nothing records beside the computer'] : []),
    ...(brief.room && !own.room ? ['nobody in the room hears anything'] : []),
    ...(own.voices < brief.voices ? ['one voice has no microphone'] : []),
    ...(brief.music && !own.music ? ['there is no music'] : []),
  ];
}

/** What is wanted, by what sources and listeners are: the strictest want of any such pair. */
function wantsOf(rig: Rig): Map<string, PlanCell['want']> {
  const roles = rolesOf(rig);
  const wants = new Map<string, PlanCell['want']>();
  for (const cell of rig.plan) {
    const source = rig.sources.find((s) => s.id === cell.sourceId);
    const listener = rig.listeners.find((l) => l.id === cell.listenerId);
    if (!source || !listener) continue;
    const key = keyOf(roles.source(source), roles.listener(listener), roles.isOwn(source, listener));
    if (cell.want === 'must' || !wants.has(key)) wants.set(key, cell.want);
  }
  return wants;
}

const keyOf = (source: SourceRole, listener: ListenerRole, own: boolean): string => `${source}>${listener}>${own}`;

/** The same wants on another rig; single tracks are left to whoever builds it. */
function withPlan(rig: Rig, wants: ReadonlyMap<string, PlanCell['want']>): Rig {
  const roles = rolesOf(rig);
  const edits = rig.listeners.flatMap((listener) =>
    rig.sources.flatMap((source): Edit[] => {
      const role = roles.listener(listener);
      const want =
        role === 'track' ? undefined : wants.get(keyOf(roles.source(source), role, roles.isOwn(source, listener)));
      const ids = { sourceId: source.id, listenerId: listener.id };
      return want ? [{ kind: 'set-plan', ...ids, cell: { ...ids, want } }] : [];
    }),
  );
  const done = applyEdit(rig, { kind: 'batch', edits });
  return done.ok ? done.rig : rig;
}

/** Boxes of a way that nobody owns yet, each owned one used once, and all its leads. */
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

/** How each way comes out by one's own weights, 0 (worst of all in everything) to 1: each measure as a share of its range over all ways. */
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
