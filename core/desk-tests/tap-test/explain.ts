import { type Fault, faultsOf } from '#core/live/troubleshoot/index.ts';
import { applyEdit, type Rig } from '#core/model/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import type { Disagreement } from './disagree.ts';
import { expectedOf } from './expected.ts';
import { apartOf, type Judged, judge, type Known, type TakeRead, type TapCell } from './judge.ts';
import type { Players } from './players.ts';

/** A disagreement with where it is. */
export interface At {
  readonly sourceId: string;
  readonly listenerId: string;
  readonly disagreement: Disagreement;
}

/** A change of the rig that would make it agree with the readings. */
export interface Explanation {
  /** Most likely first. The takes don't distinguish them: each would make them sound the same. */
  readonly faults: readonly Fault[];
  /** Against the others and what was thought likely before, 0 to 1. */
  readonly share: number;
  readonly explains: readonly At[];
  readonly leaves: readonly At[];
  /** What agreed before and would not then. */
  readonly breaks: readonly At[];
}

/** Readings that were not made by taps of the rig's own sources. */
export interface Other {
  readonly known: Known;
  /** The rig with the sources that played and the places that listened, in place of its own. */
  readonly seenAs: (rig: Rig) => Rig;
  /** Besides the faults that any rig may have. */
  readonly faults: readonly Fault[];
}

/** Fewer than this is no explanation. */
const MIN_GAIN = 1;
const MOST = 3;

/**
 * Runs every fault that the rig may have through the model and holds each against the readings: those that bring rig and
 * readings nearest, by how far and by how common they are. For a worker: about 10 ms a fault.
 */
export function explain(
  rig: Rig,
  takes: readonly TakeRead[],
  players: Players,
  onDone: (share: number) => void = () => undefined,
  other?: Other,
): Explanation[] {
  const seen = other ? other.seenAs(rig) : rig;
  const evaluation = evaluate(seen);
  const listenerIds = takes.map((t) => t.listenerId);
  const drawn = judge(seen, expectedOf(seen, evaluation, listenerIds), takes, players, other?.known);
  if (drawn.apart < MIN_GAIN) return [];
  const faults = [...faultsOf(seen, evaluation), ...(other?.faults ?? [])];
  const tried = faults.flatMap((fault, i) => {
    const judged = withFault(rig, fault, listenerIds, takes, players, other);
    onDone((i + 1) / faults.length);
    if (!judged || drawn.apart - judged.apart < MIN_GAIN) return [];
    return [{ fault, judged, score: Math.log(fault.weight) - judged.apart }];
  });
  const groups = new Map<string, typeof tried>();
  for (const one of tried) {
    const key = signatureOf(one.judged);
    groups.set(key, [...(groups.get(key) ?? []), one]);
  }
  const ranked = [...groups.values()].map((group) => {
    const own = [...group].sort((a, b) => b.score - a.score);
    return { own, score: Math.log(own.reduce((sum, o) => sum + o.fault.weight, 0)) - own[0]!.judged.apart };
  });
  const most = Math.max(...ranked.map((r) => r.score));
  const sum = ranked.reduce((s, r) => s + Math.exp(r.score - most), 0);
  return ranked
    .sort((a, b) => b.score - a.score)
    .slice(0, MOST)
    .map(({ own, score }) => ({
      faults: own.map((o) => o.fault),
      share: Math.exp(score - most) / sum,
      ...compared(drawn, own[0]!.judged),
    }));
}

/** What stays apart, cell by cell: faults that leave the same are one to the takes. */
const signatureOf = ({ cells }: Judged): string =>
  cells.map((c) => c.disagreements.map((d) => `${d.kind}${d.weight.toFixed(1)}`).join()).join('|');

function withFault(
  rig: Rig,
  fault: Fault,
  listenerIds: readonly string[],
  takes: readonly TakeRead[],
  players: Players,
  other?: Other,
): Judged | null {
  const done = fault.edit ? applyEdit(rig, fault.edit) : null;
  if (done && !done.ok) return null;
  if (!done && fault.dead.length === 0) return null;
  const edited = done ? done.rig : rig;
  const now = other ? other.seenAs(edited) : edited;
  return judge(now, expectedOf(now, evaluate(now), listenerIds, new Set(fault.dead)), takes, players, other?.known);
}

function compared(drawn: Judged, then: Judged): Pick<Explanation, 'explains' | 'leaves' | 'breaks'> {
  const explains: At[] = [];
  const leaves: At[] = [];
  const breaks: At[] = [];
  drawn.cells.forEach((cell, i) => {
    const now = then.cells[i]!;
    const better = apartOf(now) < apartOf(cell);
    for (const disagreement of cell.disagreements) {
      const still = now.disagreements.find((d) => d.kind === disagreement.kind);
      const gone = !still || (better && still.weight < disagreement.weight / 2);
      (gone ? explains : leaves).push(at(cell, disagreement));
    }
    for (const disagreement of now.disagreements)
      if (!cell.disagreements.some((d) => d.kind === disagreement.kind)) breaks.push(at(cell, disagreement));
  });
  return { explains, leaves, breaks };
}

const at = ({ sourceId, listenerId }: TapCell, disagreement: Disagreement): At => ({
  sourceId,
  listenerId,
  disagreement,
});
