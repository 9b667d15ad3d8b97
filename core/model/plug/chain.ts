import { type Connector, connectorOf, type PlugId } from './connectors.ts';
import { type Form, PARTS, type Part } from './parts.ts';
import type { Placed } from './wiring.ts';

/** What is needed between two sockets: at most one cable, with adapters at either end. */
export interface Chain {
  /** From the output to the input; empty where a captive plug simply goes in. */
  readonly parts: readonly Part[];
  /** The same, each with the way round that it is put in. */
  readonly placed: readonly Placed[];
  readonly form: Form;
  /** Euros, low and high. */
  readonly price: readonly [number, number];
  readonly fragility: number;
  /** What it was chosen by; lower is better. */
  readonly cost: number;
}

/** A bad contact is worth more than a few euros, and each thing more is one to forget. */
const EUROS_A_FRAGILITY = 3;
const EUROS_A_PART = 0.5;
/** A plug that a socket takes, but was not made for. */
const EUROS_SECOND_CHOICE = 1;

const costOf = (part: Part): number =>
  (part.price[0] + part.price[1]) / 2 + EUROS_A_FRAGILITY * part.fragility + EUROS_A_PART;

/** What a row of parts is chosen by. */
export const costOfAll = (parts: readonly Part[]): number => parts.reduce((sum, p) => sum + costOf(p), 0);

/**
 * Where a search stands. Before the cable: what plug the output, with its adapters, takes. After it: what plug there is
 * at the free end.
 */
interface State {
  readonly plug: PlugId;
  readonly afterLead: boolean;
}
interface Reached extends State {
  readonly cost: number;
  readonly placed: readonly Placed[];
}

/** Which plugs are thought of: those that a socket is made for, those that fill it, or any that go in. */
export type Plugs = 'made' | 'filling' | 'any';

const withPlugs = (whole: Connector, plugs: Plugs, isLine: boolean): Connector => {
  const connector = isLine && whole.line ? { ...whole, plugs: whole.line } : whole;
  const [first] = connector.plugs;
  if (plugs === 'any' || !first) return connector;
  const isTwo = first.endsWith('-pair');
  return {
    ...connector,
    plugs: plugs === 'made' ? [first] : connector.plugs.filter((p) => !isTwo || p.endsWith('-pair')),
  };
};

const known = new Map<string, Chain | null>();

/** As `findChain`, over the usual parts; each answer is found once. */
export function usualChain(
  fromId: string,
  toId: string,
  forms: readonly Form[],
  plugs: Plugs,
  isLine: boolean,
): Chain | null {
  const key = `${fromId} ${toId} ${forms.join()} ${plugs} ${isLine}`;
  let chain = known.get(key);
  if (chain === undefined) {
    chain = findChain(fromId, toId, forms, PARTS, plugs, isLine);
    known.set(key, chain);
  }
  return chain;
}

/**
 * The cheapest way to plug one connector into another, by price, fragility and number of parts; null where there is
 * none. Every part of it is right for one of the forms asked for. With `isLine`, by the plug that reaches the line input.
 */
export function findChain(
  fromId: string,
  toId: string,
  forms: readonly Form[],
  parts: readonly Part[] = PARTS,
  plugs: Plugs = 'filling',
  isLine = false,
): Chain | null {
  const [from, to] = [connectorOf(fromId), connectorOf(toId)].map((c) => c && withPlugs(c, plugs, isLine));
  if (!from || !to || (from.captive && to.captive)) return null;
  let best: Chain | null = null;
  for (const form of forms) {
    const found = cheapest(
      from,
      to,
      parts.filter((p) => p.forms.includes(form)),
    );
    if (found && (!best || found.cost < best.cost)) best = { ...found, ...sums(found.parts), form };
  }
  return best;
}

function sums(parts: readonly Part[]): Pick<Chain, 'price' | 'fragility'> {
  return {
    price: [parts.reduce((s, p) => s + p.price[0], 0), parts.reduce((s, p) => s + p.price[1], 0)],
    fragility: parts.reduce((s, p) => s + p.fragility, 0),
  };
}

/** Dijkstra over the plugs: a few dozen states, so the open list is simply kept sorted. */
function cheapest(
  from: Connector,
  to: Connector,
  parts: readonly Part[],
): Pick<Chain, 'parts' | 'placed' | 'cost'> | null {
  const open: Reached[] = from.plugs.map((plug, i) => ({
    plug,
    afterLead: from.captive,
    cost: i > 0 ? EUROS_SECOND_CHOICE : 0,
    placed: [],
  }));
  const done = new Set<string>();
  let best: { placed: readonly Placed[]; cost: number } | null = null;
  while (open.length > 0) {
    open.sort((a, b) => a.cost - b.cost);
    const at = open.shift()!;
    if (best && at.cost >= best.cost) break;
    const key = `${at.plug} ${at.afterLead}`;
    if (done.has(key)) continue;
    done.add(key);
    const choice = arrives(at, to);
    if (choice >= 0) {
      const cost = at.cost + (choice > 0 ? EUROS_SECOND_CHOICE : 0);
      if (!best || cost < best.cost) best = { placed: at.placed, cost };
    }
    for (const part of parts) {
      for (const next of stepsOver(part, at)) {
        open.push({ ...next, cost: at.cost + costOf(part), placed: [...at.placed, placedAs(part, at, next)] });
      }
    }
  }
  return best && { ...best, parts: best.placed.map((p) => p.part) };
}

/** An adapter before the cable is itself the plug in the output, and takes the next one; every other part keeps its direction. */
const placedAs = (part: Part, { plug }: State, next: State): Placed => ({ part, near: plug, far: next.plug });

/** Which of the input's plugs this is, counted from 0; -1 where it does not go in. */
function arrives({ plug, afterLead }: State, to: Connector): number {
  // A captive lead is itself the cable: it goes straight into what the output, with its adapters, takes.
  return afterLead !== to.captive ? to.plugs.indexOf(plug) : -1;
}

/** Maximum number of adapters in a chain. */
const MAX_ADAPTERS = 2;

/** Every row of parts that joins two connectors, with at most two adapters at either end of the cable. */
export function everyChain(fromId: string, toId: string, parts: readonly Part[]): Chain[] {
  const [from, to] = [connectorOf(fromId), connectorOf(toId)];
  if (!from || !to || (from.captive && to.captive)) return [];
  const found: Chain[] = [];
  const walk = (at: State, placed: readonly Placed[], adapters: number, cost: number): void => {
    const choice = arrives(at, to);
    if (choice >= 0) {
      const row = placed.map((p) => p.part);
      const form = row.find((p) => p.wiredAs)?.forms[0] ?? row.find((p) => p.kind === 'lead')?.forms[0] ?? 'mono';
      found.push({
        parts: row,
        placed,
        form,
        ...sums(row),
        cost: cost + (choice > 0 ? EUROS_SECOND_CHOICE : 0),
      });
    }
    for (const part of parts) {
      const isAdapter = part.kind === 'adapter';
      if (isAdapter && adapters === MAX_ADAPTERS) continue;
      for (const next of stepsOver(part, at))
        walk(next, [...placed, placedAs(part, at, next)], isAdapter ? adapters + 1 : 0, cost + costOf(part));
    }
  };
  for (const [i, plug] of from.plugs.entries())
    walk({ plug, afterLead: from.captive }, [], 0, i > 0 ? EUROS_SECOND_CHOICE : 0);
  return found;
}

/**
 * The parts that someone has named, put in one after the other from the output to the input, or the other way round if
 * they were named so; null where they do not fit.
 */
export function followParts(fromId: string, toId: string, parts: readonly Part[]): readonly Placed[] | null {
  const [from, to] = [connectorOf(fromId), connectorOf(toId)];
  if (!from || !to) return null;
  for (const row of parts.length > 1 ? [parts, [...parts].reverse()] : [parts]) {
    let states: (State & { readonly placed: readonly Placed[] })[] = from.plugs.map((plug) => ({
      plug,
      afterLead: from.captive,
      placed: [],
    }));
    for (const part of row)
      states = states.flatMap((at) =>
        stepsOver(part, at).map((next) => ({ ...next, placed: [...at.placed, placedAs(part, at, next)] })),
      );
    const done = states.find((s) => arrives(s, to) >= 0);
    if (done) return done.placed;
  }
  return null;
}

function stepsOver(part: Part, { plug, afterLead }: State): State[] {
  if (part.kind === 'adapter') {
    if (afterLead) return part.takes === plug ? [{ plug: part.gives, afterLead }] : [];
    return part.gives === plug ? [{ plug: part.takes, afterLead }] : [];
  }
  if (afterLead) return [];
  const [near, far] = part.ends;
  const steps: State[] = [];
  if (near === plug) steps.push({ plug: far, afterLead: true });
  if (far === plug && !part.oneWay && far !== near) steps.push({ plug: near, afterLead: true });
  return steps;
}
