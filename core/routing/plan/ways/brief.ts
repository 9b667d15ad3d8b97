import {
  type DeviceType,
  deviceIn,
  endsThat,
  findTypes,
  isHardware,
  type Rig,
  records,
} from '#core/model/rig/index.ts';
import { rolesOf } from '#core/signal/index.ts';

/** What a desk is for, in counts: what the ways of building it start from. */
export interface Brief {
  readonly consoles: number;
  readonly voices: number;
  readonly guests: number;
  readonly music: boolean;
  readonly room: boolean;
  readonly backup: boolean;
}

const isConsole = (type: DeviceType): boolean => isHardware(type) && endsThat(type, 'game').length > 0;
const isRecorder = (type: DeviceType): boolean => isHardware(type) && records(type);

/** The brief that a rig's sources and destinations amount to; at least one voice, or there is nothing to build. Games on a computer are left out: same in all. */
export function briefOf(rig: Rig): Brief {
  const roles = rolesOf(rig);
  const sources = rig.sources.map((s) => roles.source(s));
  const count = (...of: string[]) => sources.filter((r) => of.includes(r)).length;
  const types = findTypes(rig);
  const listeners = rig.listeners.map((l) => ({
    role: roles.listener(l),
    recorder: isRecorder(types.get(deviceIn(rig, l.sound.deviceId).typeId)!),
  }));
  return {
    consoles: Math.min(2, rig.devices.filter((d) => isConsole(types.get(d.typeId)!)).length),
    voices: Math.min(2, Math.max(1, count('voice', 'second-voice'))),
    guests: Math.min(1, count('far-voice')),
    music: count('music') > 0,
    room: listeners.some((l) => l.role === 'room'),
    backup: listeners.some((l) => l.recorder),
  };
}
