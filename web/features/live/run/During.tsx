import { Button, Input } from '@chakra-ui/react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useParams } from 'react-router';
import { markersToCsv, markersToVtt, type Session } from '#core/live/run/index.ts';
import { findDevice, findTypes, type Rig, settingKey, settingOf } from '#core/model/rig/index.ts';
import { actingSettings, evaluationAt } from '#core/signal/index.ts';
import { WatchPanel } from '#web/features/live/watch/index.ts';
import { Choice, formatSpan, off, rich, StateMark, saveAs, Term, useKey } from '#web/shared/parts/index.ts';
import { recordEvent, useAppDispatch } from '#web/shared/store/index.ts';
import { common, run as say } from '#words/index.ts';
import { useWakeLock } from './useWakeLock.ts';

/** While it goes on: how long, breaks, mutes, markers, and where to go when something is wrong. */
export function During({ rig, session, hand }: { rig: Rig; session: Session | null; hand: boolean }) {
  const { rigId } = useParams();
  const awake = useWakeLock(session !== null);
  return (
    <>
      <Clock rig={rig} session={session} />
      <p className="small quiet">
        {awake === 'held' ? say.thisScreenStaysAwake() : awake === 'withheld' ? say.thisBrowserCantKeep() : ''}
      </p>
      {!hand && <WatchPanel rigId={rigId!} rig={rig} />}
      <Markers rig={rig} session={session} />
      <Mutes rig={rig} session={session} />
      {!hand && (
        <section aria-label={say.ifSomethingGoesWrong()}>
          <h2>{say.ifSomethingGoesWrong()}</h2>
          <p>{rich(say.troubleshootSayWhatYou, {}, `/rigs/${rigId}/trouble`)}</p>
        </section>
      )}
    </>
  );
}

const SECOND_MS = 1000;
const HOUR_MS = 3_600_000;

/** Read from three meters: how long it has gone on, and what is left of it. */
function Clock({ rig, session }: { rig: Rig; session: Session | null }) {
  const dispatch = useAppDispatch();
  const [nowMs, setNowMs] = useState(() => Date.now());
  useEffect(() => {
    if (!session) return;
    const timer = setInterval(() => setNowMs(Date.now()), SECOND_MS);
    return () => clearInterval(timer);
  }, [session]);
  const paused = session?.breaks.at(-1)?.to === null;
  useKey('p', paused ? say.endBreak() : say.startBreak(), () => dispatch(recordEvent({ kind: 'pause', on: !paused })));
  const goneMs = session ? Math.max(0, nowMs - Date.parse(session.beganAt)) : 0;
  const leftMs = rig.session.hours === undefined ? null : rig.session.hours * HOUR_MS - goneMs;
  return (
    <section className={`run-clock ${paused ? 'watch' : ''}`} aria-label={say.clock()}>
      <p className="run-time fact" data-testid="run-clock">
        {formatSpan(goneMs)}
      </p>
      <p>
        {session === null
          ? say.clockStartsWithYour()
          : paused
            ? say.breakFor({ from: formatSpan(nowMs - Date.parse(session.breaks.at(-1)!.from)) })
            : leftMs === null
              ? ''
              : leftMs >= 0
                ? say.leftH({ leftMs: formatSpan(leftMs), hours: rig.session.hours ?? '' })
                : say.overTime({ leftMs: formatSpan(-leftMs) })}
      </p>
      <p className="row no-print">
        <Button onClick={() => dispatch(recordEvent({ kind: 'pause', on: !paused }))}>
          {paused ? say.endBreak() : say.startBreak()} <kbd>p</kbd>
        </Button>
      </p>
    </section>
  );
}

/** Markers: positions in the recordings to return to, by one key; a note may follow. */
function Markers({ rig, session }: { rig: Rig; session: Session | null }) {
  const dispatch = useAppDispatch();
  const [says, setSays] = useState('');
  const [from, setFrom] = useState<'began' | 'first'>('began');
  const field = useRef<HTMLInputElement>(null);
  const mark = (text: string) => {
    dispatch(recordEvent({ kind: 'mark', says: text }));
    setSays('');
  };
  useKey('m', say.addMarkerNow(), () => mark(''));
  useKey('n', say.addMarkerWithNote(), () => field.current?.focus());
  const markers = session?.markers ?? [];
  const startedAt = (from === 'first' && markers[0]?.at) || session?.beganAt || '';
  const name = `${rig.name}, markers`;
  return (
    <section aria-label={say.markers()}>
      <div className="spread">
        <h2>
          <Term id="marker">{say.markers()}</Term>
        </h2>
        {session && markers.length > 0 && (
          <span className="row no-print">
            <Choice
              label={say.recordingStarted()}
              value={from}
              onChange={(v) => setFrom(v as typeof from)}
              options={[
                ['began', say.recordingStartedWith()],
                ['first', say.recordingStartedAtFirst()],
              ]}
            />
            <Button onClick={() => saveAs(`${name}.csv`, markersToCsv(session, startedAt), 'text/csv')}>CSV</Button>
            <Button
              onClick={() =>
                saveAs(
                  `${name}.vtt`,
                  markersToVtt(session, startedAt, session.endedAt ?? new Date().toISOString()),
                  'text/vtt',
                )
              }
            >
              {say.chaptersWebvtt()}
            </Button>
          </span>
        )}
      </div>
      <form
        className="row no-print"
        onSubmit={(e) => {
          e.preventDefault();
          mark(says.trim());
          field.current?.blur();
        }}
      >
        <Button variant="solid" size="lg" onClick={() => mark('')}>
          {rich(say.markM, {})}
        </Button>
        <Input
          ref={field}
          aria-label={say.note()}
          placeholder={say.withNote()}
          width="320px"
          maxLength={300}
          value={says}
          onChange={(e) => setSays(e.target.value)}
        />
        <Button type="submit" {...off(says.trim() === '' ? common.typeNoteFirst() : null)}>
          {rich(say.markWithNoteN, {})}
        </Button>
      </form>
      {session && markers.length > 0 && (
        <ol className="run-marks">
          {[...markers].reverse().map((m) => (
            <li key={m.id}>
              <span className="fact">{formatSpan(Date.parse(m.at) - Date.parse(session.beganAt))}</span>
              <span>{m.says || say.marker()}</span>
              <Button variant="plain" onClick={() => dispatch(recordEvent({ kind: 'unmark', markId: m.id }))}>
                {common.remove()}
              </Button>
            </li>
          ))}
        </ol>
      )}
    </section>
  );
}

/** Who is muted, as recorded here: the rig, and what was pressed since. */
function Mutes({ rig, session }: { rig: Rig; session: Session | null }) {
  const dispatch = useAppDispatch();
  const types = findTypes(rig);
  const acting = useMemo(() => actingSettings(evaluationAt(rig, null)), [rig]);
  const mutes = rig.devices.flatMap((device) =>
    types
      .get(device.typeId)!
      .settings.filter(
        (s) => s.kind === 'mute' && !/-not-on-|-off$/.test(s.id) && acting.has(settingKey(device.id, s.id)),
      )
      .map((spec) => {
        const key = settingKey(device.id, spec.id);
        const drawn = settingOf(device, spec).value === true;
        return { key, deviceId: device.id, spec, drawn, muted: session?.mutes[key] ?? drawn };
      }),
  );
  if (mutes.length === 0) return null;
  const pressed = mutes.filter((m) => m.muted !== m.drawn);
  return (
    <section aria-label={say.mutes()}>
      <h2>{say.mutes()}</h2>
      <p className={pressed.length > 0 ? 'watch' : 'quiet'}>
        {pressed.length === 0
          ? say.allAsDrawnWhen()
          : say.differentFromDrawing({
              join: pressed
                .map(
                  (m) => `${findDevice(rig, m.deviceId)!.name}, ${m.spec.name} ${m.muted ? say.muted() : say.open()}`,
                )
                .join('; '),
            })}
      </p>
      <div className="run-mutes">
        {mutes.map((m) => (
          <Button
            key={m.key}
            aria-pressed={m.muted}
            onClick={() =>
              dispatch(recordEvent({ kind: 'mute', deviceId: m.deviceId, settingId: m.spec.id, muted: !m.muted }))
            }
          >
            <StateMark state={m.muted ? 'stop' : 'good'} /> {findDevice(rig, m.deviceId)!.name}, {m.spec.name}:{' '}
            {m.muted ? say.muted() : say.open()}
          </Button>
        ))}
      </div>
    </section>
  );
}
