import type { PlanCell, SettingTask } from '#core/model/rig/index.ts';
import type { Figure } from '#core/model/units/index.ts';
import type { Scale } from './graph.ts';
import type { ReceivedPath, State, TimeVerdict, TimeWord } from './heard.ts';
import type { Tolerance } from './tolerance.ts';

/** Two paths closer than this are one sound, ms; a quieter second one is masked from this difference on, dB (3:1 rule: 9.5). */
const APART_MS = 1;
const MASKED_DB = 10;
/** A repeat later than this is an echo, ms, audible down to this level below the first, dB (typical). */
const ECHO_MS = 50;
export const ECHO_MASKED_DB = 20;

/** Within this a source stands where it is wanted under the voice (typical of what is heard as another balance). */
const BALANCE_DB = 3;

interface Case {
  want: PlanCell['want'] | null;
  ways: readonly ReceivedPath[];
  tolerance: Tolerance;
  openTasks: readonly SettingTask[];
  /** How far under the main voice it is, and how far it is wanted; null where either is not said. */
  level?: { readonly isDb: number; readonly wantedDb: number } | null;
  /** It is to have a track of its own, and others are on it. */
  shared?: boolean;
}

/**
 * Whether a source is in time at a listener: by the whole range of its offset, not by its nominal figure alone. What rests
 * on a proposal that no one has ticked is not called right.
 */
export function judge({ want, ways, tolerance, openTasks, level = null, shared = false }: Case): TimeVerdict {
  const [loudest] = ways;
  const offsetMs = loudest?.offset?.value.nominal ?? null;
  const say = (state: State, word: TimeWord, apart: Figure | null = null): TimeVerdict => ({
    state,
    word,
    offsetMs,
    apart,
    openTasks,
  });
  if (!loudest) return want === 'must' ? say('stop', 'missing') : say('none', 'not-heard');
  if (want === 'must-not') return isHeard(loudest) ? say('fix', 'unwanted') : say('none', 'not-heard');
  const apart = heardTwice(ways);
  if (apart) return say('fix', 'twice', apart);
  // Levels of a drawing are typical figures: what is out of balance is watched, and measured in Level.
  const offDb = level ? level.isDb - level.wantedDb : 0;
  const balance = Math.abs(offDb) <= BALANCE_DB ? null : say('watch', offDb < 0 ? 'too-loud' : 'too-quiet');
  if (!loudest.offset) return shared ? say('watch', 'not-alone') : (balance ?? say('none', 'no-picture'));
  const { low, nominal, high } = loudest.offset.value;
  // Only claimed if it holds for every value in the uncertainty range.
  if (low > tolerance.lateMs) return say('fix', 'late');
  if (high < tolerance.earlyMs) return say('fix', 'early');
  if (nominal > tolerance.lateMs) return say('watch', 'perhaps-late');
  if (nominal < tolerance.earlyMs) return say('watch', 'perhaps-early');
  if (shared) return say('watch', 'not-alone');
  if (balance) return balance;
  if (openTasks.length > 0) return say('watch', 'once-done');
  const perhapsLate = high > tolerance.lateMs;
  const perhapsEarly = low < tolerance.earlyMs;
  if (perhapsLate && perhapsEarly) return say('watch', 'perhaps-either');
  if (perhapsLate) return say('watch', 'perhaps-late');
  return perhapsEarly ? say('watch', 'perhaps-early') : say('good', 'in-time');
}

/** What stands lower than this is lost in the noise of a quiet room, or under any program (typical). */
const LOST: Record<Scale, number> = { spl: 20, dbfs: -75, dbu: -70 };
export const isLost = (levelDb: number, scale: Scale): boolean => levelDb < LOST[scale];
const isHeard = ({ arrival, scale }: ReceivedPath): boolean => !isLost(arrival.levelDb, scale);

/** How far a path has to be turned down to be inaudible by itself, dB. */
export const overLostDb = ({ arrival, scale }: ReceivedPath): number => arrival.levelDb - LOST[scale];

/** The way of a source that is heard as a repeat of the loudest; null where that masks the rest. */
export function repeatOf([first, ...others]: readonly ReceivedPath[]): ReceivedPath | null {
  return others.find((w) => overMaskDb(w, first!) > 0) ?? null;
}

/** How far a repeat has to come down to be masked by another way, dB: none where the two are one sound. */
export function overMaskDb(repeat: ReceivedPath, other: ReceivedPath): number {
  const apartMs = Math.abs((repeat.afterFirst?.value.nominal ?? 0) - (other.afterFirst?.value.nominal ?? 0));
  if (apartMs <= APART_MS) return 0;
  const maskedDb = apartMs > ECHO_MS ? ECHO_MASKED_DB : MASKED_DB;
  return repeat.arrival.levelDb - other.arrival.levelDb + maskedDb;
}

/** How long after the loudest way of a source another one is heard, or before it; null where the loudest masks the rest. */
export const heardTwice = (ways: readonly ReceivedPath[]): Figure | null => repeatOf(ways)?.afterFirst ?? null;
