import { Button, chakra } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { NEARER_LU } from '#core/audio/mix/index.ts';
import { DistanceChart, type DistanceTrack, useWidth } from '#web/shared/charts/index.ts';
import { SwitchBar } from '#web/shared/listen/index.ts';
import { Check, Choice, formatNumber, NumberInput, rich, useKey } from '#web/shared/parts/index.ts';
import { type SoundAtHand, TARGETS } from '#web/shared/take/index.ts';
import { common, mix as say } from '#words/index.ts';
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
  useKey('p', say.suggestFaderLevels(), solve, byHand);
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
      <p className="quiet">{say.howFarEachTrack()}</p>
      <div ref={ref}>
        <DistanceChart tracks={lanes} seconds={seconds} widthPx={width} heard={stretch} onChoose={setAtS} />
      </div>
      <SwitchBar
        sounds={sounds}
        says={say.toSMatchedIn({ fromS: formatNumber(stretch.fromS), toS: formatNumber(stretch.toS) })}
      />
      <chakra.div className="spread" marginTop="10px">
        <span className="row">
          <Choice
            label={say.totalLoudness()}
            value={String(setup.targetLufs)}
            onChange={(lufs) => change({ ...setup, targetLufs: Number(lufs) })}
            options={targetsWith(setup.targetLufs)}
          />
          <label className="row" htmlFor="ceiling">
            {rich(say.truePeaksBelow, {})}
            <NumberInput
              id="ceiling"
              label={say.ceilingDbtpEmptyMeans()}
              value={setup.ceilingDbtp ?? undefined}
              min={-12}
              max={0}
              placeholder={say.any()}
              onValue={(db) => change({ ...setup, ceilingDbtp: db ?? null })}
            />
            {say.dbtp()}
          </label>
          <Check checked={setup.ride} onCheck={(ride) => change({ ...setup, ride })}>
            {say.rideMusicAndGame()}
          </Check>
          <label className="row" htmlFor="duck">
            {rich(say.duckThemBy, {})}
            <NumberInput
              id="duck"
              label={say.musicAndGameAre()}
              value={setup.duckDb}
              min={0}
              max={24}
              width="48px"
              onValue={(db) => change({ ...setup, duckDb: db ?? 0 })}
            />
            {say.db()}
          </label>
        </span>
        <span className="row">
          {byHand && (
            <Button variant="solid" onClick={solve}>
              {rich(say.suggestFaderLevelsP, {})}
            </Button>
          )}
          <Button onClick={forget}>{common.reset()}</Button>
        </span>
      </chakra.div>
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
    : [...known, [String(lufs), say.lufs({ lufs: formatNumber(lufs) })]];
}
