import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { gateOf, namedIn, type Player, playersOf, type TakeRead, whoseTake } from '#core/desk-tests/tap-test/index.ts';
import type { TapReading } from '#core/desk-tests/tunes/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { listenerIn } from '#core/model/rig/index.ts';
import { newId, uploadTake } from '#web/shared/store/index.ts';
import { rememberFile, sourceOf } from '#web/shared/take/index.ts';
import { type Job, readTapTake, tapStandIn } from '#web/shared/workers/index.ts';
import { tapTest as say } from '#words/index.ts';
import { type KeptTake, type KeptTap, keepTap, NO_TAP, readTap } from './kept.ts';

/** A job in progress, or one that failed. */
interface Working {
  readonly id: string;
  readonly name: string;
  readonly done: number;
  readonly failed: string | null;
}

export interface Tap {
  readonly kept: KeptTap;
  readonly players: readonly Player[];
  /** How many questions of the gate are open. */
  readonly open: number;
  readonly takes: readonly KeptTake[];
  readonly read: readonly TakeRead[];
  readonly working: readonly Working[];
  /** There was no room for it in the browser: it is lost on reload. */
  readonly full: boolean;
  change(part: Partial<KeptTap>): void;
  changePlayer(sourceId: string, part: Partial<Player>): void;
  changeTake(id: string, part: Partial<KeptTake>): void;
  removeTake(id: string): void;
  addFiles(files: readonly File[]): void;
  standIn(listenerIds: readonly string[]): void;
  dismiss(id: string): void;
  beginAnew(): void;
}

/** A rig's tap: kept in this browser, worked on one take after another. */
export function useTap(rigId: string, rig: Rig): Tap {
  const [kept, setKept] = useState<KeptTap>(() => readTap(rigId));
  const [full, setFull] = useState(false);
  const [working, setWorking] = useState<readonly Working[]>([]);
  const waiting = useRef<(() => Promise<void>)[]>([]);
  const busy = useRef(false);
  const job = useRef<Job<unknown> | null>(null);
  const players = useMemo(
    () => playersOf(rig, kept.players, kept.takes.length > 0),
    [rig, kept.players, kept.takes.length],
  );
  const now = useRef({ kept, rig, players });
  now.current = { kept, rig, players };

  const change = useCallback(
    (part: Partial<KeptTap>) => {
      const next = { ...now.current.kept, ...part };
      now.current.kept = next;
      setKept(next);
      setFull(!keepTap(rigId, next));
    },
    [rigId],
  );
  useEffect(
    () => () => {
      waiting.current = [];
      job.current?.stop();
    },
    [],
  );

  const show = useCallback(
    (id: string, part: Partial<Working>) => setWorking((all) => all.map((w) => (w.id === id ? { ...w, ...part } : w))),
    [],
  );
  const next = useCallback(async () => {
    if (busy.current) return;
    busy.current = true;
    for (let run = waiting.current.shift(); run; run = waiting.current.shift()) await run();
    busy.current = false;
  }, []);
  /** Lines work up: one take at a time, since each wants all of a processor. */
  const lineUp = <T>(
    name: string,
    start: (onDone: (done: number) => void) => Job<T>,
    then: (result: T, id: string) => string | null,
  ) => {
    const id = newId();
    setWorking((all) => [...all, { id, name, done: 0, failed: null }]);
    waiting.current.push(async () => {
      try {
        const mine = start((done) => show(id, { done }));
        job.current = mine;
        const failed = then(await mine.result, id);
        if (failed === null) setWorking((all) => all.filter((w) => w.id !== id));
        else show(id, { failed });
      } catch (error) {
        show(id, { failed: error instanceof Error ? error.message : String(error) });
      }
    });
    void next();
    return id;
  };
  const addTake = (take: Omit<KeptTake, 'at'>) => {
    const others = now.current.kept.takes.filter((t) => take.listenerId === null || t.listenerId !== take.listenerId);
    change({ players: plain(now.current.players), takes: [...others, { ...take, at: new Date().toISOString() }] });
  };
  const tunesOf = (reading: TapReading) => [...reading.tunes] as KeptTake['tunes'];

  const takes = useMemo(
    () => kept.takes.filter((t) => t.listenerId === null || rig.listeners.some((l) => l.id === t.listenerId)),
    [kept.takes, rig],
  );
  const read = useMemo(
    () =>
      takes.flatMap((t): TakeRead[] =>
        t.listenerId === null ? [] : [{ listenerId: t.listenerId, fileId: t.fileId, tunes: t.tunes }],
      ),
    [takes],
  );
  return {
    kept,
    players,
    open: useMemo(() => gateOf(rig).filter((q) => !kept.answers[q.id]).length, [rig, kept.answers]),
    takes,
    read,
    working,
    full,
    change,
    changePlayer: (sourceId, part) =>
      change({
        players: plain(players.map((p) => (p.sourceId === sourceId ? { ...p, ...part } : p))),
      }),
    changeTake: (id, part) =>
      change({
        takes: kept.takes
          // A listener has one take: the one that was said last.
          .filter((t) => t.id === id || part.listenerId == null || t.listenerId !== part.listenerId)
          .map((t) => (t.id === id ? { ...t, ...part } : t)),
      }),
    removeTake: (id) => change({ takes: kept.takes.filter((t) => t.id !== id) }),
    addFiles(files) {
      for (const file of files) {
        const takeId = newId();
        rememberFile(takeId, file);
        lineUp(
          file.name,
          (onDone) =>
            readTapTake(
              sourceOf(takeId),
              now.current.players.map((p) => p.tune),
              (p) => onDone(p.done),
            ),
          (tracks) => {
            // Kept on the server for Measure; the reading does not wait for it.
            void uploadTake(takeId, file, file.name).catch(() => undefined);
            const good = tracks.filter((t) => t.reading !== null);
            if (good.length === 0) return say.itsSilentOrShorter();
            for (const { channel, name, reading, pictures } of good) {
              const title = channel === null ? file.name : `${file.name}, ${name || say.track({ n1: channel + 1 })}`;
              const { rig: here, players: own } = now.current;
              const { takes: before } = now.current.kept;
              const named = namedIn(here, name) ?? (channel === null ? namedIn(here, file.name) : null);
              const listenerId = named ?? likeliest(here, reading!, own, before);
              addTake({
                id: `${takeId}-${channel ?? 'all'}`,
                name: title,
                listenerId,
                fileId: takeId,
                by: 'take',
                tunes: tunesOf(reading!),
                pictures: [...pictures],
              });
            }
            return null;
          },
        );
      }
    },
    standIn(listenerIds) {
      for (const listenerId of listenerIds) {
        const name = listenerIn(rig, listenerId).name;
        lineUp(
          name,
          (onDone) =>
            tapStandIn(now.current.rig, now.current.kept.desk, listenerId, now.current.players, (p) => onDone(p.done)),
          (reading, id) => {
            if (!reading) return say.nothingReachesThis();
            addTake({
              id,
              name: say.simulated({ name }),
              listenerId,
              fileId: id,
              by: 'stand-in',
              tunes: tunesOf(reading),
              pictures: [],
            });
            return null;
          },
        );
      }
    },
    dismiss: (id) => setWorking((all) => all.filter((w) => w.id !== id)),
    beginAnew: () => change({ ...NO_TAP, players: kept.players, answers: {} }),
  };
}

const plain = (players: readonly Player[]): KeptTap['players'] =>
  players.map((p) => ({ ...p, knownAt: [...p.knownAt] }));

const CLEARLY = 2;
/** By content, where one destination stands out and has no take yet; null where the user has to say. */
function likeliest(
  rig: Rig,
  reading: TapReading,
  players: readonly Player[],
  before: readonly KeptTake[],
): string | null {
  const [first, second] = whoseTake(rig, reading.tunes, players);
  if (!first || before.some((t) => t.listenerId === first.listenerId)) return null;
  return !second || second.apart - first.apart >= CLEARLY ? first.listenerId : null;
}
