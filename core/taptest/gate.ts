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
        asks: `${listener.name}: it is off, or set to private or a test.`,
        why: 'An audience would hear a quarter of a minute of tunes; a recording of them stays where it was sent.',
      });
    if (role === 'far-ears')
      out.push({
        id: `far:${listener.id}`,
        asks: `${listener.name}: whoever is there has been told, and has the headset off.`,
        why: 'How loud it comes there nobody knows before it was measured.',
      });
  }
  const radios = boxes.filter((b) => endsThat(b.type, 'on-air').length > 0);
  if (radios.length > 0)
    out.push({
      id: 'radios',
      asks: `${nameIn(radios)}: into a dummy load, keying by voice off.`,
      why: 'Coded music on the air is against most licences. Ask whoever holds yours.',
    });
  const loud = boxes.filter((b) => soundsIntoRoom(b.type));
  if (loud.length > 0)
    out.push({
      id: 'loudspeakers',
      asks: `${nameIn(loud)}: turned low. They come up slowly once the tunes are heard.`,
      why: 'A loop that was overlooked howls at full strength at once.',
    });
  out.push({
    id: 'headphones',
    asks: 'Nobody here wears headphones or earphones until the levels are known.',
    why: 'Levels are unknown until they are read. Loud sound at the ear harms for good.',
  });
  return out;
}
