import { rollup } from 'd3-array';
import { useMemo, useState } from 'react';
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

interface Columns {
  /** Places of the listeners in the rig, those that matter most first; else as in the rig. */
  readonly order: readonly number[];
  /** Of these, tracks of one device that nothing is asked of: they fold into one. */
  readonly folded: ReadonlySet<number>;
}

/** Fewer than this at one device are shown as they are. */
const MIN_FOLDED = 3;

function columnsOf(rig: Rig, evaluation: Seen): Columns {
  const weightOf = weights(rig, evaluation);
  const all = rig.listeners.map((l, i) => ({ i, weight: weightOf.get(l.id)!, deviceId: l.sound.deviceId }));
  const idle = rollup(
    all.filter((l) => l.weight === 0),
    (of) => of.length,
    (l) => l.deviceId,
  );
  return {
    order: [...all].sort((a, b) => b.weight - a.weight || a.i - b.i).map(({ i }) => i),
    folded: new Set(all.filter((l) => l.weight === 0 && idle.get(l.deviceId)! >= MIN_FOLDED).map(({ i }) => i)),
  };
}

/**
 * The same as the page was opened with: columns stay where they are while one works at them.
 * @param seen  asked only when the listeners are others: an edit does not wait for it
 */
function useColumnsOnce(rig: Rig, seen: () => Seen): Columns {
  const ids = rig.listeners.map((l) => l.id).join();
  const [known, setKnown] = useState(() => ({ ids, columns: columnsOf(rig, seen()) }));
  if (known.ids === ids) return known.columns;
  const next = { ids, columns: columnsOf(rig, seen()) };
  setKnown(next);
  return next.columns;
}

/** Every listener, those that matter most first. */
export const useListenersByWeight = (rig: Rig, seen: () => Seen): readonly number[] => useColumnsOnce(rig, seen).order;

/** The listeners that a table shows, with tracks folded until they are asked for, or the cell that is looked at is one. */
export function useFoldedListeners(
  rig: Rig,
  seen: () => Seen,
  at: number,
): {
  readonly columns: readonly number[];
  readonly folded: number;
  readonly isOpen: boolean;
  readonly toggle: () => void;
} {
  const { order, folded } = useColumnsOnce(rig, seen);
  const [opened, setOpened] = useState(false);
  const isOpen = opened || folded.has(at);
  const columns = useMemo(
    () => (isOpen || folded.size === order.length ? order : order.filter((i) => !folded.has(i))),
    [order, folded, isOpen],
  );
  return { columns, folded: order.length === folded.size ? 0 : folded.size, isOpen, toggle: () => setOpened(!isOpen) };
}
