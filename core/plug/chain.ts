import { type Connector, connectorOf, type PlugId } from './connectors.ts';
import { type Form, PARTS, type Part } from './parts.ts';

/** What is needed between two sockets: at most one lead, with adapters at either end. */
export interface Chain {
  /** From the output to the input; empty where a captive plug simply goes in. */
  readonly parts: readonly Part[];
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

/**
 * Where a search stands. Before the lead: what plug the output, with its adapters, takes. After it: what plug there is
 * at the free end.
 */
interface State {
  readonly plug: PlugId;
  readonly afterLead: boolean;
}
interface Reached extends State {
  readonly cost: number;
  readonly parts: readonly Part[];
}

const known = new Map<string, Chain | null>();

/** As `findChain`, over the usual parts; each answer is found once. */
export function usualChain(fromId: string, toId: string, forms: readonly Form[]): Chain | null {
  const key = `${fromId} ${toId} ${forms.join()}`;
  let chain = known.get(key);
  if (chain === undefined) {
    chain = findChain(fromId, toId, forms);
    known.set(key, chain);
  }
  return chain;
}

/**
 * The cheapest way to plug one connector into another, by price, fragility and number of parts; null where there is
 * none. Every part of it is right for one of the forms asked for.
 */
export function findChain(
  fromId: string,
  toId: string,
  forms: readonly Form[],
  parts: readonly Part[] = PARTS,
): Chain | null {
  const [from, to] = [connectorOf(fromId), connectorOf(toId)];
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
function cheapest(from: Connector, to: Connector, parts: readonly Part[]): Pick<Chain, 'parts' | 'cost'> | null {
  const open: Reached[] = from.plugs.map((plug, i) => ({
    plug,
    afterLead: from.captive,
    cost: i > 0 ? EUROS_SECOND_CHOICE : 0,
    parts: [],
  }));
  const done = new Set<string>();
  let best: { parts: readonly Part[]; cost: number } | null = null;
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
      if (!best || cost < best.cost) best = { parts: at.parts, cost };
    }
    for (const part of parts) {
      for (const next of stepsOver(part, at)) {
        open.push({ ...next, cost: at.cost + costOf(part), parts: [...at.parts, part] });
      }
    }
  }
  return best;
}

/** Which of the input's plugs this is, counted from 0; -1 where it does not go in. */
function arrives({ plug, afterLead }: State, to: Connector): number {
  // A captive lead is itself the lead: it goes straight into what the output, with its adapters, takes.
  return afterLead !== to.captive ? to.plugs.indexOf(plug) : -1;
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
