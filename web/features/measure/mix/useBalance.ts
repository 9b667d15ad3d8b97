import { useEffect, useMemo, useState } from 'react';
import {
  type Aim,
  type Balanced,
  judged,
  type MixPlan,
  type TrackMeasured,
  type TrackReading,
} from '#core/audio/mix/index.ts';
import type { SoundAtHand } from '#web/shared/take/index.ts';
import { mix as say } from '#words/index.ts';
import type { MixSetup } from './setup.ts';

export interface Balancing {
  readonly measured: readonly TrackMeasured[] | null;
  /** As recorded, all faders alike. */
  readonly before: readonly TrackReading[] | null;
  /** As it is found, or as the faders were set by hand. */
  readonly after: readonly TrackReading[] | null;
  readonly balanced: Balanced | null;
}

export const asRecorded = (tracks: number): MixPlan => ({ gainsDb: Array(tracks).fill(0), rides: [], limit: null });

const aimOf = ({ tracks, targetLufs, ceilingDbtp, ride, duckDb }: MixSetup): Aim => ({
  parts: tracks.map((t) => t.part),
  underLu: tracks.map((t) => t.underLu),
  targetLufs,
  ceilingDbtp,
  ride,
  duckDb,
});

/** Measures the tracks once, and finds the balance again after each change of what is wanted; both in the worker. */
export function useBalance({ desk, facts, run }: SoundAtHand, setup: MixSetup | null): Balancing {
  const [measured, setMeasured] = useState<readonly TrackMeasured[] | null>(null);
  const [balanced, setBalanced] = useState<Balanced | null>(null);
  const specs = JSON.stringify(setup?.tracks.map(({ take, channels }) => ({ take, channels })) ?? null);
  const parts = useMemo(() => setup?.tracks.map((t) => t.part) ?? [], [setup]);
  useEffect(() => {
    if (!desk || !facts || specs === 'null') return;
    let gone = false;
    setMeasured(null);
    setBalanced(null);
    void run(say.measuringTracks(), ({ api }, heard) => api.measure(JSON.parse(specs), heard)).then((found) => {
      if (!gone && found) setMeasured(found);
    });
    return () => {
      gone = true;
    };
  }, [desk, facts, run, specs]);
  useEffect(() => {
    if (!setup || !measured || measured.length !== setup.tracks.length) return;
    let gone = false;
    void run(say.mixingAndMeasuring(), ({ api }, heard) =>
      api.balance(
        setup.tracks,
        measured,
        aimOf(setup),
        setup.tracks.map((t) => t.ownDb),
        heard,
      ),
    ).then((found) => {
      if (!gone && found) setBalanced(found);
    });
    return () => {
      gone = true;
    };
  }, [setup, measured, run]);
  const before = useMemo(
    () => (measured && parts.length === measured.length ? judged(measured, parts, asRecorded(parts.length)) : null),
    [measured, parts],
  );
  const after = useMemo(
    () =>
      measured && balanced && balanced.plan.gainsDb.length === parts.length
        ? judged(measured, parts, balanced.plan)
        : null,
    [measured, balanced, parts],
  );
  return { measured, before, after, balanced };
}
