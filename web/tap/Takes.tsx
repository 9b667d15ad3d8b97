import { Button } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import type { Rig } from '#core/rig/index.ts';
import { Choice, count, FileInput, formatDate, formatSpan, StateMark, useFileDrop, useKey } from '#web/parts/index.ts';
import { hideFaultFor, type Job } from '#web/workers/index.ts';
import type { KeptTake } from './kept.ts';
import { type Recording, recordInput } from './record.ts';
import type { Tap } from './useTap.ts';

const ACCEPTED = '.wav,.mp3,.m4a,.flac,.ogg,.opus,.webm,.mp4,.mov,.mkv,audio/*,video/*';

interface Props {
  readonly rig: Rig;
  readonly tap: Tap;
  readonly onDone: () => void;
}

/** The takes in a heap: each finds its listener by its name or by what it holds, or is told whose it is. */
export function Takes({ rig, tap, onDone }: Props) {
  const chooser = useRef<HTMLInputElement>(null);
  const drop = useFileDrop(tap.addFiles);
  useKey('o', 'Choose takes of the tap', () => chooser.current?.click());
  return (
    <>
      <div className={`drop ${drop.over ? 'over' : ''}`} {...drop.target}>
        <FileInput chooser={chooser} label="Takes of the tap" accept={ACCEPTED} onFiles={tap.addFiles} />
        <p>
          Drop every listener’s take here. One that is named after its listener finds its place by that, the others by
          what they hold; a file of many tracks is a listener a track, on one clock.
        </p>
        <p className="row" style={{ marginTop: 8 }}>
          <Button variant="solid" onClick={() => chooser.current?.click()}>
            Choose takes <kbd>o</kbd>
          </Button>
          <RecordHere onFile={(file) => tap.addFiles([file])} />
        </p>
      </div>
      <List rig={rig} tap={tap} />
      {tap.read.length > 0 && (
        <p className="row">
          <Button variant="solid" onClick={onDone}>
            On to the readings
          </Button>
        </p>
      )}
      <StandIns rig={rig} tap={tap} />
    </>
  );
}

function RecordHere({ onFile }: { onFile: (file: File) => void }) {
  const [going, setGoing] = useState<{ recording: Recording; since: number } | null>(null);
  const [nowMs, setNowMs] = useState(0);
  const [failed, setFailed] = useState<string | null>(null);
  useEffect(() => {
    if (!going) return;
    const timer = setInterval(() => setNowMs(Date.now()), 500);
    return () => {
      clearInterval(timer);
      going.recording.stop();
    };
  }, [going]);
  const start = async () => {
    setFailed(null);
    try {
      const recording = await recordInput('An input of this computer');
      setNowMs(Date.now());
      setGoing({ recording, since: Date.now() });
      void recording.file.then(onFile);
    } catch (error) {
      setFailed(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <>
      {going ? (
        <Button onClick={() => setGoing(null)}>Stop recording, {formatSpan(Math.max(0, nowMs - going.since))}</Button>
      ) : (
        <Button onClick={() => void start()}>Record an input of this computer</Button>
      )}
      {failed && <span className="fix">{failed}</span>}
    </>
  );
}

function List({ rig, tap }: { rig: Rig; tap: Tap }) {
  if (tap.takes.length + tap.working.length === 0) return null;
  return (
    <ul className="plain-list tap-takes" aria-label="Takes">
      {tap.takes.map((take) => (
        <TakeRow key={take.id} rig={rig} tap={tap} take={take} />
      ))}
      {tap.working.map((w) => (
        <li key={w.id} className="row">
          {w.failed === null ? (
            <>
              <span>{w.name}</span>
              <progress value={w.done} max={1} aria-label={`Reading ${w.name}`} />
            </>
          ) : (
            <>
              <span className="fix">
                <StateMark state="fix" /> {w.name}: {w.failed}
              </span>
              <Button size="xs" onClick={() => tap.dismiss(w.id)}>
                Put away
              </Button>
            </>
          )}
        </li>
      ))}
    </ul>
  );
}

function TakeRow({ rig, tap, take }: { rig: Rig; tap: Tap; take: KeptTake }) {
  const found = take.tunes.filter((t) => t.word === 'found').length;
  return (
    <li className="row">
      <Choice
        label={`Whose take ${take.name} is`}
        value={take.listenerId ?? ''}
        options={[
          ...(take.listenerId === null ? [['', 'Whose is it?'] as [string, string]] : []),
          ...rig.listeners.map((l): [string, string] => [l.id, l.name]),
        ]}
        onChange={(listenerId) => tap.changeTake(take.id, { listenerId })}
      />
      <span>
        {take.name} <span className="quiet small fact">{formatDate(take.at)}</span>
      </span>
      <span className={found > 0 ? 'quiet' : 'watch'}>
        {found === 0 ? 'no tune found' : `${count(found, 'tune')} found`} of {take.tunes.length}
      </span>
      <Button variant="plain" size="xs" aria-label={`Leave ${take.name} out`} onClick={() => tap.removeTake(take.id)}>
        Leave out
      </Button>
    </li>
  );
}

/** Without a desk at hand: stand-ins play through the rig as it truly might be, and a drill hides a fault in it. */
function StandIns({ rig, tap }: { rig: Rig; tap: Tap }) {
  const [job, setJob] = useState<Job<unknown> | null>(null);
  const [says, setSays] = useState('');
  useEffect(() => () => job?.stop(), [job]);
  const lacking = rig.listeners.filter((l) => !tap.takes.some((t) => t.listenerId === l.id));
  const busy = tap.working.some((w) => w.failed === null);
  const drill = tap.kept.drill;
  const begin = () => {
    const mine = hideFaultFor(rig, Math.floor(Math.random() * 1e6));
    setSays('Hiding something…');
    setJob(mine);
    mine.result
      .then((hidden) => {
        if (!hidden) return setSays('Nothing can go wrong on this rig that a tap would find.');
        setSays('');
        tap.change({ takes: [], desk: hidden.desk, drill: { fewest: [...hidden.fewest], over: null, wrong: 0 } });
      })
      .catch((error: unknown) => setSays(error instanceof Error ? error.message : String(error)))
      .finally(() => setJob(null));
  };
  return (
    <section aria-label="Stand-ins">
      <h2>Without a desk at hand</h2>
      <p className="quiet">
        Stand-ins play the tunes through this rig, with true delays and clocks that the drawing does not know. Every
        take is made as sound and read as any other.
      </p>
      {drill?.over === null && (
        <p>
          <StateMark state="watch" /> A drill is on: something is wrong at this desk that the drawing does not show.
          Find it with as few takes as you can.
        </p>
      )}
      <div className="row">
        <Choice
          label="Listener to be recorded by a stand-in"
          value=""
          options={[['', 'Record one…'], ...lacking.map((l): [string, string] => [l.id, l.name])]}
          onChange={(id) => id !== '' && tap.standIn([id])}
        />
        <Button disabled={lacking.length === 0 || busy} onClick={() => tap.standIn(lacking.map((l) => l.id))}>
          Record all {lacking.length > 0 && lacking.length < rig.listeners.length ? 'others' : 'listeners'}
        </Button>
        <Button disabled={job !== null || busy} onClick={begin}>
          {drill?.over === null ? 'Another drill' : 'Drill: hide a fault'}
        </Button>
        <span role="status" className="quiet">
          {says}
        </span>
      </div>
    </section>
  );
}
