import { Button, Input } from '@chakra-ui/react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Link, useParams } from 'react-router';
import { findDevice, findTypes, type Rig, settingOf } from '#core/rig/index.ts';
import { markersToCsv, markersToVtt, type Session } from '#core/run/index.ts';
import { actingSettings, evaluationAt } from '#core/signal/index.ts';
import { Choice, formatSpan, StateMark, saveAs, Term, useKey } from '#web/parts/index.ts';
import { tellDay, useAppDispatch } from '#web/store/index.ts';
import { WatchPanel } from '#web/watch/index.ts';
import { useWakeLock } from './useWakeLock.ts';

/** While it goes on: how long, breaks, mutes, markers, and where to go when something is wrong. */
export function During({ rig, session, hand }: { rig: Rig; session: Session | null; hand: boolean }) {
  const { rigId } = useParams();
  const awake = useWakeLock(session !== null);
  return (
    <>
      <Clock rig={rig} session={session} />
      <p className="small quiet">
        {awake === 'held'
          ? 'This screen stays awake.'
          : awake === 'withheld'
            ? 'This browser does not keep the screen awake here: set it so in its own settings.'
            : ''}
      </p>
      {!hand && <WatchPanel rig={rig} />}
      <Markers rig={rig} session={session} />
      <Mutes rig={rig} session={session} />
      {!hand && (
        <section aria-label="If something is wrong">
          <h2>If something is wrong</h2>
          <p>
            <Link to={`/rigs/${rigId}/trouble`}>Find what it is</Link> <kbd>!</kbd>: say what is heard and what still
            works, and you are told where to look first.
          </p>
        </section>
      )}
    </>
  );
}

const SECOND_MS = 1000;
const HOUR_MS = 3_600_000;

/** Read from three metres: how long it has gone on, and what is left of it. */
function Clock({ rig, session }: { rig: Rig; session: Session | null }) {
  const dispatch = useAppDispatch();
  const [nowMs, setNowMs] = useState(() => Date.now());
  useEffect(() => {
    if (!session) return;
    const timer = setInterval(() => setNowMs(Date.now()), SECOND_MS);
    return () => clearInterval(timer);
  }, [session]);
  const paused = session?.breaks.at(-1)?.to === null;
  useKey('p', paused ? 'The break is over' : 'A break begins', () => dispatch(tellDay({ kind: 'pause', on: !paused })));
  const goneMs = session ? Math.max(0, nowMs - Date.parse(session.beganAt)) : 0;
  const leftMs = rig.session.hours === undefined ? null : rig.session.hours * HOUR_MS - goneMs;
  return (
    <section className={`run-clock ${paused ? 'watch' : ''}`} aria-label="Clock">
      <p className="run-time fact" data-testid="run-clock">
        {formatSpan(goneMs)}
      </p>
      <p>
        {session === null
          ? 'It begins with the first thing that is told here.'
          : paused
            ? `Break, for ${formatSpan(nowMs - Date.parse(session.breaks.at(-1)!.from))}`
            : leftMs === null
              ? ''
              : leftMs >= 0
                ? `${formatSpan(leftMs)} left of ${rig.session.hours} h`
                : `${formatSpan(-leftMs)} over`}
      </p>
      <p className="row no-print">
        <Button onClick={() => dispatch(tellDay({ kind: 'pause', on: !paused }))}>
          {paused ? 'The break is over' : 'A break begins'} <kbd>p</kbd>
        </Button>
      </p>
    </section>
  );
}

/** Places in the recordings to come back to, by one key; a note may follow. */
function Markers({ rig, session }: { rig: Rig; session: Session | null }) {
  const dispatch = useAppDispatch();
  const [says, setSays] = useState('');
  const [from, setFrom] = useState<'began' | 'first'>('began');
  const field = useRef<HTMLInputElement>(null);
  const mark = (text: string) => {
    dispatch(tellDay({ kind: 'mark', says: text }));
    setSays('');
  };
  useKey('m', 'A marker, now', () => mark(''));
  useKey('n', 'A marker with a note', () => field.current?.focus());
  const markers = session?.markers ?? [];
  const startedAt = (from === 'first' && markers[0]?.at) || session?.beganAt || '';
  const name = `${rig.name}, markers`;
  return (
    <section aria-label="Markers">
      <div className="spread">
        <h2>
          <Term id="marker">Markers</Term>
        </h2>
        {session && markers.length > 0 && (
          <span className="row no-print">
            <Choice
              label="The recording began"
              value={from}
              onChange={(v) => setFrom(v as typeof from)}
              options={[
                ['began', 'recording began with the session'],
                ['first', 'recording began at the first marker'],
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
              Chapters, WebVTT
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
          Mark <kbd>m</kbd>
        </Button>
        <Input
          ref={field}
          aria-label="What it is"
          placeholder="with a note"
          width="320px"
          maxLength={300}
          value={says}
          onChange={(e) => setSays(e.target.value)}
        />
        <Button type="submit" disabled={says.trim() === ''}>
          Mark with the note <kbd>n</kbd>
        </Button>
      </form>
      {session && markers.length > 0 && (
        <ol className="run-marks">
          {[...markers].reverse().map((m) => (
            <li key={m.id}>
              <span className="fact">{formatSpan(Date.parse(m.at) - Date.parse(session.beganAt))}</span>
              <span>{m.says || 'Marker'}</span>
              <Button variant="plain" onClick={() => dispatch(tellDay({ kind: 'unmark', markId: m.id }))}>
                Take out
              </Button>
            </li>
          ))}
        </ol>
      )}
    </section>
  );
}

/** Who is muted, as told here: what the rig says, and what has been pressed since. */
function Mutes({ rig, session }: { rig: Rig; session: Session | null }) {
  const dispatch = useAppDispatch();
  const types = findTypes(rig);
  const acting = useMemo(() => actingSettings(evaluationAt(rig, null)), [rig]);
  const mutes = rig.devices.flatMap((device) =>
    types
      .get(device.typeId)!
      .settings.filter((s) => s.kind === 'mute' && !/-not-on-|-off$/.test(s.id) && acting.has(`${device.id}.${s.id}`))
      .map((spec) => {
        const key = `${device.id}.${spec.id}`;
        const drawn = settingOf(device, spec).value === true;
        return { key, deviceId: device.id, spec, drawn, muted: session?.mutes[key] ?? drawn };
      }),
  );
  if (mutes.length === 0) return null;
  const pressed = mutes.filter((m) => m.muted !== m.drawn);
  return (
    <section aria-label="Mutes">
      <h2>Mutes</h2>
      <p className={pressed.length > 0 ? 'watch' : 'quiet'}>
        {pressed.length === 0
          ? 'All stand as drawn. Press one here when you press it at the desk.'
          : `Otherwise than drawn: ${pressed.map((m) => `${findDevice(rig, m.deviceId)!.name}, ${m.spec.name} ${m.muted ? 'muted' : 'open'}`).join('; ')}.`}
      </p>
      <div className="run-mutes">
        {mutes.map((m) => (
          <Button
            key={m.key}
            aria-pressed={m.muted}
            onClick={() =>
              dispatch(tellDay({ kind: 'mute', deviceId: m.deviceId, settingId: m.spec.id, muted: !m.muted }))
            }
          >
            <StateMark state={m.muted ? 'stop' : 'good'} /> {findDevice(rig, m.deviceId)!.name}, {m.spec.name}:{' '}
            {m.muted ? 'muted' : 'open'}
          </Button>
        ))}
      </div>
    </section>
  );
}
