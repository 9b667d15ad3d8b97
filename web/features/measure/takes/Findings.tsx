import type { Apart } from '#core/audio/measure/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { driftMs, rate } from '#core/model/units/index.ts';
import { type Evaluation, type State, toleranceOf } from '#core/signal/index.ts';
import { DriftChart, useWidth } from '#web/shared/charts/index.ts';
import { WorkLine } from '#web/shared/jobs/index.ts';
import {
  decimalsFor,
  figures,
  formatClock,
  formatFrames,
  formatNumber,
  formatOffset,
  formatSigned,
  Head,
  rich,
  StateMark,
  Table,
  Term,
} from '#web/shared/parts/index.ts';
import { offsetOf } from '#web/shared/take/index.ts';
import { common, takes as say, textOf } from '#words/index.ts';
import { SlipListRow } from './SlipList.tsx';
import type { Comparison } from './useComparison.ts';
import type { BenchTake } from './useTake.ts';

interface Props {
  readonly bench: readonly BenchTake[];
  readonly comparison: Comparison;
  readonly rig: Rig | null;
  readonly evaluation: Evaluation | null;
}

const HOUR_MS = 3_600_000;
const SAME_SOUND = 0.5;
/** A drift that moves recordings apart by less than this in an hour is not worth a word. */
const SMALL_DRIFT_MS = 10;
const SIXTY = rate(60);

/** What the takes say: sound against picture, and take against take. */
export function Findings({ bench, comparison, rig }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const tolerance = toleranceOf(rig?.session.toleranceId ?? 'ebu-r37');
  const frameRate = (take: BenchTake) => take.look?.picture?.frameRate ?? rig?.session.frameRate ?? SIXTY;
  const pictures = bench.flatMap((take) => {
    const found = offsetOf(take.look, take.notes);
    return found ? [{ take, found }] : [];
  });
  const { offset, apart, work } = comparison;
  if (pictures.length === 0 && !offset && !work.task) return null;
  return (
    <>
      <h2>{say.results()}</h2>
      <Table data-testid="findings">
        <Head
          columns={[
            say.result(),
            figures(<Term id="offset">{say.offset()}</Term>),
            figures(rich(say.spreadMs, {})),
            figures(<Term id="frame">{say.frames()}</Term>),
            figures(common.basedOn()),
            say.resultTitle(),
          ]}
        />
        <tbody>
          {pictures.map(({ take, found }) => {
            const state: State =
              found.offsetMs > tolerance.lateMs || found.offsetMs < tolerance.earlyMs ? 'fix' : 'good';
            return (
              <tr key={take.id}>
                <td>{say.audioVsVideo({ name: bench.length > 1 ? `${take.name}: ` : '' })}</td>
                <td className="number strong">{formatOffset(found.offsetMs, 1)}</td>
                <td className="number">±{formatNumber(found.sdMs, decimalsFor(found.sdMs))}</td>
                <td className="number">
                  {formatFrames(found.offsetMs, frameRate(take)).replace(say.framesUnit(), '')}
                </td>
                <td className="number">
                  {found.by === 'slate' ? common.beats({ count: found.count }) : common.claps({ count: found.count })}
                </td>
                <td className={state}>
                  <StateMark state={state} />{' '}
                  {say.toleranceToMs({
                    than: state === 'good' ? say.within() : found.offsetMs > 0 ? say.laterThan() : say.earlierThan(),
                    tolerance: textOf(tolerance.name),
                    earlyMs: formatSigned(tolerance.earlyMs),
                    lateMs: formatSigned(tolerance.lateMs),
                  })}
                </td>
              </tr>
            );
          })}
          {bench.length === 2 && (offset || work.task) && (
            <tr>
              <td>{say.takeVsOther({ name: bench[1]!.name })}</td>
              {!offset ? (
                <td colSpan={5}>
                  <WorkLine task={work.task} onStop={work.stop} onAgain={work.again} />
                </td>
              ) : offset.confidence < SAME_SOUND ? (
                <td colSpan={5}>
                  <StateMark state="watch" />{' '}
                  {rich(say.notSameSoundConfidence, { n100: Math.round(offset.confidence * 100) })}
                </td>
              ) : (
                <>
                  <td className="number strong">{lies(offset.offsetMs)}</td>
                  <td className="number">±{formatNumber(offset.spreadMs, decimalsFor(offset.spreadMs))}</td>
                  <td className="number">
                    {formatFrames(offset.offsetMs, frameRate(bench[0]!)).replace(say.framesUnit(), '')}
                  </td>
                  <td className="number">{say.content()}</td>
                  <td>
                    <DriftSaid ppm={offset.driftPpm} sd={offset.driftSdPpm} />
                    {offset.polarity < 0 && <div>{say.polarityInverted()}</div>}
                    <div className="quiet small">
                      <Term id="confidence">{say.confidence()}</Term> {Math.round(offset.confidence * 100)}%
                    </div>
                  </td>
                </>
              )}
            </tr>
          )}
        </tbody>
      </Table>
      {offset && offset.confidence >= SAME_SOUND && (
        <>
          {offset.points.length > 2 && (
            <div ref={ref}>
              <DriftChart
                points={apart ? apart.readings : offset.points}
                startMs={apart?.startMs ?? offset.offsetMs}
                ppm={apart?.driftPpm ?? offset.driftPpm ?? 0}
                jumps={apart?.jumps ?? NO_JUMPS}
                widthPx={width}
              />
            </div>
          )}
          {!apart && <WorkLine task={work.task} onStop={work.stop} onAgain={work.again} />}
          {apart && <Jumps apart={apart} />}
          {offset.driftPpm !== null && offset.driftPpm !== 0 && (
            <p className="quiet">
              {say.alignedAtStartThey({
                lateMs: formatNumber(tolerance.lateMs),
                n6: formatClock(tolerance.lateMs / Math.abs(offset.driftPpm * 1e-6)),
              })}
            </p>
          )}
          <SlipListRow bench={bench} comparison={comparison} frameRate={frameRate(bench[0]!)} />
        </>
      )}
    </>
  );
}

const NO_JUMPS: Apart['jumps'] = [];

/** Where a buffer was lost or repeated: from there on the alignment is different, whatever the clocks do. */
function Jumps({ apart: { jumps } }: { apart: Apart }) {
  if (jumps.length === 0)
    return (
      <p className="good">
        <StateMark state="good" /> {say.noDropoutsTwoDrift()}
      </p>
    );
  return (
    <ul className="plain-list" data-testid="jumps">
      {jumps.map((j) => (
        <li key={j.atMs} className="fix">
          <StateMark state="fix" />{' '}
          {rich(say.jumpAt, {
            atMs: formatClock(j.atMs),
            n1000: formatNumber(j.withinMs / 1000, 1),
            gains: j.stepMs < 0 ? say.loses() : say.gains(),
            stepMs: formatNumber(Math.abs(j.stepMs), 2),
            stepMs2: formatSigned(-j.stepMs, 2),
          })}
        </li>
      ))}
    </ul>
  );
}

const lies = (ms: number): string =>
  say.ms({ ms: formatNumber(Math.abs(ms), 2), later: ms < 0 ? say.earlier() : say.later() });

function DriftSaid({ ppm, sd }: { ppm: number | null; sd: number | null }) {
  if (ppm === null || sd === null) return <span className="quiet">{say.tooShortToMeasure()}</span>;
  const apart = driftMs(ppm, HOUR_MS);
  const small = Math.abs(apart) < SMALL_DRIFT_MS;
  return (
    <span className={small ? 'good' : 'watch'}>
      <StateMark state={small ? 'good' : 'watch'} />{' '}
      {rich(say.runsLonger, {
        ppm: formatNumber(Math.abs(ppm), 1),
        sd: formatNumber(2 * sd, decimalsFor(2 * sd)),
        longer: ppm < 0 ? say.shorter() : say.longer(),
        apart: formatNumber(Math.abs(apart)),
      })}
    </span>
  );
}
