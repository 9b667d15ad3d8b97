import { useMemo, useState } from 'react';
import { findSetting, findTypes, type Rig, sayValue, settingOf } from '#core/rig/index.ts';
import { deviceName, type Evaluation, toleranceIdOf, toleranceOf } from '#core/signal/index.ts';
import { type AllAligned, type Lack, recordedListeners } from '#core/solve/index.ts';
import { framesFromMs, samplesFromMs } from '#core/units/index.ts';
import { layoutSmallArrivals, SmallArrivalsChart, smallPlotPx, useWidth } from '#web/charts/index.ts';
import { Choice, formatNumber, formatSigned, Term, useKey } from '#web/parts/index.ts';
import { Decide, useTrial } from '#web/trial/index.ts';
import { searchAlignment } from '#web/workers/index.ts';
import { ListeningTable } from './ListeningTable.tsx';

interface Props {
  readonly rig: Rig;
  readonly evaluation: Evaluation;
  readonly onListener: (listenerId: string) => void;
  /** The choice of listeners, of which this is one. */
  readonly options: readonly (readonly [string, string])[];
}

const COLUMN_PX = 360;
const ALL = 'all';

/** Every listener at once: delays that bring all of them into tolerance, or as near as the devices allow. */
export function AllListeners({ rig, evaluation, onListener, options }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const trying = useTrial(rig, evaluation, 'delay setting');
  const [school, setSchool] = useState<'devices' | 'edit'>('devices');
  const [found, setFound] = useState<AllAligned | null>(null);
  const [busy, setBusy] = useState(false);
  const [failed, setFailed] = useState<string | null>(null);
  const tracks = useMemo(() => recordedListeners(rig), [rig]);
  const inEdit = school === 'edit' ? tracks : [];
  const find = async () => {
    setBusy(true);
    setFailed(null);
    try {
      const next = await searchAlignment(rig, { inEdit }).result;
      setFound(next);
      trying.propose(next.changes);
    } catch (error) {
      setFailed(error instanceof Error ? error.message : String(error));
    } finally {
      setBusy(false);
    }
  };
  useKey('p', 'Put all right: propose settings', () => void find());
  const columns = Math.max(1, Math.floor(width / COLUMN_PX));
  const cellPx = Math.max(0, width / columns - 16);
  const charts = useMemo(
    () =>
      layoutSmallArrivals(
        trying.shown,
        evaluation,
        rig.listeners.map((l) => l.id),
        (id) => toleranceOf(toleranceIdOf(rig, rig.listeners.find((l) => l.id === id)!)),
        smallPlotPx(cellPx),
      ),
    [trying.shown, evaluation, rig, cellPx],
  );
  const listenerName = (id: string) => rig.listeners.find((l) => l.id === id)!.name;
  return (
    <main className="frame-page">
      <div className="page">
        <div className="spread">
          <h1>
            <Term id="arrival">Arrivals</Term> at all listeners
          </h1>
          <span className="row">
            <Choice label="Listener" value={ALL} onChange={onListener} options={options} />
            <Choice
              label="Tracks that are recorded"
              value={school}
              onChange={(v) => {
                setFound(null);
                setSchool(v as typeof school);
              }}
              options={[
                ['devices', 'Tracks right on the devices, now'],
                ['edit', 'Tracks slipped in the edit, later'],
              ]}
            />
            <Decide trying={trying} find="Put all right" onFind={() => void find()} />
          </span>
        </div>
        <p className="quiet">
          Each source’s sound against its picture at every listener, all on one scale; the band is what nobody minds.
          One delay acts on many: they are worked out together.
        </p>
        {busy && (
          <p role="status" className="quiet">
            Working it out…
          </p>
        )}
        {failed && <p className="fix">{failed}</p>}
        {found && !busy && <Outcome rig={rig} found={found} listenerName={listenerName} />}
        <div
          ref={ref}
          style={{ display: 'grid', gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))`, gap: 16, marginTop: 10 }}
        >
          {charts.map((laid) => (
            <section key={laid.listenerId} aria-label={listenerName(laid.listenerId)}>
              <p className="strong">
                {listenerName(laid.listenerId)}
                {inEdit.includes(laid.listenerId) && <span className="quiet small"> slipped in the edit</span>}
              </p>
              <SmallArrivalsChart
                laid={laid}
                rig={rig}
                widthPx={cellPx}
                label={`Arrivals at ${listenerName(laid.listenerId)}`}
              />
            </section>
          ))}
        </div>
        {trying.changes.length > 0 && <Changes rig={rig} changes={trying.changes} />}
        <ListeningTable rig={trying.tried} evaluation={trying.shown} />
        {school === 'edit' && <Slips rig={rig} shown={trying.shown} listenerIds={tracks} listenerName={listenerName} />}
      </div>
    </main>
  );
}

const WHY: Record<Lack, string> = {
  'no-setting': 'no setting acts on it',
  'out-of-range': 'the settings are at their ends',
  'pulled-both-ways': 'what would help it harms others more',
};

/** What the settings come to, whether they are the best there are, and what is not met. */
function Outcome({ rig, found, listenerName }: { rig: Rig; found: AllAligned; listenerName: (id: string) => string }) {
  const missed = found.pairs.filter((p) => p.lacks);
  const sourceName = (id: string) => rig.sources.find((s) => s.id === id)!.name;
  return (
    <div data-testid="all-aligned">
      <p>
        {missed.length === 0
          ? 'All of them come into tolerance.'
          : `${formatNumber(found.excessMs)} ms in all stay beyond the tolerances.`}{' '}
        {found.proven
          ? 'No other settings leave less: that is proven.'
          : 'Time ran out before that was proven the best.'}
      </p>
      {missed.length > 0 && (
        <ul>
          {missed.map((p) => (
            <li key={`${p.sourceId} ${p.listenerId}`}>
              {sourceName(p.sourceId)} at {listenerName(p.listenerId)}: the {p.lacks!.later} would have to come{' '}
              {formatNumber(p.lacks!.ms)} ms later; {WHY[p.lacks!.why]}.
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

function Changes({ rig, changes }: { rig: Rig; changes: AllAligned['changes'] }) {
  const types = findTypes(rig);
  return (
    <table className="table tight" style={{ marginTop: 14 }} aria-label="Settings that are proposed">
      <thead>
        <tr>
          <th>Box</th>
          <th>Setting</th>
          <th className="number">Now</th>
          <th className="number">Then</th>
        </tr>
      </thead>
      <tbody>
        {changes.map(({ deviceId, settingId, value }) => {
          const spec = findSetting(rig, types, deviceId, settingId)!;
          const device = rig.devices.find((d) => d.id === deviceId)!;
          return (
            <tr key={`${deviceId}.${settingId}`}>
              <td>{deviceName(rig, deviceId)}</td>
              <td>{spec.name}</td>
              <td className="number quiet">{sayValue(spec, settingOf(device, spec).value)}</td>
              <td className="number strong">{sayValue(spec, value)}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

interface SlipsProps {
  readonly rig: Rig;
  readonly shown: Evaluation;
  readonly listenerIds: readonly string[];
  readonly listenerName: (id: string) => string;
}

/** How far each recorded sound has to be moved against its picture afterwards. */
function Slips({ rig, shown, listenerIds, listenerName }: SlipsProps) {
  const { frameRate, sampleRateHz } = rig.session;
  const rows = shown.pairs.flatMap((p) => {
    const offset = p.ways[0]?.offset;
    return offset && p.want !== 'must-not' && listenerIds.includes(p.listenerId)
      ? [{ pair: p, ms: -offset.value.nominal }]
      : [];
  });
  if (rows.length === 0) return null;
  return (
    <>
      <h2>To be slipped in the edit</h2>
      <table className="table tight" aria-label="To be slipped in the edit">
        <thead>
          <tr>
            <th>Track</th>
            <th>Sound</th>
            <th className="number">Move by, ms</th>
            <th className="number">frames</th>
            <th className="number">samples</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ pair, ms }) => (
            <tr key={`${pair.sourceId} ${pair.listenerId}`}>
              <td>{listenerName(pair.listenerId)}</td>
              <td>{rig.sources.find((s) => s.id === pair.sourceId)!.name}</td>
              <td className="number strong">{formatSigned(ms, 1)}</td>
              <td className="number">{formatSigned(framesFromMs(ms, frameRate), 1)}</td>
              <td className="number">{formatSigned(samplesFromMs(ms, sampleRateHz))}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="quiet small">From predicted figures until takes measure them; plus is later.</p>
    </>
  );
}
