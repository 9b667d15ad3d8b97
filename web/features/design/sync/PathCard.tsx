import { chakra } from '@chakra-ui/react';
import type { Rig } from '#core/model/rig/index.ts';
import { sourceIn } from '#core/model/rig/index.ts';
import { driftMs } from '#core/model/units/index.ts';
import {
  clockDrifts,
  deviceName,
  type Pair,
  type ReceivedPath,
  type TimeWord,
  type Tolerance,
} from '#core/signal/index.ts';
import {
  BandSaid,
  decimalsFor,
  FigureRow,
  formatFrames,
  formatNumber,
  formatOffset,
  formatSigned,
  formatSpread,
  rich,
  StateMark,
  Table,
  Term,
  Why,
} from '#web/shared/parts/index.ts';
import { common, sync as say, textOf } from '#words/index.ts';

const HOUR_MS = 3_600_000;

const SAYS: Record<TimeWord, string> = {
  'in-time': say.inSync(),
  late: say.tooLate(),
  early: say.tooEarly(),
  'perhaps-late': say.possiblyLatePartRange(),
  'perhaps-early': say.possiblyEarlyPartRange(),
  'perhaps-either': say.inSyncByIts(),
  twice: say.arrivesTwice(),
  'too-loud': say.louderAgainstVoiceThan(),
  'not-alone': say.notAloneOnIts(),
  'too-quiet': say.quieterAgainstVoiceThan(),
  'once-done': say.inSyncOnceTo(),
  missing: say.doesNotArriveBut(),
  unwanted: say.arrivesButPlanSays(),
  'no-picture': say.hasNoVideoTo(),
  'not-heard': say.doesNotArrive(),
};

interface Props {
  readonly rig: Rig;
  readonly pair: Pair;
  readonly listenerName: string;
  readonly tolerance: Tolerance;
}

/** The tap card: what is tapped, what arrives, stage by stage, and why it is as it is. */
export function PathCard({ rig, pair, listenerName, tolerance }: Props) {
  const source = sourceIn(rig, pair.sourceId);
  const [way] = pair.ways;
  const second = pair.verdict.apart && pair.ways.find((w) => w.afterFirst === pair.verdict.apart);
  const picture = pair.picture;
  if (!way) return null;
  const offset = way.offset;
  return (
    <aside className="card" aria-label={say.tapPoint()}>
      <h2 className="tapped">
        <Term id="tap">{say.tapPoint()}</Term>: {listenerName}, {source.name}
      </h2>
      {offset && (
        <chakra.p marginTop="8px">
          <span className="strong">
            <Why figure={offset}>
              {formatOffset(
                offset.value.nominal,
                offset.kind === 'measured' ? decimalsFor((offset.spread?.sd ?? 1) * 2) : 0,
              )}
            </Why>
          </span>{' '}
          <span className="quiet">
            ({formatFrames(offset.value.nominal, rig.session.frameRate)}; {common[offset.kind]()},{' '}
            {formatSpread(offset) || say.exact()})
          </span>
          <br />
          <span className={pair.verdict.state}>
            <StateMark state={pair.verdict.state} /> {SAYS[pair.verdict.word]}
          </span>
        </chakra.p>
      )}
      {second && <Twice rig={rig} first={way} second={second} />}
      {pair.verdict.openTasks.length > 0 && (
        <p className="watch">{say.settingOnThisPath({ setting: pair.verdict.openTasks.length })}</p>
      )}
      <Table marginTop="10px">
        <tbody>
          <tr>
            <td colSpan={3} className="strong">
              {say.audioMs()}
            </td>
          </tr>
          {way.delay.terms.map((term) => (
            <FigureRow key={textOf(term.label)} figure={term} />
          ))}
          <tr className="sum">
            <td />
            <td className="number">
              <Why figure={way.delay}>{formatNumber(way.delay.value.nominal)}</Why>
            </td>
            <td className="quiet small">{formatSpread(way.delay)}</td>
          </tr>
          {picture && (
            <>
              <tr>
                <td colSpan={3} className="strong">
                  {say.videoMs({
                    name:
                      picture.sourceId === pair.sourceId
                        ? ''
                        : say.ofSource({ name: sourceIn(rig, picture.sourceId).name }),
                  })}
                </td>
              </tr>
              {picture.delay.terms.map((term) => (
                <FigureRow key={textOf(term.label)} figure={term} />
              ))}
              <tr className="sum">
                <td />
                <td className="number">
                  <Why figure={picture.delay}>{formatNumber(picture.delay.value.nominal)}</Why>
                </td>
                <td className="quiet small">{formatSpread(picture.delay)}</td>
              </tr>
            </>
          )}
        </tbody>
      </Table>
      {offset?.terms.some((t) => t.kind === 'measured') && (
        <>
          <h2>{say.audioMinusVideoAs()}</h2>
          <Table>
            <tbody>
              {offset.terms.map((term) => (
                <FigureRow key={textOf(term.label)} figure={term} signed />
              ))}
            </tbody>
          </Table>
          <p className="small quiet">{say.thisTakeMeasuredOnly()}</p>
        </>
      )}
      <h2>{common.signalPath()}</h2>
      <p className="quiet">
        {way.deviceIds.map((id) => deviceName(rig, id)).join(' → ')}
        <br />
        {formatNumber(way.levelDb.nominal, 0)} {way.scale === 'spl' ? 'dB SPL' : way.scale === 'dbu' ? 'dBu' : 'dBFS'}
        {way.noiseDb !== null && say.noise({ noiseDb: formatNumber(way.noiseDb) })};{' '}
        {say.conversions({ count: way.conversions })}
        {way.polarity < 0 && say.polarityInverted()}
      </p>
      <BandSaid band={way.band} />
      {way.clock && <ClockSaid rig={rig} deviceId={way.clock} />}
      <h2>{say.tolerance()}</h2>
      <p className="quiet">
        {rich(say.toleranceIs, {
          earlyMs: formatNumber(tolerance.earlyMs),
          lateMs: formatNumber(tolerance.lateMs),
          source: textOf(tolerance.source),
        })}
      </p>
    </aside>
  );
}

/** How far apart two ways are heard, and by which devices the second comes. */
function Twice({ rig, first, second }: { rig: Rig; first: ReceivedPath; second: ReceivedPath }) {
  const apart = second.afterFirst!;
  const ms = apart.value.nominal;
  return (
    <p>
      {rich(say.twiceSecondPathArrives, {})}{' '}
      <Why figure={apart}>{`${formatNumber(Math.abs(ms), apart.kind === 'measured' ? 1 : 0)} ms`}</Why>{' '}
      {say.secondPath({
        later: ms < 0 ? say.earlier() : say.later(),
        kind: apart.kind,
        exact: formatSpread(apart) || say.exact(),
        nominal: formatNumber(first.levelDb.nominal - second.levelDb.nominal),
        join: second.deviceIds.map((id) => deviceName(rig, id)).join(', '),
      })}
    </p>
  );
}

/** By whose clock the sound comes, and what is known of it. */
function ClockSaid({ rig, deviceId }: { rig: Rig; deviceId: string }) {
  const drifts = clockDrifts(rig, deviceId);
  return (
    <>
      <h2>{say.clock({ deviceId: deviceName(rig, deviceId) })}</h2>
      {drifts.length === 0 && <p className="quiet">{rich(say.itsClockDriftIsnt, {})}</p>}
      {drifts.map((figure) => (
        <p key={textOf(figure.label)}>
          <Why figure={figure}>{`${formatSigned(figure.value.nominal, 1)} ppm`}</Why>{' '}
          {say.driftHour({
            figure: textOf(figure.label),
            nominal: formatNumber(Math.abs(driftMs(figure.value.nominal, HOUR_MS))),
          })}
        </p>
      ))}
    </>
  );
}
