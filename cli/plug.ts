import { endOf, lostBy } from '#core/model/plug/index.ts';
import { type Cable, findTypes, portAt, portKey, type Rig } from '#core/model/rig/index.ts';
import { offersFor, socketsOf } from '#core/routing/wiring/index.ts';
import { leadBetween, leadOn } from '#core/rules/index.ts';
import { deviceName } from '#core/signal/index.ts';
import { cli as say, textOf } from '#words/index.ts';
import type { Command } from './command.ts';
import { UsageError } from './edges.ts';
import { readRig } from './rig-file.ts';

/** What the cable that would be taken loses of the sound. */
function losesBy(rig: Rig, cable: Cable): string[] {
  if (cable.medium !== 'lead' || cable.map) return [];
  const lead = leadBetween(rig, findTypes(rig), cable);
  const found = leadOn(lead);
  return found ? lostBy(endOf(lead.from.port), endOf(lead.to.port), found).map(textOf) : [];
}

/** What a socket can be plugged to, the best first, with the cable and adapters that it takes. */
export const plug: Command = async ([path, place]) => {
  const rig = await readRig(path!);
  const { deviceId, portId } = portAt(place!);
  if (!rig.devices.some((d) => d.id === deviceId))
    throw new UsageError(say.thereIsNoDevice({ device: deviceId, names: rig.devices.map((d) => d.id).join(', ') }));
  const sockets = socketsOf(rig, deviceId, findTypes(rig));
  const socket = sockets.find((s) => s.id === portId || s.ports.some((p) => p.id === portId));
  if (!socket)
    throw new UsageError(
      say.hasNoSocketIt({ device: deviceId, socket: portId, names: sockets.map((s) => s.id).join(', ') }),
    );
  const offers = offersFor(rig, socket).map(({ socket: to, chain, cables }) => ({
    to: portKey(to.deviceId, to.id),
    name: `${deviceName(rig, to.deviceId)}, ${to.name}`,
    medium: cables[0]!.medium,
    parts: chain?.parts.map((p) => textOf(p.name)) ?? [],
    priceEur: chain?.price ?? null,
    loses: losesBy(rig, cables[0]!),
    taken: to.cableIds.length > 0,
  }));
  const line = (o: (typeof offers)[number]) =>
    `  ${o.name}: ${o.parts.join(' + ') || (o.medium === 'lead' ? say.itsOwnCable() : o.medium)}${o.taken ? say.inUse() : ''}${o.loses.length > 0 ? `; ${o.loses.join(', ')}` : ''}`;
  return {
    json: { from: portKey(deviceId, socket.id), offers },
    text: [
      `${deviceName(rig, deviceId)}, ${socket.name}:`,
      ...(offers.length > 0 ? offers.map(line) : [say.nothingFits()]),
    ].join('\n'),
  };
};
