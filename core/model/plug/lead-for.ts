import { type Chain, costOfAll, everyChain, followParts, usualChain } from './chain.ts';
import { connectorOf, type PlugId } from './connectors.ts';
import type { End } from './contacts.ts';
import { type Form, PARTS, type Part } from './parts.ts';
import { type Placed, type Wiring, wiringOf } from './wiring.ts';

const ANALOGUE = new Set(['microphone', 'line', 'headphone']);
const isAnalogue = ({ level }: End): boolean => ANALOGUE.has(level);

/** Whether sound runs balanced through an end: two wires and a screen for each side. */
export const isTwoWired = ({ connector, sides, balanced, level }: End): boolean =>
  level !== 'headphone' &&
  (balanced ??
    (TWO_WIRES_AND_SCREEN.has(connector) ||
      // Three contacts for one channel.
      (connector === 'jack-635-trs' && sides === 1)));
const TWO_WIRES_AND_SCREEN = new Set([
  'combo-xlr',
  'xlr-male',
  'xlr-female',
  'xlr-male-pair',
  'xlr-female-pair',
  'jack-635-pair',
]);

/** What a cable is usually taken for between two ends: what their channels are; the best first. */
function plainForms(from: End, to: End): readonly Form[] {
  if (from.level === 'digital' || to.level === 'digital') return ['bits'];
  if (from.level === 'speaker' || to.level === 'speaker') return ['loudspeaker'];
  if (from.sides > 1 || to.sides > 1) return ['stereo', 'headset'];
  return isTwoWired(from) && isTwoWired(to) ? ['balanced', 'mono'] : ['mono', 'balanced'];
}

/** A cable between two ends, and what comes through it; `wiring` is null for bits and speaker power. */
export interface LeadFound {
  readonly chain: Chain;
  readonly wiring: Wiring | null;
}

/** Penalty of a wiring for the two ends; 0 for a correct one. In euros, to be added to the price. */
const PRICE_OF = {
  silent: 1000,
  inverted: 1000,
  crossed: 500,
  joined: 300,
  oneSide: 100,
  shorted: 80,
  lost: 60,
  floating: 50,
  unbalanced: 40,
  /** A line by the plug that reaches the microphone input of a socket that has both. */
  intoMicrophone: 90,
};

function troubleOf(from: End, to: End, found: LeadFound): number {
  const { wiring } = found;
  if (!wiring) return 0;
  let price = 0;
  const forLine = connectorOf(to.connector)?.line;
  if (forLine && from.level !== 'microphone' && !forLine.includes(lastPlug(from, found)!))
    price += PRICE_OF.intoMicrophone;
  const at = (side: number) => wiring.carried.filter((c) => c.to === side);
  const fed = Array.from({ length: to.sides }, (_, side) => at(side));
  if (fed.every((c) => c.length === 0)) price += PRICE_OF.silent;
  else price += fed.filter((c) => c.length === 0).length * PRICE_OF.oneSide;
  if (wiring.carried.some((c) => c.nominal < 0)) price += PRICE_OF.inverted;
  if (from.sides > 1 && to.sides > 1 && wiring.carried.some((c) => c.from !== c.to)) price += PRICE_OF.crossed;
  if (wiring.joined) price += PRICE_OF.joined;
  if (wiring.floating) price += PRICE_OF.floating;
  price += wiring.shorted.length * PRICE_OF.shorted;
  const lost = Array.from({ length: from.sides }, (_, side) => side).filter(
    (side) => !wiring.carried.some((c) => c.from === side),
  );
  price += lost.length * PRICE_OF.lost;
  if (isTwoWired(from) && isTwoWired(to) && !wiring.balanced) price += PRICE_OF.unbalanced;
  return price;
}

/** The plug in the input of a cable. */
export function lastPlug(from: End, { chain }: Pick<LeadFound, 'chain'>): PlugId | null {
  return chain.placed.at(-1)?.far ?? connectorOf(from.connector)?.plugs[0] ?? null;
}

/** The plain lead that one takes without thinking; where a cable of its own goes straight in, that. Null where none fits. */
function plainLead(from: End, to: End): LeadFound | null {
  const straight = followParts(from.connector, to.connector, []);
  if (straight)
    return {
      chain: { parts: [], placed: [], form: plainForms(from, to)[0]!, price: [0, 0], fragility: 0, cost: 0 },
      wiring: wiringOf(from, to, []),
    };
  // A jack goes into a jack where a socket takes both; XLR into XLR, whatever level it has.
  const isLine = from.level !== 'microphone' && connectorOf(from.connector)?.kind !== 'xlr';
  // One looks for the plugs that the sockets are made for first.
  const kinds = ['made', 'filling', 'any'] as const;
  for (const plugs of kinds)
    for (const form of plainForms(from, to)) {
      const chain = usualChain(from.connector, to.connector, [form], plugs, isLine);
      if (chain) return { chain, wiring: wiringOf(from, to, chain.placed) };
    }
  return null;
}

const ANALOGUE_PARTS = PARTS.filter((p) =>
  p.forms.some((form) => form !== 'bits' && form !== 'power' && form !== 'loudspeaker'),
);

/** The cable and adapters that bring it over as it should be, at the least price; null where none fits at all. */
function rightLead(from: End, to: End, plain: LeadFound | null): LeadFound | null {
  if (!isAnalogue(from) || !isAnalogue(to) || (plain && troubleOf(from, to, plain) === 0)) return plain;
  const all = everyChain(from.connector, to.connector, ANALOGUE_PARTS).map(
    (chain): LeadFound => ({ chain, wiring: wiringOf(from, to, chain.placed) }),
  );
  let best: { readonly lead: LeadFound; readonly price: number } | null = null;
  for (const lead of plain ? [plain, ...all] : all) {
    const price = lead.chain.cost + troubleOf(from, to, lead);
    if (!best || price < best.price - 1e-9) best = { lead, price };
  }
  return best?.lead ?? null;
}

export interface LeadsFor {
  /** The cable as it is, where no one has specified it: the plain one, else the correct one. Null: nothing fits. */
  readonly presumed: LeadFound | null;
  /** The correct cable. */
  readonly right: LeadFound | null;
  /** Whether the presumed one does what the right one does. */
  readonly suffices: boolean;
}

const madeForTwo = ({ connector }: End): boolean => connectorOf(connector)?.plugs[0]?.endsWith('-pair') === true;

const known = new Map<string, LeadsFor>();
const keyOf = ({ connector, level, sides, balanced, direction }: End): string =>
  `${connector} ${level} ${sides} ${balanced} ${direction}`;

/** The cables between two ends, each answer found once. */
export function leadsFor(from: End, to: End): LeadsFor {
  const key = `${keyOf(from)} > ${keyOf(to)}`;
  let found = known.get(key);
  if (!found) {
    const plain = plainLead(from, to);
    const right = rightLead(from, to, plain);
    // Between two sockets and one, one looks what to take; between like and like, a plain lead is taken.
    const looksTwice = madeForTwo(from) !== madeForTwo(to) && from.sides !== to.sides;
    const presumed = looksTwice ? right : (plain ?? right);
    const trouble = (lead: LeadFound | null) => (lead ? troubleOf(from, to, lead) : 0);
    found = { presumed, right, suffices: trouble(presumed) <= trouble(right) };
    known.set(key, found);
  }
  return found;
}

const byId = new Map(PARTS.map((p) => [p.id, p]));

/** What comes through parts that someone has named. `fits` is false where they do not join the two ends. */
export function leadOf(from: End, to: End, partIds: readonly string[]): LeadFound & { readonly fits: boolean } {
  const parts = partIds.flatMap((id): Part[] => {
    const part = byId.get(id);
    return part ? [part] : [];
  });
  const placed: readonly Placed[] | null = followParts(from.connector, to.connector, parts);
  // Between two sockets there is always a cable: no named parts means it has no others.
  const { presumed } = leadsFor(from, to);
  if (parts.length === 0 && placed === null && presumed) return { ...presumed, fits: true };
  const price = [0, 1].map((i) => parts.reduce((sum, p) => sum + p.price[i as 0 | 1], 0)) as [number, number];
  const fragility = parts.reduce((sum, p) => sum + p.fragility, 0);
  const form = parts.find((p) => p.wiredAs)?.forms[0] ?? plainForms(from, to)[0]!;
  const chain: Chain = { parts, placed: placed ?? [], form, price, fragility, cost: costOfAll(parts) };
  return { chain, wiring: placed && wiringOf(from, to, placed), fits: placed !== null };
}
