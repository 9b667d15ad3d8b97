import { say } from '#core/live/troubleshoot/sayings.ts';
import {
  type Cable,
  endName,
  findDevice,
  findTypes,
  isProgram,
  mayMeet,
  type PortRef,
  placesOf,
  type Rig,
  type Types,
} from '#core/model/rig/index.ts';
import { deviceName } from '#core/signal/index.ts';
import { type DirectLook, type Fault, WEIGHTS } from './fault.ts';
import { replug } from './leads.ts';

const CHOICE_S = 12;
const MORE_CHOICES_S = 4;
/** Maximum number of other entries of the list that are considered. */
const MAX_OTHERS = 2;

/** Every choice of a sound device or source that a program has, and how it may be another. */
export function choiceFaults(rig: Rig): Fault[] {
  const types = findTypes(rig);
  return rig.cables.flatMap((cable) => (cable.medium === 'software' ? ofChoice(rig, types, cable) : []));
}

/** Programs choose by name what they listen to and play on; names are much alike. */
function ofChoice(rig: Rig, types: Types, cable: Cable): Fault[] {
  const program = programOf(rig, types, cable);
  if (!program) return [];
  const { end, far } = program;
  const here = cable[end];
  const what = `${deviceName(rig, here.deviceId)}, ${endName(rig, types, here)}`;
  const drawn = endName(rig, types, cable[far]);
  const look: DirectLook = {
    id: `choice:${here.deviceId}/${here.portId}`,
    asks: say.checkWhichAudioDevice({ what }),
    well: say.asDrawn2({ drawn }),
    deviceIds: [here.deviceId],
    seconds: CHOICE_S,
  };
  const others = otherChoices(rig, types, cable, far);
  const own = rig.cables.filter((c) => c.medium === 'software' && c[end].deviceId === here.deviceId);
  const all: DirectLook = {
    id: `choices:${here.deviceId}`,
    asks: say.checkEveryInputAnd({ device: deviceName(rig, here.deviceId) }),
    well: say.allAsDrawn(),
    deviceIds: [here.deviceId],
    seconds: CHOICE_S + MORE_CHOICES_S * own.length,
  };
  const looks = own.length > 1 ? [look, all] : [look];
  const at = endName(rig, types, here);
  const base = { dead: [], marks: [], looks, mend: say.select({ what, drawn }) };
  return [
    {
      ...base,
      id: `not-chosen:${cable.id}`,
      kind: 'not-chosen',
      says: say.nothingIsSelectedOr({ what, drawn }),
      edit: { kind: 'unplug', cableId: cable.id },
      weight: WEIGHTS['not-chosen'] / 2,
      shows: say.nothingOrDeviceThat({ at }),
    },
    ...others.map(
      (other): Fault => ({
        ...base,
        id: `wrong-device:${cable.id}:${other.deviceId}/${other.portId}`,
        kind: 'wrong-device',
        says: say.isSelectedInstead({ what, port: endName(rig, types, other), drawn }),
        edit: replug(cable, { [far]: other, map: undefined }),
        weight: WEIGHTS['wrong-device'] / others.length,
        shows: say.endIs({ at, other: endName(rig, types, other) }),
      }),
    ),
  ];
}

/** The end of a link at which someone chooses: the program; and the end that is chosen. */
function programOf(rig: Rig, types: Types, cable: Cable): { end: 'from' | 'to'; far: 'from' | 'to' } | null {
  const isAtProgram = (ref: PortRef) => isProgram(types.get(findDevice(rig, ref.deviceId)!.typeId)!);
  if (isAtProgram(cable.to)) return { end: 'to', far: 'from' };
  return isAtProgram(cable.from) ? { end: 'from', far: 'to' } : null;
}

/** Other ports of the same kind that links of this rig use: the other entries of the list. */
function otherChoices(rig: Rig, types: Types, cable: Cable, far: 'from' | 'to'): PortRef[] {
  const chosen = cable[far];
  const channelsOf = (ref: PortRef) =>
    types
      .get(findDevice(rig, ref.deviceId)!.typeId)!
      .ports.find((p) => p.id === ref.portId)!
      .channels.map((c) => c.id)
      .join();
  const placeOf = placesOf(rig);
  const own = placeOf(chosen);
  const alike = rig.cables
    .filter((c) => c.medium === 'software' && c.id !== cable.id && mayMeet(own, placeOf(c[far])))
    .map((c) => c[far])
    .filter(
      (ref) =>
        (ref.deviceId !== chosen.deviceId || ref.portId !== chosen.portId) && channelsOf(ref) === channelsOf(chosen),
    );
  return alike
    .filter((ref, i) => alike.findIndex((o) => o.deviceId === ref.deviceId && o.portId === ref.portId) === i)
    .slice(0, MAX_OTHERS);
}
