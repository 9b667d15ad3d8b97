import { Button } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import { placeOfTask, sayTask } from '#core/live/next/index.ts';
import { type Rig, startHistory } from '#core/model/rig/index.ts';
import { deviceName, isTooLarge } from '#core/signal/index.ts';
import { AheadProvider, NextScreen, Told } from '#web/features/live/next/index.ts';
import { RunScreen } from '#web/features/live/run/index.ts';
import { FileInput } from '#web/shared/parts/index.ts';
import {
  api,
  isOffline,
  openRig,
  readDraft,
  recordEvent,
  sayProblem,
  selectRig,
  selectServerRevision,
  selectSession,
  uploadIdOf,
  useAppDispatch,
  useAppSelector,
  useJournal,
} from '#web/shared/store/index.ts';
import { useSendTake } from '#web/shared/take/index.ts';
import { common, next, phone as say, textOf } from '#words/index.ts';
import { PhoneTunes } from './PhoneTunes.tsx';

const LOOK_EVERY_MS = 15_000;

const VIEWS = ['run', 'next', 'todo', 'tunes'] as const;
type View = (typeof VIEWS)[number];

function sayView(view: View, rig: Rig): string {
  if (view === 'todo') return say.toDo({ tasks: rig.tasks.length });
  if (view === 'next') return next.title();
  return view === 'run' ? say.run() : say.testTunes();
}

/** One rig in the hand: its run, what is to do, and takes for Measure. It is read here and never changed. */
export function PhoneRig({ rigId }: { rigId: string }) {
  const dispatch = useAppDispatch();
  const rig = useAppSelector(selectRig);
  const record = api.useRigQuery(rigId, { pollingInterval: LOOK_EVERY_MS });
  useJournal(rigId);
  const serverRevision = useAppSelector(selectServerRevision);
  const { refetch } = record;
  const isOld = serverRevision !== null && record.data !== undefined && serverRevision > record.data.revision;
  // What the desk changes is seen here a moment later.
  useEffect(() => {
    if (isOld) void refetch();
  }, [isOld, refetch]);
  const [tooLarge, setTooLarge] = useState(false);
  const revision = record.data?.revision;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the document is that of its revision
  useEffect(() => {
    const document = record.data?.document;
    if (document !== undefined && isTooLarge(document)) setTooLarge(true);
    else if (document !== undefined)
      dispatch(openRig({ rigId, history: startHistory(document), revision: revision!, save: 'saved' }));
    else if (record.isError) {
      // The desk does not answer: as it was when it was last read here.
      const draft = readDraft(rigId);
      if (draft)
        dispatch(openRig({ rigId, history: startHistory(draft.history.rig), revision: draft.revision, save: 'saved' }));
    }
  }, [rigId, revision, record.isError, dispatch]);
  const [view, setView] = useState<View>('run');
  if (tooLarge)
    return (
      <main className="page hand">
        <p>{say.thisRigIsToo()}</p>
        <Link to="/hand">{say.rigs()}</Link>
      </main>
    );
  if (!rig && record.isError)
    return (
      <main className="page hand">
        <p className="fix" role="alert">
          {isOffline(record.error) ? say.cantReachComputerIs() : sayProblem(record.error)}
        </p>
        <p className="row">
          <Button size="lg" onClick={() => void record.refetch()}>
            {common.tryAgain()}
          </Button>
          <Link to="/hand">{say.rigs()}</Link>
        </p>
      </main>
    );
  if (!rig) return <p className="page quiet">{say.openingRig()}</p>;
  return (
    <div className="hand">
      <nav className="hand-top" aria-label={say.onPhone()}>
        <Link to="/hand">{say.rigs()}</Link>
        <span className="strong">{rig.name}</span>
        {VIEWS.filter((v) => v !== view).map((v) => (
          <Button key={v} size="sm" onClick={() => setView(v)}>
            {sayView(v, rig)}
          </Button>
        ))}
      </nav>
      {view === 'run' && <RunScreen hand />}
      {view === 'next' && (
        <AheadProvider rig={rig}>
          <NextScreen hand />
        </AheadProvider>
      )}
      {view === 'todo' && <ToDo rig={rig} />}
      {view === 'tunes' && <PhoneTunes rig={rig} />}
    </div>
  );
}

/** The to-do list; a tick is sent to the desk, which draws the task as done. */
function ToDo({ rig }: { rig: Rig }) {
  const dispatch = useAppDispatch();
  const told = useAppSelector(selectSession)?.tasks ?? {};
  return (
    <main className="page">
      <h1>{say.addTasks()}</h1>
      {rig.tasks.length === 0 && <p className="quiet">{say.nothingToDo()}</p>}
      <ul className="run-list">
        {rig.tasks.map((task) => {
          const done = told[task.id] !== undefined && told[task.id]! >= task.openedAt;
          return (
            <li key={task.id} className={done ? 'quiet' : ''}>
              <p>
                <span className="strong">{deviceName(rig, placeOfTask(rig, task).deviceId)}</span>:{' '}
                {textOf(sayTask(rig, task))}
              </p>
              {done ? (
                <Told />
              ) : (
                <Button size="lg" onClick={() => dispatch(recordEvent({ kind: 'task', taskId: task.id }))}>
                  {say.done()}
                </Button>
              )}
            </li>
          );
        })}
      </ul>
      <SendTake />
    </main>
  );
}

/** A take of the phone's own recorder: it is measured on Measure, not here. */
function SendTake() {
  const chooser = useRef<HTMLInputElement>(null);
  const [says, setSays] = useState('');
  const sendTake = useSendTake();
  const send = async (file: File) => {
    setSays('');
    if (await sendTake(uploadIdOf(file), file)) setSays(say.isInMeasureOn({ file: file.name }));
  };
  return (
    <section>
      <h2>{say.sendTakeToMeasure()}</h2>
      <p className="quiet">{say.recordWithYourPhones()}</p>
      <Button onClick={() => chooser.current?.click()}>{say.chooseTake()}</Button>
      <FileInput
        chooser={chooser}
        label={say.takeForMeasure()}
        accept="audio/*,video/*,.wav"
        onFile={(file) => void send(file)}
      />
      <p role="status">{says}</p>
    </section>
  );
}
