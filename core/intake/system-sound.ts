import { type Edit, endsThat } from '#core/model/rig/index.ts';
import { addDevice } from '#core/routing/wiring/index.ts';
import { carriesWhat, downstream, type End, endsOf, hostsOf, programsOn } from './around.ts';
import type { Builder } from './builder.ts';
import { say } from './sayings.ts';

/** From an input of a computer to one of its outputs, by nothing but its own sound system. */
export interface Through {
  readonly hostId: string;
  readonly from: End;
  readonly to: End;
}

const SYSTEM = 'sound-system';

/** The computer's own sound system plays an input on: it is heard, later than it comes. */
export function playedThrough(b: Builder, { hostId, from, to }: Through, db: number): Edit[] {
  const { edit, device } = addDevice(b.rig, b.types.get(SYSTEM)!, `${b.device(hostId).name}, computer audio`);
  const end = (portId: string) => ({ deviceId: device.id, portId });
  return [
    edit,
    { kind: 'set-device', device: { ...device, on: hostId } },
    b.link(from.ref, end('in-12')),
    b.link(end('out-12'), to.ref),
    b.set(device.id, 'listen-12', db),
  ];
}

/**
 * A voice that is plugged into a computer which another one captures, where that one has no voice of its own: it has to
 * leave with the picture.
 */
export function passVoicesOn(b: Builder): void {
  const streams = (id: string) => programsOn(b.rig, id).some((p) => endsThat(b.typeOf(p), 'stream').length > 0);
  const voices = (id: string) =>
    endsOf(b.rig, id, 'in').filter((e) => e.deviceId !== id && e.sound && carriesWhat(b.rig, e.deviceId) === 'voice');
  for (const hostId of hostsOf(b.rig)) {
    const [voice] = voices(hostId);
    if (!voice || streams(hostId)) continue;
    const after = downstream(b.rig, hostId);
    const taken = hostsOf(b.rig)
      .filter((other) => other !== hostId && streams(other) && voices(other).length === 0)
      .flatMap((other) => endsOf(b.rig, other, 'in'))
      .find((e) => e.picture && after.has(e.deviceId));
    const to =
      taken &&
      endsOf(b.rig, hostId, 'out').find(
        (e) => e.sound && e.picture && downstream(b.rig, e.deviceId).has(taken.deviceId),
      );
    if (to)
      b.make(
        `pass:${hostId}`,
        say.playsWhatTo({
          who: b.device(hostId).name,
          what: b.device(voice.deviceId).name,
          to: b.device(to.deviceId).name,
        }),
        () => playedThrough(b, { hostId, from: voice, to }, 0),
        { note: say.bySystemSoundForStream() },
      );
  }
}
