import { Button } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import { type SoundPrint, soundPrint } from '#core/measure/index.ts';
import type { Rig } from '#core/rig/index.ts';
import { figuresOfPrint, type PrintDifference, printBefore, type Session, sameAs } from '#core/run/index.ts';
import { type OpenPieces, openPieces } from '#web/listen/index.ts';
import { Choice, formatNumber, StateMark, Term } from '#web/parts/index.ts';
import { newId, tellDay, useAppDispatch } from '#web/store/index.ts';

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
      return setFailed(error instanceof Error ? error.message : 'The input cannot be opened.');
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
  const listener = rig.listeners.find((l) => l.id === listenerId);
  const keep = () => {
    if (!print || !listener) return;
    for (const figure of figuresOfPrint(listenerId, listener.name, print, newId())) dispatch(tellDay(figure));
    setKept(true);
  };
  if (!listener) return null;
  return (
    <section aria-label="Same as last time">
      <h2>
        <Term id="same-as-last">Same as last time?</Term>
      </h2>
      <div className="row no-print">
        <span>The input carries</span>
        <Choice
          label="What the input carries"
          value={listenerId}
          onChange={setListenerId}
          options={rig.listeners.map((l) => [l.id, l.name] as const)}
        />
        <Button onClick={() => (gone === null ? void begin() : stop())}>
          {gone === null ? 'Say the sentence' : 'Stop'}
        </Button>
      </div>
      {gone !== null && (
        <p className="run-step" role="status">
          <span className="run-says">
            “Seven boats lie at the quay tonight; whoever speaks first pays for the tea.”
          </span>
          <br />
          Say it twice as you always do, with a rest between.{' '}
          <progress value={gone} max={SECONDS} aria-label="Seconds heard" />
        </p>
      )}
      {failed && <p className="fix">{failed}</p>}
      {print && !before && (
        <p>Nothing was kept of {listener.name} before: keep this one, and the next is held against it.</p>
      )}
      {print && before && <Differences differences={sameAs(print, before)} />}
      {print && (
        <p className="row">
          <Button variant="solid" disabled={kept} onClick={keep}>
            {kept ? 'Kept with this session' : 'Keep it with this session'}
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
  const say = (value: number | null, unit: string) =>
    value === null ? 'none' : `${formatNumber(value, unit === 'Hz' ? 0 : 1)} ${unit}`;
  const same = differences.every((d) => d.state === 'good');
  return (
    <>
      <p className={same ? 'good' : differences[0]!.state}>
        <StateMark state={same ? 'good' : differences[0]!.state} />{' '}
        {same ? 'The same as last time.' : 'Not the same as last time.'}
      </p>
      <table className="table tight" aria-label="Against last time">
        <thead>
          <tr>
            <th>What</th>
            <th className="number">Now</th>
            <th className="number">Last time</th>
            <th>It may be</th>
          </tr>
        </thead>
        <tbody>
          {differences.map((d) => (
            <tr key={d.id}>
              <td>
                <StateMark state={d.state} /> {d.label}
              </td>
              <td className="number">{say(d.now, d.unit)}</td>
              <td className="number">{say(d.before, d.unit)}</td>
              <td className="quiet">{d.says}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
