import { describe, expect, it } from 'vitest';
import { catalogue } from '#core/model/rig/index.ts';
import {
  CONNECTORS,
  type Connector,
  connectorOf,
  type Form,
  findChain,
  PARTS,
  type Part,
  PLUGS,
  type PlugId,
  UNPLUGGED,
} from './index.ts';

const FORMS: Form[] = ['balanced', 'mono', 'stereo', 'headset', 'loudspeaker', 'bits'];
const names = (from: string, to: string, ...forms: Form[]) =>
  findChain(from, to, forms)?.parts.map((p) => p.id) ?? null;

/** The slow, obvious twin: every row of at most four parts, held against both sockets. */
function bruteForce(from: Connector, to: Connector, form: Form): number | null {
  const usable = PARTS.filter((p) => p.forms.includes(form));
  const price = (p: Part) => (p.price[0] + p.price[1]) / 2 + 3 * p.fragility + 0.5;
  let best: number | null = null;
  const offer = (cost: number) => {
    if (best === null || cost < best - 1e-9) best = cost;
  };
  /** Adapters that lie between a socket's plugs and the plug wanted, as [plug, cost], two at most on each side. */
  const reach = (starts: readonly PlugId[]): Map<PlugId, number> => {
    const costs = new Map<PlugId, number>(starts.map((p, i) => [p, i > 0 ? 1 : 0]));
    for (let round = 0; round < 2; round++) {
      for (const [plug, cost] of [...costs]) {
        for (const a of usable) {
          if (a.kind !== 'adapter' || a.gives !== plug) continue;
          const total = cost + price(a);
          if (total < (costs.get(a.takes) ?? Number.POSITIVE_INFINITY)) costs.set(a.takes, total);
        }
      }
    }
    return costs;
  };
  if (from.captive && to.captive) return null;
  if (from.captive || to.captive) {
    const [socket, plug] = from.captive ? [to, from.plugs[0]!] : [from, to.plugs[0]!];
    const cost = reach(socket.plugs).get(plug);
    return cost ?? null;
  }
  const [near, far] = [reach(from.plugs), reach(to.plugs)];
  for (const l of usable) {
    if (l.kind !== 'lead') continue;
    for (const [a, b] of [l.ends, ...(l.oneWay ? [] : [[l.ends[1], l.ends[0]] as const])]) {
      const [x, y] = [near.get(a), far.get(b)];
      if (x !== undefined && y !== undefined) offer(x + y + price(l));
    }
  }
  return best;
}

describe('leads and adapters', () => {
  it.each([
    ['xlr-male', 'combo-xlr', ['balanced'], ['lead-xlr-f-xlr-m']],
    ['hdmi-mini', 'hdmi', ['bits'], ['lead-hdmi-mini-hdmi']],
    ['hdmi', 'hdmi', ['bits'], ['lead-hdmi-hdmi']],
    ['usb-b', 'usb-a', ['bits'], ['lead-usb-a-usb-b']],
    ['jack-35-trs', 'jack-635-pair', ['stereo'], ['lead-trs-35-ts-635-pair']],
    ['jack-35-trrs', 'jack-635-pair', ['stereo'], ['lead-trs-35-ts-635-pair']],
    ['jack-635-pair', 'xlr-female-pair', ['stereo'], ['lead-trs-635-pair-xlr-m-pair']],
    ['jack-635-trs', 'plug-35-trs', ['stereo'], ['adapter-trs-35-trs-635']],
    ['jack-635-trs', 'plug-635-trs', ['stereo'], []],
    ['plug-usb-a', 'usb-c', ['bits'], ['adapter-usb-a-usb-c']],
    ['plug-35-pair', 'jack-35-trrs', ['headset'], ['adapter-trs-35-pair-trrs-35']],
    ['xlr-male', 'jack-35-trs', ['balanced'], null],
    ['hdmi', 'usb-a', ['bits'], null],
    ['terminals', 'jack-635-trs', FORMS, null],
    ['plug-usb-a', 'plug-usb-c', ['bits'], null],
    ['air', 'hdmi', ['bits'], null],
  ] as [string, string, Form[], string[] | null][])('%s into %s as %j', (from, to, forms, parts) => {
    expect(names(from, to, ...forms)).toEqual(parts);
  });
  it('are the cheapest for every pair of connectors, or none, as trying everything says', () => {
    let chains = 0;
    for (const from of CONNECTORS) {
      for (const to of CONNECTORS) {
        for (const form of FORMS) {
          const found = findChain(from.id, to.id, [form], PARTS, 'any');
          const slow = bruteForce(from, to, form);
          const what = `${from.id} > ${to.id}, ${form}`;
          if (slow === null) expect(found, what).toBeNull();
          else expect(found?.cost, what).toBeCloseTo(slow, 6);
          if (found) chains++;
        }
      }
    }
    expect(chains).toBeGreaterThan(250);
  });
  it('fit end to end, and are bought at a price that adds up', () => {
    for (const from of CONNECTORS) {
      for (const to of CONNECTORS) {
        const chain = findChain(from.id, to.id, FORMS);
        if (!chain) continue;
        expect(chain.parts.filter((p) => p.kind === 'lead').length).toBe(from.captive || to.captive ? 0 : 1);
        expect(chain.parts.every((p) => p.forms.includes(chain.form))).toBe(true);
        expect(chain.price[0]).toBeLessThanOrEqual(chain.price[1]);
        expect(chain.fragility).toBeCloseTo(
          chain.parts.reduce((s, p) => s + p.fragility, 0),
          9,
        );
      }
    }
  });
  it('go one way only where they do', () => {
    const optical: Part = {
      kind: 'lead',
      id: 'lead-optical-hdmi',
      name: 'HDMI, optical inside',
      ends: ['hdmi-mini', 'hdmi'],
      forms: ['bits'],
      price: [40, 90],
      fragility: 1,
      oneWay: true,
    };
    expect(findChain('hdmi-mini', 'hdmi', ['bits'], [optical])?.parts).toEqual([optical]);
    expect(findChain('hdmi', 'hdmi-mini', ['bits'], [optical])).toBeNull();
  });
});

describe('connectors', () => {
  it('have each id once, plugs that there are, and a part for every plug', () => {
    expect(new Set(CONNECTORS.map((c) => c.id)).size).toBe(CONNECTORS.length);
    expect(new Set(PARTS.map((p) => p.id)).size).toBe(PARTS.length);
    const used = new Set(PARTS.flatMap((p) => (p.kind === 'lead' ? p.ends : [p.takes, p.gives])));
    for (const connector of CONNECTORS) {
      for (const plug of connector.plugs) {
        expect(PLUGS[plug], `${connector.id}: ${plug}`).toBeTruthy();
        // An insert takes a cable of its own kind, made for one desk and one device.
        if (plug !== 'insert-635') expect(used.has(plug), `${connector.id}: ${plug}`).toBe(true);
      }
    }
  });
  it('of the catalogue are all known, or are nothing that one plugs', () => {
    const unplugged = UNPLUGGED;
    for (const type of catalogue) {
      for (const port of type.ports) {
        expect(
          connectorOf(port.connector) !== undefined || unplugged.has(port.connector),
          `${type.id}/${port.id}: ${port.connector}`,
        ).toBe(true);
      }
    }
  });
});
