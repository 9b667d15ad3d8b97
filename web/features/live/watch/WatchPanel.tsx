import { Button } from '@chakra-ui/react';
import { useState } from 'react';
import type { WatchAlarm } from '#core/audio/measure/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { findListener } from '#core/model/rig/index.ts';
import { mainVoiceOf } from '#core/signal/index.ts';
import { Choice, formatNumber, formatSpan, off, StateMark, sentence, Term } from '#web/shared/parts/index.ts';
import { watch as say, textOf } from '#words/index.ts';
import { ALARM_WORDS, seenBy, stateOf } from './alarms.ts';
import { keepWatched, readWatched } from './kept.ts';
import { Suspected } from './Suspected.tsx';
import { useWatchers } from './useWatchers.ts';
import { type Watcher, watchers } from './watchers.ts';

/** Inputs of this computer that are watched all session, in words that are read from three meters; what is not watched is said. */
export function WatchPanel({ rigId, rig }: { rigId: string; rig: Rig }) {
  const all = useWatchers();
  const [listenerId, setListenerId] = useState(rig.listeners[0]?.id ?? '');
  const [inputs, setInputs] = useState<readonly (readonly [string, string])[]>([]);
  const [inputId, setInputId] = useState('');
  const [failed, setFailed] = useState<string | null>(null);
  const seen = seenBy(all);
  const before = readWatched(rigId);
  const again = before.filter(
    (b) => rig.listeners.some((l) => l.id === b.listenerId) && !all.some((w) => w.listenerId === b.listenerId),
  );
  const startAgain = async () => {
    setFailed(null);
    const failures: string[] = [];
    for (const { listenerId: carried, inputId: id, name } of again)
      await watchers
        .start(id, carried, { voice: expectsVoice(rig, carried) })
        .catch((error: Error) => failures.push(say.notWatchedAgain({ name, why: error.message })));
    if (failures.length > 0) setFailed(failures.join(' '));
  };
  const start = async () => {
    setFailed(null);
    try {
      const last = before.find((b) => b.listenerId === listenerId);
      const now = await watchers.start(inputId || null, listenerId, {
        voice: expectsVoice(rig, listenerId),
        before: last,
      });
      if (!last || last.name === now.name) keepWatched(rigId, now);
      const found = await navigator.mediaDevices.enumerateDevices();
      setInputs(
        found.filter((d) => d.kind === 'audioinput').map((d, i) => [d.deviceId, d.label || say.input({ n1: i + 1 })]),
      );
    } catch (error) {
      setFailed(error instanceof Error ? error.message : say.inputCantBeOpened());
    }
  };
  const unwatched = rig.listeners.filter((l) => !all.some((w) => w.listenerId === l.id));
  return (
    <section aria-label={say.watch()}>
      <h2>
        <Term id="watch">{say.watch()}</Term>
      </h2>
      <div className="watch-cards">
        {all.map((w) => (
          <Card
            key={w.id}
            watcher={w}
            carries={findListener(rig, w.listenerId)?.name ?? ''}
            onUsual={() => {
              watchers.callUsual(w.id);
              keepWatched(rigId, { listenerId: w.listenerId, inputId: w.id, name: w.name });
            }}
          />
        ))}
      </div>
      {seen.some((s) => s.symptomId !== null) && <Suspected rig={rig} seen={seen} />}
      <div className="row no-print">
        {again.length > 0 && (
          <Button onClick={() => void startAgain()}>
            {say.watchAsLastTime({ inputs: again.map((a) => a.name).join(', ') })}
          </Button>
        )}
        {inputs.length > 0 && (
          <Choice
            label={say.inputToWatch()}
            value={inputId}
            onChange={setInputId}
            options={[['', say.defaultInput()], ...inputs]}
          />
        )}
        <span>{say.carries()}</span>
        <Choice
          label={say.whatItCarries()}
          value={listenerId}
          onChange={setListenerId}
          options={rig.listeners.map((l) => [l.id, l.name] as const)}
        />
        <Button onClick={() => void start()}>{say.watchInput()}</Button>
      </div>
      {failed && <p className="fix">{failed}</p>}
      <p className="quiet small">
        {say.askFirst({
          join:
            unwatched.length > 0
              ? `${say.notMonitored({ destinations: unwatched.map((l) => l.name).join(', ') })} `
              : '',
        })}
      </p>
    </section>
  );
}

/** Whether the plan has the main voice come there. */
const expectsVoice = (rig: Rig, listenerId: string): boolean => {
  const voice = mainVoiceOf(rig);
  return rig.plan.some((c) => c.listenerId === listenerId && c.sourceId === voice && c.want === 'must');
};

/** 'Nothing comes, for 0:00:12' */
const sayAlarm = ({ id, says, forS }: WatchAlarm): string =>
  `${sentence(textOf(says))}${id === 'clipping' ? '' : say.for({ forS: formatSpan(1000 * forS) })}`;

function Card({ watcher, carries, onUsual }: { watcher: Watcher; carries: string; onUsual: () => void }) {
  const { id, name, state, gone, before } = watcher;
  const mark = stateOf(watcher);
  const worst =
    gone !== null
      ? ALARM_WORDS.gone
      : state?.alarms[0]
        ? ALARM_WORDS[state.alarms[0].id]
        : before !== null
          ? ALARM_WORDS['other-device']
          : state
            ? say.well()
            : say.waiting();
  const wellAgo = state?.secondsSinceGood;
  return (
    <div className={`watch-card ${mark}`} data-testid="watch-card">
      <p>
        <span className="strong">{carries}</span> <span className="quiet">{say.byInput({ name })}</span>
      </p>
      <p className="watch-word">
        <StateMark state={mark} /> {worst}
      </p>
      <p role="status">
        {gone ?? state?.alarms.map((a) => `${sayAlarm(a)}.`).join(' ')}
        {gone === null && before !== null && ` ${say.cameOnBefore({ before, now: name })}`}
        {wellAgo === null && say.noGoodSignalYet()}
        {typeof wellAgo === 'number' && wellAgo > 0 && say.lastOkAgo({ wellAgo: formatSpan(1000 * wellAgo) })}
      </p>
      <p className="small quiet fact">
        {state?.reading.peakDbfs != null && say.dbfsNow({ peakDbfs: formatNumber(state.reading.peakDbfs) })}
        {state?.usualLufs != null && say.lufsOverHalfMinute({ usualLufs: formatNumber(state.usualLufs) })}
      </p>
      <p className="row no-print">
        <Button
          {...off(state?.usualLufs == null && before === null ? say.notHeardLongEnough() : null)}
          onClick={onUsual}
        >
          {say.setAsNormal()}
        </Button>
        <Button variant="plain" onClick={() => watchers.stop(id)}>
          {say.stopWatching()}
        </Button>
      </p>
    </div>
  );
}
