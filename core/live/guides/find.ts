import {
  captures,
  type Device,
  type DeviceType,
  endsThat,
  films,
  findTypes,
  hearsAir,
  isCall,
  isHardware,
  isWorn,
  type Rig,
  records,
  soundsIntoRoom,
} from '#core/model/rig/index.ts';
import { rolesOf } from '#core/signal/index.ts';
import type { Duty, Sought } from './guide.ts';

/** Something in the rig that a guide may be about. */
export interface Found {
  readonly id: string;
  readonly name: string;
}

/** A mixer takes in more than two and gives a mix of them. */
const MIXES = 3;

const IS: Readonly<Record<Duty, (type: DeviceType, device: Device) => boolean>> = {
  camera: films,
  capture: captures,
  computer: (type) => type.hosts === true,
  call: isCall,
  recorder: (type) => isHardware(type) && records(type),
  microphone: (type) => hearsAir(type) && !films(type),
  headphones: isWorn,
  loudspeakers: soundsIntoRoom,
  radio: (type) => isHardware(type) && endsThat(type, 'on-air').length > 0,
  mixer: (type) =>
    isHardware(type) &&
    type.hosts !== true &&
    type.ports.filter((p) => p.direction === 'in').length >= MIXES &&
    type.settings.filter((s) => s.kind === 'gain').length >= MIXES,
};

/** Everything in a rig that is what is sought, in the rig's order; the main voice first among voices. */
export function foundIn(rig: Rig, sought: Sought): Found[] {
  const named = (list: readonly { readonly id: string; readonly name: string }[]): Found[] =>
    list.map(({ id, name }) => ({ id, name }));
  const roles = rolesOf(rig);
  if (sought.what === 'source') return named(byRole(rig.sources, sought.roles, roles.source));
  if (sought.what === 'listener') return named(byRole(rig.listeners, sought.roles, roles.listener));
  const types = findTypes(rig);
  return named(rig.devices.filter((d) => IS[sought.is](types.get(d.typeId)!, d)));
}

/** Those of the first role that there is one of come first. */
const byRole = <T, Role>(all: readonly T[], roles: readonly Role[], roleOf: (one: T) => Role): T[] =>
  roles.flatMap((role) => all.filter((one) => roleOf(one) === role));
