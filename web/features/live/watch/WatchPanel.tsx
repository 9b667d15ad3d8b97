import { Button } from '@chakra-ui/react';
import { useState } from 'react';
import type { WatchAlarm } from '#core/audio/measure/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { findListener } from '#core/model/rig/index.ts';
import { Choice, formatNumber, formatSpan, off, StateMark, sentence, Term } from '#web/shared/parts/index.ts';
import { watch as say, textOf } from '#words/index.ts';
import { ALARM_WORDS, stateOf } from './alarms.ts';
import { useWatchers } from './useWatchers.ts';
import { type Watcher, watchers } from './watchers.ts';

/** Inputs of this computer that are watched all session, in words that are read from three meters; what is not watched is said. */
export function WatchPanel({ rig }: { rig: Rig }) {
  const all = useWatchers();
  const [listenerId, setListenerId] = useState(rig.listeners[0]?.id ?? '');
  const [inputs, setInputs] = useState<readonly (readonly [string, string])[]>([]);
  const [inputId, setInputId] = useState('');
  const [failed, setFailed] = useState<string | null>(null);
  const start = async () => {
    setFailed(null);
    try {
      await watchers.start(inputId || null, listenerId);
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
          <Card key={w.id} watcher={w} carries={findListener(rig, w.listenerId)?.name ?? ''} />
        ))}
      </div>
      <div className="row no-print">
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

/** 'Nothing comes, for 0:00:12' */
const sayAlarm = ({ id, says, forS }: WatchAlarm): string =>
  `${sentence(textOf(says))}${id === 'clipping' ? '' : say.for({ forS: formatSpan(1000 * forS) })}`;

function Card({ watcher, carries }: { watcher: Watcher; carries: string }) {
  const { id, name, state, gone } = watcher;
  const mark = stateOf(watcher);
  const worst =
    gone !== null ? ALARM_WORDS.gone : state?.alarms[0] ? ALARM_WORDS[state.alarms[0].id] : state ? 'WELL' : 'WAITING';
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
        {wellAgo === null && say.noGoodSignalYet()}
        {typeof wellAgo === 'number' && wellAgo > 0 && say.lastOkAgo({ wellAgo: formatSpan(1000 * wellAgo) })}
      </p>
      <p className="small quiet fact">
        {state?.reading.peakDbfs != null && say.dbfsNow({ peakDbfs: formatNumber(state.reading.peakDbfs) })}
        {state?.usualLufs != null && say.lufsOverHalfMinute({ usualLufs: formatNumber(state.usualLufs) })}
      </p>
      <p className="row no-print">
        <Button
          {...off(state?.usualLufs == null ? say.notHeardLongEnough() : null)}
          onClick={() => watchers.callUsual(id)}
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
