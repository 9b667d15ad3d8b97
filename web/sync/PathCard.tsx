import type { Rig } from '#core/rig/index.ts';
import { clockDrifts, deviceName, type Heard, type Pair, type TimeWord, type Tolerance } from '#core/signal/index.ts';
import { driftMs } from '#core/units/index.ts';
import {
  BandSaid,
  count,
  decimalsFor,
  FigureRow,
  formatFrames,
  formatNumber,
  formatOffset,
  formatSigned,
  formatSpread,
  StateMark,
  Term,
  Why,
} from '#web/parts/index.ts';

const HOUR_MS = 3_600_000;

const SAYS: Record<TimeWord, string> = {
  'in-time': 'in time',
  late: 'too late',
  early: 'too early',
  'perhaps-late': 'possibly late: part of the range is beyond the tolerance. Measure a take with a clap.',
  'perhaps-early': 'possibly early: part of the range is beyond the tolerance. Measure a take with a clap.',
  'perhaps-either': 'in time by its nominal figures, which are too uncertain to tell. Measure a take.',
  twice: 'heard twice',
  'too-loud': 'louder against the voice than it is wanted',
  'not-alone': 'not alone on its track',
  'too-quiet': 'quieter against the voice than it is wanted',
  'once-done': 'in time once it is done at the desk',
  missing: 'does not arrive, although the plan wants it',
  unwanted: 'arrives, although the plan does not want it',
  'no-picture': 'has no picture to keep time with',
  'not-heard': 'does not arrive',
};

interface Props {
  readonly rig: Rig;
  readonly pair: Pair;
  readonly listenerName: string;
  readonly tolerance: Tolerance;
}

/** The tap card: what is tapped, what arrives, stage by stage, and why it is as it is. */
export function PathCard({ rig, pair, listenerName, tolerance }: Props) {
  const source = rig.sources.find((s) => s.id === pair.sourceId)!;
  const [way] = pair.ways;
  const second = pair.verdict.apart && pair.ways.find((w) => w.afterFirst === pair.verdict.apart);
  const picture = pair.picture;
  if (!way) return null;
  const offset = way.offset;
  return (
    <aside className="card" aria-label="Tap">
      <h2 className="tapped">
        <Term id="tap">Tap</Term>: {listenerName.split(',')[0]!.toLowerCase()}, {source.name}
      </h2>
      {offset && (
        <p style={{ marginTop: 8 }}>
          <span className="strong">
            <Why figure={offset}>
              {formatOffset(
                offset.value.nominal,
                offset.kind === 'measured' ? decimalsFor((offset.spread?.sd ?? 1) * 2) : 0,
              )}
            </Why>
          </span>{' '}
          <span className="quiet">
            ({formatFrames(offset.value.nominal, rig.session.frameRate)}; {offset.kind},{' '}
            {formatSpread(offset) || 'exact'})
          </span>
          <br />
          <span className={pair.verdict.state}>
            <StateMark state={pair.verdict.state} /> {SAYS[pair.verdict.word]}
          </span>
        </p>
      )}
      {second && <Twice rig={rig} first={way} second={second} />}
      {pair.verdict.openTasks.length > 0 && (
        <p className="watch">
          {count(pair.verdict.openTasks.length, 'setting')} on this way still to be done at the desk.
        </p>
      )}
      <table className="table" style={{ marginTop: 10 }}>
        <tbody>
          <tr>
            <td colSpan={3} className="strong">
              Sound, ms
            </td>
          </tr>
          {way.delay.terms.map((term) => (
            <FigureRow key={term.label} figure={term} />
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
                  Picture
                  {picture.sourceId === pair.sourceId
                    ? ''
                    : ` of ${rig.sources.find((s) => s.id === picture.sourceId)!.name}`}
                  , ms
                </td>
              </tr>
              {picture.delay.terms.map((term) => (
                <FigureRow key={term.label} figure={term} />
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
      </table>
      {offset?.terms.some((t) => t.kind === 'measured') && (
        <>
          <h2>Sound minus picture, as measured</h2>
          <table className="table">
            <tbody>
              {offset.terms.map((term) => (
                <FigureRow key={term.label} figure={term} signed />
              ))}
            </tbody>
          </table>
          <p className="small quiet">
            A take knows the difference only; to split it, measure one more take with the camera or the sound alone.
          </p>
        </>
      )}
      <h2>By this way</h2>
      <p className="quiet">
        {way.deviceIds.map((id) => deviceName(rig, id)).join(' → ')}
        <br />
        {formatNumber(way.levelDb.nominal, 0)} {way.scale === 'spl' ? 'dB SPL' : way.scale === 'dbu' ? 'dBu' : 'dBFS'}
        {way.noiseDb !== null && `, noise ${formatNumber(way.noiseDb)}`}; {count(way.conversions, 'conversion')}
        {way.polarity < 0 && '; inverted'}
      </p>
      <BandSaid band={way.band} />
      {way.clock && <ClockSaid rig={rig} deviceId={way.clock} />}
      <h2>Tolerance</h2>
      <p className="quiet">
        {formatNumber(tolerance.earlyMs)} to +{formatNumber(tolerance.lateMs)} ms: {tolerance.source} (
        <Term id="standard">standard</Term>).
      </p>
    </aside>
  );
}

/** How far apart two ways are heard, and by which boxes the second comes. */
function Twice({ rig, first, second }: { rig: Rig; first: Heard; second: Heard }) {
  const apart = second.afterFirst!;
  const ms = apart.value.nominal;
  return (
    <p>
      <Term id="twice">Twice</Term>: the second way comes{' '}
      <Why figure={apart}>{`${formatNumber(Math.abs(ms), apart.kind === 'measured' ? 1 : 0)} ms`}</Why>{' '}
      {ms < 0 ? 'earlier' : 'later'} ({apart.kind}, {formatSpread(apart) || 'exact'}) and{' '}
      {formatNumber(first.levelDb.nominal - second.levelDb.nominal)} dB lower, by{' '}
      {second.deviceIds.map((id) => deviceName(rig, id)).join(', ')}.
    </p>
  );
}

/** By whose clock the sound comes, and what is known of it. */
function ClockSaid({ rig, deviceId }: { rig: Rig; deviceId: string }) {
  const drifts = clockDrifts(rig, deviceId);
  return (
    <>
      <h2>Clock of {deviceName(rig, deviceId)}</h2>
      {drifts.length === 0 && (
        <p className="quiet">
          Its <Term id="drift">drift</Term> is not measured: lay two long takes of one sound beside each other on the
          bench.
        </p>
      )}
      {drifts.map((figure) => (
        <p key={figure.label}>
          <Why figure={figure}>{`${formatSigned(figure.value.nominal, 1)} ppm`}</Why> {figure.label}:{' '}
          {formatNumber(Math.abs(driftMs(figure.value.nominal, HOUR_MS)))} ms in an hour
        </p>
      ))}
    </>
  );
}
