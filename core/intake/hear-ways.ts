import {
  type DeviceType,
  endsThat,
  isProgram,
  isWorn,
  listenerIn,
  type Rig,
  sameEnd,
  showsPicture,
  soundsIntoRoom,
} from '#core/model/rig/index.ts';
import { bestBetween } from '#core/routing/wiring/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { downstream, type End, endsOf, hostsOf, programsOn, upstream } from './around.ts';
import type { Builder } from './builder.ts';
import type { Through } from './system-sound.ts';

/** The ways there are; null or undefined for those that there are not. */
interface Ways {
  readonly screen: string | undefined;
  readonly jack: { readonly from: string; readonly to: string } | null;
  readonly computer: Through | null;
  readonly monitor: Monitoring | null;
}
/** A game, the ears that miss it, and the ways there. */
export interface Game {
  readonly source: Rig['sources'][number];
  readonly listenerIds: readonly string[];
  readonly ways: Ways;
}

/** An app that has the game on an input and can monitor it. */
interface Monitoring {
  readonly programId: string;
  readonly inputId: string;
  readonly outputId: string;
  readonly to: End;
}

/** Games from outside the computer that someone's ears miss, those together that come the same ways. */
export function gamesByWay(b: Builder): Game[][] {
  const groups = new Map<string, Game[]>();
  const { pairs } = evaluate(b.rig);
  for (const source of b.rig.sources) {
    const { deviceId, portId } = source.sound;
    const type = b.typeOf(deviceId);
    if (isProgram(type) || type.ports.find((p) => p.id === portId)?.does !== 'game') continue;
    const listenerIds = pairs
      .filter((p) => p.sourceId === source.id && p.ways.length === 0 && isNearEar(b, p.listenerId))
      .map((p) => p.listenerId);
    if (listenerIds.length === 0) continue;
    const after = [...downstream(b.rig, deviceId)];
    const computer = throughComputer(b, deviceId, listenerIds);
    const ways: Ways = {
      screen: after.find((id) => showsPicture(b.typeOf(id)) && soundsIntoRoom(b.typeOf(id))),
      jack: jackInto(b, after, listenerIds),
      computer,
      monitor: computer && monitoredBy(b, computer),
    };
    const key = JSON.stringify([listenerIds, ways]);
    groups.set(key, [...(groups.get(key) ?? []), { source, listenerIds, ways }]);
  }
  return [...groups.values()];
}

export const isPlugged = ({ cables }: { cables: readonly { medium: string }[] }): boolean =>
  cables[0]!.medium === 'lead';

/** Whether a listener is someone's ears here: what is worn, and no call between. */
function isNearEar(b: Builder, listenerId: string): boolean {
  const listener = listenerIn(b.rig, listenerId);
  const { deviceId } = listener.sound;
  const isFar = b.rig.cables.some(
    (c) => c.to.deviceId === deviceId && farEnd(b.typeOf(c.from.deviceId), c.from.portId),
  );
  return isWorn(b.typeOf(deviceId)) && !isFar;
}
const farEnd = (type: DeviceType, portId: string): boolean =>
  type.ports.some((p) => p.id === portId && p.does === 'far-side');

/** A device on the way of the picture with a sound output, and a mixer that the ears hang on. */
function jackInto(
  b: Builder,
  after: readonly string[],
  listenerIds: readonly string[],
): { from: string; to: string } | null {
  const ears = b.rig.listeners.filter((l) => listenerIds.includes(l.id)).map((l) => l.sound.deviceId);
  const mixers = [...new Set(ears.flatMap((id) => [...upstream(b.rig, id)]))].filter(
    (id) => !ears.includes(id) && !b.typeOf(id).hosts,
  );
  for (const to of mixers)
    for (const from of after) {
      if (from === to || mixers.includes(from) || b.typeOf(from).hosts) continue;
      const offer = bestBetween(b.rig, from, to, { suits: isPlugged });
      if (offer && offer.cost < GOOD) return { from, to };
    }
  return null;
}
const GOOD = 25;

/** The computer that takes the console in, and to which someone's ears are plugged. */
function throughComputer(b: Builder, consoleId: string, listenerIds: readonly string[]): Through | null {
  const ears = new Set(b.rig.listeners.filter((l) => listenerIds.includes(l.id)).map((l) => l.sound.deviceId));
  for (const hostId of hostsOf(b.rig)) {
    const from = endsOf(b.rig, hostId, 'in').find((e) => e.sound && upstream(b.rig, e.deviceId).has(consoleId));
    const to = endsOf(b.rig, hostId, 'out').find(
      (e) => e.sound && [...downstream(b.rig, e.deviceId)].some((id) => ears.has(id)),
    );
    if (from && to) return { hostId, from, to };
  }
  return null;
}

/** A program on that computer which takes the console in with its sound, and whose monitoring goes nowhere else yet. */
function monitoredBy(b: Builder, { hostId, from, to }: Through): Monitoring | null {
  for (const programId of programsOn(b.rig, hostId)) {
    const [output] = endsThat(b.typeOf(programId), 'monitor');
    const input = b.rig.cables.find((c) => sameEnd(c.from, from.ref) && c.to.deviceId === programId);
    if (!output || !input) continue;
    const ref = { deviceId: programId, portId: output.id };
    if (b.rig.cables.some((c) => sameEnd(c.from, ref) && !sameEnd(c.to, to.ref))) continue;
    return { programId, inputId: input.to.portId, outputId: output.id, to };
  }
  return null;
}
