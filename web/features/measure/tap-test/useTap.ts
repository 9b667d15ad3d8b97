import { useCallback, useMemo, useRef, useState } from 'react';
import { gateOf, namedIn, type Player, playersOf, type TakeRead, whoseTake } from '#core/desk-tests/tap-test/index.ts';
import { SHORTEST_S, type TapReading } from '#core/desk-tests/tunes/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { listenerIn } from '#core/model/rig/index.ts';
import { useWorkList, type WorkList } from '#web/shared/jobs/index.ts';
import { newId } from '#web/shared/store/index.ts';
import { rememberFile, sourceOf, useSendTake } from '#web/shared/take/index.ts';
import { type Job, readTapTake, type TrackTapped, tapStandIn } from '#web/shared/workers/index.ts';
import { tapTest as say } from '#words/index.ts';
import { type KeptTake, type KeptTap, keepTap, NO_TAP, readTap } from './kept.ts';

export interface Tap {
  readonly kept: KeptTap;
  readonly players: readonly Player[];
  /** How many questions of the gate are open. */
  readonly open: number;
  readonly takes: readonly KeptTake[];
  readonly read: readonly TakeRead[];
  readonly work: Pick<WorkList, 'tasks' | 'again' | 'drop'>;
  /** There was no room for it in the browser: it is lost on reload. */
  readonly full: boolean;
  change(part: Partial<KeptTap>): void;
  changePlayer(sourceId: string, part: Partial<Player>): void;
  changeTake(id: string, part: Partial<KeptTake>): void;
  removeTake(id: string): void;
  addFiles(files: readonly File[]): void;
  standIn(listenerIds: readonly string[]): void;
  beginAnew(): void;
}

/** A rig's tap: kept in this browser, worked on one take after another. */
export function useTap(rigId: string, rig: Rig): Tap {
  const [kept, setKept] = useState<KeptTap>(() => readTap(rigId));
  const [full, setFull] = useState(false);
  const work = useWorkList();
  const send = useSendTake();
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
  const addTake = (take: Omit<KeptTake, 'at'>) => {
    const others = now.current.kept.takes.filter((t) => take.listenerId === null || t.listenerId !== take.listenerId);
    change({ players: plain(now.current.players), takes: [...others, { ...take, at: new Date().toISOString() }] });
  };
  const tunesOf = (reading: TapReading) => [...reading.tunes] as KeptTake['tunes'];

  const readFile = async (file: File) => {
    const takeId = newId();
    rememberFile(takeId, file);
    const tracks = await work.run({
      id: takeId,
      name: file.name,
      lane: 'batch',
      start: (heard) => {
        const tunes = now.current.players.map((p) => p.tune);
        return heldTo(readTapTake(sourceOf(takeId), tunes, heard), sayUnreadable);
      },
    });
    if (!tracks) return;
    // Kept on the server for Measure; the reading does not wait for it.
    void send(takeId, file);
    for (const { channel, name, reading, pictures } of tracks) {
      if (!reading) continue;
      const title = channel === null ? file.name : `${file.name}, ${name || say.track({ n1: channel + 1 })}`;
      const { rig: here, players: own } = now.current;
      const { takes: before } = now.current.kept;
      const named = namedIn(here, name) ?? (channel === null ? namedIn(here, file.name) : null);
      addTake({
        id: `${takeId}-${channel ?? 'all'}`,
        name: title,
        listenerId: named ?? likeliest(here, reading, own, before),
        fileId: takeId,
        by: 'take',
        tunes: tunesOf(reading),
        pictures: [...pictures],
      });
    }
  };
  const simulate = async (listenerId: string) => {
    const { name } = listenerIn(rig, listenerId);
    const id = newId();
    const reading = await work.run({
      id,
      name,
      lane: 'batch',
      start: (heard) => {
        const { rig: here, players: own, kept: all } = now.current;
        return heldTo(tapStandIn(here, all.desk, listenerId, own, heard), (r) => (r ? null : say.nothingReachesThis()));
      },
    });
    if (!reading) return;
    addTake({
      id,
      name: say.simulated({ name }),
      listenerId,
      fileId: id,
      by: 'stand-in',
      tunes: tunesOf(reading),
      pictures: [],
    });
  };

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
    work,
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
      for (const file of files) void readFile(file);
    },
    standIn(listenerIds) {
      for (const listenerId of listenerIds) void simulate(listenerId);
    },
    beginAnew: () => change({ ...NO_TAP, players: kept.players, answers: {} }),
  };
}

/** Why a take holds nothing to read; null where one of its tracks does. */
function sayUnreadable(tracks: readonly TrackTapped[]): string | null {
  if (tracks.some((t) => t.reading)) return null;
  const seconds = Math.max(0, ...tracks.map((t) => t.durationS));
  return seconds < SHORTEST_S ? say.itIsTooShort({ seconds, least: SHORTEST_S }) : say.itIsSilent();
}

/** A job whose result is none where it says so. */
const heldTo = <T>({ result, stop }: Job<T>, fault: (found: T) => string | null): Job<T> => ({
  stop,
  result: result.then((found) => {
    const says = fault(found);
    if (says !== null) throw new Error(says);
    return found;
  }),
});

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
