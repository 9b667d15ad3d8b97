import { type DeviceType, isHardware } from '#core/model/rig/index.ts';
import type { Chain, Item } from './chain.ts';
import { tokensOf } from './tokens.ts';
import { FILLERS } from './vocabulary.ts';

/** Types that an item may be taken for in the end. */
const maybe = ({ mention }: Item): DeviceType[] =>
  mention.type ? [mention.type, ...mention.near.map((n) => n.type)].filter(isHardware) : [];

/**
 * 'Headset on the controller' of a console: what carries no signal by itself, and is called as a socket of something else
 * that was named, is that socket.
 */
export function partsAsSockets(chains: readonly Chain[]): Chain[] {
  return socketsOf(chains).flatMap(apart);
}

/** 'Console, TV, headset on the controller': in a list that includes its own target, only the last item leads there. */
function apart(chain: Chain): Chain[] {
  const [list, goal, ...more] = chain;
  const isIn = goal?.items.some((g) => g.socket !== null && list!.items.some((i) => i.mention === g.mention));
  if (!isIn || list!.items.length < 2) return [chain];
  const [rest, last] = [list!.items.slice(0, -1), list!.items.slice(-1)];
  return [[{ ...list!, items: rest }], [{ ...list!, items: last }, goal!, ...more]];
}

function socketsOf(chains: readonly Chain[]): Chain[] {
  const all = chains.flatMap((chain) => chain.flatMap((hop) => hop.items));
  const whole = (item: Item): Item => {
    const { type } = item.mention;
    if (item.socket !== null || (type !== null && type.ports.length > 0)) return item;
    const words = tokensOf(item.text).filter((t) => !FILLERS.has(t));
    const of = all.find(
      (other) =>
        other !== item &&
        maybe(other).some((t) =>
          t.ports.some((p) => {
            const [name = ''] = p.name.split(',');
            return p.direction !== 'inside' && words.length > 0 && tokensOf(name).join(' ') === words.join(' ');
          }),
        ),
    );
    return of ? { ...of, socket: words.join(' ') } : item;
  };
  return chains.map((chain) => chain.map((hop) => ({ ...hop, items: hop.items.map(whole) })));
}
