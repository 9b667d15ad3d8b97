import type { Item } from './chain.ts';
import { ownKey } from './mention.ts';

/** What it is in the end: 'amp' of 'guitar amp', 'mixer' of 'mixer with two usb'. */
const headOf = ({ mention, name }: Item): string =>
  ownKey((name ?? mention.text).split(/\b(?:with|for|of|on|in|that|which)\b/i)[0]!)
    .replace(/ (?:\d+|[a-d]|\dk|hd|uhd|\d+p)$/, '')
    .split(' ')
    .at(-1)!;

/** Whether something is what was named before: by the same words, by fewer or by more, for the same kind of thing. */
export function isNamedAgain(first: Item, later: Item): boolean {
  const [a, b] = [first, later].map((i) => ownKey(i.name ?? i.mention.text).split(' '));
  const [was, is] = [first.mention.type, later.mention.type];
  // 'The desk' after a mixing desk is that, whatever else a desk may be.
  const maybe = [is, ...later.mention.others, ...later.mention.near.map((n) => n.type)];
  if (is && !maybe.some((t) => t?.family === was?.family)) return false;
  // 'Extractor' after 'switch with extractor' is the same device.
  const [, part = ''] = (first.name ?? first.mention.text).split(/\bwith\b/i);
  if (was !== is && headOf(first) !== headOf(later) && !ownKey(part).split(' ').includes(headOf(later))) return false;
  return a!.every((w) => b!.includes(w)) || b!.every((w) => a!.includes(w));
}
