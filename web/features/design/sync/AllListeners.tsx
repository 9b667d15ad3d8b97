import { useMemo, useState } from 'react';
import {
  deviceIn,
  findSetting,
  findTypes,
  listenerIn,
  type Rig,
  sayValue,
  settingKey,
  settingOf,
  sourceIn,
} from '#core/model/rig/index.ts';
import { framesFromMs, samplesFromMs } from '#core/model/units/index.ts';
import { type AllAligned, type Lack, recordedListeners } from '#core/routing/suggest/index.ts';
import { deviceName, type Evaluation, toleranceIdOf, toleranceOf } from '#core/signal/index.ts';
import { layoutSmallArrivals, SmallArrivalsChart, smallPlotPx, useWidth } from '#web/shared/charts/index.ts';
import {
  Choice,
  figures,
  formatNumber,
  formatSigned,
  Head,
  Page,
  rich,
  Table,
  useKey,
} from '#web/shared/parts/index.ts';
import { Decide, useTrial } from '#web/shared/trial/index.ts';
import { searchAlignment } from '#web/shared/workers/index.ts';
import { common, sync as say, textOf } from '#words/index.ts';
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
  const trying = useTrial(rig, evaluation);
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
  useKey('p', say.suggestDelaysForAll(), () => void find());
  const columns = Math.max(1, Math.floor(width / COLUMN_PX));
  const cellPx = Math.max(0, width / columns - 16);
  const charts = useMemo(
    () =>
      layoutSmallArrivals(
        trying.shown,
        evaluation,
        rig.listeners.map((l) => l.id),
        (id) => toleranceOf(toleranceIdOf(rig, listenerIn(rig, id))),
        smallPlotPx(cellPx),
      ),
    [trying.shown, evaluation, rig, cellPx],
  );
  const listenerName = (id: string) => listenerIn(rig, id).name;
  return (
    <Page
      title={rich(say.arrivalsAtAll, {})}
      actions={
        <span className="row">
          <Choice label={common.destination()} value={ALL} onChange={onListener} options={options} />
          <Choice
            label={say.recordedTracks()}
            value={school}
            onChange={(v) => {
              setFound(null);
              setSchool(v as typeof school);
            }}
            options={[
              ['devices', say.correctTracksOnDevices()],
              ['edit', say.correctTracksInEdit()],
            ]}
          />
          <Decide trying={trying} find={say.suggestDelaysForAll()} onFind={() => void find()} />
        </span>
      }
    >
      <p className="quiet">{say.everyDestinationOnOne()}</p>
      {busy && (
        <p role="status" className="quiet">
          {say.calculating()}
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
              {inEdit.includes(laid.listenerId) && <span className="quiet small"> {say.correctedInEdit()}</span>}
            </p>
            <SmallArrivalsChart
              laid={laid}
              rig={rig}
              widthPx={cellPx}
              label={say.timingAt({ listenerId: listenerName(laid.listenerId) })}
            />
          </section>
        ))}
      </div>
      {trying.changes.length > 0 && <Changes rig={rig} changes={trying.changes} />}
      <ListeningTable rig={trying.tried} evaluation={trying.shown} />
      {school === 'edit' && <Slips rig={rig} shown={trying.shown} listenerIds={tracks} listenerName={listenerName} />}
    </Page>
  );
}

const WHY: Record<Lack, string> = {
  'no-setting': say.noSettingAffectsIt(),
  'out-of-range': say.delaySettingsAreAt(),
  'pulled-both-ways': say.whatWouldHelpHere(),
};

/** The result of the settings, whether they are proven optimal, and what is not met. */
function Outcome({ rig, found, listenerName }: { rig: Rig; found: AllAligned; listenerName: (id: string) => string }) {
  const missed = found.pairs.filter((p) => p.lacks);
  const sourceName = (id: string) => sourceIn(rig, id).name;
  return (
    <div data-testid="all-aligned">
      <p>
        {missed.length === 0
          ? say.allWithinTolerance()
          : say.msInTotalStays({ excessMs: formatNumber(found.excessMs) })}{' '}
        {found.proven ? say.noOtherSettingsDo() : say.timeRanOutBefore()}
      </p>
      {missed.length > 0 && (
        <ul>
          {missed.map((p) => (
            <li key={`${p.sourceId} ${p.listenerId}`}>
              {say.atShouldArriveMs({
                sourceId: sourceName(p.sourceId),
                listenerId: listenerName(p.listenerId),
                later: p.lacks!.later,
                ms: formatNumber(p.lacks!.ms),
                why: WHY[p.lacks!.why],
              })}
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
    <Table tight marginTop="14px" aria-label={say.suggestedSettings()}>
      <Head columns={[common.device(), say.setting(), figures(say.now()), figures(say.resultHead())]} />
      <tbody>
        {changes.map(({ deviceId, settingId, value }) => {
          const spec = findSetting(rig, types, deviceId, settingId)!;
          const device = deviceIn(rig, deviceId);
          return (
            <tr key={settingKey(deviceId, settingId)}>
              <td>{deviceName(rig, deviceId)}</td>
              <td>{spec.name}</td>
              <td className="number quiet">{textOf(sayValue(spec, settingOf(device, spec).value))}</td>
              <td className="number strong">{textOf(sayValue(spec, value))}</td>
            </tr>
          );
        })}
      </tbody>
    </Table>
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
      <h2>{say.toMoveInEdit()}</h2>
      <Table tight aria-label={say.toMoveInEdit()}>
        <Head
          columns={[say.track(), say.audio(), figures(say.moveByMs()), figures(say.frames()), figures(say.samples())]}
        />
        <tbody>
          {rows.map(({ pair, ms }) => (
            <tr key={`${pair.sourceId} ${pair.listenerId}`}>
              <td>{listenerName(pair.listenerId)}</td>
              <td>{sourceIn(rig, pair.sourceId).name}</td>
              <td className="number strong">{formatSigned(ms, 1)}</td>
              <td className="number">{formatSigned(framesFromMs(ms, frameRate), 1)}</td>
              <td className="number">{formatSigned(samplesFromMs(ms, sampleRateHz))}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      <p className="quiet small">{say.predictedUntilYouMeasure()}</p>
    </>
  );
}
