import type { Text } from '#core/base/said/index.ts';
import { walk } from '#core/base/search/index.ts';
import {
  applyEdit,
  type Cable,
  drawSettings,
  type Edit,
  findTypes,
  listenerIn,
  type Rig,
  type SettingChange,
  sourceIn,
} from '#core/model/rig/index.ts';
import { type Clash, clashesOf, type MadeSo, solveRouting } from '#core/routing/suggest/index.ts';
import { addDevice, offersFor, socketsOf } from '#core/routing/wiring/index.ts';
import { evaluate } from '#core/signal/index.ts';

interface Pair {
  readonly sourceId: string;
  readonly listenerId: string;
}

/** A cable, or a device with its cables, that brings a source where no way led; with the settings that have to follow. */
export interface Bridge {
  readonly pair: Pair;
  /** The device that is put in; null where leads alone do. */
  readonly box: { readonly name: string; readonly edit: Edit; readonly deviceId: string } | null;
  readonly cables: readonly Cable[];
  /** What has to be connected, in words and in order: 'lead 6.35 mm …'. */
  readonly parts: readonly Text[];
  readonly changes: readonly SettingChange[];
  /** Euros, low and high, of what has to be bought. */
  readonly priceEur: readonly [number, number];
  /** What it was chosen by; lower is better. */
  readonly cost: number;
}

/** What makes a plan so: settings first; then, for what no setting brings, leads and devices; and what clashes. */
export interface Whole extends MadeSo {
  readonly bridges: readonly Bridge[];
  readonly clashes: readonly Clash[];
}

const EVALUATIONS_EACH = 150;
const MAX_LEADS = 24;
const MAX_BOXES = 40;
const OFFERED = 2;
/** Cost of one more device to carry and to power. */
const COST_OF_A_BOX = 60;
/** Devices that do nothing but bring a sound from one kind of end to another. */
const BRIDGES = [
  'virtual-cable',
  'line-to-usb',
  'usb-to-line',
  'hdmi-extractor',
  'optical-to-line',
  'di-box',
  'interface-2',
];

/** Everything about how a plan is met. Each part is computed only where the previous one leaves something open. */
export function makeWhole(rig: Rig): Whole {
  const made = solveRouting(rig);
  const done = withChanges(rig, made.changes);
  const bridges = made.left.filter((l) => l.stop?.kind === 'no-way').flatMap((l) => bridgesFor(done, l));
  const clashes = made.left.filter((l) => l.stop?.kind !== 'no-way').flatMap((l) => clashesOf(rig, l));
  return { ...made, bridges, clashes };
}

function withChanges(rig: Rig, changes: readonly SettingChange[]): Rig {
  const done = applyEdit(rig, drawSettings(changes));
  return done.ok ? done.rig : rig;
}

interface Candidate extends Omit<Bridge, 'pair' | 'changes'> {
  readonly rig: Rig;
}

/** The cheapest leads, or else devices, that bring a source to a listener and make nothing worse; tried one by one. */
function bridgesFor(rig: Rig, { sourceId, listenerId }: Pair): Bridge[] {
  const before = solveRouting(rig, undefined, EVALUATIONS_EACH).left.length;
  const brings = ({ rig: there, ...bridge }: Candidate): Bridge[] => {
    const { changes, left } = solveRouting(there, undefined, EVALUATIONS_EACH);
    const after = evaluate(withChanges(there, changes));
    const pair = after.pairs.find((p) => p.sourceId === sourceId && p.listenerId === listenerId)!;
    if (pair.ways.length === 0 || left.length >= before) return [];
    return [{ ...bridge, pair: { sourceId, listenerId }, changes }];
  };
  const first = (candidates: readonly Candidate[], most: number): Bridge[] => {
    const found: Bridge[] = [];
    for (const candidate of candidates.slice(0, most)) {
      found.push(...brings(candidate));
      if (found.length === OFFERED) break;
    }
    return found;
  };
  const ends = reachOf(rig, sourceId, listenerId);
  const leads = first(byLead(rig, ends), MAX_LEADS);
  return leads.length > 0 ? leads : first(byBox(rig, ends), MAX_BOXES);
}

interface Ends {
  /** Ports that the source reaches, and ports that lead to the destination, through blocked edges too: `device/port`. */
  readonly from: ReadonlySet<string>;
  readonly to: ReadonlySet<string>;
}

function reachOf(rig: Rig, sourceId: string, listenerId: string): Ends {
  const { graph } = evaluate(rig);
  const { nodes, edges, from, to, shut } = graph;
  const on = new Map<number, number[]>();
  const back = new Map<number, number[]>();
  const note = (map: Map<number, number[]>, a: number, b: number) => map.set(a, [...(map.get(a) ?? []), b]);
  for (let e = 0; e < edges.length; e++) {
    note(on, from[e]!, to[e]!);
    note(back, to[e]!, from[e]!);
  }
  for (const s of shut) {
    note(on, s.from, s.to);
    note(back, s.to, s.from);
  }
  const flood = (start: readonly number[], near: ReadonlyMap<number, number[]>): Set<string> => {
    const heard = start.filter((n) => nodes[n]!.carries === 'sound');
    const met = walk(heard, (node) => near.get(node) ?? []);
    return new Set([...met].map((n) => `${nodes[n]!.deviceId}/${nodes[n]!.portId}`));
  };
  const source = sourceIn(rig, sourceId);
  const listener = listenerIn(rig, listenerId);
  return { from: flood(graph.nodesOf(source.sound), on), to: flood(graph.nodesOf(listener.sound), back) };
}

const drawn = (rig: Rig, edits: readonly Edit[]): Rig | null => {
  const done = applyEdit(rig, { kind: 'batch', edits: [...edits] });
  return done.ok ? done.rig : null;
};
const plugs = (cables: readonly Cable[]): Edit[] => cables.map((cable) => ({ kind: 'plug', cable }));

/** Leads from any of these sockets to any of those, the cheapest first; not through the air, which no one plugs. */
function joins(rig: Rig, from: ReadonlySet<string>, to: ReadonlySet<string>) {
  const types = findTypes(rig);
  const devices = new Set([...from].map((key) => key.split('/')[0]!));
  return [...devices]
    .flatMap((deviceId) => socketsOf(rig, deviceId, types))
    .flatMap((socket) =>
      offersFor(rig, socket).flatMap(({ cables, chain, cost }) => {
        const way = cables.filter(
          (c) => from.has(`${c.from.deviceId}/${c.from.portId}`) && to.has(`${c.to.deviceId}/${c.to.portId}`),
        );
        if (way.length === 0 || ['air', 'light'].includes(way[0]!.medium)) return [];
        const parts = chain?.parts ?? [];
        const price = (side: 0 | 1) => parts.reduce((sum, p) => sum + p.price[side], 0);
        return [{ cables: way, cost, parts: parts.map((p) => p.name), priceEur: [price(0), price(1)] as const }];
      }),
    )
    .sort((a, b) => a.cost - b.cost);
}

const byLead = (rig: Rig, { from, to }: Ends): Candidate[] =>
  joins(rig, from, to).flatMap((join) => {
    const there = drawn(rig, plugs(join.cables));
    return there ? [{ ...join, box: null, rig: there }] : [];
  });

/** A bridging box between: in by the cheapest lead, out by the cheapest. */
function byBox(rig: Rig, { from, to }: Ends): Candidate[] {
  const types = findTypes(rig);
  return BRIDGES.flatMap((typeId): Candidate[] => {
    const type = types.get(typeId);
    if (!type) return [];
    const { edit, device } = addDevice(rig, type);
    const put = drawn(rig, [{ kind: 'add-device', device }]);
    if (!put) return [];
    const own = (direction: 'in' | 'out') =>
      new Set(type.ports.filter((p) => p.direction === direction).map((p) => `${device.id}/${p.id}`));
    return joins(put, from, own('in'))
      .slice(0, 3)
      .flatMap((into): Candidate[] => {
        const half = drawn(put, plugs(into.cables));
        const [out] = half ? joins(half, own('out'), to) : [];
        const there = half && out ? drawn(half, plugs(out.cables)) : null;
        if (!there || !out) return [];
        const price = type.priceEur ?? [0, 0];
        return [
          {
            box: { name: type.name, edit: withoutEnds(edit), deviceId: device.id },
            cables: [...into.cables, ...out.cables],
            parts: [...into.parts, ...out.parts],
            priceEur: [price[0] + into.priceEur[0] + out.priceEur[0], price[1] + into.priceEur[1] + out.priceEur[1]],
            cost: into.cost + out.cost + COST_OF_A_BOX + (price[0] + price[1]) / 2,
            rig: there,
          },
        ];
      });
  }).sort((a, b) => a.cost - b.cost);
}

/** A bridge is neither source nor listener. */
const withoutEnds = (edit: Edit): Edit =>
  edit.kind === 'batch' ? { ...edit, edits: edit.edits.filter((e) => e.kind === 'add-device') } : edit;
