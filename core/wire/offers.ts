import { chainOf, check, type Finding, leadBetween, leadWanted } from '#core/check/index.ts';
import type { Chain } from '#core/plug/index.ts';
import {
  applyEdit,
  type Cable,
  computerOf,
  type Edit,
  findDevice,
  findTypes,
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
} from '#core/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { joinSockets, mediumOf, type Socket, socketsOf } from './sockets.ts';

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
  taken: 25,
  /** Outputs are joined to inputs; the other way about is offered last. */
  backward: 60,
  software: 2,
  /** The far side of a call, for a box of which nobody knows where it is. */
  there: 10,
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
  if (!good || good.includes(to)) return good && good[0] !== to ? 3 : 0;
  return from === 'speaker' || from === 'digital' || to === 'digital' ? COST.harmful : COST.otherLevel;
}

const endOf = ({ deviceId, ports }: Socket): PortRef => ({ deviceId, portId: ports[0]!.id });
const isThere = (place: Place): boolean => place !== null && place !== 'here';

/** Where the plain lead would lose or turn round something, the parts that do not are taken. */
function withLead(rig: Rig, types: Types, cable: Cable): Cable {
  if (cable.medium !== 'lead' || cable.map) return cable;
  const { right, suffices } = leadWanted(leadBetween(rig, types, cable));
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
  return rig.devices
    .filter((d) => d.id !== from.deviceId)
    .flatMap((device) => socketsOf(rig, device.id, types))
    .filter((socket) => !socket.hidden && mayMeet(here, placeOf(endOf(socket))))
    .flatMap((socket): Offer[] => {
      const cables = joinSockets(rig, from, socket).map((cable) => withLead(rig, types, cable));
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
      const cost =
        (plugged?.cost ?? COST.software) +
        levelCost(lead.from.port.level, lead.to.port.level) +
        (socket.cableIds.length > 0 && first.medium === 'lead' ? COST.taken : 0) +
        (socket.preferred ? COST.preferred : 0) +
        (here === null && isThere(placeOf(endOf(socket))) ? COST.there : 0) +
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
