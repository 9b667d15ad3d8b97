import { seededRandom } from '#core/audio/samples/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import {
  type Complaint,
  culprit,
  isSeen,
  type Lineup,
  lookBook,
  lookKeys,
  looksOf,
  oddsOf,
  type Suspect,
  SYMPTOMS,
  type Told,
  toldBy,
} from './index.ts';
import { usualAnswer } from './readings.ts';

/** What whoever stands at a desk with this fault would say to a look: the model's own answer, the first where it is unsure. */
export const answerOf = (lineup: Lineup, planted: Suspect, key: string): string =>
  (planted.changes.get(key) ?? lineup.drawn.get(key) ?? [usualAnswer(key)])[0]!;

/** Complaints that someone at this desk could make of a fault: what it surely changed for the worse, put as a symptom. */
function complaintsOf(rig: Rig, lineup: Lineup, planted: Suspect): Complaint[] {
  const all = rig.listeners.flatMap((l) =>
    SYMPTOMS.filter((s) => s.id !== 'nothing-at-all').flatMap((s) =>
      (s.of === 'all' ? [null] : rig.sources.map((x) => x.id)).map(
        (sourceId): Complaint => ({ symptomId: s.id, listenerId: l.id, sourceId }),
      ),
    ),
  );
  return all.filter((c) =>
    toldBy(rig, c).every(({ key, answers }) => {
      const now = planted.changes.get(key);
      const was = lineup.drawn.get(key) ?? [usualAnswer(key)];
      return now?.length === 1 && answers.includes(now[0]!) && !was.every((w) => answers.includes(w));
    }),
  );
}

const MAX_LOOKS = 30;

/** Looks until the fault is named, as the program asks for them; Infinity where it never is, or another one is named for good. */
function looksNeeded(rig: Rig, lineup: Lineup, planted: Suspect, complaint: Complaint): number {
  const book = lookBook(rig, lineup);
  const told: Told[] = [...toldBy(rig, complaint)];
  for (let n = 0; n <= MAX_LOOKS; n++) {
    const odds = oddsOf(lineup, told);
    const named = culprit(odds);
    if (named?.kind === 'fault') {
      const { suspect } = named;
      if (suspect === planted) return n;
      // Two faults that one look shows alike are one to whoever looks.
      if (isSeen(suspect, told)) return suspect.fault.shows === planted.fault.shows ? n : Number.POSITIVE_INFINITY;
    }
    // Named and not it: whoever goes there sees that, and has looked again.
    const there =
      named?.kind === 'fault'
        ? named.suspect.fault.looks.map((l) => lookKeys.look(l.id)).find((k) => !told.some((t) => t.key === k))
        : undefined;
    const next = there ?? looksOf(lineup, odds, told, book.secondsOf)[0]?.key;
    if (next === undefined) return Number.POSITIVE_INFINITY;
    told.push({ key: next, answers: [answerOf(lineup, planted, next)] });
  }
  return Number.POSITIVE_INFINITY;
}

export interface Planted {
  readonly suspect: Suspect;
  readonly complaint: Complaint;
  readonly looks: number;
  /** Looks by a fixed list: every thing itself, in the order in which the rig lists them. */
  readonly byList: number;
}

/** Faults planted at random, each with a complaint at random that someone could make of it. */
export function plant(rig: Rig, lineup: Lineup, count: number, seed: number): Planted[] {
  const random = seededRandom(seed);
  const any = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const list = [...new Set(lineup.suspects.map((s) => s.fault.looks[0]!.id))];
  const planted: Planted[] = [];
  while (planted.length < count) {
    const suspect = any(lineup.suspects);
    const complaints = complaintsOf(rig, lineup, suspect);
    if (complaints.length === 0) continue;
    const complaint = any(complaints);
    planted.push({
      suspect,
      complaint,
      looks: looksNeeded(rig, lineup, suspect, complaint),
      byList: list.indexOf(suspect.fault.looks[0]!.id) + 1,
    });
  }
  return planted;
}
