import type { Text } from '#core/base/said/index.ts';
import { listenerIn } from '#core/model/rig/index.ts';
import { bestBetween } from '#core/routing/wiring/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { Builder, listed } from './builder.ts';
import { openBetween } from './doors.ts';
import { type Game, gamesByWay, isPlugged } from './hear-ways.ts';
import { hearInRoom, wearerOf } from './people.ts';
import { planFor } from './plan.ts';
import { type Answers, type Decision, decide } from './questions.ts';
import { say } from './sayings.ts';
import { delayPrograms } from './settle.ts';
import { playedThrough } from './system-sound.ts';

/** One way for a person to hear a game. */
interface HearWay {
  readonly id: 'room' | 'jack' | 'monitor' | 'computer';
  readonly label: Text;
  readonly make: (on: Builder) => void;
}

/**
 * A person who wears something and hears nothing of a console in it: from the display, in the room; through the display's or the
 * extractor's jack into a mixer; through monitoring in an app; or through computer audio. Each is a way of its own
 * with the delay it causes, and asked once per console.
 */
export function hearGames(b: Builder, answers: Answers): Decision[] {
  const decisions: Decision[] = [];
  for (const group of gamesByWay(b)) {
    const [first] = group;
    const { deviceId } = first!.source.sound;
    const ears = first!.listenerIds;
    const names = listed(group.map((g) => g.source.name));
    // Ears that something else reaches may do without; where nothing does, they are there for the game.
    const isIdle = !evaluate(b.rig).pairs.some((p) => ears.includes(p.listenerId) && p.ways.length > 0);
    const ways = waysToHear(b, `hear:${deviceId}`, names, first!).map((w) => ({
      ...w,
      delayMs: delayBy(b, w, first!.source.id, ears, answers),
    }));
    const room = ways.filter((w) => w.id === 'room');
    const plugged = ways.filter((w) => w.id !== 'room').sort((x, y) => x.delayMs - y.delayMs);
    const options = [
      ...(isIdle ? [...plugged, ...room] : [...room, ...plugged]).map((w) => ({
        id: w.id,
        label: withDelay(w.label, w.delayMs),
      })),
      { id: 'not', label: say.notAtAll() },
    ];
    const asked = decide(answers, { id: `hear:${deviceId}`, asks: say.howDoYouHear({ names }), options });
    decisions.push(asked);
    ways.find((w) => w.id === asked.taken)?.make(b);
    if (asked.taken === 'room' || asked.taken === 'not')
      for (const { source } of group) for (const listenerId of ears) b.spared.push({ sourceId: source.id, listenerId });
  }
  return decisions;
}

/** Under voices that are played at full level. */
const LISTEN_DB = -12;

function waysToHear(b: Builder, id: string, what: Text, { listenerIds, ways }: Game): HearWay[] {
  const { screen, jack, computer, monitor } = ways;
  const nameOf = (deviceId: string) => b.device(deviceId).name;
  return [
    ...(screen
      ? [
          {
            id: 'room' as const,
            label: say.fromInRoom({ device: nameOf(screen) }),
            make: (on: Builder) => {
              for (const l of listenerIds) {
                const wearer = wearerOf(on, listenerIn(on.rig, l).sound.deviceId);
                if (wearer) hearInRoom(on, wearer, [screen]);
              }
            },
          },
        ]
      : []),
    ...(jack
      ? [
          {
            id: 'jack' as const,
            label: say.byInto({ from: nameOf(jack.from), to: nameOf(jack.to) }),
            make: (on: Builder) => {
              const offer = bestBetween(on.rig, jack.from, jack.to, { suits: isPlugged });
              const says = say.pluggedInto({ device: nameOf(jack.from), into: nameOf(jack.to) });
              if (offer) on.make(id, says, () => on.plugs(offer), { note: say.soYouHearGame() });
            },
          },
        ]
      : []),
    ...(monitor
      ? [
          {
            id: 'monitor' as const,
            label: say.byMonitoring({ app: nameOf(monitor.programId) }),
            make: (on: Builder) => {
              const says = say.playsWhatTo({
                who: nameOf(monitor.programId),
                what,
                to: nameOf(monitor.to.deviceId),
              });
              const edits = () => [
                ...openBetween(on, monitor.programId, monitor.inputId, monitor.outputId),
                on.link({ deviceId: monitor.programId, portId: monitor.outputId }, monitor.to.ref),
              ];
              on.make(id, says, edits, { note: say.monitoring() });
            },
          },
        ]
      : []),
    ...(computer
      ? [
          {
            id: 'computer' as const,
            label: say.bySystemSoundOf({ host: nameOf(computer.hostId) }),
            make: (on: Builder) => {
              const says = say.playsWhatTo({
                who: nameOf(computer.hostId),
                what,
                to: nameOf(computer.to.deviceId),
              });
              on.make(id, says, () => playedThrough(on, computer, LISTEN_DB), { note: say.bySystemSound() });
            },
          },
        ]
      : []),
  ];
}

/**
 * How long after the console plays it the game would be heard by a way, with the delays that the desk will be set to, ms;
 * infinitely long where nothing would come.
 */
function delayBy(b: Builder, way: HearWay, sourceId: string, ears: readonly string[], answers: Answers): number {
  const trial = new Builder(b.rig, b.you, new Set(), answers);
  way.make(trial);
  for (const cell of planFor(trial, answers))
    trial.take({ kind: 'set-plan', sourceId: cell.sourceId, listenerId: cell.listenerId, cell });
  delayPrograms(trial);
  const people = new Set(ears.map((l) => wearerOf(b, listenerIn(b.rig, l).sound.deviceId)));
  const heard = evaluate(trial.rig).pairs.find(
    (p) =>
      p.sourceId === sourceId &&
      p.ways.length > 0 &&
      (ears.includes(p.listenerId) || people.has(listenerIn(trial.rig, p.listenerId).sound.deviceId)),
  );
  const [loudest] = heard?.ways ?? [];
  return loudest ? loudest.delay.value.nominal : Number.POSITIVE_INFINITY;
}

/** Shorter delays are not noticed by a player, ms; longer ones are rounded to the precision of the figures. */
const FELT_MS = 15;
const STEP_MS = 10;
const withDelay = (label: Text, ms: number): Text =>
  ms < FELT_MS || !Number.isFinite(ms) ? label : say.aboutDelay({ label, ms: STEP_MS * Math.round(ms / STEP_MS) });
