import {
  type DeviceType,
  isProgram,
  isWorn,
  type PlanCell,
  type Rig,
  showsPicture,
  soundsIntoRoom,
} from '#core/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { bestBetween } from '#core/wire/index.ts';
import { downstream, endsOf, hostsOf, upstream } from './around.ts';
import { type Builder, listed } from './builder.ts';
import { hearInRoom, wearerOf } from './people.ts';
import { type Answers, type Decision, decide } from './questions.ts';
import { playThrough, type Through } from './system-sound.ts';

/** How a game that comes from outside the computer is heard by whoever plays it. */
export interface GameHeard {
  readonly decisions: readonly Decision[];
  /** Pairs that sound in the room anyway: no lead has to bring them. */
  readonly inRoom: readonly Pick<PlanCell, 'sourceId' | 'listenerId'>[];
}

/**
 * Whoever wears something here and hears nothing of a console in it: at the screen, in the room; by the screen's or the
 * extractor's jack into a mixer; or by the computer, late. Each is a way of its own, and asked once a console.
 */
export function hearGames(b: Builder, answers: Answers): GameHeard {
  const decisions: Decision[] = [];
  const inRoom: Pick<PlanCell, 'sourceId' | 'listenerId'>[] = [];
  for (const group of gamesByWay(b)) {
    const [first] = group;
    const { deviceId } = first!.source.sound;
    const ears = first!.listenerIds;
    const { screen, jack, computer } = first!.ways;
    const names = listed(group.map((g) => g.source.name));
    // Ears that something else reaches may do without; where nothing does, they are there for the game.
    const isIdle = !evaluate(b.rig).pairs.some((p) => ears.includes(p.listenerId) && p.ways.length > 0);
    const room = screen ? [{ id: 'room', label: `From ${b.device(screen).name}, in the room` }] : [];
    const options = [
      ...(isIdle ? [] : room),
      ...(jack ? [{ id: 'jack', label: `By ${b.device(jack.from).name} into ${b.device(jack.to).name}` }] : []),
      ...(computer ? [{ id: 'computer', label: `By ${b.device(computer.hostId).name}, about 60 ms late` }] : []),
      ...(isIdle ? room : []),
      { id: 'not', label: 'Not at all' },
    ];
    const asked = decide(answers, { id: `hear:${deviceId}`, asks: `How do you hear ${names}?`, options });
    decisions.push(asked);
    if (asked.taken === 'room' && screen)
      for (const id of ears) {
        const wearer = wearerOf(b, b.rig.listeners.find((l) => l.id === id)!.sound.deviceId);
        if (wearer) hearInRoom(b, wearer, [screen]);
      }
    if (asked.taken === 'room' || asked.taken === 'not')
      for (const { source } of group) for (const listenerId of ears) inRoom.push({ sourceId: source.id, listenerId });
    else if (asked.taken === 'jack' && jack) {
      const offer = bestBetween(b.rig, jack.from, jack.to, { suits: isPlugged });
      if (offer)
        b.make(
          `hear:${deviceId}`,
          {
            who: b.device(jack.from).name,
            does: 'plugs into',
            what: b.device(jack.to).name,
            note: 'so that you hear the game',
          },
          () => b.plugs(offer),
        );
    } else if (computer)
      playThrough(b, `hear:${deviceId}`, names, computer, { db: LISTEN_DB, note: 'by its system sound' });
  }
  return { decisions, inRoom };
}

interface Ways {
  readonly screen: string | undefined;
  readonly jack: { readonly from: string; readonly to: string } | null;
  readonly computer: Through | null;
}
interface Game {
  readonly source: Rig['sources'][number];
  readonly listenerIds: readonly string[];
  readonly ways: Ways;
}

/** Games from outside the computer that somebody's ears miss, those together that come the same ways. */
function gamesByWay(b: Builder): Game[][] {
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
    const ways: Ways = {
      screen: after.find((id) => showsPicture(b.typeOf(id)) && soundsIntoRoom(b.typeOf(id))),
      jack: jackInto(b, after, listenerIds),
      computer: throughComputer(b, deviceId, listenerIds),
    };
    const key = JSON.stringify([listenerIds, ways]);
    groups.set(key, [...(groups.get(key) ?? []), { source, listenerIds, ways }]);
  }
  return [...groups.values()];
}

const isPlugged = ({ cables }: { cables: readonly { medium: string }[] }): boolean => cables[0]!.medium === 'lead';

/** Whether a listener is somebody's ears here: what is worn, and no call between. */
function isNearEar(b: Builder, listenerId: string): boolean {
  const listener = b.rig.listeners.find((l) => l.id === listenerId)!;
  const { deviceId } = listener.sound;
  const isFar = b.rig.cables.some(
    (c) => c.to.deviceId === deviceId && farEnd(b.typeOf(c.from.deviceId), c.from.portId),
  );
  return isWorn(b.typeOf(deviceId)) && !isFar;
}
const farEnd = (type: DeviceType, portId: string): boolean =>
  type.ports.some((p) => p.id === portId && p.does === 'far-side');

/** A box on the way of the picture with a sound output, and a mixer that the ears hang on. */
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
/** Under voices that are played at full level. */
const LISTEN_DB = -12;

/** The computer that takes the console in, and to which somebody's ears are plugged. */
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
