import { Button, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { type MadeWith, reconcilePicture } from '#core/desk-tests/reconcile/index.ts';
import { findSetting, findTypes, type Rig, settingKey, sourceIn } from '#core/model/rig/index.ts';
import { type DelaySetting, delaySettingsFor, deviceName, type Evaluation } from '#core/signal/index.ts';
import {
  Choice,
  decimalsFor,
  figures,
  formatDate,
  formatNumber,
  formatOffset,
  formatSpread,
  Head,
  rich,
  Table,
  useKey,
  Why,
} from '#web/shared/parts/index.ts';
import { applyStep, useAppDispatch } from '#web/shared/store/index.ts';
import { guessPair, offsetOf } from '#web/shared/take/index.ts';
import { common, takes as say, textOf } from '#words/index.ts';
import { settingsThatFollow } from './follows.ts';
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
  const found = offsetOf(take.look, notes)!;
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
  const [madeWith, setMadeWith] = useState<NamedMaking>('desk');
  const read = (id: string, takenAt: string) =>
    reconcilePicture(rig, {
      id,
      takenAt,
      label,
      takeId: take.id,
      sourceId,
      listenerId,
      madeWith,
      offsetMs: found.offsetMs,
      sdMs: found.sdMs,
      count: found.count,
    });
  const preview = read('preview', '2000-01-01T00:00:00Z');
  const before = preview.ok ? preview.replaces[0] : undefined;
  const isSame = preview.ok && before?.takeId === take.id;
  const isIn = isSame && before!.offsetMs === preview.measurement.offsetMs;
  const follows = preview.ok ? settingsThatFollow(rig, preview.edit, sourceId, listenerId) : [];
  const takeIn = () => {
    const done = read(`m-${crypto.randomUUID()}`, new Date().toISOString());
    if (done.ok && dispatch(applyStep(done.edit, say.measuredBy({ label }))))
      navigate(`/rigs/${rigId}/sync?listener=${listenerId}&source=${sourceId}`);
  };
  useKey('a', say.addToRigTitle(), takeIn, preview.ok && !isIn);
  const types = findTypes(rig);
  return (
    <>
      <h2>{say.recordedAt()}</h2>
      <div className="row">
        <Choice
          label={common.destination()}
          value={listenerId}
          options={rig.listeners.filter((l) => readable.some((p) => p.listenerId === l.id)).map((l) => [l.id, l.name])}
          onChange={(id) => speak({ listenerId: id, sourceId })}
        />
        <Choice
          label={common.source()}
          value={sourceId}
          options={sources.map((p) => [p.sourceId, sourceIn(rig, p.sourceId).name])}
          onChange={(id) => speak({ listenerId, sourceId: id })}
        />
      </div>
      {!preview.ok ? (
        <chakra.p className="watch" marginTop="10px">
          {textOf(preview.reason)}
        </chakra.p>
      ) : (
        <>
          {!isSame && (
            <MadeWithChoice
              settings={delaySettingsFor(rig, evaluation, listenerId).filter(
                (s) => s.delaysSound.includes(sourceId) || s.delaysPicture.includes(sourceId),
              )}
              value={madeWith}
              onChange={setMadeWith}
            />
          )}
          <chakra.p className="quiet" marginTop="8px">
            {isIn
              ? say.inRigSince({ takenAt: formatDate(before!.takenAt) })
              : isSame
                ? say.inRigItsMarks()
                : before
                  ? say.replacesWhatMeasuredOn({ before: before.label, takenAt: formatDate(before.takenAt) })
                  : say.addingItReplacesTypical()}
          </chakra.p>
          <Table>
            <Head columns={[say.audioMinusVideo(), figures(say.nowHead()), figures(say.resultTitle())]} />
            <tbody>
              <tr>
                <td>{say.figuresTogether({ terms: preview.measurement.terms.length })}</td>
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
          </Table>
          {(found.offsetMs < preview.expected.value.low || found.offsetMs > preview.expected.value.high) && (
            <p className="watch">{say.thatsOutsideUsualRange()}</p>
          )}
          <h2>{say.whatFollows()}</h2>
          {follows.length === 0 ? (
            <p>{say.withinToleranceNoDelay()}</p>
          ) : (
            <ul>
              {follows.map((c) => (
                <li key={settingKey(c.deviceId, c.settingId)}>
                  {deviceName(rig, c.deviceId)}, {findSetting(rig, types, c.deviceId, c.settingId)!.name}:{' '}
                  <span className="strong">{String(c.value)} ms</span>
                </li>
              ))}
            </ul>
          )}
          {!isIn && (
            <chakra.p marginTop="12px">
              <Button variant="solid" onClick={takeIn}>
                {rich(say.addToRigKeyed, {})}
              </Button>
            </chakra.p>
          )}
        </>
      )}
    </>
  );
}

type NamedMaking = Extract<MadeWith, string>;

interface MadeWithProps {
  readonly settings: readonly DelaySetting[];
  readonly value: NamedMaking;
  readonly onChange: (value: NamedMaking) => void;
}

/** A take knows nothing of the delays that were set while it was made: that has to be said, where there are any. */
function MadeWithChoice({ settings, value, onChange }: MadeWithProps) {
  const acting = settings.filter((s) => s.value !== 0 || s.task);
  if (acting.length === 0) return null;
  const named = (at: (s: DelaySetting) => unknown) =>
    acting.map((s) => `${s.spec.name} ${String(at(s))} ${s.spec.unit}`).join(', ');
  return (
    <chakra.div className="row" marginTop="10px">
      {say.delaysSetDuringTake()}
      <Choice
        label={say.delaysSetDuringTake()}
        value={value}
        onChange={(v) => onChange(v as NamedMaking)}
        options={[
          ['desk', say.asDeskIsNow({ value: named((s) => (s.task ? s.task.before.value : s.value)) })],
          ...(acting.some((s) => s.task) ? [['drawn', say.toDosDone({ value: named((s) => s.value) })] as const] : []),
          ['none', say.noDelaySet()],
        ]}
      />
    </chakra.div>
  );
}
