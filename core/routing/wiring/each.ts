import { hearsAir, isCall, isPerson, isWorn } from '#core/model/rig/index.ts';
import type { Chain, Hop, Item } from '#core/routing/grammar/index.ts';

/**
 * What each has, there are as many of: 'four hosts each with a mic'. What 'everyone' has, they have each, too:
 * 'headphones for everyone' are as many as there are people, or microphones that someone talks into. Who is on a call is
 * not there.
 */
export function countForEach(chains: readonly Chain[]): readonly Chain[] {
  const given = chains.map((chain) =>
    chain.map((hop, i) => (hop.each && i > 0 ? { ...hop, items: hop.items.map(times(countIn(chain[i - 1]!))) } : hop)),
  );
  return forEveryone(given.map(asManyAsPeople));
}

/** 'Three guests on mics': of what people hold or wear, and no one has counted, there are as many as there are people. */
const asManyAsPeople = (chain: Chain): Chain =>
  chain.map((hop, i) => {
    const before = chain[i - 1];
    if (!before?.items.every((b) => b.mention.type && isPerson(b.mention.type)) || countIn(before) < 2) return hop;
    // 'Headphones' are called so even if they are one.
    const isTheirs = ({ mention: { type, several, text } }: Item) =>
      type !== null && !type.hosts && ((several && hearsAir(type)) || (isWorn(type) && (several || /s$/i.test(text))));
    return { ...hop, items: hop.items.map((item) => (isTheirs(item) ? times(countIn(before))(item) : item)) };
  });

const countIn = ({ items }: Hop): number => items.reduce((sum, i) => sum + i.mention.count, 0);
/** An item as often as there are others. */
const times =
  (count: number) =>
  (item: Item): Item =>
    item.mention.count === 1 || item.mention.several
      ? { ...item, mention: { ...item.mention, count, several: false } }
      : item;

function forEveryone(chains: readonly Chain[]): readonly Chain[] {
  const isAll = ({ items }: Hop): boolean => items.some((i) => i.mention.everyone);
  if (!chains.some((c) => c.some(isAll))) return chains;
  const people = countOf(chains, (i) => isPerson(i.mention.type!), true);
  const count = people || countOf(chains, (i) => hearsAir(i.mention.type!) && !isWorn(i.mention.type!), false) || 1;
  const each = (item: Item): Item => {
    const { mention } = item;
    const isEachs = mention.type !== null && (isWorn(mention.type) || mention.several) && !mention.everyone;
    return isEachs ? times(count)(item) : item;
  };
  const counted = chains.map((chain) =>
    chain.map((hop, i) =>
      [chain[i - 1], chain[i + 1]].some((h) => h && isAll(h)) ? { ...hop, items: hop.items.map(each) } : hop,
    ),
  );
  // Everybody is known in the end.
  return [...counted.filter((c) => !c.some(isAll)), ...counted.filter((c) => c.some(isAll))];
}

/** How many there are of some kind, each words once. */
function countOf(chains: readonly Chain[], is: (item: Item) => boolean, isHere: boolean): number {
  const found = new Map<string, number>();
  for (const chain of chains)
    chain.forEach(({ items }, i) => {
      const beside = [...(chain[i - 1]?.items ?? []), ...(chain[i + 1]?.items ?? [])];
      if (isHere && beside.some((b) => b.mention.type && isCall(b.mention.type))) return;
      for (const item of items)
        if (item.mention.type && !item.mention.everyone && is(item))
          found.set(item.mention.text.toLowerCase(), item.mention.count);
    });
  return [...found.values()].reduce((a, b) => a + b, 0);
}
