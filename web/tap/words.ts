import type { State } from '#core/signal/index.ts';
import { apartOf, type Disagreement, NOT_UNCONNECTED, type TapCell } from '#core/taptest/index.ts';
import { formatNumber } from '#web/parts/index.ts';

/** A disagreement in a word or two, for a cell of the table. */
export const DISAGREES: Readonly<Record<Disagreement['kind'], string>> = {
  missing: 'missing',
  hardly: 'hardly',
  extra: 'not drawn',
  twice: 'twice',
  once: 'once only',
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
  if (cell.toPlan === 'lacking') return { state: 'fix', word: 'lacking' };
  if (cell.toPlan === 'unwanted') return { state: 'fix', word: 'unwanted' };
  if (!cell.read) return { state: 'none', word: 'no tune' };
  if (cell.read.word === 'perhaps') return { state: 'watch', word: 'perhaps' };
  if (cell.toPlan === 'open') return { state: 'watch', word: 'open' };
  if (cell.read.word === 'found') return { state: 'good', word: 'as drawn' };
  return cell.expected.ways.length > 0 ? { state: 'none', word: 'too quiet' } : { state: 'none', word: '' };
}

/** How far under the loudest of a take. */
export const sayUnderLoudest = (db: number | null): string =>
  db === null ? '' : db < 0.5 ? 'loudest' : `−${formatNumber(db, 0)} dB`;

/** How sure a reading is, in words. */
export function saySure({ read }: Pick<TapCell, 'read'>): string {
  if (!read) return 'No tune was looked for.';
  const over = `it stands ${formatNumber(read.overChance)} spreads over what chance makes of this take`;
  if (read.word === 'found') {
    const sure = read.confidence! >= 0.99 ? 'Sure' : read.confidence! >= 0.95 ? 'Nearly sure' : 'Likely';
    return `${sure} (${read.confidence!.toFixed(3)}): ${over}.`;
  }
  if (read.word === 'perhaps') return `Perhaps: ${over}, too little to claim it.`;
  return NOT_UNCONNECTED;
}
