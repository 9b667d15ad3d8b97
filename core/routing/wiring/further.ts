import { applyEdit, type Edit, findDevice, findTypes, portOf, type Rig } from '#core/model/rig/index.ts';
import { bestBetween } from './between.ts';
import type { Offer } from './offers.ts';

/** Maximum extra cost of the next of several similar cables, EUR. */
const NEXT = 30;

/**
 * The cables that go along with one between two devices: from further outputs of its kind, each of which something comes to
 * by an input of its own, to free inputs. Four receivers in one device, eight preamps.
 */
export function furtherOffers(start: Rig, from: string, to: string, offer: Offer): Offer[] {
  const type = findTypes(start).get(findDevice(start, from)!.typeId);
  const [first] = offer.cables;
  if (first?.medium !== 'lead' || first.from.deviceId !== from || !type || type.hosts) return [];
  let rig = start;
  const used = type.ports.find((p) => p.id === first.from.portId)!;
  const isFed = (portId: string) => rig.cables.some((c) => c.to.deviceId === from && c.to.portId === portId);
  const fedBy = (portId: string) =>
    type.inside
      .filter((w) => portOf(w.to) === portId)
      .map((w) => portOf(w.from))
      .filter(isFed);
  const told = new Set(
    rig.cables.filter((c) => c.from.deviceId === from && c.to.deviceId === to).flatMap((c) => fedBy(c.from.portId)),
  );
  return type.ports.flatMap((port): Offer[] => {
    const isLike = port.direction === 'out' && port.connector === used.connector && port.level === used.level;
    const inputs = fedBy(port.id);
    const isFree = !rig.cables.some((c) => c.from.deviceId === from && c.from.portId === port.id);
    if (!isLike || !isFree || inputs.length === 0 || inputs.some((id) => told.has(id))) return [];
    const suits = (o: Offer): boolean =>
      o.cables[0]!.from.portId === port.id && o.socket.cableIds.length === 0 && o.cost < offer.cost + NEXT;
    const next = bestBetween(rig, from, to, { suits });
    if (!next) return [];
    const done = applyEdit(rig, { kind: 'batch', edits: next.cables.map((cable): Edit => ({ kind: 'plug', cable })) });
    if (done.ok) rig = done.rig;
    for (const id of inputs) told.add(id);
    return [next];
  });
}
