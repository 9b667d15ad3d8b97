import {
  type DeviceType,
  endsThat,
  endsThatLeadTo,
  findDevice,
  findPort,
  findTypes,
  isHardware,
  placesOf,
  type Rig,
  type Types,
} from '#core/rig/index.ts';

type Source = Rig['sources'][number];
type Listener = Rig['listeners'][number];

/** What a source is to the others: whose voice, or which kind of sound. */
export type SourceRole = 'voice' | 'second-voice' | 'far-voice' | 'radio-voice' | 'game' | 'music' | 'other';
/** What a listener is: a whole programme, one track of several, ears here, behind a call, behind a radio, or a room. */
export type ListenerRole = 'mix' | 'track' | 'ears' | 'far-ears' | 'radio-ears' | 'room';

export interface Roles {
  source(source: Source): SourceRole;
  listener(listener: Listener): ListenerRole;
  /** Whether the source is the voice of whoever listens there: at the own ears, or into the microphone of the same box. */
  isOwn(source: Source, listener: Listener): boolean;
}

const known = new WeakMap<Rig, Roles>();

/** Who is who on a rig, by what its boxes are and what stands before and behind them. */
export function rolesOf(rig: Rig): Roles {
  const before = known.get(rig);
  if (before) return before;
  const types = findTypes(rig);
  const main = mainVoiceOf(rig);
  const sources = new Map(rig.sources.map((s) => [s.id, sourceRole(rig, types, s, main)]));
  const listeners = new Map(rig.listeners.map((l) => [l.id, listenerRole(rig, types, l)]));
  const roles: Roles = {
    source: ({ id }) => sources.get(id)!,
    listener: ({ id }) => listeners.get(id)!,
    isOwn: (source, listener) => isOwn(rig, source, listener),
  };
  known.set(rig, roles);
  return roles;
}

/** Whether what is spoken into this end of a box goes on the air from the same box. */
const isSentFrom = (type: DeviceType | undefined, portId: string): boolean =>
  type !== undefined && endsThatLeadTo(type, endsThat(type, 'on-air')).has(portId);

/** Where somebody speaks: here, at the far side of a call, or into a radio in the hand; null for what is no voice. */
function voiceAt(rig: Rig, types: Types, { sound }: Source): 'here' | 'far' | 'radio' | null {
  if (findPort(rig, types, sound)?.does !== 'voice') return null;
  const heardBy = rig.cables.filter((c) => c.medium === 'air' && c.from.deviceId === sound.deviceId);
  if (heardBy.some((c) => isSentFrom(types.get(findDevice(rig, c.to.deviceId)?.typeId ?? ''), c.to.portId)))
    return 'radio';
  const place = placesOf(rig)(sound);
  return place !== null && place !== 'here' ? 'far' : 'here';
}

/** The voice that levels are told against: the first person here, in the order of the rig's sources; else the first person. */
export function mainVoiceOf(rig: Rig): string | null {
  const types = findTypes(rig);
  const voices = rig.sources.filter((s) => voiceAt(rig, types, s) !== null);
  return (voices.find((s) => voiceAt(rig, types, s) === 'here') ?? voices[0])?.id ?? null;
}

function sourceRole(rig: Rig, types: Types, source: Source, main: string | null): SourceRole {
  const { id, sound } = source;
  const at = voiceAt(rig, types, source);
  if (at === 'far') return 'far-voice';
  if (at === 'radio') return 'radio-voice';
  if (at === 'here') return id === main ? 'voice' : 'second-voice';
  const does = findPort(rig, types, sound)?.does;
  return does === 'game' || does === 'music' ? does : 'other';
}

/** A program's stream and a recorder take the whole; of several tracks, each is the person's own matter. */
function listenerRole(rig: Rig, types: Types, listener: Listener): ListenerRole {
  const { sound } = listener;
  const type = types.get(findDevice(rig, sound.deviceId)?.typeId ?? '');
  const port = type?.ports.find((p) => p.id === sound.portId);
  if (port?.connector === 'file') {
    const files = type!.ports.filter((p) => p.connector === 'file').length;
    return files > 1 ? 'track' : 'mix';
  }
  if (port?.does === 'stream') return 'mix';
  const behind = whatFeeds(rig, types, listener);
  if (behind !== null) return behind;
  return port?.does === 'room-ears' ? 'room' : 'ears';
}

/** A call, at its far side, or a radio in somebody's hand, that stands before the ears; null for neither. */
function whatFeeds(rig: Rig, types: Types, { sound }: Listener): 'far-ears' | 'radio-ears' | null {
  const typeOf = (deviceId: string) => types.get(findDevice(rig, deviceId)?.typeId ?? '');
  const seen = new Set([sound.deviceId]);
  const open = [sound.deviceId];
  for (let id = open.pop(); id !== undefined; id = open.pop())
    for (const { from, to } of rig.cables) {
      if (to.deviceId !== id || seen.has(from.deviceId)) continue;
      if (findPort(rig, types, from)?.does === 'far-side') return 'far-ears';
      const type = typeOf(from.deviceId);
      if (id === sound.deviceId && type && endsThat(type, 'on-air').length > 0) return 'radio-ears';
      // A call that is met from its near side is somebody else's.
      if (type && !isHardware(type)) continue;
      seen.add(from.deviceId);
      open.push(from.deviceId);
    }
  return null;
}

function isOwn(rig: Rig, source: Source, { sound }: Listener): boolean {
  if (source.sound.deviceId === sound.deviceId) return true;
  return rig.cables.some(
    (c) => c.medium === 'air' && c.from.deviceId === source.sound.deviceId && c.to.deviceId === sound.deviceId,
  );
}
