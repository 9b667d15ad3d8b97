import { memoized } from '#core/base/memo/index.ts';
import { findTypes, isCall, isPerson, isProgram, placesOf, type Rig } from '#core/model/rig/index.ts';

/** Devices that are drawn as one until someone opens them. */
export interface MapGroup {
  /** The device that stands for all of them. */
  readonly id: string;
  /** The others. */
  readonly memberIds: readonly string[];
}

/** What someone speaks into or wears is this near. */
const WORN_M = 1;
/** A rig of more boxes opens with its groups folded. */
const MAX_OPEN = 16;

/**
 * What belongs together: a computer with its programs, all of a call's far side, a person with what they wear or speak
 * into. No device is in two of them.
 */
export const groupsOf = memoized((rig: Rig): readonly MapGroup[] => {
  const taken = new Set<string>();
  const group = (id: string, members: readonly string[]): MapGroup[] => {
    const memberIds = members.filter((m) => m !== id && !taken.has(m));
    if (taken.has(id) || memberIds.length === 0) return [];
    for (const member of [id, ...memberIds]) taken.add(member);
    return [{ id, memberIds }];
  };
  return [...computers(rig, group), ...farSides(rig, group), ...people(rig, group)];
});

type Group = (id: string, members: readonly string[]) => MapGroup[];

function computers(rig: Rig, group: Group): MapGroup[] {
  const types = findTypes(rig);
  const programs = new Map<string, string[]>();
  for (const { id, on, typeId } of rig.devices) {
    if (on === undefined || !isProgram(types.get(typeId)!)) continue;
    const there = programs.get(on);
    if (there) there.push(id);
    else programs.set(on, [id]);
  }
  return [...programs].flatMap(([id, members]) => group(id, members));
}

/** Everything at the far side of a call stands behind the person there. */
function farSides(rig: Rig, group: Group): MapGroup[] {
  const types = findTypes(rig);
  const placeOf = placesOf(rig);
  const farOf = (id: string, typeId: string): string | null => {
    const [port] = types.get(typeId)!.ports;
    const place = port && !isCall(types.get(typeId)!) ? placeOf({ deviceId: id, portId: port.id }) : null;
    return place && place !== 'here' ? place.farOf : null;
  };
  return rig.devices
    .filter((d) => isCall(types.get(d.typeId)!))
    .flatMap((call) => {
      const there = rig.devices.filter((d) => farOf(d.id, d.typeId) === call.id);
      const head = there.find((d) => isPerson(types.get(d.typeId)!)) ?? there[0];
      return head
        ? group(
            head.id,
            there.map((d) => d.id),
          )
        : [];
    });
}

/** What is near one person only. */
function people(rig: Rig, group: Group): MapGroup[] {
  const types = findTypes(rig);
  const persons = new Set(rig.devices.filter((d) => isPerson(types.get(d.typeId)!)).map((d) => d.id));
  const near = new Map<string, Set<string>>();
  for (const { from, to, medium, lengthM } of rig.cables) {
    if (medium !== 'air' || lengthM > WORN_M) continue;
    for (const [person, thing] of [
      [from.deviceId, to.deviceId],
      [to.deviceId, from.deviceId],
    ] as const)
      if (persons.has(person) && !persons.has(thing)) near.set(thing, (near.get(thing) ?? new Set()).add(person));
  }
  const own = new Map<string, string[]>();
  for (const [thing, who] of near) {
    const [person, other] = who;
    if (other === undefined) own.set(person!, [...(own.get(person!) ?? []), thing]);
  }
  return [...own].flatMap(([id, members]) => group(id, members));
}

/** Groups that a map opens folded: all of a large rig, none of a small one. */
export const usuallyFolded = (rig: Rig): ReadonlySet<string> =>
  new Set(rig.devices.length > MAX_OPEN ? groupsOf(rig).map((g) => g.id) : []);

/** The box that each device is drawn in: its own, or that of the folded group that it belongs to. */
export function boxesOf(rig: Rig, folded: ReadonlySet<string>): ReadonlyMap<string, string> {
  const boxes = new Map(rig.devices.map((d) => [d.id, d.id]));
  for (const { id, memberIds } of groupsOf(rig))
    if (folded.has(id)) for (const member of memberIds) boxes.set(member, id);
  return boxes;
}
