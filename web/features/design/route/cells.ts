import type { Rig } from '#core/model/rig/index.ts';
import type { Evaluation, Pair, State } from '#core/signal/index.ts';
import { route as say } from '#words/index.ts';

/** One source at one destination, as shown in the table. */
export interface Cell {
  readonly pair: Pair;
  readonly state: State;
  readonly word: string;
}

const WORDS: Record<Pair['verdict']['word'], string> = {
  'in-time': say.arrives(),
  late: say.late(),
  early: say.early(),
  'perhaps-late': say.possiblyLate(),
  'perhaps-early': say.possiblyEarly(),
  'perhaps-either': say.possiblyLateOrEarly(),
  twice: say.twice(),
  'too-loud': say.tooLoud(),
  'too-quiet': say.tooQuiet(),
  'not-alone': say.notAlone(),
  'once-done': say.onceDone(),
  missing: say.missing(),
  unwanted: say.shouldNotArrive(),
  'no-picture': say.arrives(),
  'not-heard': '',
};

const cells = new WeakMap<Pair, Cell>();
function cellOf(pair: Pair): Cell {
  const known = cells.get(pair);
  if (known) return known;
  const cell = { pair, state: stateOf(pair), word: wordOf(pair) };
  cells.set(pair, cell);
  return cell;
}

/** Rows that were made last, by their first cell: a row of the same cells is the same row. */
const rows = new WeakMap<Cell, readonly Cell[]>();
function rowOf(made: readonly Cell[]): readonly Cell[] {
  const [first] = made;
  const before = first && rows.get(first);
  if (before?.length === made.length && before.every((c, i) => c === made[i])) return before;
  if (first) rows.set(first, made);
  return made;
}

/** The whole table, row by row: sources in their order, each with every listener. */
export function cellsOf(rig: Rig, { pairs }: Evaluation): (readonly Cell[])[] {
  // Pairs come listener by listener, in the order of both.
  const count = rig.sources.length;
  return rig.sources.map((_, s) => rowOf(rig.listeners.map((_, l) => cellOf(pairs[l * count + s]!))));
}

/** What is as wanted is good; what no one wants or forbids is not judged by being there. */
function stateOf({ want, verdict, ways }: Pair): State {
  if (verdict.word === 'not-heard') return want === 'must-not' ? 'good' : 'none';
  if (verdict.state === 'none' && ways.length > 0) return want === null ? 'none' : 'good';
  return verdict.state;
}

const wordOf = ({ want, verdict }: Pair): string =>
  verdict.word === 'not-heard' && want === 'must-not' ? say.keptOut() : WORDS[verdict.word];

export const isWrong = ({ state }: Cell): boolean => state === 'stop' || state === 'fix' || state === 'watch';

/** The rows and columns that hold something wrong; all of them where nothing is. */
export function wrongOnly(cells: readonly (readonly Cell[])[]): { rows: number[]; columns: number[] } {
  const rows = cells.flatMap((row, r) => (row.some(isWrong) ? [r] : []));
  const columns = (cells[0] ?? []).flatMap((_, c) => (cells.some((row) => isWrong(row[c]!)) ? [c] : []));
  return { rows, columns };
}
