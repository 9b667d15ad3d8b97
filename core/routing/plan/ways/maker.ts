import type { Text } from '#core/base/said/index.ts';
import {
  applyEdit,
  type Cable,
  type Edit,
  emptyRig,
  endsBehind,
  findDevice,
  findTypes,
  type PortRef,
  portAt,
  type Rig,
  type SettingValue,
  soundDeviceOf,
} from '#core/model/rig/index.ts';
import { addDevice, addFarSeat, bestBetween, type Offer, socketsOf, usualLength } from '#core/routing/wiring/index.ts';
import { say } from '../sayings.ts';

/** Draws a rig device by device and cable by cable; what can't be connected is reported, and the rest goes on. */
export interface WayMaker {
  /** The id of the device. */
  add(typeId: string, name?: string): string;
  /** The cheapest lead that fits; by these ports where they are named. */
  lead(from: string, to: string, ports?: { readonly from?: string; readonly to?: string }): boolean;
  /** Another pair of channels by a cable that is there already. */
  pair(from: string, fromPort: string, to: string, map: NonNullable<Cable['map']>): void;
  /** Between programs, or out of a mouth into a microphone. */
  link(from: string, to: string, medium: Cable['medium'], lengthM?: number, map?: Cable['map']): void;
  set(deviceId: string, settingId: string, value: SettingValue): void;
  unplug(cableId: string): void;
  guest(callId: string, name: string): void;
  /** The computer's software port for a USB device: 'from-usb-2'; null where the device is not connected there. */
  brings(computerId: string, deviceId: string): string | null;
  /** The other way: what goes out to it. */
  takes(computerId: string, deviceId: string): string | null;
  rig(): Rig;
  /** What would not fit. */
  readonly refused: readonly Text[];
}

export function wayMaker(name: string, session: Rig['session'], ownTypes: Rig['types']): WayMaker {
  let now: Rig = { ...emptyRig(name), session, types: ownTypes };
  const refused: Text[] = [];
  const take = (edit: Edit, says: Text): boolean => {
    const done = applyEdit(now, edit);
    if (done.ok) now = done.rig;
    else refused.push(say.refused({ what: says, reason: done.refusal.reason }));
    return done.ok;
  };
  const end = (text: string): PortRef => {
    const { deviceId, portId } = portAt(text);
    return { deviceId, portId };
  };
  /** The software port behind the socket of a cable, at either of its ends. */
  const behindLead = (computerId: string, deviceId: string, way: 'in' | 'out'): string | null => {
    const type = findTypes(now).get(findDevice(now, computerId)!.typeId)!;
    const at = (c: Cable) =>
      c.medium !== 'lead'
        ? null
        : c.to.deviceId === computerId && c.from.deviceId === deviceId
          ? c.to
          : c.from.deviceId === computerId && c.to.deviceId === deviceId
            ? c.from
            : null;
    const sockets = now.cables.flatMap((c) => at(c)?.portId ?? []);
    const devices = new Set(type.ports.filter((p) => sockets.includes(p.id)).map(soundDeviceOf));
    const ends = type.ports.filter((p) => devices.has(soundDeviceOf(p)));
    const found = ends.flatMap((p) => endsBehind(type, p.id).filter((e) => e.direction === way));
    return found[0] ? `${computerId}.${found[0].id}` : null;
  };
  return {
    refused,
    rig: () => now,
    add(typeId, called) {
      const type = findTypes(now).get(typeId)!;
      const { edit, device } = addDevice(now, type, called);
      take(edit, type.name);
      return device.id;
    },
    lead(from, to, ports = {}) {
      const fits = (o: Offer) =>
        (ports.from === undefined || o.cables[0]!.from.portId === ports.from) &&
        (ports.to === undefined || o.cables[0]!.to.portId === ports.to);
      const offer = bestBetween(now, from, to, { suits: fits });
      if (!offer) {
        refused.push(say.noCable({ from, to }));
        return false;
      }
      return take(
        { kind: 'batch', edits: offer.cables.map((cable): Edit => ({ kind: 'plug', cable })) },
        `${from} to ${to}`,
      );
    },
    pair(from, fromPort, to, map) {
      const there = now.cables.find((c) => c.medium === 'lead' && c.from.deviceId === from && c.to.deviceId === to);
      if (there)
        take(
          {
            kind: 'plug',
            cable: { ...there, id: `${there.id}-pair`.slice(0, 64), from: { deviceId: from, portId: fromPort }, map },
          },
          `${from}, ${fromPort}`,
        );
    },
    link(from, to, medium, lengthM, map) {
      const source = end(from);
      const socket = socketsOf(now, source.deviceId).find((s) => s.ports.some((p) => p.id === source.portId));
      const usual = medium === 'software' ? 0 : medium === 'light' ? 1 : socket ? usualLength(medium, socket) : 1;
      const id = `link-${now.cables.length + 1}`;
      take(
        {
          kind: 'plug',
          cable: {
            id,
            from: source,
            to: end(to),
            medium,
            lengthM: lengthM ?? usual,
            known: 'assumed',
            ...(map && { map }),
          },
        },
        `${from} to ${to}`,
      );
    },
    set(deviceId, settingId, value) {
      take(
        { kind: 'set-setting', deviceId, settingId, setting: { value, known: 'assumed' } },
        `${deviceId}, ${settingId}`,
      );
    },
    unplug(cableId) {
      take({ kind: 'unplug', cableId }, cableId);
    },
    guest(callId, called) {
      take(addFarSeat(now, callId, called), called);
    },
    brings(computerId, deviceId) {
      return behindLead(computerId, deviceId, 'out');
    },
    takes(computerId, deviceId) {
      return behindLead(computerId, deviceId, 'in');
    },
  };
}
