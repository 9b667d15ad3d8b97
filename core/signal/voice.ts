import { findDevice, findTypes, type Rig } from '#core/rig/index.ts';

/** The voice that levels are told against: the first source, in the order of the rig, that a person is. */
export function mainVoiceOf(rig: Rig): string | null {
  const types = findTypes(rig);
  const isVoice = (deviceId: string) => types.get(findDevice(rig, deviceId)?.typeId ?? '')?.family === 'people';
  return rig.sources.find((s) => isVoice(s.sound.deviceId))?.id ?? null;
}
