import { apartOf, type Disagreement, NOT_UNCONNECTED, type TapCell } from '#core/desk-tests/tap-test/index.ts';
import type { State } from '#core/signal/index.ts';
import { formatNumber } from '#web/shared/parts/index.ts';
import { tapTest as say, textOf } from '#words/index.ts';

/** A disagreement in a word or two, for a cell of the table. */
const DISAGREES: Readonly<Record<Disagreement['kind'], string>> = {
  missing: 'missing',
  hardly: 'hardly',
  extra: say.notDrawn(),
  twice: 'twice',
  once: say.onceOnly(),
  'upside-down': 'inverted',
  level: 'level',
  late: 'time',
  band: 'band',
  clock: 'clock',
  jump: 'jumps',
  wanders: 'wanders',
};

const GRAVE = 3;

/** The state and the word of a cell: what does not agree with the drawing first, then what does not with the plan. */
export function verdictOf(cell: TapCell): { readonly state: State; readonly word: string } {
  const [worst] = [...cell.disagreements].sort((a, b) => b.weight - a.weight);
  if (worst) {
    const more = cell.disagreements.length > 1 ? ` +${cell.disagreements.length - 1}` : '';
    return { state: apartOf(cell) >= GRAVE ? 'fix' : 'watch', word: `${DISAGREES[worst.kind]}${more}` };
  }
  if (cell.toPlan === 'lacking') return { state: 'fix', word: say.missing() };
  if (cell.toPlan === 'unwanted') return { state: 'fix', word: say.shouldNotArrive() };
  if (!cell.read) return { state: 'none', word: say.noTune() };
  if (cell.read.word === 'perhaps') return { state: 'watch', word: say.possible() };
  if (cell.toPlan === 'open') return { state: 'watch', word: say.open() };
  if (cell.read.word === 'found') return { state: 'good', word: say.asDrawn() };
  return cell.expected.ways.length > 0 ? { state: 'none', word: say.tooQuiet() } : { state: 'none', word: '' };
}

/** How far under the loudest of a take. */
export const sayUnderLoudest = (db: number | null): string =>
  db === null ? '' : db < 0.5 ? say.loudest() : say.db({ db: formatNumber(db, 0) });

/** How sure a reading is, in words. */
export function saySure({ read }: Pick<TapCell, 'read'>): string {
  if (!read) return say.noTuneWasLooked();
  const over = say.aboveChance({ overChance: formatNumber(read.overChance) });
  if (read.word === 'found') {
    const sure =
      read.confidence! >= 0.99 ? say.sure() : read.confidence! >= 0.95 ? say.nearlySure() : say.likelyTitle();
    return `${sure} (${read.confidence!.toFixed(3)}): ${over}.`;
  }
  if (read.word === 'perhaps') return say.possibleButNotEnough({ over });
  return textOf(NOT_UNCONNECTED);
}
