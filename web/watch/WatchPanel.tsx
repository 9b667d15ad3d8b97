import { Button } from '@chakra-ui/react';
import { useState } from 'react';
import type { WatchAlarm } from '#core/measure/index.ts';
import type { Rig } from '#core/rig/index.ts';
import { Choice, formatNumber, formatSpan, StateMark, Term } from '#web/parts/index.ts';
import { ALARM_WORDS, stateOf } from './alarms.ts';
import { useWatchers } from './useWatchers.ts';
import { type Watcher, watchers } from './watchers.ts';

/** Inputs of this computer that are watched all session, in words that are read from three metres; what is not watched is said. */
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
      setInputs(found.filter((d) => d.kind === 'audioinput').map((d, i) => [d.deviceId, d.label || `Input ${i + 1}`]));
    } catch (error) {
      setFailed(error instanceof Error ? error.message : 'The input cannot be opened.');
    }
  };
  const unwatched = rig.listeners.filter((l) => !all.some((w) => w.listenerId === l.id));
  return (
    <section aria-label="Watch">
      <h2>
        <Term id="watch">Watch</Term>
      </h2>
      <div className="watch-cards">
        {all.map((w) => (
          <Card key={w.id} watcher={w} carries={rig.listeners.find((l) => l.id === w.listenerId)?.name ?? ''} />
        ))}
      </div>
      <div className="row no-print">
        {inputs.length > 0 && (
          <Choice
            label="Input to watch"
            value={inputId}
            onChange={setInputId}
            options={[['', 'the usual input'], ...inputs]}
          />
        )}
        <span>carries</span>
        <Choice
          label="What it carries"
          value={listenerId}
          onChange={setListenerId}
          options={rig.listeners.map((l) => [l.id, l.name] as const)}
        />
        <Button onClick={() => void start()}>Watch an input</Button>
      </div>
      {failed && <p className="fix">{failed}</p>}
      <p className="quiet small">
        {unwatched.length > 0 ? `Not watched: ${unwatched.map((l) => l.name).join(', ')}. ` : ''}
        The browser asks for leave; nothing is kept. An input may be the cable that carries the mix.
      </p>
    </section>
  );
}

/** 'Nothing comes, for 0:00:12' */
const sayAlarm = ({ id, says, forS }: WatchAlarm): string =>
  `${says[0]!.toUpperCase()}${says.slice(1)}${id === 'clipping' ? '' : `, for ${formatSpan(1000 * forS)}`}`;

function Card({ watcher, carries }: { watcher: Watcher; carries: string }) {
  const { id, name, state, gone } = watcher;
  const mark = stateOf(watcher);
  const worst =
    gone !== null ? ALARM_WORDS.gone : state?.alarms[0] ? ALARM_WORDS[state.alarms[0].id] : state ? 'WELL' : 'WAITING';
  const wellAgo = state?.wellAgoS;
  return (
    <div className={`watch-card ${mark}`} data-testid="watch-card">
      <p>
        <span className="strong">{carries}</span> <span className="quiet">by {name}</span>
      </p>
      <p className="watch-word">
        <StateMark state={mark} /> {worst}
      </p>
      <p role="status">
        {gone ?? state?.alarms.map((a) => `${sayAlarm(a)}.`).join(' ')}
        {wellAgo === null && ' It was never well yet.'}
        {typeof wellAgo === 'number' && wellAgo > 0 && ` Last well ${formatSpan(1000 * wellAgo)} ago.`}
      </p>
      <p className="small quiet fact">
        {state?.reading.peakDbfs != null && `${formatNumber(state.reading.peakDbfs)} dBFS now`}
        {state?.usualLufs != null && `, ${formatNumber(state.usualLufs)} LUFS over half a minute`}
      </p>
      <p className="row no-print">
        <Button disabled={state?.usualLufs == null} onClick={() => watchers.callUsual(id)}>
          This is as usual
        </Button>
        <Button variant="plain" onClick={() => watchers.stop(id)}>
          Do not watch it
        </Button>
      </p>
    </div>
  );
}
