import {
  type DeviceType,
  films,
  hearsAir,
  isCall,
  isHardware,
  isPerson,
  isProgram,
  isWorn,
} from '#core/model/rig/index.ts';
import { type Chain, type Fits, type Item, isNamedAgain, type Joint, ownKey } from '#core/routing/grammar/index.ts';
import { hasSocket } from './between.ts';

/** Nothing fits there. */
const UNJOINED = 300;
/** A cable as everybody has it, and up to here nearly as good: no reason to think of another device. */
const GOOD = 35;
/** Of two that do as well, the handier. */
const AS_GOOD = 1000;
const poorness = (cost: number | null): number | null =>
  cost === null ? null : cost < GOOD ? Math.max(0, cost) / AS_GOOD : cost;
/** How much a word less in its name weighs against what fits. */
const LESS = 10;
/** The cable runs the other way than was said. */
const BACKWARD = 150;
/** A socket was named that it has not. */
const NO_SOCKET = 60;
/** A source that is said to go there finds no input. */
const FULL = 40;
/** What runs on a computer is named after it: 'interface > laptop > recorder'. */
const THERE = 15;
/** Maximum number of types that are tried per item of a list. */
const MAX_LISTED = 8;
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
    // It runs there: no cable is needed.
    if ((isProgram(x) && y.hosts) || (isProgram(y) && x.hosts)) return 0;
    // Someone on a call talks into something, or is a person.
    if ((isCall(x) && !isOnCalls(y)) || (isCall(y) && !isOnCalls(x))) return UNJOINED;
    const [there, back] = [poorness(fits(x, y)), poorness(fits(y, x))];
    // 'Headphones into the mixer': what gives nothing can only be meant to take.
    if (joint === 'to') return there ?? (back === null ? UNJOINED : back + (gives(x) ? BACKWARD : 0));
    if (joint === 'from') return back ?? (there === null ? UNJOINED : there + (gives(y) ? BACKWARD : 0));
    return Math.min(there ?? UNJOINED, back ?? UNJOINED);
  };
  const groups = groupsOf(chains);
  // A mic that was only listed goes to something of the list.
  const all = [...groups.keys()];
  const bestBeside = (item: Item) =>
    [{ type: item.mention.type!, less: 0 }, ...item.mention.near.slice(0, MAX_LISTED)]
      // Something that hears, as was said.
      .filter((o) => hearsAir(o.type))
      .map((o) => {
        const costs = all
          .filter((other) => other !== item && typeOf(other) && isHardware(typeOf(other)!))
          .map((other) => Math.min(joined(o.type, other, 'to'), joined(other, o.type, 'to')));
        return { ...o, cost: Math.min(UNJOINED, ...costs) + LESS * o.less };
      })
      .reduce((a, b) => (b.cost < a.cost - 1e-9 ? b : a));
  // Mics that lead nowhere go into the first thing that takes mics and that nothing is led to.
  const loose = looseMics(chains, typeOf);
  const goal = [...groups].find(([item, at]) => takesMics(item.mention.type) && at.every((p) => !isLedTo(p)))?.[0];
  for (let round = 0; round < ROUNDS; round++) {
    let changed = false;
    for (const places of groups.values()) {
      const first = places[0]!.item;
      if (!first.mention.type) continue;
      const costAt = ({ item, chain, hop }: Place, as: DeviceType): number => {
        const [before, after] = [chain[hop - 1], chain[hop + 1]];
        const { joint } = chain[hop]!;
        const into = before && joint ? Math.min(...before.items.map((b) => joined(b, as, joint))) : 0;
        const out = after?.joint ? Math.min(...after.items.map((n) => joined(as, n, after.joint!))) : 0;
        const isThere = isProgram(as) && hop > 0 && before!.items.every((b) => typeOf(b)?.hosts === true);
        return into + out + (item.socket && !hasSocket(as, item.socket) ? NO_SOCKET : 0) - (isThere ? THERE : 0);
      };
      const bestAt = (at: readonly Place[], { mention }: Item) =>
        [{ type: mention.type!, less: 0 }, ...mention.near]
          .map((o) => ({
            ...o,
            cost:
              at.reduce((sum, p) => sum + costAt(p, o.type), LESS * o.less) +
              FULL * missingAt(at, o.type, typeOf, at[0]!.item === goal ? loose : 0),
          }))
          .reduce((a, b) => (b.cost < a.cost - 1e-9 ? b : a));
      const isListed = isNamedAlone(places) && hearsAir(first.mention.type) && !films(first.mention.type);
      const best = isListed ? bestBeside(first) : bestAt(places, first);
      for (const place of places) {
        const { item } = place;
        // What can't be connected there is another one: 'USB mic > pc; mic > interface'.
        const isOwn = item !== first && item.mention.type !== null && costAt(place, best.type) >= GOOD;
        const own = isOwn ? bestAt([place], item) : null;
        const type = own && own.cost < GOOD ? own.type : best.type;
        if (type === typeOf(item)) continue;
        chosen.set(item, type);
        changed = true;
      }
    }
    if (!changed) break;
  }
  return chosen;
}

const isOnCalls = (type: DeviceType): boolean =>
  type.hosts === true || isProgram(type) || isPerson(type) || isWorn(type) || hearsAir(type);

/** Something leaves it by a plug, by radio or in software. */
const gives = (type: DeviceType): boolean =>
  type.ports.some((p) => p.direction === 'out' && p.level !== 'air' && p.level !== 'light');

const takesMics = (type: DeviceType | null): boolean =>
  type !== null &&
  !type.hosts &&
  !hearsAir(type) &&
  type.ports.some((p) => isAnalogInput(p) && p.level === 'microphone');
const isLedTo = ({ chain, hop }: Place): boolean =>
  chain[hop]!.joint === 'to' || chain[hop]!.joint === 'either' || chain[hop + 1]?.joint === 'from';

/** How many mics with a cable were named that nothing was said to take. */
function looseMics(chains: readonly Chain[], typeOf: (item: Item) => DeviceType | null): number {
  const counts = new Map<string, number>();
  for (const chain of chains)
    for (const item of chain.at(-1)?.items ?? []) {
      const type = typeOf(item);
      const outputs = type?.ports.filter((p) => p.direction === 'out' && p.connector !== 'inside') ?? [];
      if (type && hearsAir(type) && outputs.length > 0 && outputs.every((p) => isAnalog(p.level)))
        counts.set(ownKey(item.text), item.mention.count);
    }
  return [...counts.values()].reduce((a, b) => a + b, 0);
}

/** How many of the sources that are led to something find no input of it free. */
function missingAt(
  places: readonly Place[],
  as: DeviceType,
  typeOf: (item: Item) => DeviceType | null,
  loose: number,
): number {
  if (as.hosts) return 0;
  const inputs = as.ports.filter(isAnalogInput).length;
  const pictures = as.ports.filter(isPictureInput).length;
  const shown = new Map<string, number>();
  const isMono = as.ports.every((p) => !isAnalogInput(p) || p.channels.length === 1);
  const sources = new Map<string, number>();
  const mics = new Map<string, number>(loose > 0 ? [['', loose]] : []);
  const micInputs = as.ports.filter((p) => isAnalogInput(p) && p.level === 'microphone').length;
  for (const { chain, hop } of places) {
    const { joint } = chain[hop]!;
    const led = [
      ...(joint === 'to' ? chain[hop - 1]!.items : []),
      ...(chain[hop + 1]?.joint === 'from' ? chain[hop + 1]!.items : []),
    ];
    for (const item of led) {
      const type = typeOf(item);
      const sides = type?.ports.some((p) => isAnalogOutput(p) && p.channels.length === 2) && isMono ? 2 : 1;
      if (type?.ports.some(isPictureOutput)) shown.set(ownKey(item.text), item.mention.count);
      else if (type && !type.hosts && type.ports.some(isAnalogOutput)) {
        sources.set(ownKey(item.text), item.mention.count * sides);
        // A mic in a line input is not heard.
        if (type.ports.filter(isAnalogOutput).every((p) => p.level === 'microphone'))
          mics.set(ownKey(item.text), item.mention.count * sides);
      }
    }
  }
  return Math.max(tooMany(sources, inputs), tooMany(mics, micInputs)) + tooMany(shown, pictures);
}
const tooMany = (led: ReadonlyMap<string, number>, inputs: number): number =>
  inputs > 0 ? Math.max(0, [...led.values()].reduce((a, b) => a + b, 0) - inputs) : 0;
const isPicture = (p: DeviceType['ports'][number]): boolean =>
  p.connector !== 'inside' && p.connector !== 'software' && p.level === 'digital' && p.picture !== undefined;
const isPictureInput = (p: DeviceType['ports'][number]): boolean => p.direction === 'in' && isPicture(p);
const isPictureOutput = (p: DeviceType['ports'][number]): boolean => p.direction === 'out' && isPicture(p);
const isAnalog = (level: string): boolean => level === 'microphone' || level === 'line' || level === 'headphone';
const isAnalogInput = (p: DeviceType['ports'][number]): boolean =>
  p.direction === 'in' && isAnalog(p.level) && p.connector !== 'inside' && p.connector !== 'software';
const isAnalogOutput = (p: DeviceType['ports'][number]): boolean => p.direction === 'out' && isAnalog(p.level);

/** No way was said from it or to it. */
const isNamedAlone = (places: readonly Place[]): boolean =>
  places.every(({ chain, hop }) => chain[hop]!.joint === null && chain[hop + 1] === undefined);

interface Place {
  readonly item: Item;
  readonly chain: Chain;
  readonly hop: number;
}

/** Items that are one device named several times: by the same words, or by some of them. */
function groupsOf(chains: readonly Chain[]): ReadonlyMap<Item, Place[]> {
  const groups = new Map<Item, Place[]>();
  for (const chain of chains)
    chain.forEach(({ items }, hop) => {
      for (const item of items) {
        // What is named in one list is not one thing: 'mic, wireless mic > mixer'.
        const leader = [...groups.keys()].find(
          (l) => isNamedAgain(l, item) && !groups.get(l)!.some((p) => p.chain === chain && p.hop === hop),
        );
        groups.set(leader ?? item, [...(leader ? groups.get(leader)! : []), { item, chain, hop }]);
      }
    });
  return groups;
}
