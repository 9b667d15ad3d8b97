import { useCallback, useEffect, useRef, useState } from 'react';
import type { TakeNotes, TakeRecord } from '#api/index.ts';
import { api, isOffline, newerNotes, readNotesDraft, sayProblem, writeNotesDraft } from '#web/shared/store/index.ts';

/** What a person made of a take: kept in this browser at once, and by the server a moment later. */
export interface KeptNotes {
  readonly notes: TakeNotes | null;
  /** Why the server has not got them yet; null when all is well. */
  readonly saying: string | null;
  /** Another window marked this take first: both are kept until someone chooses. */
  readonly conflict: { takeTheirs(): void; keepMine(): void } | null;
  /** A person's change. */
  change(notes: TakeNotes): void;
  /** What a fresh look found: shown, and kept only once someone changes it. */
  found(merge: (kept: TakeNotes | null) => TakeNotes): void;
}

const QUIET_MS = 400;
const RETRY_MS = 2000;

export function useTakeNotes(id: string, record: TakeRecord | undefined): KeptNotes {
  const [draft] = useState(() => readNotesDraft(id));
  const [notes, setNotes] = useState<TakeNotes | null>(draft?.notes ?? record?.notes ?? null);
  const [dirty, setDirty] = useState(draft !== null);
  const [saying, setSaying] = useState<string | null>(null);
  const [theirs, setTheirs] = useState<{ revision: number; notes: TakeNotes | null } | null>(null);
  const [waitMs, setWaitMs] = useState<number | null>(QUIET_MS);
  const [turn, setTurn] = useState(0);
  const revision = useRef(draft?.revision ?? record?.revision ?? 0);
  const flying = useRef(false);
  const latest = useRef(notes);
  latest.current = notes;
  const [saveNotes] = api.useNoteTakeMutation();

  // A take that has only just been sent: its row comes later than its marks.
  useEffect(() => {
    if (record && revision.current === 0) revision.current = record.revision;
  }, [record]);

  const change = useCallback(
    (next: TakeNotes) => {
      setNotes(next);
      setDirty(true);
      setWaitMs(QUIET_MS);
      writeNotesDraft(id, { revision: revision.current, notes: next });
    },
    [id],
  );

  const isKept = record !== undefined;
  // biome-ignore lint/correctness/useExhaustiveDependencies: notes and turn say when to try again
  useEffect(() => {
    if (!dirty || !isKept || theirs || waitMs === null) return;
    const send = async () => {
      const sent = latest.current;
      if (flying.current || !sent) return;
      flying.current = true;
      const answer = await saveNotes({ id, revision: revision.current, notes: sent });
      flying.current = false;
      setTurn((n) => n + 1);
      const newer = answer.error && newerNotes(answer.error);
      const lostAnswer = newer && JSON.stringify(newer.notes) === JSON.stringify(sent);
      if (answer.data || lostAnswer) {
        revision.current = answer.data?.revision ?? newer!.revision;
        setSaying(null);
        const current = latest.current === sent;
        writeNotesDraft(id, current ? null : { revision: revision.current, notes: latest.current! });
        if (current) setDirty(false);
      } else if (newer) {
        setTheirs(newer);
      } else {
        setSaying(sayProblem(answer.error));
        // A refusal is not repeated until something changes; a lost server is.
        setWaitMs(isOffline(answer.error) ? RETRY_MS : null);
      }
    };
    const timer = setTimeout(() => void send(), waitMs);
    return () => clearTimeout(timer);
  }, [id, notes, dirty, isKept, theirs, waitMs, turn, saveNotes]);

  const found = useCallback((merge: (kept: TakeNotes | null) => TakeNotes) => setNotes(merge), []);
  const decide = (kept: TakeNotes | null) => {
    revision.current = theirs!.revision;
    setTheirs(null);
    if (kept) change(kept);
    else {
      setNotes(theirs!.notes);
      setDirty(false);
      writeNotesDraft(id, null);
    }
  };
  return {
    notes,
    saying,
    conflict: theirs && { takeTheirs: () => decide(null), keepMine: () => decide(notes) },
    change,
    found,
  };
}
