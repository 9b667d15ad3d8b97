import type { Rig, SettingChange } from '#core/rig/index.ts';
import { type Evaluation, evaluate, type Stop, whereItStops } from '#core/signal/index.ts';
import { flipsFor, howlsOf, keyOf, type Wrong, withSettings, wrongsOf } from './flips.ts';

/** A setting to be changed, with what would be wrong again without it. */
export interface Made extends SettingChange {
  readonly mends: readonly Wrong[];
}

/** What could not be had by settings, and why. */
export interface Left extends Wrong {
  readonly stop: Stop | null;
}

export interface MadeSo {
  readonly changes: readonly Made[];
  readonly left: readonly Left[];
  /** No fewer changes would do: everything smaller was tried. */
  readonly proved: boolean;
  readonly evaluations: number;
}

/**
 * How widely and how long is searched; evaluations in all, so that it ends however large the rig is. What has to get
 * worse before it gets better is found by the wider beam.
 */
const BEAMS = [4, 32];
const DEEPEST = 16;
const MOST_EVALUATIONS = 2500;
const MOST_FOR_PROOF = 1500;
const TOUCHED_DB = 0.1;

interface State {
  readonly changes: readonly SettingChange[];
  readonly rig: Rig;
  readonly evaluation: Evaluation;
  readonly wrongs: readonly Wrong[];
}

/**
 * The fewest settings to be changed so that everything the plan says must arrive does, once, and nothing that must not,
 * with no loop that howls and did not before. A beam finds a way, each change of it is tried without, and a search in
 * order of the number of changes then looks for all that do with the fewest; where it ends, the answer is proved.
 * What no setting can bring is left out and told.
 */
export function makeItSo(rig: Rig, evaluation: Evaluation = evaluate(rig), mostEvaluations = MOST_EVALUATIONS): MadeSo {
  let evaluations = 0;
  const howled = howlsOf(evaluation);
  const hopeless = new Set(
    wrongsOf(evaluation)
      .filter((w) => w.word === 'missing' && stopOf(rig, evaluation, w)?.kind === 'no-way')
      .map(keyOf),
  );
  const look = (changes: readonly SettingChange[]): State | null => {
    evaluations++;
    const next = withSettings(rig, changes);
    const seen = evaluate(next);
    for (const howl of howlsOf(seen)) if (!howled.has(howl)) return null;
    return { changes, rig: next, evaluation: seen, wrongs: wrongsOf(seen).filter((w) => !hopeless.has(keyOf(w))) };
  };
  const start: State = {
    changes: [],
    rig,
    evaluation,
    wrongs: wrongsOf(evaluation).filter((w) => !hopeless.has(keyOf(w))),
  };
  const budget = { left: () => mostEvaluations - evaluations };
  let widest = start;
  for (const width of BEAMS) {
    const reached = beam(start, look, budget, width);
    if (better(reached, widest) < 0) widest = reached;
    if (widest.wrongs.length === 0) break;
  }
  const found = trimmed(widest, look);
  const searched =
    found.wrongs.length === 0
      ? fewest(start, found.changes.length, look, Math.min(MOST_FOR_PROOF, mostEvaluations))
      : null;
  const best = searched?.state ?? found;
  return {
    changes: best.changes.map((change) => ({ ...change, mends: mendsOf(best, change, look) })),
    left: wrongsOf(best.evaluation).map((w) => ({ ...w, stop: stopOf(best.rig, best.evaluation, w) })),
    proved: searched?.proved ?? false,
    evaluations,
  };
}

type LookAt = (changes: readonly SettingChange[]) => State | null;

function stopOf(rig: Rig, evaluation: Evaluation, { sourceId, listenerId, word }: Wrong): Stop | null {
  if (word !== 'missing') return null;
  const source = rig.sources.find((s) => s.id === sourceId)!;
  const listener = rig.listeners.find((l) => l.id === listenerId)!;
  return whereItStops(evaluation.graph, source.sound, listener.sound);
}

const settingKey = ({ deviceId, settingId }: SettingChange): string => `${deviceId}.${settingId}`;
const changesKey = (changes: readonly SettingChange[]): string =>
  changes
    .map((c) => `${settingKey(c)}=${c.value}`)
    .sort()
    .join();

/** The changes and these; null where one of them was changed already: nothing is turned to and fro. */
function joined(changes: readonly SettingChange[], more: readonly SettingChange[]): SettingChange[] | null {
  const known = new Set(changes.map(settingKey));
  return more.some((c) => known.has(settingKey(c))) ? null : [...changes, ...more];
}

/** Fewest wrongs first, then fewest changes. */
const better = (a: State, b: State): number => a.wrongs.length - b.wrongs.length || a.changes.length - b.changes.length;

function beam(start: State, look: LookAt, budget: { left: () => number }, width: number): State {
  let best = start;
  let front = [start];
  const met = new Set<string>();
  for (let depth = 0; depth < DEEPEST && best.wrongs.length > 0; depth++) {
    const next: State[] = [];
    for (const state of front) {
      const groups = new Map(
        state.wrongs
          .flatMap((w) => flipsFor(state.rig, state.evaluation, w))
          .map((group) => [changesKey(group), group] as const),
      );
      for (const group of groups.values()) {
        const changes = joined(state.changes, group);
        const key = changes && changesKey(changes);
        if (!changes || met.has(key!) || budget.left() <= 0) continue;
        met.add(key!);
        const seen = look(changes);
        // Only the best are kept while one looks: a state holds a whole evaluation.
        if (seen) keepBest(next, seen, width);
      }
    }
    if (next.length === 0) break;
    front = next;
    if (better(front[0]!, best) < 0) best = front[0]!;
  }
  return best;
}

function keepBest(states: State[], state: State, width: number): void {
  const at = states.findIndex((s) => better(state, s) < 0);
  states.splice(at < 0 ? states.length : at, 0, state);
  if (states.length > width) states.pop();
}

/** Without every change that is not needed for what was reached. */
function trimmed(state: State, look: LookAt): State {
  let now = state;
  for (const change of state.changes) {
    const without = look(now.changes.filter((c) => c !== change));
    if (without && without.wrongs.length <= now.wrongs.length) now = without;
  }
  return now;
}

interface Searched {
  readonly state: State | null;
  /** Everything with fewer changes was tried, and nothing of it does. */
  readonly proved: boolean;
}

/**
 * All solutions with the fewest changes, up to so many, in order of their number; of them the one that alters least of
 * what is heard. Ends early where it would take too long.
 */
function fewest(start: State, upTo: number, look: LookAt, mostTried: number): Searched {
  let tried = 0;
  for (let most = 1; most <= upTo; most++) {
    const met = new Set<string>();
    let best: State | null = null;
    const search = (state: State): void => {
      if (state.wrongs.length === 0 && (!best || touched(start, state) < touched(start, best))) best = state;
      if (state.wrongs.length === 0 || state.changes.length >= most) return;
      // The wrong that leaves least to choose from: one of its groups has to be in any solution.
      const choices = state.wrongs
        .map((w) => flipsFor(state.rig, state.evaluation, w))
        .reduce((least, groups) => (groups.length < least.length ? groups : least));
      for (const group of choices) {
        const changes = joined(state.changes, group);
        if (!changes || changes.length > most || met.has(changesKey(changes))) continue;
        met.add(changesKey(changes));
        if (++tried > mostTried) return;
        const seen = look(changes);
        if (seen) search(seen);
      }
    };
    search(start);
    if (best) return { state: best, proved: true };
    if (tried > mostTried) return { state: null, proved: most >= upTo };
  }
  return { state: null, proved: true };
}

/** How many pairs are heard at another level, or not any more: of two ways to the same end, the one that touches less. */
function touched(before: State, after: State): number {
  const levelOf = ({ ways }: Evaluation['pairs'][number]) => ways[0]?.levelDb.nominal ?? Number.NEGATIVE_INFINITY;
  return before.evaluation.pairs.filter((pair, i) => {
    const [was, is] = [levelOf(pair), levelOf(after.evaluation.pairs[i]!)];
    return was !== is && !(Math.abs(was - is) <= TOUCHED_DB);
  }).length;
}

/** What is wrong again without one of the changes. */
function mendsOf(state: State, change: SettingChange, look: LookAt): Wrong[] {
  const without = look(state.changes.filter((c) => c !== change));
  const now = new Set(state.wrongs.map(keyOf));
  return (without?.wrongs ?? []).filter((w) => !now.has(keyOf(w)));
}
