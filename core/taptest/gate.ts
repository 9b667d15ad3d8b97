import { endsThat, findPort, findTypes, type Rig, soundsIntoRoom } from '#core/rig/index.ts';
import { rolesOf } from '#core/signal/index.ts';

/** Something that has to be so before a tune plays. An open one blocks. */
export interface GateQuestion {
  readonly id: string;
  readonly asks: string;
  readonly why: string;
}

const nameIn = (list: readonly { readonly name: string }[]): string => list.map((l) => l.name).join(', ');

/**
 * Who outside the room would hear the tunes, and whose ears are near: every listener of the rig that a tune could
 * surprise, hurt, or that must not get it by law.
 */
export function gateOf(rig: Rig): GateQuestion[] {
  const types = findTypes(rig);
  const roles = rolesOf(rig);
  const boxes = rig.devices.map((device) => ({ name: device.name, type: types.get(device.typeId)! }));
  const out: GateQuestion[] = [];
  for (const listener of rig.listeners) {
    const role = roles.listener(listener);
    if (findPort(rig, types, listener.sound)?.does === 'stream')
      out.push({
        id: `stream:${listener.id}`,
        asks: `“${listener.name}” is off, or set to private or test.`,
        why: 'Otherwise your audience hears 15 seconds of test tunes, and they stay in the recording.',
      });
    if (role === 'far-ears')
      out.push({
        id: `far:${listener.id}`,
        asks: `“${listener.name}”: they have been told, and their headset is off.`,
        why: 'The level there is unknown until it has been measured.',
      });
  }
  const radios = boxes.filter((b) => endsThat(b.type, 'on-air').length > 0);
  if (radios.length > 0)
    out.push({
      id: 'radios',
      asks: `${nameIn(radios)}: into a dummy load, voice keying off.`,
      why: 'Coded music on the air is against most licenses. Ask the license holder.',
    });
  const loud = boxes.filter((b) => soundsIntoRoom(b.type));
  if (loud.length > 0)
    out.push({
      id: 'loudspeakers',
      asks: `${nameIn(loud)}: turned low. Turn them up slowly once the tunes are heard.`,
      why: 'An overlooked loop feeds back at full volume immediately.',
    });
  out.push({
    id: 'headphones',
    asks: 'No one here wears headphones or earphones until the levels are known.',
    why: 'Levels are unknown until they have been read. Loud sound can damage hearing permanently.',
  });
  return out;
}
