import { isCall } from './capabilities.ts';
import { findDevice, findTypes, portsOf } from './lookup.ts';
import type { PortRef, Rig } from './schema.ts';

/** Where a socket is: here (the desk), at the far side of a call (the call's id), or unknown (null). */
export type Place = 'here' | { readonly farOf: string } | null;

const HERE = 'here';

/**
 * Which end stands where. A call is the only thing between its two sides: what hangs together by cables, links and air
 * without passing one is in one place. Here is where a call runs and what stands before it; what hangs on a call's
 * far ends alone is there; a device that nothing ties to either may be in both.
 */
export function placesOf(rig: Rig): (end: PortRef) => Place {
  const types = findTypes(rig);
  const typeOf = (deviceId: string) => types.get(findDevice(rig, deviceId)?.typeId ?? '');
  const isFar = ({ deviceId, portId }: PortRef): boolean => {
    const type = typeOf(deviceId);
    return type !== undefined && portsOf(type).get(portId)?.does === 'far-side';
  };
  const joinsPlaces = (deviceId: string): boolean => {
    const type = typeOf(deviceId);
    return type !== undefined && isCall(type);
  };
  const part = new Map<string, string>();
  const root = (id: string): string => {
    let at = id;
    for (let up = part.get(at) ?? at; up !== at; up = part.get(at) ?? at) at = up;
    return at;
  };
  const join = (a: string, b: string) => part.set(root(a), root(b));
  // A call stands here with its near ends, and over there with its far ones.
  const placeOf = (end: PortRef): string =>
    isFar(end) ? `far:${end.deviceId}` : joinsPlaces(end.deviceId) ? HERE : end.deviceId;
  for (const { from, to } of rig.cables) join(placeOf(from), placeOf(to));
  for (const { id, on } of rig.devices) {
    // Our end of a call runs here; any other program is where its computer is, and that may be over there.
    if (on !== undefined) join(on, joinsPlaces(id) ? HERE : id);
  }
  const calls = rig.devices.filter((d) => joinsPlaces(d.id)).map((d) => d.id);
  return (end) => {
    const place = root(placeOf(end));
    if (isFar(end)) return { farOf: end.deviceId };
    if (place === root(HERE)) return 'here';
    const call = calls.find((id) => root(`far:${id}`) === place);
    return call === undefined ? null : { farOf: call };
  };
}

/** Whether two ends can be in one place, so that something may lead from the one to the other. */
export function mayMeet(a: Place, b: Place): boolean {
  if (a === null || b === null) return true;
  return a === 'here' || b === 'here' ? a === b : a.farOf === b.farOf;
}
