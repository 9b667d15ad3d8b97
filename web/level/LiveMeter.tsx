import { Button } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import type { LiveReading } from '#core/measure/index.ts';
import { sayKnob } from '#core/rig/index.ts';
import type { Ladder, RungSetting } from '#core/signal/index.ts';
import { Choice, formatNumber, formatSigned, StateMark, Term } from '#web/parts/index.ts';
import { type Listening, listenLive } from './live.ts';

/** Peaks of a voice while gain is set: between these, and aimed at the middle, dBFS (typical). */
const PEAKS = { low: -12, aim: -9, high: -6 } as const;
const SCALE = { low: -60, high: 0 } as const;

interface Props {
  /** The way whose first knob is to be turned. */
  readonly ladder: Ladder;
}

/** An input of this computer, live: gain is set by talking. Asked for; nothing is kept. */
export function LiveMeter({ ladder }: Props) {
  const [reading, setReading] = useState<LiveReading | null>(null);
  const [listening, setListening] = useState<Listening | null>(null);
  const [failed, setFailed] = useState<string | null>(null);
  const open = useRef<Listening | null>(null);
  const end = (why: string | null) => {
    open.current?.stop();
    open.current = null;
    setListening(null);
    setFailed(why);
  };
  useEffect(() => () => open.current?.stop(), []);
  const start = (inputId: string | null) => {
    end(null);
    setReading(null);
    listenLive(inputId, setReading, end).then(
      (now) => {
        open.current = now;
        setListening(now);
      },
      (error: Error) => end(error.message),
    );
  };
  const knob = ladder.rungs.find((r) => r.setting);
  return (
    <section aria-label="Live">
      <div className="spread">
        <h2>
          <Term id="live">Set gain by talking</Term>
        </h2>
        <span className="row" style={{ marginTop: 14 }}>
          {listening && (
            <Choice
              label="Input of this computer"
              value={listening.inputId}
              onChange={start}
              options={listening.inputs.map((i) => [i.id, i.name])}
            />
          )}
          {listening && <Button onClick={() => start(listening.inputId)}>Begin anew</Button>}
          <Button onClick={() => (listening ? end(null) : start(null))}>
            {listening ? 'Stop listening' : 'Listen to an input'}
          </Button>
        </span>
      </div>
      {failed && <p className="fix">{failed}</p>}
      {!listening && !failed && (
        <p className="quiet">
          Any input of this computer, as it comes: peaks, loudness, clips, and how far to turn. The browser asks for
          leave; nothing is kept.
        </p>
      )}
      {listening && !reading && <p className="quiet">Waiting for the input…</p>}
      {listening && reading && <Reading reading={reading} knob={knob?.setting ?? null} valueDb={knob?.gainDb ?? 0} />}
    </section>
  );
}

interface ReadingProps {
  readonly reading: LiveReading;
  readonly knob: RungSetting | null;
  readonly valueDb: number;
}

export function Reading({ reading, knob, valueDb }: ReadingProps) {
  const { peakDbfs, highestDbfs, truePeakDbtp, momentaryLufs, shortTermLufs, vuDbfs, clips, correlation, restDbfs } =
    reading;
  const tell = (value: number | null, unit: string) => (value === null ? '–' : `${formatNumber(value, 1)} ${unit}`);
  return (
    <>
      <Bar peakDbfs={peakDbfs} vuDbfs={vuDbfs} highestDbfs={highestDbfs} />
      <table className="table tight">
        <tbody>
          <tr>
            <td>Highest</td>
            <td className="number">{tell(highestDbfs, 'dBFS')}</td>
            <td>
              <Term id="true-peak">True peak</Term>
            </td>
            <td className="number">{tell(truePeakDbtp, 'dBTP')}</td>
            <td>Average, 300 ms</td>
            <td className="number">{tell(vuDbfs, 'dBFS')}</td>
          </tr>
          <tr>
            <td>
              <Term id="lufs">Momentary</Term>
            </td>
            <td className="number">{tell(momentaryLufs, 'LUFS')}</td>
            <td>Short-term</td>
            <td className="number">{tell(shortTermLufs, 'LUFS')}</td>
            <td>At rest</td>
            <td className="number">{tell(restDbfs, 'dBFS')}</td>
          </tr>
        </tbody>
      </table>
      <p role="status">
        {sayTurn(highestDbfs, knob, valueDb)}
        {clips > 0 && (
          <span className="fix">
            {' '}
            <StateMark state="fix" /> It clipped {clips} {clips === 1 ? 'time' : 'times'}: turn down first.
          </span>
        )}
        {correlation !== null && correlation < -0.5 && (
          <span className="fix">
            {' '}
            <StateMark state="fix" /> The sides move against each other (<Term id="polarity">polarity</Term>).
          </span>
        )}
      </p>
    </>
  );
}

/** 'Up 4 dB, to about 1 o'clock': how far the first knob of the way is to be turned. */
export function sayTurn(highestDbfs: number | null, knob: RungSetting | null, valueDb: number): string {
  if (highestDbfs === null || highestDbfs < SCALE.low) return 'Talk as you will later: nothing is heard yet.';
  if (highestDbfs >= PEAKS.low && highestDbfs <= PEAKS.high)
    return `The gain is right: peaks stand between ${formatNumber(PEAKS.low)} and ${formatNumber(PEAKS.high)} dBFS.`;
  const by = Math.round(PEAKS.aim - highestDbfs);
  const way = `${by > 0 ? 'Up' : 'Down'} ${Math.abs(by)} dB`;
  if (!knob) return `${way}.`;
  const { spec } = knob;
  const to = Math.min(spec.max, Math.max(spec.min, valueDb + by));
  const short = to !== valueDb + by ? `, as far as it goes (${formatSigned(to)} dB)` : '';
  return `${way}: ${spec.name} to ${sayKnob(spec, to)}${short}.`;
}

const WIDTH = 600;
const HEIGHT = 34;
const xOf = (db: number): number =>
  (WIDTH * (Math.min(SCALE.high, Math.max(SCALE.low, db)) - SCALE.low)) / (SCALE.high - SCALE.low);

interface BarProps {
  readonly peakDbfs: number | null;
  readonly vuDbfs: number | null;
  readonly highestDbfs: number | null;
}

/** One line from quiet to full scale: the average as a stroke, the peak at its end, the highest as a mark, where peaks belong as a band. */
function Bar({ peakDbfs, vuDbfs, highestDbfs }: BarProps) {
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT + 18}`} width="100%" role="img" aria-label="Level now">
      <rect
        x={xOf(PEAKS.low)}
        y={4}
        width={xOf(PEAKS.high) - xOf(PEAKS.low)}
        height={HEIGHT - 8}
        fill="var(--good)"
        fillOpacity={0.22}
      />
      <line className="axis" x1={0} x2={WIDTH} y1={HEIGHT} y2={HEIGHT} />
      {[-60, -40, -20, -12, -6, 0].map((db) => (
        <text
          key={db}
          x={xOf(db)}
          y={HEIGHT + 14}
          textAnchor={db === SCALE.low ? 'start' : db === 0 ? 'end' : 'middle'}
          className="ink2 small"
        >
          {formatNumber(db)}
        </text>
      ))}
      {vuDbfs !== null && <rect x={0} y={13} width={xOf(vuDbfs)} height={8} fill="var(--ink2)" />}
      {peakDbfs !== null && (
        <line x1={xOf(peakDbfs)} x2={xOf(peakDbfs)} y1={8} y2={26} stroke="var(--ink)" strokeWidth={2.5} />
      )}
      {highestDbfs !== null && (
        <path
          d={`M${xOf(highestDbfs)} ${HEIGHT}l-5 -8h10z`}
          fill={highestDbfs > PEAKS.high ? 'var(--fix)' : 'var(--ink)'}
        />
      )}
    </svg>
  );
}
