import { Button } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { NEARER_LU } from '#core/mix/index.ts';
import { DistanceChart, type DistanceTrack, useWidth } from '#web/charts/index.ts';
import { SwitchBar } from '#web/listen/index.ts';
import { Choice, formatNumber, NumberInput, Term, useKey } from '#web/parts/index.ts';
import { type SoundAtHand, TARGETS } from '#web/take/index.ts';
import { joinedWithNext, type MixSetup, withTrack } from './setup.ts';
import { TrackTable } from './TrackTable.tsx';
import type { Balancing } from './useBalance.ts';
import { useStretch } from './useStretch.ts';
import { Whole } from './Whole.tsx';

interface LaidProps {
  readonly sound: SoundAtHand;
  readonly setup: MixSetup;
  readonly change: (setup: MixSetup) => void;
  readonly forget: () => void;
  readonly balancing: Balancing;
  readonly seconds: number;
  readonly hues: readonly string[];
  readonly letters: readonly string[];
}

const HEARD_S = 12;

/** Tracks in balance: the chart of distances, what is heard, what is aimed at, and the table of tracks. */
export function Laid({ sound, setup, change, forget, balancing, seconds, hues, letters }: LaidProps) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const [atS, setAtS] = useState<number | null>(null);
  const { before, after, balanced } = balancing;
  const stretch = useMemo(() => {
    const rides = balanced?.plan.rides;
    const middle = atS ?? (rides?.[0] ? (rides[0].fromS + rides[0].toS) / 2 : seconds / 2);
    const fromS = Math.max(0, Math.min(seconds - HEARD_S, middle - HEARD_S / 2));
    return { fromS, toS: Math.min(seconds, fromS + HEARD_S) };
  }, [atS, balanced, seconds]);
  const sounds = useStretch(sound, setup, balancing, stretch);
  const byHand = setup.tracks.some((t) => t.ownDb !== null);
  const solve = () => change({ ...setup, tracks: setup.tracks.map((t) => ({ ...t, ownDb: null })) });
  useKey('p', 'Find the faders', solve, byHand);
  const lanes = setup.tracks.flatMap((t, i): DistanceTrack[] => {
    const [was, is] = [before?.[i], (after ?? before)?.[i]];
    if (!is || t.part === 'out') return [];
    return [
      {
        key: `${t.take} ${t.channels.join(' ')}`,
        name: t.name,
        hue: hues[i]!,
        wantedLu: t.underLu,
        steps: is.places.map((p, n) => ({
          ...p,
          wasLu: after ? (was?.places[n]?.underLu ?? null) : null,
          near: t.part === 'bed' && p.underLu < t.underLu - NEARER_LU,
        })),
      },
    ];
  });
  return (
    <>
      <p className="quiet">
        How far every track lies under the main voice, phrase by phrase: thick as it would be, thin as it was recorded,
        dotted what is wanted. Beds are judged while somebody speaks; boxed, they come too near.
      </p>
      <div ref={ref}>
        <DistanceChart tracks={lanes} seconds={seconds} widthPx={width} heard={stretch} onChoose={setAtS} />
      </div>
      <SwitchBar
        sounds={sounds}
        says={`${formatNumber(stretch.fromS)} to ${formatNumber(stretch.toS)} s, both equally loud, switched without a gap; click a phrase to hear it.`}
      />
      <div className="spread" style={{ marginTop: 10 }}>
        <span className="row">
          <Choice
            label="Total loudness"
            value={String(setup.targetLufs)}
            onChange={(lufs) => change({ ...setup, targetLufs: Number(lufs) })}
            options={targetsWith(setup.targetLufs)}
          />
          <label className="row" htmlFor="ceiling">
            <Term id="true-peak">true peaks</Term> under
            <NumberInput
              id="ceiling"
              label="Ceiling, dBTP; empty limits nothing"
              value={setup.ceilingDbtp ?? undefined}
              min={-12}
              max={0}
              placeholder="any"
              onValue={(db) => change({ ...setup, ceilingDbtp: db ?? null })}
            />
            dBTP
          </label>
          <label className="row">
            <input
              type="checkbox"
              checked={setup.ride}
              onChange={(e) => change({ ...setup, ride: e.target.checked })}
            />
            take beds down where they come too near
          </label>
          <label className="row" htmlFor="duck">
            <Term id="ducking">duck</Term> them by
            <NumberInput
              id="duck"
              label="Beds are ducked while somebody speaks, dB"
              value={setup.duckDb}
              min={0}
              max={24}
              width="48px"
              onValue={(db) => change({ ...setup, duckDb: db ?? 0 })}
            />
            dB
          </label>
        </span>
        <span className="row">
          {byHand && (
            <Button variant="solid" onClick={solve}>
              Find the faders <kbd>p</kbd>
            </Button>
          )}
          <Button onClick={forget}>As at first</Button>
        </span>
      </div>
      <TrackTable
        setup={setup}
        hues={hues}
        letters={letters}
        balancing={balancing}
        onTrack={(i, part) => change(withTrack(setup, i, part))}
        onJoin={(i) => change(joinedWithNext(setup, i))}
        onHear={setAtS}
      />
      <Whole setup={setup} balancing={balancing} />
    </>
  );
}

function targetsWith(lufs: number): [string, string][] {
  const known = TARGETS.map((t): [string, string] => [String(t.lufs), t.name]);
  return known.some(([value]) => value === String(lufs))
    ? known
    : [...known, [String(lufs), `${formatNumber(lufs)} LUFS`]];
}
