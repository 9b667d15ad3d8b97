import { seededRandom } from '#core/audio/samples/index.ts';
import {
  applyEdit,
  catalogue,
  type Edit,
  emptyRig,
  findPort,
  findTypes,
  type Rig,
  type SettingValue,
} from '#core/model/rig/index.ts';
import { addDevice, offersFor, socketsOf } from './index.ts';

const pick = <T>(random: () => number, list: readonly T[]): T => list[Math.floor(random() * list.length)]!;

/**
 * A desk that no one has thought of: so many devices from the whole library, plugged by chance wherever something fits,
 * every setting where chance has left it. The same for the same seed.
 */
export function randomDesk(seed: number, boxes: number): Rig {
  const random = seededRandom(seed);
  let rig = emptyRig(`Desk ${seed}`);
  const take = (edit: Edit): boolean => {
    const done = applyEdit(rig, edit);
    if (done.ok) rig = done.rig;
    return done.ok;
  };
  // Every fourth box is one that something begins in, every eighth one that someone listens at.
  const starts = catalogue.filter((t) => t.ports.some((p) => ['voice', 'game', 'music'].includes(p.does ?? '')));
  const ends = catalogue.filter((t) => t.ports.some((p) => p.connector === 'file' || p.does === 'ears'));
  for (let n = 0; n < boxes; n++)
    take(addDevice(rig, pick(random, n % 4 === 0 ? starts : n % 8 === 1 ? ends : catalogue)).edit);
  for (let tries = 0; tries < 2 * boxes; tries++) {
    const device = pick(random, rig.devices);
    const sockets = socketsOf(rig, device.id);
    if (sockets.length === 0) continue;
    const socket = pick(random, sockets);
    const offers = offersFor(rig, socket)
      .filter((o) => o.socket.cableIds.length === 0)
      .slice(0, 4);
    if (offers.length === 0) continue;
    const { cables } = pick(random, offers);
    take({
      kind: 'batch',
      edits: cables.map((cable): Edit => ({ kind: 'plug', cable: { ...cable, known: 'confirmed' } })),
    });
  }
  const types = findTypes(rig);
  for (const device of rig.devices)
    for (const spec of types.get(device.typeId)!.settings) {
      if (random() < 0.7) continue;
      const value: SettingValue =
        spec.kind === 'mute'
          ? random() < 0.3
          : spec.kind === 'switch'
            ? pick(random, spec.options).value
            : spec.min + Math.floor((random() * (spec.max - spec.min)) / spec.step) * spec.step;
      take({ kind: 'set-setting', deviceId: device.id, settingId: spec.id, setting: { value, known: 'confirmed' } });
    }
  // Someone listens at any end that a cable comes to, too.
  for (let n = 0; n < 3 && rig.cables.length > 0; n++) {
    const { to } = pick(random, rig.cables);
    const port = findPort(rig, types, to)!;
    if (port.channels.some((c) => c.carries === 'sound'))
      take({ kind: 'add-listener', listener: { id: `listener-${n}`, name: `Listener ${n}`, sound: to } });
  }
  for (const source of rig.sources)
    for (const listener of rig.listeners)
      if (random() < 0.5)
        take({
          kind: 'set-plan',
          sourceId: source.id,
          listenerId: listener.id,
          cell: {
            sourceId: source.id,
            listenerId: listener.id,
            want: pick(random, ['must', 'must', 'must-not', 'may'] as const),
          },
        });
  return rig;
}
