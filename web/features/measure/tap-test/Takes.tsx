import { Button, chakra } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import type { Rig } from '#core/model/rig/index.ts';
import { isUnderWay, useWork, WorkLine } from '#web/shared/jobs/index.ts';
import {
  Choice,
  FileInput,
  formatDate,
  formatSpan,
  rich,
  StateMark,
  useFileDrop,
  useKey,
} from '#web/shared/parts/index.ts';
import { hideFaultFor, type Job } from '#web/shared/workers/index.ts';
import { common, tapTest as say } from '#words/index.ts';
import type { KeptTake } from './kept.ts';
import { type Recording, recordInput } from './record.ts';
import type { Tap } from './useTap.ts';

const ACCEPTED = '.wav,.mp3,.m4a,.flac,.ogg,.opus,.webm,.mp4,.mov,.mkv,audio/*,video/*';

interface Props {
  readonly rig: Rig;
  readonly tap: Tap;
  readonly onDone: () => void;
}

/** All takes at once: each is assigned to a destination by its name or content, or by the user. */
export function Takes({ rig, tap, onDone }: Props) {
  const chooser = useRef<HTMLInputElement>(null);
  const drop = useFileDrop(tap.addFiles);
  useKey('o', say.chooseTapTestTakes(), () => chooser.current?.click());
  return (
    <>
      <div className={`drop ${drop.over ? 'over' : ''}`} {...drop.target}>
        <FileInput chooser={chooser} label={say.tapTestTakes()} accept={ACCEPTED} onFiles={tap.addFiles} />
        <p>{say.dropOneTakePer()}</p>
        <chakra.p className="row" marginTop="8px">
          <Button variant="solid" onClick={() => chooser.current?.click()}>
            {rich(say.chooseTakesO, {})}
          </Button>
          <RecordHere onFile={(file) => tap.addFiles([file])} />
        </chakra.p>
      </div>
      <List rig={rig} tap={tap} />
      {tap.read.length > 0 && (
        <p className="row">
          <Button variant="solid" onClick={onDone}>
            {say.nextReadings()}
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
      const recording = await recordInput(say.inputTake());
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
        <Button onClick={() => setGoing(null)}>
          {say.stopRecording({ n0: formatSpan(Math.max(0, nowMs - going.since)) })}
        </Button>
      ) : (
        <Button onClick={() => void start()}>{say.recordInputThisComputer()}</Button>
      )}
      {failed && <span className="fix">{failed}</span>}
    </>
  );
}

function List({ rig, tap }: { rig: Rig; tap: Tap }) {
  if (tap.takes.length + tap.work.tasks.length === 0) return null;
  return (
    <ul className="plain-list tap-takes" aria-label={say.takes()}>
      {tap.takes.map((take) => (
        <TakeRow key={take.id} rig={rig} tap={tap} take={take} />
      ))}
      {tap.work.tasks.map((t) => (
        <li key={t.id}>
          <WorkLine
            task={t}
            name={t.name}
            onStop={() => tap.work.drop(t.id)}
            onAgain={() => tap.work.again(t.id)}
            onDrop={() => tap.work.drop(t.id)}
          />
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
        label={say.destination({ take: take.name })}
        value={take.listenerId ?? ''}
        options={[
          ...(take.listenerId === null ? [['', say.chooseDestination()] as [string, string]] : []),
          ...rig.listeners.map((l): [string, string] => [l.id, l.name]),
        ]}
        onChange={(listenerId) => tap.changeTake(take.id, { listenerId })}
      />
      <span>
        {take.name} <span className="quiet small fact">{formatDate(take.at)}</span>
      </span>
      <span className={found > 0 ? 'quiet' : 'watch'}>
        {say.values({
          found: found === 0 ? say.noTuneFound() : say.tunesFound({ count: found }),
          tunes: take.tunes.length,
        })}
      </span>
      <Button
        variant="plain"
        size="xs"
        aria-label={say.exclude({ take: take.name })}
        onClick={() => tap.removeTake(take.id)}
      >
        {common.exclude()}
      </Button>
    </li>
  );
}

/** A result that may be nothing, told from a job that was dropped. */
const oneOf = <T,>({ result, stop }: Job<T>): Job<readonly [T]> => ({ stop, result: result.then((r) => [r] as const) });

/** Without a desk at hand: stand-ins play through the rig as it truly might be, and a drill hides a fault in it. */
function StandIns({ rig, tap }: { rig: Rig; tap: Tap }) {
  const { task, run, drop } = useWork();
  const [says, setSays] = useState('');
  const lacking = rig.listeners.filter((l) => !tap.takes.some((t) => t.listenerId === l.id));
  const busy = tap.work.tasks.some(isUnderWay);
  const drill = tap.kept.drill;
  const begin = async () => {
    setSays('');
    const seed = Math.floor(Math.random() * 1e6);
    const found = await run({ name: say.hidingFault(), start: () => oneOf(hideFaultFor(rig, seed)) });
    if (!found) return;
    const [hidden] = found;
    if (!hidden) return setSays(say.nothingCanGoWrong());
    tap.change({ takes: [], desk: hidden.desk, drill: { fewest: [...hidden.fewest], over: null, wrong: 0 } });
  };
  return (
    <section aria-label={say.simulation()}>
      <h2>{say.noGearHereSimulate()}</h2>
      <p className="quiet">{say.simulatedSourcesPlayTunes()}</p>
      {drill?.over === null && (
        <p>
          <StateMark state="watch" /> {say.practiceIsOnSomethingIs()}
        </p>
      )}
      <div className="row">
        <Choice
          label={say.destinationToSimulate()}
          value=""
          options={[['', say.recordOne()], ...lacking.map((l): [string, string] => [l.id, l.name])]}
          onChange={(id) => id !== '' && tap.standIn([id])}
        />
        <Button disabled={lacking.length === 0 || busy} onClick={() => tap.standIn(lacking.map((l) => l.id))}>
          {say.recordAll({
            listeners:
              lacking.length > 0 && lacking.length < rig.listeners.length ? say.theOthers() : say.destinations(),
          })}
        </Button>
        <Button disabled={isUnderWay(task) || busy} onClick={() => void begin()}>
          {drill?.over === null ? say.practiceAgain() : say.practiceHideFault()}
        </Button>
        <span role="status" className="quiet">
          {says}
        </span>
        <WorkLine task={task} name={say.hidingFault()} onStop={drop} />
      </div>
    </section>
  );
}
