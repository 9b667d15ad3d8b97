import { Button } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import { type SoundPrint, soundPrint } from '#core/audio/measure/index.ts';
import { figuresOfPrint, type PrintDifference, printBefore, type Session, sameAs } from '#core/live/run/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { findListener } from '#core/model/rig/index.ts';
import { type OpenPieces, openPieces } from '#web/shared/listen/index.ts';
import { Choice, figures, formatNumber, Head, off, Progress, StateMark, Table, Term } from '#web/shared/parts/index.ts';
import { newId, recordEvent, useAppDispatch } from '#web/shared/store/index.ts';
import { common, log as say, textOf } from '#words/index.ts';

const SECONDS = 15;
const SIDES = 2;
const LOOK_MS = 250;

interface Recording {
  readonly pieces: (readonly Float32Array[])[];
  frames: number;
  rateHz: number;
}

/** One spoken sentence at an input, held against the last session that went well: what differs comes first. */
export function SameAsLast({ rig, sessions }: { rig: Rig; sessions: readonly Session[] }) {
  const dispatch = useAppDispatch();
  const [listenerId, setListenerId] = useState(rig.listeners[0]?.id ?? '');
  const [gone, setGone] = useState<number | null>(null);
  const [print, setPrint] = useState<SoundPrint | null>(null);
  const [kept, setKept] = useState(false);
  const [failed, setFailed] = useState<string | null>(null);
  const open = useRef<OpenPieces | null>(null);
  const timer = useRef<ReturnType<typeof setInterval>>(undefined);
  const stop = () => {
    clearInterval(timer.current);
    open.current?.stop();
    open.current = null;
    setGone(null);
  };
  useEffect(
    () => () => {
      clearInterval(timer.current);
      open.current?.stop();
    },
    [],
  );
  const begin = async () => {
    setFailed(null);
    setPrint(null);
    setKept(false);
    const heard: Recording = { pieces: [], frames: 0, rateHz: 0 };
    try {
      open.current = await openPieces(
        null,
        SIDES,
        (pieces, rateHz) => {
          heard.pieces.push(pieces);
          heard.frames += pieces[0]?.length ?? 0;
          heard.rateHz = rateHz;
        },
        (why) => {
          stop();
          setFailed(why);
        },
      );
    } catch (error) {
      return setFailed(error instanceof Error ? error.message : say.inputCantBeOpened());
    }
    setGone(0);
    timer.current = setInterval(() => {
      const seconds = heard.rateHz === 0 ? 0 : heard.frames / heard.rateHz;
      setGone(seconds);
      if (seconds < SECONDS) return;
      stop();
      setPrint(soundPrint(joined(heard), heard.rateHz));
    }, LOOK_MS);
  };
  const before = printBefore(sessions, listenerId);
  const listener = findListener(rig, listenerId);
  const keep = () => {
    if (!print || !listener) return;
    for (const figure of figuresOfPrint(listenerId, listener.name, print, newId())) dispatch(recordEvent(figure));
    setKept(true);
  };
  if (!listener) return null;
  return (
    <section aria-label={say.sameAsLastTime()}>
      <h2>
        <Term id="same-as-last">{say.sameAsLastTimeTitle()}</Term>
      </h2>
      <div className="row no-print">
        <span>{say.inputCarries()}</span>
        <Choice
          label={say.destinationInputCarries()}
          value={listenerId}
          onChange={setListenerId}
          options={rig.listeners.map((l) => [l.id, l.name] as const)}
        />
        <Button onClick={() => (gone === null ? void begin() : stop())}>
          {gone === null ? say.recordSentence() : common.stop()}
        </Button>
      </div>
      {gone !== null && (
        <p className="run-step" role="status">
          <span className="run-says">{say.sevenBoatsLieAt()}</span>
          <br />
          {say.sayItTwiceIn()} <Progress value={gone} max={SECONDS} label={say.secondsRecorded()} />
        </p>
      )}
      {failed && <p className="fix">{failed}</p>}
      {print && !before && <p>{say.noEarlierRecordingKeep({ listener: listener.name })}</p>}
      {print && before && <Differences differences={sameAs(print, before)} />}
      {print && (
        <p className="row">
          <Button variant="solid" {...off(kept ? say.keptAlready() : null)} onClick={keep}>
            {kept ? say.savedWithThisSession() : say.saveWithThisSession()}
          </Button>
        </p>
      )}
    </section>
  );
}

function joined({ pieces, frames }: Recording): Float32Array[] {
  const sides = pieces.at(-1)?.length ?? 1;
  return Array.from({ length: sides }, (_, c) => {
    const all = new Float32Array(frames);
    let at = 0;
    for (const piece of pieces) {
      // An input that became stereo while it ran had one side before: both had it.
      const side = piece[c] ?? piece[0]!;
      all.set(side, at);
      at += side.length;
    }
    return all;
  });
}

function Differences({ differences }: { differences: readonly PrintDifference[] }) {
  const figure = (value: number | null, unit: string) =>
    value === null ? common.none() : `${formatNumber(value, unit === 'Hz' ? 0 : 1)} ${unit}`;
  const same = differences.every((d) => d.state === 'good');
  return (
    <>
      <p className={same ? 'good' : differences[0]!.state}>
        <StateMark state={same ? 'good' : differences[0]!.state} />{' '}
        {same ? say.sameAsLastTimeSentence() : say.notSameAsLast()}
      </p>
      <Table tight aria-label={say.comparedWithLastTime()}>
        <Head columns={[say.figure(), figures(say.nowHead()), figures(say.lastTime()), say.possibleCause()]} />
        <tbody>
          {differences.map((d) => (
            <tr key={d.id}>
              <td>
                <StateMark state={d.state} /> {textOf(d.label)}
              </td>
              <td className="number">{figure(d.now, d.unit)}</td>
              <td className="number">{figure(d.before, d.unit)}</td>
              <td className="quiet">{textOf(d.says)}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </>
  );
}
