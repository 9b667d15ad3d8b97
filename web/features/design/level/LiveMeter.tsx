import { Button, chakra } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import type { LiveReading } from '#core/audio/measure/index.ts';
import { sayKnob } from '#core/model/rig/index.ts';
import type { Ladder, RungSetting } from '#core/signal/index.ts';
import { Choice, formatNumber, formatSigned, rich, StateMark, Table, Term } from '#web/shared/parts/index.ts';
import { level as say, textOf } from '#words/index.ts';
import { type Listening, listenLive } from './live.ts';

/** Peaks of a voice while gain is set: between these, and aimed at the middle, dBFS (typical). */
const PEAKS = { low: -12, aim: -9, high: -6 } as const;
const SCALE = { low: -60, high: 0 } as const;

interface Props {
  /** The path whose first gain control is to be adjusted. */
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
    <section aria-label={say.live()}>
      <div className="spread">
        <h2>
          <Term id="live">{say.setGainByTalking()}</Term>
        </h2>
        <chakra.span className="row" marginTop="14px">
          {listening && (
            <Choice
              label={say.inputThisComputer()}
              value={listening.inputId}
              onChange={start}
              options={listening.inputs.map((i) => [i.id, i.name])}
            />
          )}
          {listening && <Button onClick={() => start(listening.inputId)}>{say.startOver()}</Button>}
          <Button onClick={() => (listening ? end(null) : start(null))}>
            {listening ? say.stopListening() : say.listenToInput()}
          </Button>
        </chakra.span>
      </div>
      {failed && <p className="fix">{failed}</p>}
      {!listening && !failed && <p className="quiet">{say.metersAnyInputThis()}</p>}
      {listening && !reading && <p className="quiet">{say.waitingForInput()}</p>}
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
      <Table tight>
        <tbody>
          <tr>
            <td>{say.highestPeak()}</td>
            <td className="number">{tell(highestDbfs, 'dBFS')}</td>
            <td>
              <Term id="true-peak">{say.truePeak()}</Term>
            </td>
            <td className="number">{tell(truePeakDbtp, 'dBTP')}</td>
            <td>{say.averageMs()}</td>
            <td className="number">{tell(vuDbfs, 'dBFS')}</td>
          </tr>
          <tr>
            <td>
              <Term id="lufs">{say.momentary()}</Term>
            </td>
            <td className="number">{tell(momentaryLufs, 'LUFS')}</td>
            <td>{say.shortTerm()}</td>
            <td className="number">{tell(shortTermLufs, 'LUFS')}</td>
            <td>{say.atRest()}</td>
            <td className="number">{tell(restDbfs, 'dBFS')}</td>
          </tr>
        </tbody>
      </Table>
      <p role="status">
        {sayTurn(highestDbfs, knob, valueDb)}
        {clips > 0 && (
          <span className="fix">
            {' '}
            <StateMark state="fix" /> {say.clippedOnceTurnDown({ clips })}
          </span>
        )}
        {correlation !== null && correlation < -0.5 && (
          <span className="fix">
            {' '}
            <StateMark state="fix" /> {rich(say.leftAndRightCancel, {})}
          </span>
        )}
      </p>
    </>
  );
}

/** 'Up 4 dB, to about 1 o'clock': how far to turn the first gain control of the path. */
export function sayTurn(highestDbfs: number | null, knob: RungSetting | null, valueDb: number): string {
  if (highestDbfs === null || highestDbfs < SCALE.low) return say.noSignalYetTalk();
  if (highestDbfs >= PEAKS.low && highestDbfs <= PEAKS.high)
    return say.gainIsRightPeaks({ low: formatNumber(PEAKS.low), high: formatNumber(PEAKS.high) });
  const by = Math.round(PEAKS.aim - highestDbfs);
  const way = say.turnBy({ Down: by > 0 ? say.up() : say.down(), by: Math.abs(by) });
  if (!knob) return `${way}.`;
  const { spec } = knob;
  const to = Math.min(spec.max, Math.max(spec.min, valueDb + by));
  const short = to !== valueDb + by ? say.asFarAsIt({ to: formatSigned(to) }) : '';
  return say.turnTo({ way, spec: spec.name, to: textOf(sayKnob(spec, to)), short });
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
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT + 18}`} width="100%" role="img" aria-label={say.levelNow()}>
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
