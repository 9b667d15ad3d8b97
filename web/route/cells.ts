import type { PlanCell, Rig } from '#core/rig/index.ts';
import type { Evaluation, Pair, State } from '#core/signal/index.ts';

/** One source at one listener, as the table tells it. */
export interface Cell {
  readonly pair: Pair;
  readonly state: State;
  readonly word: string;
}

const WORDS: Record<Pair['verdict']['word'], string> = {
  'in-time': 'heard',
  late: 'late',
  early: 'early',
  'perhaps-late': 'perhaps late',
  'perhaps-early': 'perhaps early',
  'perhaps-either': 'perhaps late or early',
  twice: 'twice',
  'too-loud': 'too loud',
  'too-quiet': 'too quiet',
  'once-done': 'once it is done',
  missing: 'missing',
  unwanted: 'not wanted',
  'no-picture': 'heard',
  'not-heard': '',
};

/** The whole table, row by row: sources in their order, each with every listener. */
export function cellsOf(rig: Rig, { pairs }: Evaluation): Cell[][] {
  const byPlace = new Map(pairs.map((p) => [`${p.sourceId}>${p.listenerId}`, p]));
  return rig.sources.map((source) =>
    rig.listeners.map((listener) => {
      const pair = byPlace.get(`${source.id}>${listener.id}`)!;
      return {
        pair,
        state: stateOf(pair),
        word: wordOf(pair),
      };
    }),
  );
}

/** What is as wanted is good; what nobody wants or forbids is not judged by being there. */
function stateOf({ want, verdict, ways }: Pair): State {
  if (verdict.word === 'not-heard') return want === 'must-not' ? 'good' : 'none';
  if (verdict.state === 'none' && ways.length > 0) return want === null ? 'none' : 'good';
  return verdict.state;
}

const wordOf = ({ want, verdict }: Pair): string =>
  verdict.word === 'not-heard' && want === 'must-not' ? 'kept out' : WORDS[verdict.word];

export const isWrong = ({ state }: Cell): boolean => state === 'stop' || state === 'fix' || state === 'watch';

/** The rows and columns that hold something wrong; all of them where nothing is. */
export function wrongOnly(cells: readonly (readonly Cell[])[]): { rows: number[]; columns: number[] } {
  const rows = cells.flatMap((row, r) => (row.some(isWrong) ? [r] : []));
  const columns = (cells[0] ?? []).flatMap((_, c) => (cells.some((row) => isWrong(row[c]!)) ? [c] : []));
  return { rows, columns };
}

/** What one may want of a pair, with the key that says it. */
export const WANTS: readonly { readonly want: PlanCell['want'] | null; readonly key: string; readonly says: string }[] =
  [
    { want: 'must', key: 'm', says: 'must hear it' },
    { want: 'must-not', key: 'x', says: 'must not hear it' },
    { want: 'may', key: 'o', says: 'may hear it' },
    { want: null, key: 'backspace', says: 'nothing is said' },
  ];
