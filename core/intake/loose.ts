import { connectorOf } from '#core/model/plug/index.ts';
import {
  beginsAt,
  type DeviceType,
  deviceIn,
  films,
  hearsAir,
  isHardware,
  isSupply,
  isWorn,
  records,
  showsPicture,
  soundsIntoRoom,
} from '#core/model/rig/index.ts';
import { bestBetween, fitsAmong, isMeant, isWithin, type Offer, type TypedLead } from '#core/routing/wiring/index.ts';
import { hostsOf, isComputer, upstream } from './around.ts';
import { PLAIN } from './between.ts';
import type { Builder } from './builder.ts';
import { say } from './sayings.ts';

/** A computer's jack is the last resort. */
const MAKESHIFT = 8;

/** Devices that were named alone are plugged where such a device goes: into the computer, or into what goes there. */
export function plugLoose(b: Builder, waiting: ReadonlySet<string>): void {
  const fits = fitsAmong(b.types);
  // What others are plugged into comes first: an interface, then the microphones.
  const hasComputer = b.rig.devices.some((d) => isComputer(b.typeOf(d.id)));
  // A phone beside a computer is one more thing that is plugged somewhere.
  const isPhone = (type: DeviceType) => hasComputer && type.hosts === true && !isComputer(type);
  const rank = (type: DeviceType) => (isPhone(type) ? 2 : takesOthers(type) ? 0 : 1);
  const order = [...b.rig.devices].sort((x, y) => rank(b.typeOf(x.id)) - rank(b.typeOf(y.id)));
  for (const device of order) {
    const { id, name } = device;
    const type = b.typeOf(id);
    const isPlugged = b.rig.cables.some(
      (c) => c.medium !== 'air' && c.medium !== 'light' && (c.from.deviceId === id || c.to.deviceId === id),
    );
    // A mic stands in front of it.
    const isHeard =
      soundsIntoRoom(type) &&
      b.rig.cables.some((c) => c.medium === 'air' && c.from.deviceId === id && hearsAir(b.typeOf(c.to.deviceId)));
    const isDone = (isPlugged && !isDeadEnd(b, id) && !isUnpowered(b, id)) || isHeard;
    const isSkipped = type.hosts === true && !isPhone(type);
    if (!isHardware(type) || isSkipped || isSupply(type) || isDone || waiting.has(id)) continue;
    const [host] = hostsOf(b.rig);
    if (isWithin(type)) {
      if (host && device.on === undefined) b.take({ kind: 'set-device', device: { ...device, on: host } });
      continue;
    }
    const hosts = hostsOf(b.rig).filter((h) => !isPhone(b.typeOf(h)));
    const near = new Set(hosts.flatMap((h) => [...upstream(b.rig, h)]));
    const isScreen = showsPicture(type);
    const isUsb = type.ports.some((p) => connectorOf(p.connector)?.kind === 'usb');
    const options = b.rig.devices
      .filter((d) => d.id !== id && !isPhone(b.typeOf(d.id)) && !(isPhone(type) && b.typeOf(d.id).hosts))
      .filter((d) => isScreen || near.size === 0 || near.has(d.id))
      .flatMap((d) => {
        const other = b.typeOf(d.id);
        const [there, back] = [fits(type, other), fits(other, type)];
        return [
          ...(there === null || isScreen
            ? []
            : [{ from: id, to: d.id, cost: there + (other.hosts && !isUsb ? MAKESHIFT : 0) }]),
          ...(back === null || isPlugged || isPhone(type) ? [] : [{ from: d.id, to: id, cost: back }]),
        ];
      })
      .filter((o) => o.cost < PLAIN)
      .sort((x, y) => x.cost - y.cost);
    for (const { from, to } of options) {
      const suits = isMeant(b.typeOf(from), b.typeOf(to));
      const offer = bestBetween(b.rig, from, to, { suits: (o) => suits(o) && isFree(b, o) });
      if (!offer) continue;
      const other = from === id ? to : from;
      b.make(`plug:${id}`, say.pluggedInto({ device: name, into: b.device(other).name }), () => b.plugs(offer));
      break;
    }
  }
}

/** It has its power from USB alone, and no USB cable. */
const isUnpowered = (b: Builder, id: string): boolean => {
  const type = b.typeOf(id);
  const usb = new Set(type.ports.filter((p) => connectorOf(p.connector)?.kind === 'usb').map((p) => p.id));
  const isFed = b.rig.cables.some((c) => [c.from, c.to].some((end) => end.deviceId === id && usb.has(end.portId)));
  return type.power?.by?.every((by) => by === 'usb') === true && type.power.by.length > 0 && usb.size > 0 && !isFed;
};

const takesOthers = (type: DeviceType): boolean =>
  type.ports.some((p) => p.direction === 'in' && ['microphone', 'line'].includes(p.level)) &&
  type.ports.some((p) => p.direction === 'out' && p.level !== 'air' && p.level !== 'light');

/** Its inputs lead nowhere though they could: a mixer that was named only as the place where mics go. */
function isDeadEnd({ rig, types }: Builder, id: string): boolean {
  const type = types.get(deviceIn(rig, id).typeId)!;
  const isEnd =
    isWorn(type) ||
    soundsIntoRoom(type) ||
    showsPicture(type) ||
    records(type) ||
    rig.listeners.some((l) => l.sound.deviceId === id);
  return !isEnd && !rig.cables.some((c) => c.from.deviceId === id && c.medium !== 'light');
}

/** A video source named alone, with no cable to a computer: what goes between has to be found. */
export function looseGaps(b: Builder, waiting: ReadonlySet<string>): TypedLead[] {
  const [host] = hostsOf(b.rig).filter((id) => isComputer(b.typeOf(id)));
  const radios = transmitterGaps(b, waiting, host);
  if (!host) return radios;
  const pictures = b.rig.devices.flatMap(({ id }): TypedLead[] => {
    const type = b.typeOf(id);
    const shows = type.ports.some(
      (p) => p.direction === 'out' && p.picture !== undefined && connectorOf(p.connector)?.kind === 'hdmi',
    );
    const begins = films(type) || type.ports.some((p) => p.does === 'game');
    const isPlugged = b.rig.cables.some((c) => c.medium === 'lead' && c.from.deviceId === id);
    return isHardware(type) && !type.hosts && shows && begins && !isPlugged && !waiting.has(id)
      ? [{ from: id, to: host, offer: null }]
      : [];
  });
  return [...pictures, ...radios];
}

/** A transmitter named alone sends to a device that takes others, or to the computer: its receiver has to be found. */
function transmitterGaps(b: Builder, waiting: ReadonlySet<string>, host: string | undefined): TypedLead[] {
  const goal = b.rig.devices.find((d) => takesOthers(b.typeOf(d.id)) && !b.typeOf(d.id).hosts)?.id ?? host;
  if (!goal) return [];
  return b.rig.devices.flatMap(({ id }): TypedLead[] => {
    const type = b.typeOf(id);
    const outputs = type.ports.filter((p) => p.direction === 'out');
    const isSent = b.rig.cables.some((c) => c.from.deviceId === id && c.medium !== 'air');
    const isSender = outputs.length > 0 && outputs.every((p) => p.connector === 'radio');
    return isHardware(type) && isSender && !isSent && !waiting.has(id) ? [{ from: id, to: goal, offer: null }] : [];
  });
}

/** Nothing is plugged yet where the cable would begin and end. */
const isFree = ({ rig }: Builder, { cables: [first], socket }: Offer): boolean =>
  socket.cableIds.length === 0 &&
  !rig.cables.some((c) => c.from.deviceId === first!.from.deviceId && c.from.portId === first!.from.portId);

/** A screen that is plugged to a computer for something else (a display on the head, for its microphone) gets its picture too. */
export function plugScreens(b: Builder): void {
  for (const { id, name } of b.rig.devices) {
    const type = b.typeOf(id);
    const inputs = type.ports.filter(
      (p) => p.direction === 'in' && p.level !== 'light' && p.channels.some((c) => c.carries === 'picture'),
    );
    if (!isHardware(type) || type.hosts || !showsPicture(type) || inputs.length === 0) continue;
    if (b.rig.cables.some((c) => c.to.deviceId === id && inputs.some((p) => p.id === c.to.portId))) continue;
    const host = hostsOf(b.rig).find((h) => b.rig.cables.some((c) => c.to.deviceId === h && c.from.deviceId === id));
    const offer =
      host && bestBetween(b.rig, host, id, { suits: (o) => inputs.some((p) => p.id === o.cables[0]!.to.portId) });
    if (offer) b.make(`screen:${id}`, say.showsOn({ host: b.device(host).name, screen: name }), () => b.plugs(offer));
  }
}

/** A device's own audio is heard where the device is connected: by Bluetooth, if nothing is in its jack. */
export function moveSources(b: Builder): void {
  b.rig.sources.forEach((source, at) => {
    const { deviceId, portId } = source.sound;
    const type = b.typeOf(deviceId);
    const isUsed = (id: string) => b.rig.cables.some((c) => c.from.deviceId === deviceId && c.from.portId === id);
    const does = type.ports.find((p) => p.id === portId)?.does;
    const other = type.ports.find((p) => beginsAt(type, p) && p.does === does && p.id !== portId && isUsed(p.id));
    if (isUsed(portId) || !other) return;
    b.take({ kind: 'remove-source', sourceId: source.id });
    b.take({ kind: 'add-source', source: { ...source, sound: { deviceId, portId: other.id } }, at });
  });
}
