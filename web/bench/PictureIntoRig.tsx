import { Button } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { reconcilePicture } from '#core/reconcile/index.ts';
import { applyEdit, findSetting, findTypes, type Rig } from '#core/rig/index.ts';
import { deviceName, type Evaluation, evaluate } from '#core/signal/index.ts';
import { Choice, decimalsFor, formatNumber, formatOffset, formatSpread, useKey, Why } from '#web/parts/index.ts';
import { applyStep, useAppDispatch } from '#web/store/index.ts';
import { guessPair, settingsThatFollow } from './follows.ts';
import { offsetOfNotes } from './marks.ts';
import type { BenchTake } from './useTake.ts';

interface IntoRig {
  readonly take: BenchTake;
  readonly rigId: string;
  readonly rig: Rig;
  readonly evaluation: Evaluation;
}

/** What a take's offset would change in the rig, and the settings that follow. */
export function PictureIntoRig({ take, rigId, rig, evaluation }: IntoRig) {
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
  const already = rig.measurements.find(
    (m) => m.kind === 'delay' && m.takeId === take.id && m.sourceId === sourceId && m.listenerId === listenerId,
  );
  const base = useMemo(() => {
    const done = already && applyEdit(rig, { kind: 'remove-measurement', measurementId: already.id });
    return done?.ok ? { rig: done.rig, evaluation: evaluate(done.rig) } : { rig, evaluation };
  }, [rig, evaluation, already]);
  const reading = {
    label,
    takeId: take.id,
    sourceId,
    listenerId,
    offsetMs: found.offsetMs,
    sdMs: found.sdMs,
    count: found.count,
  };
  const preview = reconcilePicture(base.rig, base.evaluation, {
    ...reading,
    id: 'preview',
    takenAt: '2000-01-01T00:00:00Z',
  });
  const follows = preview.ok ? settingsThatFollow(base.rig, preview.edit, sourceId, listenerId) : [];
  const takeIn = () => {
    const now = new Date().toISOString();
    const done = reconcilePicture(base.rig, base.evaluation, {
      ...reading,
      id: `m-${crypto.randomUUID()}`,
      takenAt: now,
    });
    if (!done.ok) return;
    const edits = already
      ? [{ kind: 'remove-measurement' as const, measurementId: already.id }, done.edit]
      : [done.edit];
    if (dispatch(applyStep({ kind: 'batch', edits }, `Measured by ‘${label}’`)))
      navigate(`/rigs/${rigId}/sync?listener=${listenerId}&source=${sourceId}`);
  };
  useKey('a', 'Take it into the rig', takeIn, preview.ok);
  const types = findTypes(rig);
  return (
    <>
      <h2>This take speaks of</h2>
      <p className="row">
        <Choice
          label="Listener"
          value={listenerId}
          options={rig.listeners.filter((l) => readable.some((p) => p.listenerId === l.id)).map((l) => [l.id, l.name])}
          onChange={(id) => speak({ listenerId: id, sourceId })}
        />
        <Choice
          label="Source"
          value={sourceId}
          options={sources.map((p) => [p.sourceId, rig.sources.find((s) => s.id === p.sourceId)!.name])}
          onChange={(id) => speak({ listenerId, sourceId: id })}
        />
      </p>
      {!preview.ok ? (
        <p className="watch" style={{ marginTop: 10 }}>
          {preview.reason}
        </p>
      ) : (
        <>
          <p className="quiet" style={{ marginTop: 8 }}>
            {already
              ? 'It is in the rig already; taking it again replaces that figure.'
              : 'Taking it in replaces typical figures by a measured one.'}
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
                <td>{preview.measurement.kind === 'delay' ? preview.measurement.terms.length : 0} figures together</td>
                <td className="number">
                  <Why figure={preview.now}>{formatOffset(preview.now.value.nominal)}</Why>
                  <div className="small quiet">{formatSpread(preview.now)}</div>
                </td>
                <td className="number strong">
                  <Why figure={preview.after}>{formatOffset(preview.after.value.nominal, decimalsFor(found.sdMs))}</Why>
                  <div className="small quiet">
                    ±{formatNumber((preview.after.value.high - preview.after.value.low) / 2, decimalsFor(found.sdMs))}
                  </div>
                </td>
              </tr>
            </tbody>
          </table>
          {(found.offsetMs < preview.now.value.low || found.offsetMs > preview.now.value.high) && (
            <p className="watch">
              That is outside what such devices usually take: is it the right source and listener?
            </p>
          )}
          <h2>And so</h2>
          {follows.length === 0 ? (
            <p>It is in tolerance as it is: no delay has to be set for it.</p>
          ) : (
            <ul>
              {follows.map((c) => (
                <li key={`${c.deviceId}.${c.settingId}`}>
                  {deviceName(rig, c.deviceId)}, {findSetting(rig, types, c.deviceId, c.settingId)!.name}:{' '}
                  <span className="strong">{String(c.value)} ms</span>
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
