import { Button, NativeSelect } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { applyEdit, findSetting, findTypes, type Rig } from '#core/rig/index.ts';
import { reconcileDrift, reconcilePicture } from '#core/reconcile/index.ts';
import { deviceName, evaluate, type Evaluation } from '#core/signal/index.ts';
import { alignListener } from '#core/solve/index.ts';
import { decimalsFor, formatNumber, formatOffset, formatSpread, useKey, Why } from '#web/parts/index.ts';
import { api, applyStep, useAppDispatch } from '#web/store/index.ts';
import { offsetOfNotes } from './marks.ts';
import type { Comparison } from './useComparison.ts';
import type { BenchTake } from './useTake.ts';

interface Props {
  readonly bench: readonly BenchTake[];
  readonly comparison: Comparison;
  readonly rigId: string | null;
  readonly rig: Rig | null;
  readonly evaluation: Evaluation | null;
}

/** What the take speaks of, what it would change in the rig, and what follows; or the way to a rig. */
export function BenchCard({ bench, comparison, rigId, rig, evaluation }: Props) {
  const withOffset = bench.find((t) => t.notes && offsetOfNotes(t.notes));
  return (
    <aside className="card" aria-label="What the take speaks of">
      {!rig || !evaluation || !rigId ? (
        <IntoARig takeIds={bench.map((t) => t.id)} />
      ) : (
        <>
          {withOffset && <PictureIntoRig take={withOffset} rigId={rigId} rig={rig} evaluation={evaluation} />}
          {comparison.offset && comparison.offset.confidence >= 0.5 && comparison.offset.driftPpm !== null && (
            <DriftIntoRig bench={bench} ppm={comparison.offset.driftPpm} sd={comparison.offset.driftSdPpm ?? 0} count={comparison.offset.points.length} rig={rig} />
          )}
          {!withOffset && !comparison.offset && <p className="quiet">A take with a flash and a clap, or two takes of one sound, can be taken into the rig. This one says nothing of it yet.</p>}
        </>
      )}
    </aside>
  );
}

function IntoARig({ takeIds }: { takeIds: readonly string[] }) {
  const rigs = api.useRigsQuery(undefined);
  return (
    <>
      <h2>Take it into a rig</h2>
      <p className="quiet">In a rig, what is measured replaces typical figures, and the delay setting that puts it right follows.</p>
      <ul style={{ marginTop: 8 }}>
        {(rigs.data ?? []).map((rig) => (
          <li key={rig.id}>
            <Link to={`/rigs/${rig.id}/bench?takes=${takeIds.join(',')}`}>{rig.name}</Link>
          </li>
        ))}
      </ul>
    </>
  );
}

interface IntoRig {
  readonly take: BenchTake;
  readonly rigId: string;
  readonly rig: Rig;
  readonly evaluation: Evaluation;
}

function PictureIntoRig({ take, rigId, rig, evaluation }: IntoRig) {
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const notes = take.notes!;
  const found = offsetOfNotes(notes)!;
  const readable = evaluation.pairs.filter((p) => p.ways[0]?.offset);
  const said = notes.speaksOf?.rigId === rigId ? notes.speaksOf : null;
  const guess = guessPair(take.name, rig, readable);
  const [listenerId, setListenerId] = useState(said?.listenerId ?? guess.listenerId);
  const sources = readable.filter((p) => p.listenerId === listenerId);
  const [chosenSource, setSourceId] = useState(said?.sourceId ?? guess.sourceId);
  const sourceId = sources.some((p) => p.sourceId === chosenSource) ? chosenSource : (sources[0]?.sourceId ?? '');
  const speak = (next: { listenerId: string; sourceId: string }) => {
    setListenerId(next.listenerId);
    setSourceId(next.sourceId);
    take.change({ ...notes, speaksOf: { rigId, ...next } });
  };
  const label = take.name.replace(/\.[a-z0-9]{2,4}$/i, '');
  const already = rig.measurements.find((m) => m.kind === 'delay' && m.takeId === take.id && m.sourceId === sourceId && m.listenerId === listenerId);
  const base = useMemo(() => {
    const done = already && applyEdit(rig, { kind: 'remove-measurement', measurementId: already.id });
    return done?.ok ? { rig: done.rig, evaluation: evaluate(done.rig) } : { rig, evaluation };
  }, [rig, evaluation, already]);
  const reading = { label, takeId: take.id, sourceId, listenerId, offsetMs: found.offsetMs, sdMs: found.sdMs, count: found.count };
  const preview = reconcilePicture(base.rig, base.evaluation, { ...reading, id: 'preview', takenAt: '2000-01-01T00:00:00Z' });
  const follows = useMemo(() => {
    if (!preview.ok) return [];
    const done = applyEdit(base.rig, preview.edit);
    if (!done.ok) return [];
    const { changes } = alignListener(done.rig, evaluate(done.rig), listenerId);
    const pair = evaluate(done.rig).pairs.find((p) => p.sourceId === sourceId && p.listenerId === listenerId);
    const acting = new Set([...(pair?.ways[0]?.settings ?? []), ...(pair?.picture?.settings ?? [])]);
    return changes.filter((c) => acting.has(`${c.deviceId}.${c.settingId}`));
  }, [base.rig, found.offsetMs, found.sdMs, found.count, sourceId, listenerId]);
  const takeIn = () => {
    const now = new Date().toISOString();
    const done = reconcilePicture(base.rig, base.evaluation, { ...reading, id: `m-${crypto.randomUUID()}`, takenAt: now });
    if (!done.ok) return;
    const edits = already ? [{ kind: 'remove-measurement' as const, measurementId: already.id }, done.edit] : [done.edit];
    if (dispatch(applyStep({ kind: 'batch', edits }, `Measured by ‘${label}’`))) navigate(`/rigs/${rigId}/sync?listener=${listenerId}&source=${sourceId}`);
  };
  useKey('a', 'Take it into the rig', takeIn, preview.ok);
  const types = findTypes(rig);
  return (
    <>
      <h2>This take speaks of</h2>
      <p className="row">
        <Pick label="Listener" value={listenerId} options={rig.listeners.filter((l) => readable.some((p) => p.listenerId === l.id)).map((l) => [l.id, l.name])} onPick={(id) => speak({ listenerId: id, sourceId })} />
        <Pick label="Source" value={sourceId} options={sources.map((p) => [p.sourceId, rig.sources.find((s) => s.id === p.sourceId)!.name])} onPick={(id) => speak({ listenerId, sourceId: id })} />
      </p>
      {!preview.ok ? (
        <p className="watch" style={{ marginTop: 10 }}>
          {preview.reason}
        </p>
      ) : (
        <>
          <p className="quiet" style={{ marginTop: 8 }}>
            {already ? 'It is in the rig already; taking it again replaces that figure.' : 'Taking it in replaces typical figures by a measured one.'}
          </p>
          <table className="table">
            <thead>
              <tr>
                <th>Sound minus picture</th>
                <th className="number">Now</th>
                <th className="number">Then</th>
              </tr>
            </thead>
            <tbody>
              <tr>
                <td>
                  {preview.measurement.kind === 'delay' ? preview.measurement.terms.length : 0} figures together
                </td>
                <td className="number">
                  <Why figure={preview.now}>{formatOffset(preview.now.value.nominal)}</Why>
                  <div className="small quiet">{formatSpread(preview.now)}</div>
                </td>
                <td className="number strong">
                  <Why figure={preview.then}>{formatOffset(preview.then.value.nominal, decimalsFor(found.sdMs))}</Why>
                  <div className="small quiet">±{formatNumber((preview.then.value.high - preview.then.value.low) / 2, decimalsFor(found.sdMs))}</div>
                </td>
              </tr>
            </tbody>
          </table>
          {(found.offsetMs < preview.now.value.low || found.offsetMs > preview.now.value.high) && (
            <p className="watch">That is outside what such devices usually take: is it the right source and listener?</p>
          )}
          <h2>And so</h2>
          {follows.length === 0 ? (
            <p>It is in tolerance as it is: no delay has to be set for it.</p>
          ) : (
            <ul>
              {follows.map((c) => (
                <li key={`${c.deviceId}.${c.settingId}`}>
                  {deviceName(rig, c.deviceId)}, {findSetting(rig, types, c.deviceId, c.settingId)!.name}: <span className="strong">{String(c.value)} ms</span>
                </li>
              ))}
            </ul>
          )}
          <p style={{ marginTop: 12 }}>
            <Button variant="solid" onClick={takeIn}>
              Take it into the rig <kbd>a</kbd>
            </Button>
          </p>
        </>
      )}
    </>
  );
}

/** The pair that the take's name speaks of, word by word; otherwise the first that can be read. */
function guessPair(name: string, rig: Rig, readable: Evaluation['pairs']): { sourceId: string; listenerId: string } {
  const words = new Set(name.toLowerCase().split(/[^a-z0-9]+/));
  const score = (text: string) => text.toLowerCase().split(/[^a-z0-9]+/).filter((w) => w.length > 2 && words.has(w)).length;
  const rated = readable.map((p) => ({
    p,
    points: 2 * score(`${p.sourceId} ${rig.sources.find((s) => s.id === p.sourceId)!.name}`) - (p.sourceId.includes('-') ? 0.5 : 0),
  }));
  const best = rated.reduce<(typeof rated)[number] | undefined>((b, r) => (b && b.points >= r.points ? b : r), undefined);
  return { sourceId: best?.p.sourceId ?? '', listenerId: best?.p.listenerId ?? '' };
}

function DriftIntoRig({ bench, ppm, sd, count, rig }: { bench: readonly BenchTake[]; ppm: number; sd: number; count: number; rig: Rig }) {
  const dispatch = useAppDispatch();
  const [deviceId, setDeviceId] = useState('');
  const [againstDeviceId, setAgainst] = useState('');
  const types = findTypes(rig);
  const clocks = rig.devices.filter((d) => types.get(d.typeId)!.inside.some((w) => w.stages.some((s) => s.do === 'clock')));
  const options: [string, string][] = [['', 'choose'], ...clocks.map((d): [string, string] => [d.id, d.name])];
  const known = rig.measurements.some((m) => m.kind === 'drift' && m.takeId === bench[1]!.id);
  const takeIn = () => {
    const label = bench[1]!.name.replace(/\.[a-z0-9]{2,4}$/i, '');
    const done = reconcileDrift(rig, {
      id: `m-${crypto.randomUUID()}`,
      label,
      takeId: bench[1]!.id,
      takenAt: new Date().toISOString(),
      deviceId,
      againstDeviceId,
      ppm,
      sdPpm: sd,
      count,
    });
    if (done.ok) dispatch(applyStep(done.edit, `Clock measured by ‘${label}’`));
  };
  return (
    <>
      <h2>Clocks</h2>
      <p className="quiet">
        Whose clocks were these? The second take runs {formatNumber(Math.abs(ppm), 1)} ppm {ppm < 0 ? 'shorter' : 'longer'}.
      </p>
      <p className="row" style={{ marginTop: 6 }}>
        <Pick label="Clock of the second take" value={deviceId} options={options} onPick={setDeviceId} />
        against
        <Pick label="Clock of the first take" value={againstDeviceId} options={options} onPick={setAgainst} />
      </p>
      <p style={{ marginTop: 8 }}>
        <Button disabled={!deviceId || !againstDeviceId || deviceId === againstDeviceId} onClick={takeIn}>
          Take the clocks into the rig
        </Button>
      </p>
      {known && <p className="good">The rig knows it.</p>}
    </>
  );
}

function Pick({ label, value, options, onPick }: { label: string; value: string; options: readonly (readonly [string, string])[]; onPick: (value: string) => void }) {
  return (
    <NativeSelect.Root>
      <NativeSelect.Field aria-label={label} value={value} onChange={(e) => onPick(e.target.value)}>
        {options.map(([id, name]) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </NativeSelect.Field>
      <NativeSelect.Indicator />
    </NativeSelect.Root>
  );
}
