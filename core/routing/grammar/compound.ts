import type { Types } from '#core/model/rig/index.ts';
import type { Chain, Fits, Item } from './chain.ts';
import { type OwnWords, readMention } from './mention.ts';

/** A compound as it is meant: the thing it is in the end, and where that belongs. */
export interface Compound {
  readonly item: Item;
  readonly beside: Chain;
}

/**
 * Two devices in one name, the first telling where the second belongs: 'laptop headphones' are headphones at the laptop,
 * a 'guitar amp mic' stands in front of the amp. Null for what is one name, and where nothing joins the two.
 */
export function compoundOf(item: Item, types: Types, fits: Fits, own?: OwnWords): Compound | null {
  const { mention, name } = item;
  const isWhole = mention.endsSo && mention.left.length === 0;
  if (isWhole || mention.everyone || name !== null) return null;
  const words = item.text.split(/\s+/);
  // The shortest end first: the mic of a guitar amp, not the amp mic of a guitar.
  for (let at = words.length - 1; at > 0; at--) {
    const [first, last] = [words.slice(0, at), words.slice(at)].map((w) => readMention(w.join(' '), types, own));
    if (!isSure(first!) || !isSure(last!)) continue;
    if (fits(first!.type!, last!.type!) === null && fits(last!.type!, first!.type!) === null) continue;
    const text = mention.text.split(/\s+/);
    const head: Item = { ...item, mention: { ...last!, text: text.join(' ') } };
    const where: Item = { ...item, text: words.slice(0, at).join(' '), mention: first!, socket: null };
    return {
      item: head,
      beside: [
        { joint: null, each: false, items: [where] },
        { joint: 'either', each: false, items: [head] },
      ],
    };
  }
  return null;
}

const isSure = ({ type, left, endsSo }: Item['mention']): boolean => type !== null && left.length === 0 && endsSo;
