import type { DeviceType } from '#core/rig/index.ts';
import { type Chain, type Fits, type Item, type Joint, ownKey } from '#core/typed/index.ts';
import { hasSocket } from './between.ts';

/** Nothing fits there. */
const UNJOINED = 300;
/** A lead as everybody has it, and up to here nearly as good: no reason to think of another box. */
const GOOD = 35;
const poorness = (cost: number | null): number | null => (cost === null ? null : cost < GOOD ? 0 : cost);
/** How much a word less in its name weighs against what fits. */
const LESS = 10;
/** The lead runs the other way than was said. */
const BACKWARD = 150;
/** A socket was named that it has not. */
const NO_SOCKET = 25;
/** So often every item looks at its neighbors again; types settle at once on nearly every desk. */
const ROUNDS = 3;

/**
 * Which of the types that its words allow each item is: the likeliest, unless another one is plugged so much better to
 * what stands before and after it. A mic into an interface has XLR, one into a computer USB.
 */
export function chooseTypes(chains: readonly Chain[], fits: Fits): ReadonlyMap<Item, DeviceType> {
  const chosen = new Map<Item, DeviceType>();
  const typeOf = (item: Item): DeviceType | null => chosen.get(item) ?? item.mention.type;
  const joined = (a: Item | DeviceType, b: Item | DeviceType, joint: Joint): number => {
    const [x, y] = [a, b].map((i) => ('mention' in i ? typeOf(i) : i));
    if (!x || !y) return 0;
    const [there, back] = [poorness(fits(x, y)), poorness(fits(y, x))];
    if (joint === 'to') return there ?? (back === null ? UNJOINED : back + BACKWARD);
    if (joint === 'from') return back ?? (there === null ? UNJOINED : there + BACKWARD);
    return Math.min(there ?? UNJOINED, back ?? UNJOINED);
  };
  const groups = groupsOf(chains);
  for (let round = 0; round < ROUNDS; round++) {
    let changed = false;
    for (const places of groups.values()) {
      const first = places[0]!.item;
      const { type, near } = first.mention;
      if (!type || near.length === 0) continue;
      const cost = (as: DeviceType): number =>
        places.reduce((sum, { item, chain, hop }) => {
          const [before, after] = [chain[hop - 1], chain[hop + 1]];
          const { joint } = chain[hop]!;
          const into = before && joint ? Math.min(...before.items.map((b) => joined(b, as, joint))) : 0;
          const out = after?.joint ? Math.min(...after.items.map((n) => joined(as, n, after.joint!))) : 0;
          return sum + into + out + (item.socket && !hasSocket(as, item.socket) ? NO_SOCKET : 0);
        }, 0);
      const options = [{ type, less: 0 }, ...near].map((o) => ({ ...o, cost: cost(o.type) + LESS * o.less }));
      const best = options.reduce((a, b) => (b.cost < a.cost - 1e-9 ? b : a));
      if (best.type === typeOf(first)) continue;
      for (const { item } of places) chosen.set(item, best.type);
      changed = true;
    }
    if (!changed) break;
  }
  return chosen;
}

interface Place {
  readonly item: Item;
  readonly chain: Chain;
  readonly hop: number;
}

/** Items that are one box named several times: by the same words, or by some of them. */
function groupsOf(chains: readonly Chain[]): ReadonlyMap<Item, Place[]> {
  const groups = new Map<Item, Place[]>();
  for (const chain of chains)
    chain.forEach(({ items }, hop) => {
      for (const item of items) {
        const leader = [...groups.keys()].find((l) => isNamedAgain(l, item));
        groups.set(leader ?? item, [...(leader ? groups.get(leader)! : []), { item, chain, hop }]);
      }
    });
  return groups;
}

function isNamedAgain(first: Item, later: Item): boolean {
  const [a, b] = [first, later].map((i) => ownKey(i.name ?? i.mention.text).split(' '));
  if (first.mention.type?.family !== later.mention.type?.family) return false;
  return a!.every((w) => b!.includes(w)) || b!.every((w) => a!.includes(w));
}
