import {
  listenerIn,
  type Rig,
  type SettingChange,
  type SettingKey,
  settingKey,
  sourceIn,
} from '#core/model/rig/index.ts';
import { type Evaluation, evaluate, type Stop, whereItStops } from '#core/signal/index.ts';
import { type Flip, flipsFor, reachFrom, withSettings } from './flips.ts';
import { type Cost, priceOfOutcome, totalOf, turningPrices } from './price.ts';
import { howlsOf, keptApart, keyOf, levelsWrong, spoiled, type Wrong, wrongsOf } from './wrongs.ts';

/**
 * How widely and how long is searched; rigs in all, so that it ends however large the desk is. What has to get worse
 * before it gets better is found by the wider beam.
 */
const BEAMS = [2, 8, 32];
const MAX_DEPTH = 16;
const MAX_FOR_PROOF = 1500;
const MAX_BEYOND = 60;

/** One set of changes, looked at. Of the evaluation only what the search needs is kept: a large desk's is large. */
export interface Seen {
  readonly changes: readonly SettingChange[];
  readonly wrongs: readonly Wrong[];
  /** Cost of its settings by themselves, and with their side effects. */
  readonly turning: number;
  /** Null until someone asks: most sets are no answer. */
  total: number | null;
  /** Of every wrong, the groups one of which has to be changed for it. */
  readonly flips: readonly (readonly Flip[])[];
}

/** Where what is missing stops; null for what is wrong otherwise. */
export function stopOf(rig: Rig, evaluation: Evaluation, { sourceId, listenerId, word }: Wrong): Stop | null {
  if (word !== 'missing') return null;
  const source = sourceIn(rig, sourceId);
  const listener = listenerIn(rig, listenerId);
  return whereItStops(evaluation.graph, source.sound, listener.sound);
}

const changeKey = ({ deviceId, settingId }: SettingChange): SettingKey => settingKey(deviceId, settingId);
const changesKey = (changes: readonly SettingChange[]): string =>
  changes
    .map((c) => `${changeKey(c)}=${c.value}`)
    .sort()
    .join();

const pairOf = ({ sourceId, listenerId }: Wrong): string => `${sourceId}>${listenerId}`;

/** The changes and these; null where one of them was changed already: nothing is turned to and fro. */
function joined(changes: readonly SettingChange[], more: readonly SettingChange[]): SettingChange[] | null {
  const known = new Set(changes.map(changeKey));
  return more.some((c) => known.has(changeKey(c))) ? null : [...changes, ...more];
}

/** Fewest wrongs first, then what costs least as far as that is known, then fewest changes. */
export const better = (a: Seen, b: Seen): number =>
  a.wrongs.length - b.wrongs.length ||
  (a.total ?? a.turning) - (b.total ?? b.turning) ||
  a.changes.length - b.changes.length;

/** Of all wrongs, the groups of the one that leaves least to choose from: one of them is in any set that does. */
const fewest = (flips: Seen['flips']): readonly Flip[] =>
  flips.reduce<readonly Flip[] | null>((least, f) => (least && least.length <= f.length ? least : f), null) ?? [];

/** What a setting is changed for. */
export interface Need {
  /** What would be wrong again without it. */
  readonly mends: readonly Wrong[];
  /** Without it a loop howls. */
  readonly againstHowl: boolean;
}

/** Another set that would do as well, and what it costs. */
export interface Second {
  readonly changes: readonly SettingChange[];
  readonly costs: readonly Cost[];
}

interface Must {
  readonly source: Rig['sources'][number];
  readonly listener: Rig['listeners'][number];
  /** Of its being missing. */
  readonly key: string;
}

/** All that is looked at for one rig: each set of settings once. */
export class Search {
  looked: number;
  proved = false;
  private readonly known = new Map<string, Seen | null>();
  private readonly howled: ReadonlySet<string>;
  private readonly kept: ReadonlySet<string>;
  private readonly hopeless: ReadonlySet<string>;
  /** Pairs that were wrong to begin with. */
  private readonly wrongBefore: ReadonlySet<string>;
  private readonly pricesOf: ReturnType<typeof turningPrices>;
  /** How far from where it is heard each setting was met, at the least. */
  private readonly away = new Map<string, number>();
  private readonly rig: Rig;
  private readonly evaluation: Evaluation;
  /** What must come, and can. */
  private readonly musts: readonly Must[];
  private readonly most: number;
  private readonly levels: boolean;

  constructor(rig: Rig, evaluation: Evaluation, most: number, levels: boolean, looked = 0) {
    this.rig = rig;
    this.evaluation = evaluation;
    this.most = most;
    this.levels = levels;
    this.looked = looked;
    this.howled = howlsOf(evaluation);
    this.kept = keptApart(rig, evaluation);
    this.wrongBefore = new Set(wrongsOf(evaluation).map(pairOf));
    this.pricesOf = turningPrices(rig);
    this.musts = rig.plan
      .filter((c) => c.want === 'must')
      .map(({ sourceId, listenerId }) => ({
        source: sourceIn(rig, sourceId),
        listener: listenerIn(rig, listenerId),
        key: keyOf({ sourceId, listenerId, word: 'missing' }),
      }));
    this.hopeless = new Set(
      wrongsOf(evaluation)
        .filter((w) => w.word === 'missing' && stopOf(rig, evaluation, w)?.kind === 'no-way')
        .map(keyOf),
    );
  }

  /** The best set of settings that is found, and whether it is proved. */
  run(): Seen {
    const start = this.look([])!;
    let widest = start;
    for (const width of BEAMS) {
      const reached = this.beam(start, width);
      if (better(reached, widest) < 0) widest = reached;
      if (widest.wrongs.length === 0) break;
    }
    const found = this.trimmed(widest);
    // What was not to be had is given up, and the rest of it tried for what costs least.
    const givenUp = new Set(found.wrongs.map(keyOf));
    const searched = this.cheapest(start, found, givenUp);
    this.proved = searched.proved && givenUp.size === 0;
    return better(searched.best, found) < 0 ? searched.best : found;
  }

  /** One set of changes on the rig; null where it makes something howl. */
  private look(changes: readonly SettingChange[]): Seen | null {
    const key = changesKey(changes);
    const before = this.known.get(key);
    if (before !== undefined) return before;
    const seen = this.lookAt(changes);
    this.known.set(key, seen);
    return seen;
  }

  private lookAt(changes: readonly SettingChange[]): Seen | null {
    this.looked++;
    const rig = withSettings(this.rig, changes);
    const evaluation = changes.length === 0 ? this.evaluation : evaluate(rig, this.evaluation);
    for (const howl of howlsOf(evaluation)) if (!this.howled.has(howl)) return null;
    const wrongs = [...wrongsOf(evaluation, this.kept), ...spoiled(rig, evaluation, this.evaluation)].filter(
      (w) => !this.hopeless.has(keyOf(w)),
    );
    const flips = wrongs.map((w) => flipsFor(rig, evaluation, w, this.levels));
    for (const { changes: own, away } of flips.flat())
      for (const c of own) {
        const key = `${changeKey(c)}=${c.value}`;
        this.away.set(key, Math.min(away, this.away.get(key) ?? Number.POSITIVE_INFINITY));
      }
    const seen: Seen = { changes, wrongs, turning: totalOf(this.turningOf(changes)), total: null, flips };
    if (wrongs.length === 0) this.priced(seen, evaluation);
    return seen;
  }

  /** A set with its side effects in its price. */
  private priced(seen: Seen, evaluation = evaluate(withSettings(this.rig, seen.changes), this.evaluation)): Seen {
    seen.total ??= seen.turning + totalOf(priceOfOutcome(this.rig, this.evaluation, evaluation));
    return seen;
  }

  /**
   * Whether someone goes without what must come, whatever is turned of the levels: by the open ways alone, which costs
   * less than to look at what sounds. Nothing may be missing of what no larger set is tried for.
   */
  private lacks(changes: readonly SettingChange[], givenUp: ReadonlySet<string>): boolean {
    const { graph } = evaluate(withSettings(this.rig, changes), this.evaluation);
    const reached = new Map<string, Uint8Array>();
    return this.musts.some(({ source, listener, key }) => {
      if (givenUp.has(key) || this.hopeless.has(key)) return false;
      let met = reached.get(source.id);
      if (!met) {
        met = reachFrom(graph, graph.nodesOf(source.sound));
        reached.set(source.id, met);
      }
      return !graph.nodesOf(listener.sound).some((node) => met[node]);
    });
  }

  private turningOf(changes: readonly SettingChange[]): Cost[] {
    return changes.flatMap((c) => this.pricesOf(c, this.away.get(`${changeKey(c)}=${c.value}`) ?? 0));
  }

  costsOf(changes: readonly SettingChange[], after: Evaluation): Cost[] {
    return [...this.turningOf(changes), ...priceOfOutcome(this.rig, this.evaluation, after)];
  }

  private beam(start: Seen, width: number): Seen {
    let best = start;
    let front = [start];
    const met = new Set<string>();
    for (let depth = 0; depth < MAX_DEPTH && best.wrongs.length > 0; depth++) {
      const next: Seen[] = [];
      for (const state of front)
        for (const { changes: group } of fewest(state.flips.filter((f) => f.length > 0))) {
          const changes = joined(state.changes, group);
          const key = changes && changesKey(changes);
          if (!changes || met.has(key!) || this.looked >= this.most) continue;
          met.add(key!);
          const seen = this.look(changes);
          if (seen) next.push(seen);
        }
      if (next.length === 0) break;
      for (const seen of next) if (this.isFair(seen) && better(seen, best) < 0) best = seen;
      front = next.sort(better).slice(0, width);
    }
    return best;
  }

  /** Without every change that is not needed for what was reached. */
  private trimmed(state: Seen): Seen {
    for (const change of state.changes) {
      const without = this.look(state.changes.filter((c) => c !== change));
      if (without && this.isFair(without) && without.wrongs.length <= state.wrongs.length) return this.trimmed(without);
    }
    return state;
  }

  /** Nothing that was right is wrong now, however much else is mended. */
  private isFair({ wrongs }: Seen): boolean {
    return wrongs.every((w) => this.wrongBefore.has(pairOf(w)));
  }

  /**
   * All sets of up to as many settings as one that was found, in order of their number; of those that do, the one that
   * costs least. A set that costs more by its settings alone than one that was found cannot be it, nor any larger one.
   * Sets of one setting more are tried as far as a few looks go: two gentle ones may cost less than a rough one.
   */
  private cheapest(start: Seen, found: Seen, givenUp: ReadonlySet<string>): { best: Seen; proved: boolean } {
    const done = (state: Seen): boolean => state.wrongs.every((w) => givenUp.has(keyOf(w)));
    const sizes = found.changes.length;
    let end = Math.min(this.most, this.looked + MAX_FOR_PROOF);
    let best = this.priced(found);
    let front = [start];
    const met = new Set<string>();
    for (let size = 1; front.length > 0; size++) {
      if (size > sizes) end = Math.min(end, this.looked + MAX_BEYOND);
      const next: Seen[] = [];
      for (const state of front) {
        if (done(state)) continue;
        for (const changes of this.larger(state, givenUp)) {
          const key = changesKey(changes);
          if (met.has(key) || changes.length > sizes + 1) continue;
          met.add(key);
          if (totalOf(this.turningOf(changes)) >= best.total!) continue;
          if (this.looked >= end && !this.known.has(key)) return { best, proved: size > sizes };
          if (changes.length >= sizes && !this.known.has(key) && this.lacks(changes, givenUp)) {
            this.looked++;
            continue;
          }
          const seen = this.look(changes);
          if (!seen) continue;
          next.push(seen);
          if (!done(seen) || !this.isFair(seen)) continue;
          const lean = this.trimmed(seen);
          if (better(this.priced(lean), best) < 0) best = lean;
        }
      }
      front = next;
    }
    return { best, proved: true };
  }

  /** Larger sets, one of which is in any that does. */
  private larger(state: Seen, givenUp: ReadonlySet<string>): SettingChange[][] {
    const open = state.flips.filter((_, i) => !givenUp.has(keyOf(state.wrongs[i]!)));
    return fewest(open).flatMap(({ changes: group }) => {
      const changes = joined(state.changes, group);
      return changes ? [changes] : [];
    });
  }

  /** With levels turned to where they are wanted under the voice, one after another; nothing else gets wrong by it. */
  balanced(state: Seen): Seen {
    let now = state;
    for (let round = 0; round < MAX_DEPTH; round++) {
      const rig = withSettings(this.rig, now.changes);
      const seen = evaluate(rig, this.evaluation);
      const off = levelsWrong(seen);
      const tries = off
        .flatMap((w) => flipsFor(rig, seen, w))
        .flatMap(({ changes: [change] }) => {
          const rest = now.changes.filter((c) => changeKey(c) !== changeKey(change!));
          const next = this.looked < this.most ? this.look([...rest, change!]) : null;
          if (!next || !this.isFair(next) || next.wrongs.length > now.wrongs.length) return [];
          const after = evaluate(withSettings(this.rig, next.changes), this.evaluation);
          return levelsWrong(after).length < off.length ? [{ next, left: levelsWrong(after).length }] : [];
        })
        .sort((a, b) => a.left - b.left || better(a.next, b.next));
      if (tries.length === 0) return now;
      now = tries[0]!.next;
    }
    return now;
  }

  /** What is wrong again without one of the changes. */
  needOf(state: Seen, change: SettingChange): Need {
    const changes = state.changes.filter((c) => c !== change);
    const without = this.look(changes);
    if (!without) return { mends: [], againstHowl: true };
    const now = new Set(state.wrongs.map(keyOf));
    const again = without.wrongs.filter((w) => !now.has(keyOf(w)));
    if (again.length > 0) return { mends: again, againstHowl: false };
    const levels = (of: readonly SettingChange[]) => levelsWrong(evaluate(withSettings(this.rig, of), this.evaluation));
    const still = new Set(levels(state.changes).map(keyOf));
    return { mends: levels(changes).filter((w) => !still.has(keyOf(w))), againstHowl: false };
  }

  /** The cheapest other set that was found, leaves no more wrong, and needs every one of its settings. */
  second(best: Seen): Second | null {
    const key = changesKey(best.changes);
    const own = new Set(best.changes.map((c) => changesKey([c])));
    const others = [...this.known.values()]
      .filter(
        (s): s is Seen =>
          s !== null && this.isFair(s) && s.wrongs.length <= best.wrongs.length && changesKey(s.changes) !== key,
      )
      // More of the same is no other way.
      .filter((s) => s.changes.length > 0 && !isWithin(own, s.changes))
      .sort(better);
    for (const other of others.slice(0, MAX_SECONDS)) {
      const lean = this.trimmed(other);
      if (lean.changes.length !== other.changes.length) continue;
      const after = evaluate(withSettings(this.rig, other.changes), this.evaluation);
      return { changes: other.changes, costs: this.costsOf(other.changes, after) };
    }
    return null;
  }
}

const MAX_SECONDS = 8;

const isWithin = (own: ReadonlySet<string>, changes: readonly SettingChange[]): boolean => {
  const all = new Set(changes.map((c) => changesKey([c])));
  return [...own].every((c) => all.has(c));
};
