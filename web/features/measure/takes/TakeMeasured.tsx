import { chakra } from '@chakra-ui/react';
import { useState } from 'react';
import type { Diagnosis } from '#core/audio/measure/index.ts';
import { layoutName, speakerName } from '#core/audio/samples/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import type { Evaluation } from '#core/signal/index.ts';
import { type LaneView, LoudnessChart, SpectrumChart } from '#web/shared/charts/index.ts';
import { WorkLine } from '#web/shared/jobs/index.ts';
import { Choice, Details, figures, formatNumber, Head, rich, Table, Term } from '#web/shared/parts/index.ts';
import { TARGETS, type TargetId } from '#web/shared/take/index.ts';
import type { TakeLook } from '#web/shared/workers/index.ts';
import { common, takes as say } from '#words/index.ts';
import { Faults } from './Faults.tsx';
import { guessListener } from './fault-names.ts';
import { LevelIntoRig } from './LevelIntoRig.tsx';
import { type Diagnosed, useDiagnosis } from './useDiagnosis.ts';
import type { BenchTake } from './useTake.ts';

interface Props {
  readonly take: BenchTake;
  /** With more than one take, each shows its name. */
  readonly named: boolean;
  readonly rigId: string | null;
  readonly rig: Rig | null;
  readonly evaluation: Evaluation | null;
  readonly view: LaneView;
  readonly widthPx: number;
  readonly shiftMs: number;
  readonly onSee: (atMs: number) => void;
}

/** A take on Measure is measured once it has been looked at. */
export function TakeMeasured(props: Props) {
  const sound = props.take.look?.sound;
  const many = (sound?.channels ?? 1) > 2;
  const [chosen, setChosen] = useState<number | null>(null);
  // Channels of one layout are measured together; tracks that belong to none, one by one.
  const track = many ? (chosen ?? (sound?.layout ? null : 0)) : null;
  const diagnosed = useDiagnosis(props.take.id, Boolean(sound) && !props.take.look?.isPartial, track);
  if (!sound) return null;
  return (
    <>
      {many && (
        <chakra.div className="row" marginTop="12px">
          {say.measured()}
          <Choice
            label={say.trackToMeasure({ take: props.take.name })}
            value={String(track)}
            onChange={(t) => setChosen(t === 'null' ? null : Number(t))}
            options={[
              ...(sound.layout ? [['null', say.allTracks({ layout: layoutName(sound.layout) })] as const] : []),
              ...Array.from({ length: sound.channels }, (_, c) => [String(c), channelName(sound, c)] as const),
            ]}
          />
        </chakra.div>
      )}
      <Measured {...props} diagnosed={diagnosed} />
    </>
  );
}

const channelName = ({ layout, trackNames }: NonNullable<TakeLook['sound']>, c: number): string =>
  trackNames?.[c] || (layout ? speakerName(layout[c]!) : say.track({ n1: c + 1 }));

/** A take measured: loudness along its time and in figures, and what is wrong with it. */
export function Measured({ diagnosed, ...props }: Props & { readonly diagnosed: Diagnosed }) {
  const { take, named, rigId, rig, evaluation, view, widthPx, shiftMs, onSee } = props;
  const { diagnosis, work } = diagnosed;
  const [targetId, setTargetId] = useState<TargetId>(take.look?.sound?.channels === 1 ? 'speech-mono' : 'speech');
  const [listenerId, setListenerId] = useState(() => (rig ? guessListener(take.name, rig) : ''));
  const target = TARGETS.find((t) => t.id === targetId)!;
  return (
    <section aria-label={say.measuredOf({ take: take.name })}>
      <div className="spread">
        <h2>{say.loudnessAndFaults({ name: named ? `${take.name}: ` : '' })}</h2>
        <Choice
          label={say.target()}
          value={targetId}
          onChange={(id) => setTargetId(id as TargetId)}
          options={TARGETS.map((t) => [t.id, t.name])}
        />
      </div>
      <WorkLine task={work.task} onStop={work.stop} onAgain={work.again} />
      {diagnosis && (
        <>
          <LoudnessChart
            momentary={{ firstMs: 400, stepMs: 100, lufs: diagnosis.curves.momentaryLufs }}
            shortTerm={{ firstMs: 3000, stepMs: 100, lufs: diagnosis.curves.shortTermLufs }}
            integratedLufs={diagnosis.levels.integratedLufs}
            target={target.range}
            view={view}
            widthPx={widthPx}
            shiftMs={shiftMs}
            marksMs={diagnosis.faults.flatMap((f) => f.atS.map((s) => 1000 * s))}
          />
          <Figures diagnosis={diagnosis} target={target} />
          <Details summary={say.spectrumInThirdOctaves()}>
            <p className="quiet small">{rich(say.averageSpectrumDbfsBy, {})}</p>
            {diagnosis.spectra.map((spectrum, c) => (
              <SpectrumChart
                // biome-ignore lint/suspicious/noArrayIndexKey: channels stay in their order
                key={c}
                spectrum={spectrum}
                widthPx={widthPx}
                label={say.spectrum({
                  take: take.name,
                  c: diagnosis.spectra.length > 1 ? `, ${take.look?.sound ? channelName(take.look.sound, c) : ''}` : '',
                })}
              />
            ))}
          </Details>
          {rig && evaluation && rig.listeners.length > 0 && (
            <div className="row">
              {say.recordedAt()}
              <Choice
                label={say.whereWasRecorded({ take: take.name })}
                value={listenerId}
                onChange={setListenerId}
                options={rig.listeners.map((l) => [l.id, l.name])}
              />
            </div>
          )}
          <Faults
            diagnosis={diagnosis}
            rigId={rigId}
            rig={rig}
            evaluation={evaluation}
            listenerId={listenerId}
            onSee={(ms) => onSee(ms + shiftMs)}
          />
          {rig && evaluation && (
            <LevelIntoRig
              key={listenerId}
              take={take}
              diagnosis={diagnosis}
              rig={rig}
              evaluation={evaluation}
              listenerId={listenerId}
            />
          )}
        </>
      )}
    </section>
  );
}

/** No converter is so quiet: there the file holds zeros. */
const DIGITAL_SILENCE_DBFS = -140;

const figure = (value: number | null, unit: string): string =>
  value === null ? common.none() : `${formatNumber(value, 1)} ${unit}`;

/** What the take reads, and how far that is from the target. */
function Figures({
  diagnosis: { levels, floors },
  target,
}: {
  diagnosis: Diagnosis;
  target: (typeof TARGETS)[number];
}) {
  const { integratedLufs, rangeLu, maxMomentaryLufs, maxShortTermLufs, truePeakDbtp } = levels;
  const floorDbfs = Math.max(...floors.map((f) => f.floorDbfs ?? Number.NEGATIVE_INFINITY));
  const off = integratedLufs === null ? null : integratedLufs - target.lufs;
  const [low, high] = target.range;
  const isWithin = integratedLufs !== null && integratedLufs >= low && integratedLufs <= high;
  const tolerance = say.toIsWithinTolerance({
    low: formatNumber(low, low % 1 ? 1 : 0),
    high: formatNumber(high, high % 1 ? 1 : 0),
  });
  return (
    <>
      <Table tight data-testid="levels">
        <Head
          columns={[
            figures(<Term id="lufs">{say.integrated()}</Term>),
            figures(<Term id="loudness-range">{say.loudnessRangeLra()}</Term>),
            figures(say.maxMomentary()),
            figures(say.maxShortTerm()),
            figures(<Term id="true-peak">{say.truePeak()}</Term>),
            figures(rich(say.noiseFloorFromKhz, {})),
          ]}
        />
        <tbody>
          <tr>
            <td className="number strong">{figure(integratedLufs, 'LUFS')}</td>
            <td className="number">{figure(rangeLu, 'LU')}</td>
            <td className="number">{figure(maxMomentaryLufs, 'LUFS')}</td>
            <td className="number">{figure(maxShortTermLufs, 'LUFS')}</td>
            <td className={`number ${truePeakDbtp !== null && truePeakDbtp > -1 ? 'fix' : ''}`}>
              {figure(truePeakDbtp, 'dBTP')}
            </td>
            <td className="number">{figure(floorDbfs > DIGITAL_SILENCE_DBFS ? floorDbfs : null, 'dBFS')}</td>
          </tr>
        </tbody>
      </Table>
      <p className="quiet">
        {off === null
          ? say.tooShortOrToo()
          : say.luLufs({
              off: formatNumber(Math.abs(off), 1),
              under: off > 0 ? say.above() : say.below(),
              lufs: formatNumber(target.lufs, 0),
              tolerance,
              dB: isWithin
                ? say.nothingToChange()
                : say.turnItByDb({ up: off > 0 ? say.down() : say.up(), off: formatNumber(Math.abs(off), 1) }),
            })}
        {off !== null && off < 0 && !isWithin && truePeakDbtp !== null && truePeakDbtp - off > -1
          ? say.peaksWouldThenReach({ n1: formatNumber(truePeakDbtp - off + 1, 1) })
          : ''}
      </p>
    </>
  );
}
