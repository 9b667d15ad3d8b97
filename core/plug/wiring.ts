import { connectorOf, type PlugId } from './connectors.ts';
import { contactsOf, type End, mated, type Role, rolesOfContacts } from './contacts.ts';
import type { Part, WiredAs } from './parts.ts';

/** A lead or adapter with the way round that it is put in: the plug towards the output, and the one towards the input. */
export interface Placed {
  readonly part: Part;
  readonly near: PlugId;
  readonly far: PlugId;
}

/** What of one side of an output comes to one side of an input; amplitude, 1 as it is, below 0 upside down. */
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
  // A microphone by itself on the fourth contact.
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

/** Every contact of the two ends and of what lies between, joined as it is when all is plugged. */
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

/**
 * What comes through when two ends are joined by a chain of parts: each contact of the one against each of the other,
 * as the plugs touch and the leads are wired. Null where an end has no contacts of its own (bits, loudspeaker power).
 */
export function wiringOf(from: End, to: End, chain: readonly Placed[]): Wiring | null {
  const [outs, ins] = [rolesOfContacts(from), rolesOfContacts(to)];
  if (outs.length === 0 || ins.length === 0) return null;
  const nets = netsOf(from, to, chain);
  const at = (end: 'from' | 'to', k: number) => {
    const plug = connectorOf((end === 'from' ? from : to).connector)!.plugs[0]!;
    return nets.root(`${end}:${contactsOf(plug)[k]}`);
  };
  const grounds = new Set<string>();
  const drivers = new Map<string, { side: number; leg: 'hot' | 'cold' }[]>();
  outs.forEach((role, k) => {
    const net = at('from', k);
    if (role === 'ground') grounds.add(net);
    else if (role !== 'open') drivers.set(net, [...(drivers.get(net) ?? []), role]);
  });
  ins.forEach((role, k) => void (role === 'ground' && grounds.add(at('to', k))));
  const hasCold = (roles: readonly Role[], side: number) =>
    roles.some((r) => typeof r === 'object' && r.side === side && r.leg === 'cold');
  const isColdGrounded = (side: number): boolean =>
    outs.some((r, k) => typeof r === 'object' && r.side === side && r.leg === 'cold' && grounds.has(at('from', k)));
  /** What stands on a net of one side of the output, as a share of it. */
  const voltage = (net: string, side: number): readonly [low: number, nominal: number, high: number] => {
    if (grounds.has(net)) return [0, 0, 0];
    const all = drivers.get(net) ?? [];
    // Every output drives its wire through the same resistance: where several meet, their mean is left.
    const share =
      all.filter((d) => d.side === side).reduce((sum, d) => sum + (d.leg === 'hot' ? 1 : -1), 0) /
      Math.max(1, all.length);
    if (!hasCold(outs, side)) return [share, share, share];
    const floats = from.level === 'microphone';
    if (!isColdGrounded(side)) return [HALF * share, HALF * share, HALF * share];
    return floats ? [share, share, share] : [HALF * share, HALF * share, share];
  };
  const carried: Carried[] = [];
  const deaf: number[] = [];
  let [balanced, phantom, floating] = [true, true, false];
  for (let to_ = 0; to_ < to.sides; to_++) {
    const legs = (leg: 'hot' | 'cold') =>
      ins.flatMap((r, k) => (typeof r === 'object' && r.side === to_ && r.leg === leg ? [at('to', k)] : []));
    const [hots, colds] = [legs('hot'), legs('cold')];
    const driven = hots.filter((n) => drivers.has(n) && !grounds.has(n));
    if (hots.length > 0 && hots.every((n) => grounds.has(n))) deaf.push(to_);
    const live = driven.length > 0 ? driven : hots;
    floating ||= driven.length > 0 && colds.some((n) => !drivers.has(n) && !grounds.has(n));
    phantom &&= colds.length > 0 && [...hots, ...colds].every((n) => drivers.has(n) && !grounds.has(n));
    for (let side = 0; side < from.sides; side++) {
      const mean = (nets_: readonly string[], i: 0 | 1 | 2) =>
        nets_.reduce((sum, n) => sum + voltage(n, side)[i], 0) / Math.max(1, nets_.length);
      const values = ([0, 1, 2] as const).map((i) => mean(live, i) - mean(colds, i));
      if (values.every((v) => v === 0)) continue;
      const [low, nominal, high] = [Math.min(...values), values[1]!, Math.max(...values)];
      carried.push({ from: side, to: to_, low, nominal, high });
      balanced &&= colds.length > 0 && hasCold(outs, side) && !isColdGrounded(side);
    }
  }
  const shorted = Array.from({ length: from.sides }, (_, side) => side).filter((side) =>
    outs.some((r, k) => typeof r === 'object' && r.side === side && r.leg === 'hot' && grounds.has(at('from', k))),
  );
  const direct = netsOf(from, to, chain, false);
  const sidesAt = new Map<string, Set<number>>();
  outs.forEach((role, k) => {
    if (typeof role !== 'object' || grounds.has(at('from', k))) return;
    const net = direct.root(`from:${contactsOf(connectorOf(from.connector)!.plugs[0]!)[k]}`);
    sidesAt.set(net, (sidesAt.get(net) ?? new Set()).add(role.side));
  });
  const joined = [...sidesAt.values()].some((sides) => sides.size > 1);
  return { carried, shorted, deaf, joined, floating, balanced: balanced && carried.length > 0, phantom };
}
