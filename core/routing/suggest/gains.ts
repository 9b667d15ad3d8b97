import {
  changesOf,
  findDevice,
  hasUnity,
  type Rig,
  type SettingChange,
  settingKey,
  settingOf,
  tryOn,
} from '#core/model/rig/index.ts';
import { powerFromDb } from '#core/model/units/index.ts';
import {
  CREST_DB,
  type Evaluation,
  evaluate,
  type Ladder,
  ladderOf,
  mainVoiceOf,
  type Pair,
  type Rung,
  type RungSetting,
  type Scale,
} from '#core/signal/index.ts';

/** Another source or listener whose level moves along. */
interface Moved {
  readonly sourceId: string;
  readonly listenerId: string;
  readonly byDb: number;
  /** From its usual peaks to the nearest ceiling, afterwards. */
  readonly headroomDb: number | null;
}

export interface GainsFound {
  readonly changes: readonly SettingChange[];
  /** Target and result at the destination, in the scale of that place. */
  readonly aimDb: number;
  readonly endDb: number;
  readonly snrBeforeDb: number | null;
  readonly snrDb: number | null;
  /** What is left to the ceilings on the way, over the usual peaks; null where nothing clips. */
  readonly headroomDb: number | null;
  readonly met: boolean;
  /** Knobs on the way that were left as they are, since others hang on them or someone holds them. */
  readonly held: readonly RungSetting[];
  readonly moved: readonly Moved[];
}

/** Averages of a voice at the places that people set gains for (typical): 0 VU for lines, peaks from -12 to -6 dBFS, talking at one meter. */
const AIM_DB: Record<Scale, number> = { dbfs: -20, dbu: 4, spl: 74 };
/** Headroom over the usual peaks: wanted, and what is taken where that cannot be. */
const HEADROOM_DB = [8, 6, 3, 0, Number.NEGATIVE_INFINITY];
/** A target is met within this, dB; gain steps are 1 dB at most. */
const MET_DB = 1;
const NEAR_DB = 0.5;
/** A headphone output is turned up to half its travel at most, where it feeds anything. */
const PHONES_UNDER_MAXIMUM_DB = 15;
/** What convenience (unity, leaving as it is) may cost in noise power, over all knobs together: 0.04 dB. */
const CONVENIENCE = 0.01;
const MOVED_DB = 0.5;

/** The ladder of a pair's loudest way; null where nothing arrives. */
export function ladderFor(rig: Rig, evaluation: Evaluation, pair: Pair | undefined): Ladder | null {
  const way = pair?.ways[0];
  return way ? ladderOf(rig, evaluation.graph, evaluation.noiseDb, way.arrival) : null;
}

/** Target of a source at a destination: relative to the main voice as planned, else the usual level of the scale. */
export function aimOf(rig: Rig, evaluation: Evaluation, pair: Pair): number {
  const scale = pair.ways[0]?.scale ?? 'dbfs';
  const cell = rig.plan.find((c) => c.sourceId === pair.sourceId && c.listenerId === pair.listenerId);
  const voiceId = mainVoiceOf(rig);
  const voice = evaluation.pairs.find((p) => p.sourceId === voiceId && p.listenerId === pair.listenerId)?.ways[0];
  if (pair.sourceId !== voiceId && voice && cell?.underVoiceDb !== undefined)
    return voice.levelDb.nominal - cell.underVoiceDb;
  return AIM_DB[scale];
}

/**
 * Settings on the way from a source to a listener that bring it to its aim with the least noise, as much headroom as is
 * wanted at every stage, and every knob within what it can do: a search over all of them, stage by stage, exact up to
 * the steps of the controls. Gain comes early, since noise added after it counts less; what doesn't matter is at unity or unchanged.
 * Knobs that other sources hang on are left alone unless the aim cannot be met without them.
 * @param held  `device.setting` of knobs that are not to be touched
 */
export function setTheGains(
  rig: Rig,
  evaluation: Evaluation,
  {
    sourceId,
    listenerId,
    aimDb,
    held = [],
  }: { sourceId: string; listenerId: string; aimDb?: number; held?: readonly string[] },
): GainsFound | null {
  const pair = evaluation.pairs.find((p) => p.sourceId === sourceId && p.listenerId === listenerId);
  const ladder = ladderFor(rig, evaluation, pair);
  if (!pair || !ladder) return null;
  const aim = aimDb ?? aimOf(rig, evaluation, pair);
  const shared = new Set(
    evaluation.pairs
      .filter((p) => p.sourceId !== sourceId && (p.want === 'must' || p.want === 'may'))
      .flatMap((p) => p.ways[0]?.settings ?? []),
  );
  const all = ladder.rungs.flatMap((r) => (r.setting ? [r.setting] : [])).filter((s) => !held.includes(keyOf(s)));
  const own = all.filter((s) => !shared.has(keyOf(s)));
  const results = (own.length < all.length ? [own, all] : [all]).map((free) =>
    outcome(rig, evaluation, pair, ladder, aim, free),
  );
  const good = results.find((r) => r.met && !harms(r));
  return good ?? results.reduce((a, b) => (Math.abs(b.endDb - aim) < Math.abs(a.endDb - aim) - NEAR_DB ? b : a));
}

const keyOf = ({ deviceId, spec }: RungSetting): string => settingKey(deviceId, spec.id);
const harms = ({ moved }: GainsFound): boolean => moved.some((m) => m.headroomDb !== null && m.headroomDb < 0);

function outcome(
  rig: Rig,
  evaluation: Evaluation,
  pair: Pair,
  ladder: Ladder,
  aimDb: number,
  free: readonly RungSetting[],
): GainsFound {
  const values = search(rig, ladder.rungs, aimDb, new Set(free.map(keyOf)));
  const trial = Object.fromEntries(values);
  const tried = tryOn(rig, trial);
  const after = tried === rig ? evaluation : evaluate(tried);
  const own = after.pairs.find((p) => p.sourceId === pair.sourceId && p.listenerId === pair.listenerId)!;
  const reached = ladderFor(tried, after, own) ?? ladder;
  const last = reached.rungs.at(-1)!;
  const endDb = last.levelDb.nominal;
  const tightest = reached.rungs[reached.tightest];
  return {
    changes: changesOf(rig, trial),
    aimDb,
    endDb,
    snrBeforeDb: ladder.rungs.at(-1)!.snrDb,
    snrDb: last.snrDb,
    headroomDb: tightest?.headroomDb ?? null,
    met: Math.abs(endDb - aimDb) <= MET_DB,
    held: ladder.rungs.flatMap((r) => (r.setting && !free.includes(r.setting) ? [r.setting] : [])),
    moved: movedBy(evaluation, after, pair),
  };
}

function movedBy(before: Evaluation, after: Evaluation, pair: Pair): Moved[] {
  return before.pairs.flatMap((p, i): Moved[] => {
    const [was, is] = [p.ways[0], after.pairs[i]?.ways[0]];
    const itself = p.sourceId === pair.sourceId && p.listenerId === pair.listenerId;
    if (itself || !was || !is || (p.want !== 'must' && p.want !== 'may')) return [];
    const byDb = is.levelDb.nominal - was.levelDb.nominal;
    if (Math.abs(byDb) < MOVED_DB) return [];
    const headroomDb = is.headroomDb === null ? null : is.headroomDb - CREST_DB.nominal;
    return [{ sourceId: p.sourceId, listenerId: p.listenerId, byDb, headroomDb }];
  });
}

interface State {
  /** Total gain so far, dB. */
  readonly cumDb: number;
  /** Noise so far, referred to the source; and the cost of departing from unity. */
  readonly noise: number;
  readonly cost: number;
  readonly from: State | null;
  readonly set: readonly [key: string, value: number] | null;
}

/** The best values of the free knobs; none where nothing is free. */
function search(rig: Rig, rungs: readonly Rung[], aimDb: number, free: ReadonlySet<string>): [string, number][] {
  let best: State | null = null;
  let off = Number.POSITIVE_INFINITY;
  for (const headroomDb of HEADROOM_DB) {
    const bare = nearest(walk(rig, rungs, free, headroomDb, 0, 0), rungs, aimDb);
    if (!bare) continue;
    // The least noise is known: what is convenient is chosen among what is as good.
    const found = nearest(
      walk(rig, rungs, free, headroomDb, bare.noise, CONVENIENCE / Math.max(1, free.size)),
      rungs,
      aimDb,
    )!;
    const far = Math.abs(rungs[0]!.levelDb.nominal + found.cumDb - aimDb);
    if (far < off - NEAR_DB) [best, off] = [found, far];
    if (off <= MET_DB) break;
  }
  const set: [string, number][] = [];
  for (let at = best; at; at = at.from) if (at.set) set.push([...at.set]);
  return set.reverse();
}

/** Of all ends, those as near to the aim as any, within half a decibel; of those the one that costs least. */
function nearest(ends: readonly State[], rungs: readonly Rung[], aimDb: number): State | null {
  const off = (s: State) => Math.abs(rungs[0]!.levelDb.nominal + s.cumDb - aimDb);
  const least = Math.max(NEAR_DB, Math.min(...ends.map(off)) + 1e-6);
  const near = ends.filter((s) => off(s) <= least);
  return near.length > 0 ? near.reduce((a, b) => (b.cost < a.cost ? b : a)) : null;
}

function walk(
  rig: Rig,
  rungs: readonly Rung[],
  free: ReadonlySet<string>,
  headroomDb: number,
  leastNoise: number,
  convenience: number,
): State[] {
  const startDb = rungs[0]!.levelDb.nominal;
  const scale = leastNoise > 0 ? 1 / leastNoise : 1;
  const own = ownNoises(rungs);
  let states: State[] = [{ cumDb: 0, noise: own[0]!, cost: own[0]! * scale, from: null, set: null }];
  for (let i = 1; i < rungs.length; i++) {
    const rung = rungs[i]!;
    const options = optionsOf(rig, rung, free);
    const next = new Map<number, State>();
    for (const state of states) {
      for (const { gainDb, trouble, set } of options) {
        const cumDb = state.cumDb + gainDb;
        if (rung.ceilingDb !== null && startDb + cumDb + CREST_DB.nominal + headroomDb > rung.ceilingDb + 1e-9)
          continue;
        const added = own[i]! * powerFromDb(-cumDb);
        const cost = state.cost + added * scale + convenience * trouble;
        const key = Math.round(cumDb * 100);
        const known = next.get(key);
        if (!known || cost < known.cost) next.set(key, { cumDb, noise: state.noise + added, cost, from: state, set });
      }
    }
    states = [...next.values()];
  }
  return states;
}

/** What each rung itself adds to the noise, at its own end. */
const ownNoises = (rungs: readonly Rung[]): number[] =>
  rungs.map((r, i) => {
    const here = r.noiseDb === null ? 0 : powerFromDb(r.noiseDb);
    const before = i === 0 ? null : rungs[i - 1]!.noiseDb;
    return Math.max(0, here - (before === null ? 0 : powerFromDb(before + r.gainDb)));
  });

interface Option {
  readonly gainDb: number;
  readonly trouble: number;
  readonly set: readonly [string, number] | null;
}

function optionsOf(rig: Rig, { setting, gainDb, phones }: Rung, free: ReadonlySet<string>): Option[] {
  if (!setting || !free.has(keyOf(setting))) return [{ gainDb, trouble: 0, set: null }];
  const { spec, deviceId } = setting;
  const now = settingOf(findDevice(rig, deviceId)!, spec).value as number;
  const most = phones ? Math.max(spec.min, Math.min(spec.max, spec.max - PHONES_UNDER_MAXIMUM_DB)) : spec.max;
  const options: Option[] = [];
  const range = spec.max - spec.min || 1;
  for (let n = spec.offAtMin ? 1 : 0; spec.min + n * spec.step <= most + 1e-9; n++) {
    const value = Number((spec.min + n * spec.step).toFixed(6));
    const trouble = hasUnity(spec)
      ? Math.abs(value) / range
      : value === now
        ? 0
        : 0.2 + (0.8 * Math.abs(value - now)) / range;
    options.push({ gainDb: value, trouble, set: [keyOf(setting), value] });
  }
  return options;
}
