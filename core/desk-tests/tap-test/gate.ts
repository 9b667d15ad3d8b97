import type { Text } from '#core/base/said/index.ts';
import { endsThat, findPort, findTypes, type Rig, soundsIntoRoom } from '#core/model/rig/index.ts';
import { rolesOf } from '#core/signal/index.ts';
import { say } from './sayings.ts';

/** Something that has to be so before a tune plays. An open one blocks. */
export interface GateQuestion {
  readonly id: string;
  readonly asks: Text;
  readonly why: Text;
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
        asks: say.isOffOrSet({ listener: listener.name }),
        why: say.otherwiseYourAudienceHears(),
      });
    if (role === 'far-ears')
      out.push({
        id: `far:${listener.id}`,
        asks: say.theyHaveBeenTold({ listener: listener.name }),
        why: say.levelThereIsUnknown(),
      });
  }
  const radios = boxes.filter((b) => endsThat(b.type, 'on-air').length > 0);
  if (radios.length > 0)
    out.push({
      id: 'radios',
      asks: say.intoDummyLoadVoice({ radios: nameIn(radios) }),
      why: say.codedMusicOnAir(),
    });
  const loud = boxes.filter((b) => soundsIntoRoom(b.type));
  if (loud.length > 0)
    out.push({
      id: 'loudspeakers',
      asks: say.turnedLowTurnThem({ loud: nameIn(loud) }),
      why: say.overlookedLoopFeedsBack(),
    });
  out.push({
    id: 'headphones',
    asks: say.noOneHereWears(),
    why: say.levelsAreUnknownUntil(),
  });
  return out;
}
