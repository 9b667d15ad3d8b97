import { seededNormal, seededRandom } from '#core/audio/samples/index.ts';
import { textOf } from '#core/base/said/index.ts';
import { hiddenTruth, trueDelayMs } from '#core/desk-tests/stand-ins/index.ts';
import type { TuneReading } from '#core/desk-tests/tunes/index.ts';
import type { Fault } from '#core/live/troubleshoot/index.ts';
import { applyEdit, type Rig } from '#core/model/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { cellKey, expectedOf } from './expected.ts';
import { judge, type TakeRead } from './judge.ts';
import { type Players, playersOf } from './players.ts';

export const rigWith = (rig: Rig, fault: Fault): Rig => {
  if (!fault.edit) return rig;
  const done = applyEdit(rig, fault.edit);
  if (!done.ok) throw new Error(textOf(done.refusal.reason));
  return done.rig;
};

/** The very fault, or one that the same look shows the same way. */
export const isSameFault = (a: Fault, b: Fault): boolean =>
  a.id === b.id || (a.shows === b.shows && a.looks.some((l) => b.looks.some((m) => m.id === l.id)));

/** What a reader would say of takes at a desk that is really like this: no sound is made. */
export function readingsAt(
  desk: Rig,
  dead: readonly string[],
  listenerIds: readonly string[],
  players: Players,
  seed: number,
): TakeRead[] {
  const random = seededRandom(seed);
  const normal = seededNormal(seed + 1);
  const truth = hiddenTruth(desk, seed + 2);
  const expected = expectedOf(desk, evaluate(desk), listenerIds, new Set(dead));
  const starts = new Map(players.map((p) => [p.playerId, 2000 * random()]));
  const clocks = new Map(players.map((p) => [p.playerId, 80 * (random() - 0.5)]));
  return listenerIds.map((listenerId) => {
    const begun = 1000 * random();
    const gain = 20 * random();
    const cells = players.map((p) => ({ p, ways: expected.get(cellKey(p.sourceId, listenerId))!.ways }));
    const loudest = Math.max(...cells.flatMap(({ ways }) => ways.map((w) => w.levelDb)));
    const strongest = cells.find(({ ways }) => ways[0]?.levelDb === loudest);
    const tunes = cells.map(({ p, ways }): TuneReading => {
      const [first] = ways;
      if (!first || loudest - first.levelDb > 32 || first.heldBack)
        return { id: p.tune, word: 'not-found', overChance: 1, confidence: null, heard: null };
      const delay = (w: typeof first) => trueDelayMs(w.terms, truth);
      return {
        id: p.tune,
        word: 'found',
        overChance: 40,
        confidence: 0.999,
        heard: {
          atMs: starts.get(p.playerId)! + delay(first) - begun + 0.02 * normal(),
          ppm: (first.clock ? truth.clocksPpm[first.clock]! : 0) - clocks.get(p.playerId)! + normal(),
          gainDb: first.levelDb + gain + 0.5 * normal(),
          polarity: (first.polarity * strongest!.ways[0]!.polarity) as 1 | -1,
          seconds: {
            noneAboveDb: -20,
            ways: ways
              .slice(1, 4)
              .filter((w) => first.levelDb - w.levelDb < 18 && Math.abs(delay(w) - delay(first)) > 1.5)
              .map((w) => ({
                afterMs: delay(w) - delay(first),
                underDb: first.levelDb - w.levelDb,
                perhapsReflection: Math.abs(delay(w) - delay(first)) < 20,
              })),
          },
          jump: null,
          wander: null,
          bands: [80, 160, 320, 640, 1250, 2500, 5000, 10_000].map((lowHz) => ({
            lowHz,
            highHz: Math.min(14_000, 2 * lowHz),
            ...(lowHz > first.highHz || 2 * lowHz < first.lowHz
              ? { db: null, atMostDb: -60 }
              : { db: 0, atMostDb: null }),
          })),
          blocks: [],
          response: [],
        },
      };
    });
    return { listenerId, fileId: listenerId, tunes };
  });
}

/** Takes as they are judged, all figures typical. */
export const judged = (rig: Rig, takes: readonly TakeRead[], players: Players = playersOf(rig)) =>
  judge(
    rig,
    expectedOf(
      rig,
      evaluate(rig),
      takes.map((t) => t.listenerId),
    ),
    takes,
    players,
  );
