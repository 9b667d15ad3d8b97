import {
  type DeviceType,
  endsThat,
  endsThatLeadTo,
  findDevice,
  findPort,
  findTypes,
  isHardware,
  isWorn,
  placesOf,
  type Rig,
  type Types,
} from '#core/model/rig/index.ts';

type Source = Rig['sources'][number];
type Listener = Rig['listeners'][number];
type Cable = Rig['cables'][number];

/** What a source is to the others: whose voice, or which kind of sound. */
export type SourceRole = 'voice' | 'second-voice' | 'far-voice' | 'radio-voice' | 'game' | 'music' | 'other';
/** What a listener is: a whole program, one track of several, ears here, behind a call, behind a radio, or a room. */
export type ListenerRole = 'mix' | 'track' | 'ears' | 'far-ears' | 'radio-ears' | 'room';

export interface Roles {
  source(source: Source): SourceRole;
  listener(listener: Listener): ListenerRole;
  /** See `mainVoiceOf`. */
  readonly mainVoice: string | null;
  /** Whether the source is the listener's own voice: at their own ears, or into the microphone of the same device. */
  isOwn(source: Source, listener: Listener): boolean;
}

const known = new WeakMap<Rig, Roles>();
/** The last rig with these cables: settings say nothing of who is who. */
const latest = new WeakMap<Rig['cables'], Rig>();

const isAlike = (a: Rig, b: Rig): boolean =>
  a.types === b.types &&
  a.sources === b.sources &&
  a.listeners === b.listeners &&
  a.devices.length === b.devices.length &&
  a.devices.every((d, i) => {
    const other = b.devices[i]!;
    return d === other || (d.id === other.id && d.typeId === other.typeId && d.on === other.on);
  });

/** A rig as the roles are read from it: who hears whom through the air, what leads into a device, and where an end is. */
interface Seen {
  readonly rig: Rig;
  readonly types: Types;
  readonly airFrom: ReadonlyMap<string, readonly Cable[]>;
  readonly into: ReadonlyMap<string, readonly Cable[]>;
  readonly placeOf: ReturnType<typeof placesOf>;
}

function seeRig(rig: Rig): Seen {
  const [airFrom, into] = [new Map<string, Cable[]>(), new Map<string, Cable[]>()];
  const put = (map: Map<string, Cable[]>, key: string, cable: Cable) => {
    const list = map.get(key);
    if (list) list.push(cable);
    else map.set(key, [cable]);
  };
  for (const cable of rig.cables) {
    put(into, cable.to.deviceId, cable);
    if (cable.medium === 'air') put(airFrom, cable.from.deviceId, cable);
  }
  return { rig, types: findTypes(rig), airFrom, into, placeOf: placesOf(rig) };
}

/** Who is who on a rig, by what its devices are and what stands before and behind them. */
export function rolesOf(rig: Rig): Roles {
  const alike = latest.get(rig.cables);
  const before = known.get(rig) ?? (alike && isAlike(alike, rig) ? known.get(alike) : undefined);
  if (before) return before;
  latest.set(rig.cables, rig);
  const seen = seeRig(rig);
  const main = mainVoice(seen);
  const sources = new Map(rig.sources.map((s) => [s.id, sourceRole(seen, s, main)]));
  const listeners = new Map(rig.listeners.map((l) => [l.id, listenerRole(seen, l)]));
  const roles: Roles = {
    source: ({ id }) => sources.get(id)!,
    listener: ({ id }) => listeners.get(id)!,
    mainVoice: main,
    isOwn: ({ sound }, { sound: { deviceId } }) =>
      sound.deviceId === deviceId ||
      (seen.airFrom.get(sound.deviceId) ?? []).some((c) => c.to.deviceId === deviceId) ||
      // What is worn sounds at its wearer's ears.
      (seen.airFrom.get(deviceId) ?? []).some(
        (c) => c.to.deviceId === sound.deviceId && isWorn(typeAt(seen, deviceId)!),
      ),
  };
  known.set(rig, roles);
  return roles;
}

const typeAt = ({ rig, types }: Seen, deviceId: string): DeviceType | undefined =>
  types.get(findDevice(rig, deviceId)?.typeId ?? '');

/** Whether what is spoken into this end of a device goes on the air from the same device. */
const isSentFrom = (type: DeviceType | undefined, portId: string): boolean =>
  type !== undefined && endsThatLeadTo(type, endsThat(type, 'on-air')).has(portId);

/** Where someone speaks: here, at the far side of a call, or into a radio in the hand; null for what is no voice. */
function voiceAt(seen: Seen, { sound }: Source): 'here' | 'far' | 'radio' | null {
  if (findPort(seen.rig, seen.types, sound)?.does !== 'voice') return null;
  const heardBy = seen.airFrom.get(sound.deviceId) ?? [];
  if (heardBy.some((c) => isSentFrom(typeAt(seen, c.to.deviceId), c.to.portId))) return 'radio';
  const place = seen.placeOf(sound);
  return place !== null && place !== 'here' ? 'far' : 'here';
}

function mainVoice(seen: Seen): string | null {
  const voices = seen.rig.sources.map((s) => ({ id: s.id, at: voiceAt(seen, s) })).filter((v) => v.at !== null);
  return (voices.find((v) => v.at === 'here') ?? voices[0])?.id ?? null;
}

/** The main voice, the reference for levels: the first person who arrives here, in the order of the rig's sources; else the first person. */
export const mainVoiceOf = (rig: Rig): string | null => rolesOf(rig).mainVoice;

function sourceRole(seen: Seen, source: Source, main: string | null): SourceRole {
  const at = voiceAt(seen, source);
  if (at === 'far') return 'far-voice';
  if (at === 'radio') return 'radio-voice';
  if (at === 'here') return source.id === main ? 'voice' : 'second-voice';
  const does = findPort(seen.rig, seen.types, source.sound)?.does;
  return does === 'game' || does === 'music' ? does : 'other';
}

/** A program's stream and a recorder take the whole; of several tracks, each is the person's own matter. */
function listenerRole(seen: Seen, listener: Listener): ListenerRole {
  const { sound } = listener;
  const type = typeAt(seen, sound.deviceId);
  const port = type && findPort(seen.rig, seen.types, sound);
  if (port?.connector === 'file') {
    const files = type!.ports.filter((p) => p.connector === 'file').length;
    return files > 1 ? 'track' : 'mix';
  }
  if (port?.does === 'stream') return 'mix';
  const behind = whatFeeds(seen, listener);
  if (behind !== null) return behind;
  return port?.does === 'room-ears' ? 'room' : 'ears';
}

/** A call, at its far side, or a radio in someone's hand, that stands before the ears; null for neither. */
function whatFeeds(seen: Seen, { sound }: Listener): 'far-ears' | 'radio-ears' | null {
  const met = new Set([sound.deviceId]);
  const open = [sound.deviceId];
  for (let id = open.pop(); id !== undefined; id = open.pop())
    for (const { from } of seen.into.get(id) ?? []) {
      if (met.has(from.deviceId)) continue;
      if (findPort(seen.rig, seen.types, from)?.does === 'far-side') return 'far-ears';
      const type = typeAt(seen, from.deviceId);
      if (id === sound.deviceId && type && endsThat(type, 'on-air').length > 0) return 'radio-ears';
      // A call that is met from its near side is someone else's.
      if (type && !isHardware(type)) continue;
      met.add(from.deviceId);
      open.push(from.deviceId);
    }
  return null;
}
