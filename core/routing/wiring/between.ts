import { memoized } from '#core/base/memo/index.ts';
import { connectorOf } from '#core/model/plug/index.ts';
import {
  amplifiesInstrument,
  beginsAt,
  type DeviceType,
  deviceIn,
  emptyRig,
  endsBehind,
  findTypes,
  hearsAir,
  isHardware,
  isHub,
  isPerson,
  isProgram,
  isWorn,
  portOf,
  type Rig,
  type Types,
} from '#core/model/rig/index.ts';
import type { Fits } from '#core/routing/grammar/index.ts';
import { tokensOf } from '#core/routing/grammar/index.ts';
import { type Offer, offersFor } from './offers.ts';
import { type Socket, socketsOf } from './sockets.ts';

/** What is said of the way: which offers will do, and the sockets that were named at its ends. */
export interface Asked {
  readonly suits?: (offer: Offer) => boolean;
  readonly fromSocket?: string | null;
  readonly toSocket?: string | null;
}

/** The cheapest way from one device to another by any of its outputs that is free and has something to give. */
export function bestBetween(rig: Rig, from: string, to: string, asked: Asked = {}): Offer | null {
  return cheapestBetween(rig, from, to, asked)?.offer ?? null;
}

/** The same with its total cost. */
function cheapestBetween(
  rig: Rig,
  from: string,
  to: string,
  { suits = () => true, fromSocket, toSocket }: Asked,
): { readonly offer: Offer; readonly cost: number } | null {
  const offers = socketsOf(rig, from)
    .filter((s) => s.ports.some((p) => p.direction === 'out'))
    .flatMap((socket) =>
      offersFor(rig, socket)
        .filter((o) => o.socket.deviceId === to && o.cables[0]!.from.deviceId === from && suits(o))
        .map((offer) => ({
          offer,
          cost:
            offer.cost +
            (socket.cableIds.length === 0 ? 0 : connectorOf(socket.connector)?.kind === 'usb' ? PLUGGED : TAKEN) +
            (givesSomething(rig, socket.deviceId, socket.id) ? 0 : IDLE) +
            (isProgram(typeOf(rig, from)!) && offer.socket.ports.some((p) => p.does === 'call-microphone')
              ? VOICE
              : 0) -
            NAMED * (likeness(socket, fromSocket) + likeness(offer.socket, toSocket)),
        })),
    )
    .sort((a, b) => a.cost - b.cost);
  return offers[0] ?? null;
}
const TAKEN = 30;
/** Into a USB socket goes one cable. */
const PLUGGED = 200;
const IDLE = 90;
/** A call takes a voice there, and what programs play elsewhere. */
const VOICE = 20;
/** A socket that was named is meant, whatever fits better. */
const NAMED = 1000;

/** Words that say which way a socket leads: no name of it. */
const DIRECTIONS = new Set(['in', 'out', 'input', 'output', 'socket', 'port', 'jack', 'end', 'through', 'on']);

/** What sockets are called by some, in the words of others. */
const ALSO: Readonly<Record<string, string>> = {
  audio: 'line phone',
  aux: 'line send',
  headphone: 'phone',
  spdif: 'optical',
  loop: 'passed',
  pass: 'passed',
  thru: 'passed',
  loopthrough: 'passed',
  earc: 'arc',
  tape: 'record',
  rec: 'record',
};

/** How much of what was said of a socket is in its name or its connector, 0 to 1; 0 where nothing was said. */
export function likeness({ name, id, connector, ports }: Socket, said: string | null | undefined): number {
  if (!said) return 0;
  const own = new Set(
    [name, id.replaceAll('-', ' '), connector.replaceAll('-', ' '), ...ports.flatMap((p) => [p.name, p.level])].flatMap(
      tokensOf,
    ),
  );
  const words = tokensOf(said);
  const telling = words.filter((w) => !DIRECTIONS.has(w));
  const asked = telling.length > 0 ? telling : words;
  const isNumber = (w: string) => /^\d+$/.test(w);
  // '3/4' is a pair of sockets: the first of them is looked for.
  const numbers = asked.filter(isNumber);
  const names = asked.filter((w) => !isNumber(w));
  const found =
    names.filter((w) => [w, ...(ALSO[w]?.split(' ') ?? [])].some((a) => own.has(a))).length +
    Number(numbers.some((w) => own.has(w)));
  return found / (names.length + Number(numbers.length > 0));
}

/** Whether a type has a socket that is called so, number and all. */
export const hasSocket = (type: DeviceType, said: string): boolean => {
  const rig: Rig = {
    ...emptyRig('x'),
    types: [type],
    devices: [{ id: 'a', name: 'a', typeId: type.id, settings: {} }],
  };
  return socketsOf(rig, 'a').some((s) => likeness(s, said) === 1);
};

/**
 * Whether an output has something to give: a software end of a computer where a cable stands in the socket behind it;
 * any other where a way leads to it that is open as the device comes.
 */
function givesSomething(rig: Rig, deviceId: string, socketId: string): boolean {
  const type = typeOf(rig, deviceId)!;
  const outs = type.ports.filter((p) => (p.socket ?? p.id) === socketId && p.direction === 'out');
  const plugged = outs.flatMap((p) => (type.hosts && p.connector === 'software' ? endsBehind(type, p.id) : []));
  if (plugged.some((p) => connectorOf(p.connector)))
    return rig.cables.some((c) => c.to.deviceId === deviceId && plugged.some((p) => p.id === c.to.portId));
  return outs.some((p) => openPorts(type).has(p.id));
}

/** Ports that receive something with every control as it is: where signals begin, and all that open paths lead to. */
const openPorts = memoized((type: DeviceType): ReadonlySet<string> => {
  const settings = new Map(type.settings.map((s) => [s.id, s]));
  const isOpen = (stage: DeviceType['inside'][number]['stages'][number]): boolean => {
    if (!('setting' in stage)) return true;
    const spec = settings.get(stage.setting)!;
    if (stage.do === 'door') return spec.default === stage.openWhen;
    return !(spec.kind === 'gain' && spec.offAtMin && spec.default === spec.min);
  };
  const ways = type.inside
    .filter((w) => w.stages.every(isOpen))
    .map((w) => [w.from, w.to].map(portOf) as [string, string]);
  const led = new Set(type.inside.map((w) => portOf(w.to)));
  const reached = new Set(type.ports.filter((p) => p.direction === 'in' || !led.has(p.id)).map((p) => p.id));
  for (let grew = true; grew; ) {
    const before = reached.size;
    for (const [from, to] of ways) if (reached.has(from)) reached.add(to);
    grew = reached.size > before;
  }
  return reached;
});

const typeOf = (rig: Rig, deviceId: string): DeviceType | null =>
  findTypes(rig).get(deviceIn(rig, deviceId).typeId) ?? null;

/** Its sound begins in the air: an instrument. */
const playsInRoom = (type: DeviceType): boolean =>
  amplifiesInstrument(type) || (isHardware(type) && type.ports.some((p) => p.level === 'air' && beginsAt(type, p)));

/** Sound in the air and sight join people with things; that a device could hear another one is not meant. */
export const isMeant =
  (a: DeviceType, b: DeviceType) =>
  ({ cables }: Offer): boolean =>
    !['air', 'light'].includes(cables[0]!.medium) ||
    ((isPerson(a) || isPerson(b) || playsInRoom(a) || playsInRoom(b)) && !a.hosts && !b.hosts);

/** A device that sits in the computer: what it brings is there for programs, by no cable. */
export const isWithin = (type: DeviceType): boolean =>
  isHardware(type) &&
  type.hosts !== true &&
  type.ports.some((p) => p.direction === 'out' && p.connector === 'software');

/** What a program takes besides its computer, and a person besides what is held: no cable. */
const BY_THE_WAY = 2;
const known = new WeakMap<Types, Map<string, Joined | null>>();

/** What a cable between two types costs, and whether a picture goes along. */
interface Joined {
  readonly cost: number;
  readonly picture: boolean;
}

/** Whether, and how well, something leads from a type to another: by one cable, a program on its computer, through the air. */
export function fitsAmong(types: Types): Fits {
  return (from, to) => {
    const join = joinOf(types, from, to);
    if (!join) return null;
    const loses = !join.picture && hasPicture(from, 'out') && hasPicture(to, 'in');
    return join.cost + (loses ? NO_PICTURE : 0);
  };
}
/** Sound alone, between two that have a picture to give and to take: no one means that first. */
const NO_PICTURE = 500;

function joinOf(types: Types, from: DeviceType, to: DeviceType): Joined | null {
  const costs = known.get(types) ?? new Map<string, Joined | null>();
  known.set(types, costs);
  const key = `${from.id} ${to.id}`;
  let join = costs.get(key);
  if (join === undefined) {
    join = joinBetween(from, to);
    costs.set(key, join);
  }
  return join;
}

function joinBetween(from: DeviceType, to: DeviceType): Joined | null {
  const [a, b] = [isProgram(from), isProgram(to)];
  if (a !== b) {
    // An app captures what is connected to its computer.
    const other = a ? to : from;
    if (other.hosts || isPerson(other)) return { cost: BY_THE_WAY, picture: false };
  }
  if ((isWithin(from) && to.hosts) || (isWithin(to) && from.hosts)) return { cost: BY_THE_WAY, picture: true };
  const rig: Rig = {
    ...emptyRig('x'),
    types: from === to ? [from] : [from, to],
    devices: ['a', 'b'].map((id, i) => ({ id, name: id, typeId: (i === 0 ? from : to).id, settings: {} })),
  };
  const best = cheapestBetween(rig, 'a', 'b', { suits: isMeant(from, to) });
  if (!best) return null;
  const { offer, cost } = best;
  const leaves = from.ports.find((p) => p.id === offer.cables[0]!.from.portId)!;
  return { cost, picture: leaves.channels.some((c) => c.carries === 'picture') };
}

/** Maximum number of suggestions. */
const MAX_BETWEEN = 5;
/** It leaves out what belongs to it, or is for something else: worn, a microphone. */
const ASIDE = 60;
/** Nearer than this, the commoner one is meant: it stands before in the library. */
const AS_CHEAP = 15;
/** Dearer than this in all, no one would. */
const FARFETCHED = 140;

const hasPicture = (type: DeviceType, direction: 'in' | 'out'): boolean =>
  type.ports.some((p) => p.direction === direction && p.channels.some((c) => c.carries === 'picture'));

/** Devices that would join two that nothing fits between, the likeliest first. */
export function boxesBetween(types: Types, from: DeviceType, to: DeviceType): DeviceType[] {
  const wantsPicture = hasPicture(from, 'out') && hasPicture(to, 'in');
  const found = [...types.values()].flatMap((type) => {
    if (!isHardware(type) || type.hosts || isHub(type)) return [];
    const [into, out] = [joinOf(types, from, type), joinOf(types, type, to)];
    if (into === null || out === null) return [];
    if (amplifiesInstrument(type) || into.cost + out.cost > FARFETCHED) return [];
    const aside =
      (isWorn(type) || hearsAir(type) ? ASIDE : 0) + (wantsPicture && !(into.picture && out.picture) ? ASIDE : 0);
    return [{ type, cost: into.cost + out.cost + aside }];
  });
  const least = Math.min(...found.map((f) => f.cost));
  const isNear = (cost: number) => cost < least + AS_CHEAP;
  return found
    .sort((a, b) => Number(isNear(b.cost)) - Number(isNear(a.cost)) || (isNear(a.cost) ? 0 : a.cost - b.cost))
    .slice(0, MAX_BETWEEN)
    .map((f) => f.type);
}

/** What stands before and after something that no one knows. */
export interface Beside {
  readonly before: readonly DeviceType[];
  readonly after: readonly DeviceType[];
}

/** What something may be by where it stands: devices that what is before it leads to, and that lead to what is after it. */
export function typesBeside(types: Types, { before, after }: Beside): DeviceType[] {
  const [from, to] = [before[0], after[0]];
  // What programs run on, and what runs on a computer.
  const hosts = [...types.values()].filter((t) => t.hosts === true);
  if (to && isProgram(to)) return from?.hosts ? [] : hosts.filter((t) => !from || joinOf(types, from, t) !== null);
  if (from && to) return boxesBetween(types, from, to);
  const fits = fitsAmong(types);
  const costOf = (type: DeviceType): number | null =>
    from ? fits(from, type) : to ? fits(type, to) : isHardware(type) ? 0 : null;
  return [...types.values()]
    .flatMap((type) => {
      const cost = isHardware(type) && !type.hosts ? costOf(type) : null;
      return cost === null ? [] : [{ type, cost: Math.floor(cost / AS_CHEAP) }];
    })
    .sort((a, b) => a.cost - b.cost)
    .map((f) => f.type)
    .filter((type, i, all) => all.findIndex((t) => t.family === type.family) === i)
    .slice(0, MAX_BETWEEN);
}
