import {
  bringsPowerOnly,
  type Carried,
  connectorOf,
  endOf,
  leadOf,
  leadsFor,
  speakAlike,
} from '#core/model/plug/index.ts';
import { type Cable, type DeviceType, type PortSpec, usbMeets, usbRoleOf } from '#core/model/rig/index.ts';
import { airMs, dbFromRatio, exactly, powerFromDb } from '#core/model/units/index.ts';
import type { DelayTerm, Edge } from './graph.ts';
import { type Link, layoutOf, newWayId } from './layout.ts';
import { say } from './sayings.ts';

/** Cables without delay and the closest that a microphone stands, so that no air path gains without end. */
const CLOSEST_M = 0.01;
interface KnownCable {
  readonly from: DeviceType;
  readonly to: DeviceType;
  readonly links: readonly Link[];
}
const cables = new WeakMap<Cable, KnownCable>();

/** What a cable, a stretch of air or a link in software carries from channel to channel. */
export function cableLinks(cable: Cable, fromType: DeviceType, toType: DeviceType): readonly Link[] {
  const known = cables.get(cable);
  if (known && known.from === fromType && known.to === toType) return known.links;
  const from = layoutOf(fromType).get(cable.from.portId)!;
  const to = layoutOf(toType).get(cable.to.portId)!;
  const edge = cableEdge(cable, from.spec);
  const meets = usbMeets(usbRoleOf(fromType, from.spec), usbRoleOf(toType, to.spec));
  const wired = meets ? wiredPairs(cable, from.spec, to.spec) : [];
  const links = wired
    ? wired.map(({ from: f, to: t, ...carried }) => ({
        edge: isWhole(carried) ? edge : { ...edge, wayId: newWayId(), ...gainOf(carried) },
        from: from.first + f,
        to: to.first + t,
      }))
    : channelPairs(cable, from.spec, to.spec).map(([f, t]) => ({ edge, from: from.first + f, to: to.first + t }));
  cables.set(cable, { from: fromType, to: toType, links });
  return links;
}

function cableEdge(cable: Cable, from: PortSpec): Edge {
  const air = cable.medium === 'air';
  const ms = exactly(air ? airMs(cable.lengthM) : 0);
  const gainDb = air ? -dbFromRatio(Math.max(cable.lengthM, CLOSEST_M) / (from.referenceM ?? 1)) : 0;
  const term: DelayTerm = {
    key: `cable:${cable.id}`,
    label: say.mAir({ lengthM: cable.lengthM }),
    ms,
    kind: 'standard',
    source: say.speedSoundAtC(),
  };
  return {
    wayId: newWayId(),
    via: { cableId: cable.id },
    gainDb: exactly(gainDb),
    powerGain: powerFromDb(gainDb),
    noisePower: 0,
    delays: air ? [term] : [],
    delayMs: ms,
    ceilingDb: Number.POSITIVE_INFINITY,
    conversions: 0,
    polarity: 1,
    lowHz: 0,
    highHz: Number.POSITIVE_INFINITY,
    clock: null,
    settings: [],
    stages: [],
  };
}

const isWhole = ({ low, high }: Pick<Carried, 'low' | 'high'>): boolean => low === 1 && high === 1;

/** The gain and the way up of what a cable carries in part, or upside down. */
function gainOf({ low, nominal, high }: Pick<Carried, 'low' | 'nominal' | 'high'>) {
  const [small, large] = [Math.min(Math.abs(low), Math.abs(high)), Math.max(Math.abs(low), Math.abs(high))];
  const gainDb = { low: dbFromRatio(small), nominal: dbFromRatio(Math.abs(nominal)), high: dbFromRatio(large) };
  return { gainDb, powerGain: powerFromDb(gainDb.nominal), polarity: nominal < 0 ? (-1 as const) : (1 as const) };
}

/**
 * What the plugs, adapters and wires of a cable make of the sound: which channel of the output comes to which of the
 * input. Null for what is no cable between two known connectors, has a map of its own, or carries pictures.
 */
function wiredPairs(cable: Cable, from: PortSpec, to: PortSpec): readonly Carried[] | null {
  if (cable.medium !== 'lead' || cable.map || !connectorOf(from.connector) || !connectorOf(to.connector)) return null;
  const [a, b] = [endOf(from), endOf(to)];
  if (!speakAlike(a, b)) return [];
  const found = cable.parts ? leadOf(a, b, cable.parts) : leadsFor(a, b).presumed;
  // What does not go in brings nothing, nor what only charges; bits are taken as they are drawn.
  if (!found || ('fits' in found && !found.fits) || bringsPowerOnly(found.chain.parts)) return [];
  return found.wiring?.carried ?? null;
}

/** Like goes to like: one to all, all to one, otherwise by order; or as the cable's own map says. */
function channelPairs(cable: Cable, from: PortSpec, to: PortSpec): [number, number][] {
  const at = (port: PortSpec, id: string) => port.channels.findIndex((c) => c.id === id);
  if (cable.map) return cable.map.map((pair) => [at(from, pair.from), at(to, pair.to)]);
  return (['sound', 'picture'] as const).flatMap((carries) => {
    const indices = (port: PortSpec) => port.channels.flatMap((c, i) => (c.carries === carries ? [i] : []));
    const [outs, ins] = [indices(from), indices(to)];
    if (outs.length === 1) return ins.map((i): [number, number] => [outs[0]!, i]);
    if (ins.length === 1) return outs.map((o): [number, number] => [o, ins[0]!]);
    return outs.slice(0, ins.length).map((o, i): [number, number] => [o, ins[i]!]);
  });
}
