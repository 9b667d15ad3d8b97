import { connectorOf, type PlugId } from './connectors.ts';
import { contactsOf, type End, mated, type Role, rolesOfContacts } from './contacts.ts';
import type { Part, WiredAs } from './parts.ts';

/** A cable or adapter with the way round that it is put in: the plug toward the output, and the one toward the input. */
export interface Placed {
  readonly part: Part;
  readonly near: PlugId;
  readonly far: PlugId;
}

/** Share of one side of an output that arrives at one side of an input; amplitude, 1 unchanged, negative with inverted polarity. */
export interface Carried {
  readonly from: number;
  readonly to: number;
  readonly low: number;
  readonly nominal: number;
  readonly high: number;
}

export interface Wiring {
  readonly carried: readonly Carried[];
  /** Sides of the output whose wire is joined to ground: nothing of them is left, and the output works into a short. */
  readonly shorted: readonly number[];
  /** Sides of the input whose wire is joined to ground. */
  readonly deaf: readonly number[];
  /** Sides of the output that are joined to each other without resistors. */
  readonly joined: boolean;
  /** A second wire of the input that hangs in the air: it hums. */
  readonly floating: boolean;
  /** Two wires and a screen from end to end, for every side. */
  readonly balanced: boolean;
  /** Both wires of every side of the input reach a wire of the output: phantom power passes. */
  readonly phantom: boolean;
}

/** Wires of a part by the contacts of one of its ends; what has no partner at the other end is tied to ground there. */
const ENDS: Partial<Record<PlugId, readonly string[]>> = {
  'ts-35': ['a', 'g'],
  'ts-635': ['a', 'g'],
  phono: ['a', 'g'],
  'trs-35': ['a', 'b', 'g'],
  'trs-25': ['a', 'b', 'g'],
  'trs-635': ['a', 'b', 'g'],
  'trrs-35': ['a', 'b', 'g', 'm'],
  'trs-35-pair': ['a', 'b', 'g', 'm', 'm', 'g'],
  'xlr-f': ['g', 'a', 'b'],
  'xlr-m': ['g', 'a', 'b'],
  'ts-635-pair': ['a', 'g', 'b', 'g'],
  'phono-pair': ['a', 'g', 'b', 'g'],
  'trs-635-pair': ['a', 'a-', 'g', 'b', 'b-', 'g'],
  'xlr-f-pair': ['g', 'a', 'a-', 'g', 'b', 'b-'],
  'xlr-m-pair': ['g', 'a', 'a-', 'g', 'b', 'b-'],
};

/** Where a form joins wires otherwise than straight, at the end that has such a plug. */
const SPECIAL: Record<WiredAs, Readonly<Partial<Record<PlugId, readonly string[]>>>> = {
  // One channel on both wires of a stereo plug.
  both: {
    'trs-35': ['a', 'a', 'g'],
    'trs-635': ['a', 'a', 'g'],
    'ts-635-pair': ['a', 'g', 'a', 'g'],
    'phono-pair': ['a', 'g', 'a', 'g'],
    'xlr-m-pair': ['g', 'a', 'g', 'g', 'a', 'g'],
  },
  'both-balanced': {
    'trs-635': ['a', 'a-', 'g'],
    'xlr-f': ['g', 'a', 'a-'],
    'trs-635-pair': ['a', 'a-', 'g', 'a', 'a-', 'g'],
    'xlr-m-pair': ['g', 'a', 'a-', 'g', 'a', 'a-'],
  },
  // A mono microphone on the fourth contact.
  microphone: { 'trs-35': ['m', 'm', 'g'], 'ts-35': ['m', 'g'] },
  // Both sides through resistors onto one wire.
  sum: {
    'trs-35': ['a', 'a', 'g'],
    'trs-635': ['a', 'a', 'g'],
    'phono-pair': ['a', 'g', 'a', 'g'],
    'ts-635-pair': ['a', 'g', 'a', 'g'],
  },
  // The same without resistors: for plugs that have one sound on both contacts.
  joined: { 'trs-35': ['a', 'a', 'g'] },
};

const wiresOf = (plug: PlugId, { wiredAs }: Part): readonly string[] =>
  (wiredAs && SPECIAL[wiredAs][plug]) ?? ENDS[plug] ?? [];

/** Sets of contacts that touch or are wired together. */
class Nets {
  private readonly up = new Map<string, string>();
  root(at: string): string {
    let top = at;
    for (let next = this.up.get(top); next !== undefined; next = this.up.get(top)) top = next;
    return top;
  }
  join(a: string, b: string): void {
    const [x, y] = [this.root(a), this.root(b)];
    if (x !== y) this.up.set(x, y);
  }
}

const plugContacts = (id: string, plug: PlugId) => contactsOf(plug).map((c) => `${id}:${c}`);

/** Contacts of both ends and of the parts between, connected as when plugged in. */
function netsOf(from: End, to: End, chain: readonly Placed[], throughResistors = true): Nets {
  const nets = new Nets();
  const plugIn = (plugAt: string, plug: PlugId, socketAt: string, connector: string) => {
    for (const [p, s] of mated(plug, connector)) nets.join(`${plugAt}:${p}`, `${socketAt}:${s}`);
  };
  chain.forEach((placed, i) => {
    const isCut = !throughResistors && placed.part.wiredAs === 'sum';
    for (const [end, plug] of isCut
      ? []
      : ([
          ['near', placed.near],
          ['far', placed.far],
        ] as const)) {
      const other = end === 'near' ? placed.far : placed.near;
      const known = new Set(wiresOf(other, placed.part));
      wiresOf(plug, placed.part).forEach((wire, k) => {
        const contact = plugContacts(`${i}${end}`, plug)[k]!;
        // A wire that goes no further is tied to ground, but for a microphone's: that one is left open.
        const to = known.has(wire) ? wire : wire === 'm' || plug === 'trrs-35' ? `open-${end}-${wire}` : 'g';
        nets.join(contact, `${i}wire:${to}`);
      });
    }
    const before = chain[i - 1];
    if (before)
      for (const [k, c] of contactsOf(before.far).entries())
        nets.join(`${i - 1}far:${c}`, `${i}near:${contactsOf(placed.near)[k] ?? ''}`);
  });
  const [first, last] = [chain[0], chain.at(-1)];
  const [a, b] = [connectorOf(from.connector)!, connectorOf(to.connector)!];
  if (!first || !last) {
    // A captive plug that goes straight in.
    if (a.captive) plugIn('from', a.plugs[0]!, 'to', to.connector);
    else plugIn('to', b.plugs[0]!, 'from', from.connector);
    return nets;
  }
  if (a.captive)
    for (const [k, c] of contactsOf(a.plugs[0]!).entries())
      nets.join(`from:${c}`, `0near:${contactsOf(first.near)[k] ?? ''}`);
  else plugIn('0near', first.near, 'from', from.connector);
  const end = chain.length - 1;
  if (b.captive)
    for (const [k, c] of contactsOf(b.plugs[0]!).entries())
      nets.join(`to:${c}`, `${end}far:${contactsOf(last.far)[k] ?? ''}`);
  else plugIn(`${end}far`, last.far, 'to', to.connector);
  return nets;
}

/** A floating output, as a microphone is, gives all it has to one wire when the other is grounded; a driven one half, or all. */
const HALF = 0.5;

type Wire = Extract<Role, object>;
type Span = readonly [low: number, nominal: number, high: number];
const SILENT: Span = [0, 0, 0];

/** Two ends and all connections between: the net of each wire, the driver of each net, and which nets are ground. */
interface Joined {
  readonly from: End;
  readonly outs: readonly Role[];
  readonly ins: readonly Role[];
  readonly grounds: ReadonlySet<string>;
  readonly drivers: ReadonlyMap<string, readonly Wire[]>;
  /** The nets of one leg of a side of the input. */
  inNets(side: number, leg: Wire['leg']): readonly string[];
  /** The nets of one leg of a side of the output. */
  outNets(side: number, leg: Wire['leg']): readonly string[];
}

const numbered = (count: number): number[] => Array.from({ length: count }, (_, i) => i);
const isWire = (role: Role): role is Wire => typeof role === 'object';
const contactAt = (name: 'from' | 'to', { connector }: End, k: number): string =>
  `${name}:${contactsOf(connectorOf(connector)!.plugs[0]!)[k]}`;

function joinedBy(nets: Nets, from: End, to: End): Joined {
  const [outs, ins] = [rolesOfContacts(from), rolesOfContacts(to)];
  const [outAt, inAt] = [
    outs.map((_, k) => nets.root(contactAt('from', from, k))),
    ins.map((_, k) => nets.root(contactAt('to', to, k))),
  ];
  const grounds = new Set([
    ...outAt.filter((_, k) => outs[k] === 'ground'),
    ...inAt.filter((_, k) => ins[k] === 'ground'),
  ]);
  const drivers = new Map<string, Wire[]>();
  outs.forEach((role, k) => {
    if (isWire(role)) drivers.set(outAt[k]!, [...(drivers.get(outAt[k]!) ?? []), role]);
  });
  const netsWith = (roles: readonly Role[], at: readonly string[]) => (side: number, leg: Wire['leg']) =>
    at.filter((_, k) => {
      const role = roles[k]!;
      return isWire(role) && role.side === side && role.leg === leg;
    });
  return { from, outs, ins, grounds, drivers, inNets: netsWith(ins, inAt), outNets: netsWith(outs, outAt) };
}

/** Share of an output side on a net. */
function voltage({ from, grounds, drivers, outNets }: Joined, net: string, side: number): Span {
  const all = drivers.get(net) ?? [];
  if (grounds.has(net) || all.length === 0) return SILENT;
  // Every output drives its wire through the same resistance: where several meet, their mean is left.
  const share = all.filter((d) => d.side === side).reduce((sum, d) => sum + (d.leg === 'hot' ? 1 : -1), 0) / all.length;
  const colds = outNets(side, 'cold');
  if (colds.length === 0) return [share, share, share];
  if (!colds.some((n) => grounds.has(n))) return [HALF * share, HALF * share, HALF * share];
  return from.level === 'microphone' ? [share, share, share] : [HALF * share, HALF * share, share];
}

/** What arrives of an output side at an input side: hot minus cold, each the mean of its contacts. */
function carriedTo(joined: Joined, from: number, to: number): Carried | null {
  const { inNets, drivers, grounds } = joined;
  const hots = inNets(to, 'hot');
  const driven = hots.filter((n) => drivers.has(n) && !grounds.has(n));
  const mean = (nets: readonly string[], i: 0 | 1 | 2) =>
    nets.reduce((sum, n) => sum + voltage(joined, n, from)[i], 0) / Math.max(1, nets.length);
  const at = ([0, 1, 2] as const).map(
    (i) => mean(driven.length > 0 ? driven : hots, i) - mean(inNets(to, 'cold'), i),
  ) as [number, number, number];
  return at[1] === 0 ? null : { from, to, low: Math.min(...at), nominal: at[1], high: Math.max(...at) };
}

/**
 * What comes through when two ends are joined by a chain of parts: each contact of the one against each of the other,
 * as the plugs touch and the cables are wired. Null where an end has no contacts of its own (bits, speaker power).
 */
export function wiringOf(from: End, to: End, chain: readonly Placed[]): Wiring | null {
  if (from.level === 'digital' || to.level === 'digital') return null;
  if (rolesOfContacts(from).length === 0 || rolesOfContacts(to).length === 0) return null;
  const joined = joinedBy(netsOf(from, to, chain), from, to);
  const { grounds, drivers, inNets, outNets } = joined;
  const [outSides, inSides] = [numbered(from.sides), numbered(to.sides)];
  const carried = inSides.flatMap((t) => outSides.flatMap((f) => carriedTo(joined, f, t) ?? []));
  const isLive = (net: string): boolean => drivers.has(net) && !grounds.has(net);
  const hasBoth = (f: number): boolean =>
    outNets(f, 'cold').length > 0 && !outNets(f, 'cold').some((n) => grounds.has(n));
  // Two sides on one wire, but for those that resistors keep apart.
  const { drivers: direct } = joinedBy(netsOf(from, to, chain, false), from, to);
  return {
    carried,
    shorted: outSides.filter((f) => outNets(f, 'hot').some((n) => grounds.has(n))),
    deaf: inSides.filter((t) => inNets(t, 'hot').length > 0 && inNets(t, 'hot').every((n) => grounds.has(n))),
    joined: sidesOnOneWire(direct, joined),
    floating: inSides.some(
      (t) => inNets(t, 'hot').some(isLive) && inNets(t, 'cold').some((n) => !drivers.has(n) && !grounds.has(n)),
    ),
    balanced: carried.length > 0 && carried.every((c) => inNets(c.to, 'cold').length > 0 && hasBoth(c.from)),
    phantom: inSides.every(
      (t) => inNets(t, 'cold').length > 0 && [...inNets(t, 'hot'), ...inNets(t, 'cold')].every(isLive),
    ),
  };
}

/** Whether wires of two sides that are not ground meet without a resistor between. */
function sidesOnOneWire(direct: Joined['drivers'], { outNets, grounds }: Joined): boolean {
  const isGrounded = ({ side, leg }: Wire): boolean => outNets(side, leg).some((n) => grounds.has(n));
  return [...direct.values()].some((all) => new Set(all.filter((d) => !isGrounded(d)).map((d) => d.side)).size > 1);
}
