import type { Said } from '#core/base/said/index.ts';
import {
  type Chain,
  connectorOf,
  endOf,
  isTwoWired,
  type LeadFound,
  type LeadsFor,
  leadOf,
  leadsFor,
} from '#core/model/plug/index.ts';
import {
  type Device,
  type DeviceType,
  findDevice,
  findTypes,
  givenName,
  portsOf,
  type Rig,
  type Types,
} from '#core/model/rig/index.ts';
import { say } from './sayings.ts';

type Cable = Rig['cables'][number];
type Port = DeviceType['ports'][number];

export interface LeadEnd {
  /** `device/port` */
  readonly at: string;
  readonly device: Device;
  readonly type: DeviceType;
  readonly port: Port;
}

/** A cable between two sockets, with the devices at its ends. */
export interface LeadSeen {
  readonly cable: Cable;
  readonly from: LeadEnd;
  readonly to: LeadEnd;
  /** Another cable has its ends in the same two sockets: this one goes along in it. */
  readonly twin: boolean;
}

const socketOf = ({ device, port }: LeadEnd): string => `${device.id}/${port.socket ?? port.id}`;

/** A cable is the same one as long as it, the devices at its ends and their types are. */
const kept = new WeakMap<Cable, LeadSeen & { readonly sockets: string }>();

/** All cables of the rig; air, light, radio and what programs pass each other are none. */
export function leadsOf(rig: Rig, types: Types): LeadSeen[] {
  const devices = new Map(rig.devices.map((d) => [d.id, d]));
  const seen = new Set<string>();
  return rig.cables.flatMap((cable): LeadSeen[] => {
    if (cable.medium !== 'lead') return [];
    const [a, b] = [devices.get(cable.from.deviceId)!, devices.get(cable.to.deviceId)!];
    const before = kept.get(cable);
    const sameEnds = before && before.from.device === a && before.to.device === b;
    const sameTypes = sameEnds && before.from.type === types.get(a.typeId) && before.to.type === types.get(b.typeId);
    const [from, to] = sameTypes ? [before.from, before.to] : [endAt(a, types, cable.from), endAt(b, types, cable.to)];
    const sockets = sameTypes ? before.sockets : [socketOf(from), socketOf(to)].sort().join(' ');
    const twin = seen.has(sockets);
    seen.add(sockets);
    if (sameTypes && before.twin === twin) return [before];
    const lead = { cable, from, to, twin, sockets };
    kept.set(cable, lead);
    return [lead];
  });
}

/** A cable that may not be plugged in yet, with the devices at its ends. */
export function leadBetween(rig: Rig, types: Types, cable: Cable): LeadSeen {
  const end = (ref: Cable['from']) => endAt(findDevice(rig, ref.deviceId)!, types, ref);
  return { cable, from: end(cable.from), to: end(cable.to), twin: false };
}

function endAt(device: Device, types: Types, { portId }: Cable['from']): LeadEnd {
  const type = types.get(device.typeId)!;
  const port = portsOf(type).get(portId)!;
  const given = givenName(device, type, port);
  return { at: `${device.id}/${portId}`, device, type, port: given ? { ...port, name: given } : port };
}

/** The question about a cable that no one has looked at; null once it is known. */
export const askLead = (lead: LeadSeen): Said | null =>
  lead.cable.known === 'assumed' ? say.isThereCable({ lead: sayLead(lead), port: lead.to.port.name }) : null;

/** What a finding about a cable points at. */
export const onLead = ({ cable, from, to }: LeadSeen): { cableIds: string[]; deviceIds: string[] } => ({
  cableIds: [cable.id],
  deviceIds: [from.device.id, to.device.id],
});

/** 'Mixer, send 3, headphones, to Player headphones' */
export const sayLead = ({ from, to }: LeadSeen): Said =>
  say.cableName({ device: from.device.name, port: from.port.name, device2: to.device.name });

/** Whether sound runs balanced over the cable: both ends have to be, and what is said to stand between. */
export function isBalanced(lead: LeadSeen): boolean {
  if (!isTwoWired(endOf(lead.from.port)) || !isTwoWired(endOf(lead.to.port))) return false;
  return leadOn(lead)?.wiring?.balanced !== false;
}

/** Null where nothing is plugged at one of the ends: a program. */
const isPlugged = ({ from, to }: LeadSeen): boolean =>
  connectorOf(from.port.connector) !== undefined && connectorOf(to.port.connector) !== undefined;

/** Parts of a cable: those that someone has named, else the usual ones. */
export function leadOn(lead: LeadSeen): LeadFound | null {
  if (!isPlugged(lead)) return null;
  const [from, to] = [endOf(lead.from.port), endOf(lead.to.port)];
  return lead.cable.parts ? leadOf(from, to, lead.cable.parts) : leadsFor(from, to).presumed;
}

/** What a cable should be made of, and whether its present parts do as well. */
export const leadWanted = ({ from, to }: LeadSeen): LeadsFor => leadsFor(endOf(from.port), endOf(to.port));

/** What a cable is made of: the parts that are named, else those that should be taken. Null: nothing fits. */
export function chainOf(lead: LeadSeen): Chain | null | 'nothing-to-plug' {
  if (!isPlugged(lead)) return 'nothing-to-plug';
  const named = lead.cable.parts && leadOf(endOf(lead.from.port), endOf(lead.to.port), lead.cable.parts);
  return named?.fits ? named.chain : (leadWanted(lead).right?.chain ?? null);
}

/** The family of the plug at either end; programs have none, so a lead into a computer is known by its other end. */
export const familyOf = ({ from, to }: LeadSeen) =>
  connectorOf(from.port.connector)?.kind ?? connectorOf(to.port.connector)?.kind ?? null;

/** Each lead once, with the number that is on its labels and in every table. */
export const numberedLeads = (rig: Rig): { number: number; lead: LeadSeen }[] =>
  leadsOf(rig, findTypes(rig))
    .filter((lead) => !lead.twin)
    .map((lead, i) => ({ number: i + 1, lead }));
