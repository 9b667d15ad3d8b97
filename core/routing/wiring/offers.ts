import { type Chain, connectorOf, isTwoWired, lastPlug, leadsFor, endOf as plugEnd } from '#core/model/plug/index.ts';
import {
  applyEdit,
  type Cable,
  computerOf,
  type Edit,
  findDevice,
  findTypes,
  givesMicrophoneLevel,
  isWorn,
  type LevelClass,
  mayMeet,
  onTwoComputers,
  type Place,
  type PortRef,
  placesOf,
  type Rig,
  type Types,
  usbMeets,
  usbRoleOf,
} from '#core/model/rig/index.ts';
import { chainOf, check, type Finding, type LeadSeen, leadBetween, leadWanted } from '#core/rules/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { devicesBehind, joinSides, mediumOf, type Socket, socketsOf } from './sockets.ts';

/** A socket that another one can be joined to, and how. */
export interface Offer {
  readonly socket: Socket;
  readonly cables: readonly Cable[];
  /** What to take; null where nothing is plugged: air, radio, programs. */
  readonly chain: Chain | null;
  /** Lower is better. */
  readonly cost: number;
}

const COST = {
  /** A level class that the input was not made for. */
  otherLevel: 40,
  harmful: 400,
  /** A headphone output in place of a line output: its volume is set by the listener. */
  phones: 15,
  taken: 25,
  /** Outputs are joined to inputs; the other way about is offered last. */
  backward: 60,
  software: 2,
  /** The far side of a call, for a device of which no one knows where it is. */
  there: 10,
  /** A mic wire of a socket that also plays, without what it plays: a headset's mic, or what goes back to a phone. */
  half: 45,
  /** A line by one wire, where the input has two: it picks up hum. */
  unbalanced: 12,
  /** A microphone of a stage or studio, in a jack that is there for a headset's. */
  studioIntoJack: 45,
  /** A receiver hears one transmitter at each input. */
  occupied: 200,
  /** An input more, for the other side of a pair. */
  side: 10,
  /** Two sides into one, or one of them lost. */
  oneOfTwo: 60,
  /** A USB end that may lead or follow, leading one that is there for a computer. */
  leads: 40,
  /** Several devices on one cable, where the computer sees one. */
  lanes: 6,
  /** By plugs and a converter, where the same two have USB for it. */
  insteadOfUsb: 20,
  /** The one USB socket of what is held in the hand, which charges it too. */
  pocketUsb: 30,
  /** Late, where a cable would do. */
  bluetooth: 15,
  /** A computer that is to hear by Bluetooth what is not worn: few do. */
  heardByBluetooth: 40,
  preferred: -1,
};

const GOOD: Partial<Record<LevelClass, readonly LevelClass[]>> = {
  microphone: ['microphone'],
  line: ['line'],
  headphone: ['headphone', 'line'],
  speaker: ['speaker'],
};

function levelCost(from: LevelClass, to: LevelClass): number {
  const good = GOOD[from];
  if (!good || good.includes(to)) return good && good[0] !== to ? COST.phones : 0;
  return from === 'speaker' || from === 'digital' || to === 'digital' ? COST.harmful : COST.otherLevel;
}

const endOf = ({ deviceId, ports }: Socket): PortRef => ({ deviceId, portId: ports[0]!.id });
/** Whether a line signal reaches the line input of a combination socket: depends on the plug. */
const isLineInput = ({ from, to }: LeadSeen, chain: Chain | null): boolean => {
  const plug = chain && lastPlug(plugEnd(from.port), { chain });
  return plug !== null && from.port.level !== 'digital' && (connectorOf(to.port.connector)?.line ?? []).includes(plug);
};
/** What an input is made for, by the plug that reaches it. */
const levelOf = (lead: LeadSeen, plugged: Chain | null): LevelClass =>
  isLineInput(lead, plugged)
    ? 'line'
    : givesMicrophoneLevel(lead.to.type, lead.to.port)
      ? lead.from.port.level
      : lead.to.port.level;
const isSqueezedToOne = ({ from, to, cable }: LeadSeen): boolean =>
  !cable.map && plugEnd(from.port).sides === 2 && plugEnd(to.port).sides === 1 && from.port.level !== 'digital';
/** A phone or a tablet, not a computer that others are plugged to. */
const isPocket = ({ type }: Pick<LeadSeen['from'], 'type'>): boolean =>
  type.hosts === true && type.power?.feeds === undefined;
/** Whether one of two devices is a USB host to the other. */
const haveUsb = ({ from, to }: LeadSeen): boolean => {
  const roles = ({ type }: LeadSeen['from'], role: 'host' | 'device') =>
    !(role === 'host' && isPocket({ type })) &&
    type.ports.some((p) => p.level === 'digital' && usbRoleOf(type, p) === role);
  return (roles(from, 'host') && roles(to, 'device')) || (roles(from, 'device') && roles(to, 'host'));
};
/** Whether of a socket that plays and listens only its listening half is plugged, or what goes back to a guest. */
const isHalf = ({ from }: Cable, { ports, deviceId }: Socket, cables: readonly Cable[]): boolean =>
  cables.length === 1 &&
  from.deviceId === deviceId &&
  ports.some((p) => p.direction === 'in') &&
  ports.some((p) => p.id === from.portId && p.level === 'microphone');
const isThere = (place: Place): boolean => place !== null && place !== 'here';

/** Where the plain lead would lose or turn round something, the parts that do not are taken. */
function withLead(rig: Rig, types: Types, cable: Cable): Cable {
  if (cable.medium !== 'lead' || (cable.map && cable.map.length > 1)) return cable;
  const lead = leadBetween(rig, types, cable);
  // One side of a pair by a cable of its own.
  const { right, suffices } = cable.map
    ? leadsFor({ ...plugEnd(lead.from.port), sides: 1 }, plugEnd(lead.to.port))
    : leadWanted(lead);
  return suffices || !right ? cable : { ...cable, parts: right.chain.parts.map((p) => p.id) };
}

/** Every socket of the rig that a socket can be joined to: only what fits, the best first. */
export function offersFor(rig: Rig, from: Socket): Offer[] {
  const types = findTypes(rig);
  const placeOf = placesOf(rig);
  const here = placeOf(endOf(from));
  const computer = ({ deviceId }: PortRef): string | null => {
    const device = findDevice(rig, deviceId)!;
    return computerOf(device, types.get(device.typeId)!);
  };
  const isDevice = ({ deviceId, ports }: Socket): boolean =>
    usbRoleOf(types.get(findDevice(rig, deviceId)!.typeId)!, ports[0]!) === 'device';
  const isSqueezed = (a: Socket, b: Socket): boolean =>
    isDevice(a) && devicesBehind(a).length > 1 && devicesBehind(b).length === 1;
  return rig.devices
    .filter((d) => d.id !== from.deviceId)
    .flatMap((device) => socketsOf(rig, device.id, types))
    .filter((socket) => !socket.hidden && mayMeet(here, placeOf(endOf(socket))))
    .flatMap((socket): Offer[] => {
      const cables = joinSides(rig, from, socket).map((cable) => withLead(rig, types, cable));
      const [first] = cables;
      if (!first) return [];
      if (first.medium === 'software' && onTwoComputers(computer(first.from), computer(first.to))) return [];
      const isOut = first.from.deviceId === from.deviceId;
      const lead = leadBetween(rig, types, first);
      const [a, b] = [usbRoleOf(lead.from.type, lead.from.port), usbRoleOf(lead.to.type, lead.to.port)];
      if (!usbMeets(a, b)) return [];
      const chain = mediumOf(from, socket) === 'lead' ? chainOf(lead) : null;
      if (mediumOf(from, socket) === 'lead' && (chain === null || chain === 'nothing-to-plug')) return [];
      const plugged = chain === 'nothing-to-plug' ? null : chain;
      const sides = cables.every((c) => c.from.portId === first.from.portId && c.map) ? cables.length : 1;
      const cost =
        (plugged?.cost ?? COST.software) * sides +
        (sides - 1) * COST.side +
        (isSqueezedToOne(lead) ? COST.oneOfTwo : 0) +
        levelCost(lead.from.port.level, levelOf(lead, plugged)) +
        (lead.from.port.format === lead.to.port.format ? 0 : COST.harmful) +
        (socket.cableIds.length > 0 && first.medium === 'lead' ? COST.taken : 0) +
        (socket.preferred ? COST.preferred : 0) +
        (here === null && isThere(placeOf(endOf(socket))) ? COST.there : 0) +
        (first.medium === 'radio' ? COST.bluetooth : 0) +
        (first.medium === 'radio' && lead.to.type.hosts && !isWorn(lead.from.type) ? COST.heardByBluetooth : 0) +
        (first.medium === 'lead' && lead.from.port.level !== 'digital' && haveUsb(lead) ? COST.insteadOfUsb : 0) +
        (lead.from.port.level === 'line' && isTwoWired(plugEnd(lead.to.port)) && !isTwoWired(plugEnd(lead.from.port))
          ? COST.unbalanced
          : 0) +
        (lead.to.port.gives?.kind === 'plug-in' &&
        lead.from.port.level === 'microphone' &&
        isTwoWired(plugEnd(lead.from.port)) &&
        !isTwoWired(plugEnd(lead.to.port))
          ? COST.studioIntoJack
          : 0) +
        (socket.connector === 'radio' && isOut && socket.cableIds.length > 0 ? COST.occupied : 0) +
        ([a, b].includes('host') && [lead.from, lead.to].some(isPocket) ? COST.pocketUsb : 0) +
        ([a, b].includes('either') && [a, b].includes('device') ? COST.leads : 0) +
        (isSqueezed(from, socket) || isSqueezed(socket, from) ? COST.lanes : 0) +
        (isHalf(first, from, cables) || isHalf(first, socket, cables) ? COST.half : 0) +
        (isOut ? 0 : COST.backward);
      return [{ socket, cables, chain: plugged, cost }];
    })
    .sort((a, b) => a.cost - b.cost);
}

/** What an edit would change in the list of findings. */
export interface Effect {
  readonly come: readonly Finding[];
  readonly go: readonly Finding[];
}

/** Findings that come and go with an edit; null where it is refused. */
export function effectOf(rig: Rig, edit: Edit, before: readonly Finding[]): Effect | null {
  const done = applyEdit(rig, edit);
  if (!done.ok) return null;
  const after = check(done.rig, evaluate(done.rig));
  const ids = (list: readonly Finding[]) => new Set(list.map((f) => f.id));
  const [was, is] = [ids(before), ids(after)];
  return { come: after.filter((f) => !was.has(f.id)), go: before.filter((f) => !is.has(f.id)) };
}
