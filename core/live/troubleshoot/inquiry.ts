import type { Said, Text } from '#core/base/said/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { type LookBook, lookBook } from './looks.ts';
import { culprit, type Look, looksOf, type Odds, oddsOf, type Told } from './odds.ts';
import { keys, usualAnswer } from './readings.ts';
import { say } from './sayings.ts';
import type { Lineup } from './suspects.ts';
import { type Complaint, SYMPTOMS, toldBy } from './symptoms.ts';

/** One thing that was said or looked at, as it is kept and shown. */
export type Entry =
  | { readonly kind: 'complaint'; readonly complaint: Complaint }
  /** It is as it should be there: that rules out as well. */
  | { readonly kind: 'works'; readonly listenerId: string; readonly sourceId: string }
  | { readonly kind: 'look'; readonly key: string; readonly answer: string }
  /** Nobody can tell: the question isn't repeated, and the answer carries no information. */
  | { readonly kind: 'skipped'; readonly key: string };

/** An answer that a look may have, and what it would leave. */
export interface Outcome {
  readonly answer: string;
  readonly says: Text;
  readonly share: number;
  /** Suspects that are still worth a thought after it, and the first of them. */
  readonly left: number;
  readonly first: Odds;
}

export interface NextLook {
  readonly look: Look;
  readonly asks: Text;
  readonly outcomes: readonly Outcome[];
}

/** Where a search for a fault stands. */
export interface Inquiry {
  readonly odds: readonly Odds[];
  /** What it most likely is; null while that is open. */
  readonly culprit: Odds | null;
  /** The next check; null where nothing is left that would tell suspects apart. */
  readonly next: NextLook | null;
  /** Others, the most telling for their time first. */
  readonly others: readonly Look[];
}

/** Less than this is not worth a thought. */
export const THOUGHT = 0.02;
const MAX_ANSWERS = 6;
const MAX_OTHERS = 5;

/** Likelihoods and next checks after all entries. */
export function inquire(
  rig: Rig,
  lineup: Lineup,
  entries: readonly Entry[],
  before: ReadonlyMap<string, number> = new Map(),
): Inquiry {
  const told = entries.flatMap((e) => toldOf(rig, lineup, e));
  const asked = entries.flatMap((e) => (e.kind === 'skipped' ? [{ key: e.key, answers: [] }] : []));
  const odds = oddsOf(lineup, told, before);
  const book = lookBook(rig, lineup);
  const looks = told.length === 0 ? [] : looksOf(lineup, odds, [...told, ...asked], book.secondsOf);
  const [first, ...others] = looks;
  return {
    odds,
    culprit: told.length === 0 ? null : culprit(odds),
    next: first ? nextOf(lineup, book, first, told, before) : null,
    others: others.slice(0, MAX_OTHERS),
  };
}

/** A look with what each of its answers would leave. */
export function nextOf(
  lineup: Lineup,
  book: LookBook,
  look: Look,
  told: readonly Told[],
  before: ReadonlyMap<string, number>,
): NextLook {
  const outcomes = look.answers.slice(0, MAX_ANSWERS).map(({ answer, share }): Outcome => {
    const then = oddsOf(lineup, [...told, { key: look.key, answers: [answer] }], before);
    const left = then.filter((o) => o.share >= THOUGHT).length;
    return { answer, says: book.sayAnswer(look.key, answer), share, left, first: then[0]! };
  });
  return { look, asks: book.say(look.key).asks, outcomes };
}

/** The evidence of an entry. */
export function toldOf(rig: Rig, { drawn }: Lineup, entry: Entry): Told[] {
  switch (entry.kind) {
    case 'complaint':
      return toldBy(rig, entry.complaint);
    case 'works': {
      const key = keys.hear(entry.listenerId, entry.sourceId);
      return [{ key, answers: drawn.get(key) ?? [usualAnswer(key)] }];
    }
    case 'look':
      return [{ key: entry.key, answers: [entry.answer] }];
    case 'skipped':
      return [];
  }
}

const nameIn = (list: readonly { readonly id: string; readonly name: string }[], id: string | null): string =>
  list.find((e) => e.id === id)?.name ?? '';

/** A complaint as a sentence. */
export function sayComplaint(rig: Rig, { symptomId, listenerId, sourceId }: Complaint): Said {
  const { says, of } = SYMPTOMS.find((s) => s.id === symptomId)!;
  const listener = nameIn(rig.listeners, listenerId);
  return of === 'source'
    ? say.complaint({ name: nameIn(rig.sources, sourceId), listener, says })
    : say.complaintOf({ listener, says });
}
