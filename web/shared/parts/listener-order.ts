import { useState } from 'react';
import type { Rig } from '#core/model/rig/index.ts';
import type { Evaluation } from '#core/signal/index.ts';

type Seen = Pick<Evaluation, 'pairs'>;

/** How much a listener matters in a table: something is wrong there, something is asked for, or neither. */
function weights(rig: Rig, { pairs }: Seen): Map<string, number> {
  const found = new Map(rig.listeners.map((l) => [l.id, 0]));
  for (const { listenerId, want, verdict } of pairs) {
    const weight =
      verdict.state === 'stop' ? 3 : verdict.state === 'fix' ? 2 : want === 'must' || want === 'must-not' ? 1 : 0;
    found.set(listenerId, Math.max(weight, found.get(listenerId) ?? 0));
  }
  return found;
}

/** Places of the listeners in the rig, those that matter most first; else as in the rig. */
function listenersByWeight(rig: Rig, evaluation: Seen): number[] {
  const weightOf = weights(rig, evaluation);
  const all = rig.listeners.map((l, i) => ({ i, weight: weightOf.get(l.id)! }));
  return all.sort((a, b) => b.weight - a.weight || a.i - b.i).map(({ i }) => i);
}

/**
 * The same as the page was opened with: columns stay where they are while one works at them.
 * @param seen  asked only when the listeners are others: an edit does not wait for it
 */
export function useListenersByWeight(rig: Rig, seen: () => Seen): readonly number[] {
  const ids = rig.listeners.map((l) => l.id).join();
  const [known, setKnown] = useState(() => ({ ids, order: listenersByWeight(rig, seen()) }));
  if (known.ids === ids) return known.order;
  const next = { ids, order: listenersByWeight(rig, seen()) };
  setKnown(next);
  return next.order;
}
