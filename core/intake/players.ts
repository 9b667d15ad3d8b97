import type { Text } from '#core/base/said/index.ts';
import {
  amplifiesInstrument,
  beginsAt,
  type DeviceType,
  givesMicrophoneLevel,
  isHardware,
  isWorn,
} from '#core/model/rig/index.ts';
import { addDevice, bestBetween, fitsAmong, isMeant, type Spoken } from '#core/routing/wiring/index.ts';
import { isMicrophone } from './around.ts';
import { PLAIN, plug } from './between.ts';
import type { Builder } from './builder.ts';
import { say } from './sayings.ts';

/** What is between an instrument and what it goes into, or makes it loud, is there because someone plays: an amplifier, a DI box. */
export function playIntoIdle(b: Builder): void {
  for (const { id } of b.rig.devices) {
    const type = b.typeOf(id);
    const isLed = b.rig.cables.some((c) => c.to.deviceId === id);
    const isHeard = b.rig.cables.some((c) => c.from.deviceId === id);
    if (isLed || !(amplifiesInstrument(type) || (isHeard && bringsDown(type)))) continue;
    const isPlayed = (t: DeviceType) => isHardware(t) && t.ports.some((p) => p.does === 'music' && beginsAt(t, p));
    bring(b, id, `plays:${id}`, isPlayed, say.playsThrough);
  }
}

const bringsDown = (type: DeviceType): boolean =>
  type.ports.some((p) => p.direction === 'in' && givesMicrophoneLevel(type, p));

/** Someone was said to go into a device that takes a mic: they talk into one, unless one is there that no one talks into. */
export function handMics(b: Builder, spoken: readonly Spoken[]): void {
  for (const { person, device } of spoken) {
    const talks = b.rig.cables.some((c) => c.medium === 'air' && c.from.deviceId === person);
    const isFree = b.rig.cables.some(
      (c) =>
        c.to.deviceId === device &&
        isMicrophone(b.typeOf(c.from.deviceId)) &&
        !b.rig.cables.some((air) => air.medium === 'air' && air.to.deviceId === c.from.deviceId),
    );
    if (talks || isFree) continue;
    const { name } = b.device(person);
    const note = say.talksIntoIt({ you: person === b.you ? 'yes' : 'no', name });
    const isPlain = (t: DeviceType) => isMicrophone(t) && !isWorn(t);
    const mic = bring(b, device, `mic:${person}:${device}`, isPlain, say.pluggedInto, note);
    if (!mic) continue;
    const suits = isMeant(b.typeOf(person), b.typeOf(mic));
    const offer = bestBetween(b.rig, person, mic, { suits });
    if (offer) b.take({ kind: 'batch', edits: b.plugs(offer) });
  }
}

/** A transmitter on the belt sends what is plugged into it: a mic is there, even if no one named it. */
export function clipOnMics(b: Builder): void {
  for (const { id } of b.rig.devices) {
    const type = b.typeOf(id);
    const byRadio = type.ports.filter((p) => p.connector === 'radio');
    const isSender = byRadio.length > 0 && byRadio.every((p) => p.direction === 'out');
    const input = type.ports.find((p) => p.direction === 'in' && p.gives?.kind === 'plug-in');
    const isPlugged = b.rig.cables.some((c) => c.to.deviceId === id && c.to.portId === input?.id);
    if (!isHardware(type) || type.hosts || !isSender || !input || isPlugged) continue;
    bring(b, id, `clip:${id}`, (t) => isMicrophone(t) && !isWorn(t), say.pluggedInto);
  }
}

/** Puts what a device is there for in front of it: of the types that are plugged there plainly the commonest, which stands first; null where there is none. */
function bring(
  b: Builder,
  id: string,
  madeId: string,
  suits: (type: DeviceType) => boolean,
  does: typeof say.pluggedInto | typeof say.playsThrough,
  note: Text = '',
): string | null {
  const fits = fitsAmong(b.types);
  const type = [...b.types.values()].find((t) => suits(t) && (fits(t, b.typeOf(id)) ?? PLAIN) < PLAIN);
  if (!type) return null;
  const { edit, device } = addDevice(b.rig, type);
  if (!b.make(madeId, does({ device: device.name, into: b.device(id).name }), () => [edit], { note })) return null;
  plug(b, device.id, id);
  return device.id;
}
