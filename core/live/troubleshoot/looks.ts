import type { Text } from '#core/base/said/index.ts';
import {
  endName,
  findDevice,
  findPort,
  findSource,
  findTypes,
  isHardware,
  isPerson,
  listenerIn,
  type PortRef,
  type Rig,
  sourceIn,
  type Types,
} from '#core/model/rig/index.ts';
import { deviceName, rolesOf } from '#core/signal/index.ts';
import type { DirectLook, Flag } from './faults/index.ts';
import { answerOf } from './faults/index.ts';
import { say } from './sayings.ts';
import type { Lineup } from './suspects.ts';

const HERE_S = 8;
/** Someone far off has to be asked, or a recording played back. */
const ASK_S = 20;
const METER_S = 10;
/** Headphones, or another device, have to be plugged there. */
const PLUG_S = 60;
const PICTURE_S = 5;

const FLAG_WORDS: Record<Flag, Text> = {
  hum: 'hum',
  hiss: 'hiss',
  distorted: 'distortion',
  'drop-outs': say.clicksOrDropouts(),
  'cut-up': say.choppyOrWarblingAudio(),
  howl: 'howling',
  drifting: say.audioThatDriftsFrom(),
  'picture-odd': say.videoWithWrongColors(),
};

/** A check as it is put to the person at the desk. */
export interface LookSaid {
  readonly asks: Text;
  /** The device, or the listener, that it is about. */
  readonly tap: PortRef | null;
}

/** Looks of a rig by their keys: how long each takes, and how it is asked. */
export function lookBook(rig: Rig, lineup: Lineup) {
  const types = findTypes(rig);
  const roles = rolesOf(rig);
  const direct = new Map<string, DirectLook>(
    lineup.suspects.flatMap(({ fault }) => fault.looks.map((look) => [look.id, look] as const)),
  );
  const shown = new Map(lineup.suspects.map(({ fault }) => [answerOf(fault), fault.shows]));
  const listener = (id: string) => listenerIn(rig, id);
  const source = (id: string) => sourceIn(rig, id);
  const sourceName = (id: string) => findSource(rig, id)?.name ?? '';
  return {
    /** Null for what no one can look at. */
    secondsOf(key: string): number | null {
      const [kind, place, of] = key.split('|') as [string, string, string];
      if (kind === 'look') return direct.get(place)?.seconds ?? null;
      if (kind === 'see') return sightSeconds(rig, types, refOf(place));
      if (kind === 'has') return tapSeconds(rig, types, refOf(place), null);
      if (kind !== 'tap') {
        const far = ['far-ears', 'radio-ears', 'track'].includes(roles.listener(listener(place)));
        return (kind === 'picture' ? PICTURE_S : HERE_S) + (far ? ASK_S : 0);
      }
      return tapSeconds(rig, types, refOf(place), source(of).sound);
    },
    say(key: string): LookSaid {
      const [kind, place, of] = key.split('|') as [string, string, string];
      if (kind === 'look') return { asks: direct.get(place)!.asks, tap: null };
      if (kind === 'tap') {
        const ref = refOf(place);
        return {
          asks: say.playAloneIfYou({
            name: source(of).name,
            device: deviceName(rig, ref.deviceId),
            port: endName(rig, types, ref),
          }),
          tap: ref,
        };
      }
      if (kind === 'see' || kind === 'has') {
        const ref = refOf(place);
        const where = `${deviceName(rig, ref.deviceId)}, ${endName(rig, types, ref)}`;
        return {
          asks:
            kind === 'see'
              ? say.isVideoVisibleAt({ name: source(of).name, where })
              : say.isThereAlreadyAt({ flag: FLAG_WORDS[of as Flag], where }),
          tap: ref,
        };
      }
      const { name, sound } = listener(place);
      const asks: Record<string, Text> = {
        hear: say.howDoesSoundAt({ name: kind === 'hear' ? sourceName(of) : '', listener: name }),
        time: say.isInSyncWith({ name: sourceName(of), listener: name }),
        twice: say.doesArriveOnceOr({ name: sourceName(of), listener: name }),
        picture: say.isVideoThereAt({ name: sourceName(of), listener: name }),
        flag: say.isThereAt({ flag: FLAG_WORDS[of as Flag], listener: name }),
      };
      return { asks: asks[kind]!, tap: sound };
    },
    /** An answer as it is said: of a look at the thing itself, what it shows; any other by its own name. */
    sayAnswer(key: string, answer: string): Text {
      if (answer === 'well') return direct.get(key.slice('look|'.length))?.well ?? answer;
      return shown.get(answer) ?? answer;
    },
  };
}
export type LookBook = ReturnType<typeof lookBook>;

const refOf = (place: string): PortRef => {
  const [deviceId, portId] = place.split('/') as [string, string];
  return { deviceId, portId };
};

/** Screens and programs show what they get; anywhere else a small screen has to be plugged. */
function sightSeconds(rig: Rig, types: Types, ref: PortRef): number | null {
  const type = types.get(findDevice(rig, ref.deviceId)!.typeId)!;
  if (isPerson(type)) return null;
  const port = findPort(rig, types, ref)!;
  if (type.shows?.picture) return PICTURE_S;
  return port.direction === 'out' && port.level === 'digital' ? PLUG_S : null;
}

function tapSeconds(rig: Rig, types: Types, ref: PortRef, from: PortRef | null): number | null {
  const type = types.get(findDevice(rig, ref.deviceId)!.typeId)!;
  // Whether someone speaks, or a program plays, is known before one asks.
  if (ref.deviceId === from?.deviceId && ref.portId === from.portId) return null;
  const port = findPort(rig, types, ref)!;
  // What sounds into the air here is heard by ear; what someone says is not looked for.
  if (port.level === 'air') return port.direction === 'out' && isHardware(type) ? HERE_S : null;
  if (type.shows?.levels) return METER_S;
  return ['microphone', 'line', 'headphone', 'digital'].includes(port.level) ? PLUG_S : null;
}
