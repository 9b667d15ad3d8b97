import { useEffect, useMemo, useState } from 'react';
import type { Spectrogram } from '#core/audio/measure/index.ts';
import { type LaneView, SpectrogramChart } from '#web/shared/charts/index.ts';
import { WorkLine } from '#web/shared/jobs/index.ts';
import { useSound } from '#web/shared/take/index.ts';
import { takes as say } from '#words/index.ts';
import type { BenchTake } from './useTake.ts';

interface Props {
  readonly take: BenchTake;
  readonly view: LaneView;
  readonly widthPx: number;
  readonly shiftMs: number;
}

const ROWS = 120;
const HZ = { low: 50, high: 16_000 } as const;
/** Two pixels a column; half a view more on either side, so that a step to the side shows something at once. */
const PX_PER_COLUMN = 2;
const QUIET_MS = 120;

/** The spectrogram of the visible part of a take; computed shortly after the view has stopped moving. */
export function Pitches({ take, view, widthPx, shiftMs }: Props) {
  const ids = useMemo(() => [take.id], [take.id]);
  const sound = useSound(ids);
  const { desk, facts } = sound;
  const [seen, setSeen] = useState<Spectrogram | null>(null);
  const { startMs, msPerPx } = view;
  const rate = facts?.[0]?.sampleRateHz;
  useEffect(() => {
    if (!desk || !rate || widthPx <= 0) return;
    let gone = false;
    const columns = Math.ceil((2 * widthPx) / PX_PER_COLUMN);
    const fromS = (startMs - shiftMs - (widthPx / 2) * msPerPx) / 1000;
    const toS = fromS + (2 * widthPx * msPerPx) / 1000;
    const timer = setTimeout(() => {
      desk.api
        .spectrogram(0, { fromS, toS, columns, rows: ROWS, lowHz: HZ.low, highHz: Math.min(HZ.high, rate / 2) })
        .then(
          (made) => {
            if (!gone) setSeen(made);
          },
          () => undefined,
        );
    }, QUIET_MS);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [desk, rate, startMs, msPerPx, widthPx, shiftMs]);
  return (
    <>
      <WorkLine
        task={sound.work.task}
        name={sound.work.task?.name}
        onStop={sound.work.stop}
        onAgain={sound.work.again}
      />
      <SpectrogramChart
        spectrogram={seen}
        view={view}
        widthPx={widthPx}
        shiftMs={shiftMs}
        label={say.spectrogram({ take: take.name })}
      />
    </>
  );
}
