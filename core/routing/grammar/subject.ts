import { isCall, isPerson } from '#core/model/rig/index.ts';
import type { Chain, Fits, Item } from './chain.ts';

/** Score difference between the two directions from which on there is no doubt. */
const CLEARLY = 20;

/** Which way a thing leads to another that was named with it: there, back, or either. Into a computer goes what is on it. */
function wayBetween(a: Item, b: Item, fits: Fits): 'there' | 'back' | null {
  const [x, y] = [a.mention.type, b.mention.type];
  if (!x || !y) return null;
  const [there, back] = [fits(x, y), fits(y, x)];
  if (there === null && back === null) return null;
  if (there === null) return 'back';
  if (back === null) return 'there';
  if (x.hosts !== y.hosts) return y.hosts ? 'there' : 'back';
  return there < back - CLEARLY ? 'there' : back < there - CLEARLY ? 'back' : null;
}

const NEVER = Number.POSITIVE_INFINITY;
const cost = ([from, to]: readonly [Item, Item], fits: Fits): number => {
  const [x, y] = [from.mention.type, to.mention.type];
  return (x && y ? fits(x, y) : null) ?? NEVER;
};

/**
 * 'Interface with a mic into the laptop', 'headphone amp with four headphones from the mixer': what is said of the first
 * device continues from there, if what it has with it only leads to it, or comes from it.
 */
export function bySubject(chain: Chain, fits: Fits): Chain[] {
  for (let i = 0; i + 2 < chain.length; i++) {
    const [of, has, next] = [chain[i]!, chain[i + 1]!, chain[i + 2]!];
    const [subject] = of.items;
    if (has.joint !== 'either' || next.joint === null || of.items.length !== 1) continue;
    // 'Call with a friend on the phone': the call is there, and not the friend.
    const isMeeting = isCallAt(subject!) && has.items.every(({ mention: { type } }) => type !== null && isPerson(type));
    if (isMeeting && next.joint === 'either') return apart(chain, i, fits);
    if (next.joint === 'either') continue;
    const isTo = next.joint === 'to';
    const costAt = (item: Item, others: readonly Item[]): number =>
      Math.min(...others.map((other) => cost(isTo ? [item, other] : [other, item], fits)));
    const ways = has.items.map((item) => ({ item, way: wayBetween(subject!, item, fits) }));
    const turnsBack = isTo ? 'back' : 'there';
    // What the first thing has belongs to it, and not to what is named after.
    const isIts = ({ item, way }: (typeof ways)[number]) =>
      way === turnsBack && costAt(item, of.items) <= costAt(item, next.items);
    if (!ways.some(isIts) || costAt(subject!, next.items) === NEVER) continue;
    if (ways.some((w) => !isIts(w) && costAt(w.item, next.items) < NEVER)) continue;
    return apart(chain, i, fits);
  }
  return [chain];
}

/** Two chains from one: what a thing has, and where it goes on from there. */
const apart = (chain: Chain, at: number, fits: Fits): Chain[] => [
  chain.slice(0, at + 2),
  ...bySubject([{ joint: null, each: false, items: chain[at]!.items }, ...chain.slice(at + 2)], fits),
];
const isCallAt = ({ mention: { type } }: Item): boolean => type !== null && isCall(type);
