import { Button } from '@chakra-ui/react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { clapSheet } from '#core/report/index.ts';
import { SLATE_IDS, SLATE_RATES, type Slate } from '#core/slate/index.ts';
import { rateName, ratioFromDb } from '#core/units/index.ts';
import { LevelSlider } from '#web/listen/index.ts';
import { Choice, formatNumber, printSheets, Term, useKey } from '#web/parts/index.ts';
import { playSlate, SlateCanvas, type SlateLatency, type SlatePlayer } from '#web/players/index.ts';
import { TakeFrame, TakePage } from '#web/take/index.ts';
import { SlateFiles } from './SlateFiles.tsx';

/** Nobody is startled: the first beat is silent until somebody turns it up. */
const START_DB = -60;
const SIXTY = 7;

/** A slate on this screen: what a camera or a capture device reads back, and the same as files. */
export function SlateScreen() {
  const [params, setParams] = useSearchParams();
  const slate = useMemo(() => slateOf(params), [params]);
  const words = useMemo(() => [`Slate ${slate.id + 1}`, `${rateName(slate.rate)} fps`], [slate]);
  const [playing, setPlaying] = useState<SlatePlayer | null>(null);
  const [levelDb, setLevelDb] = useState(START_DB);
  const [failed, setFailed] = useState<string | null>(null);
  const stage = useRef<HTMLDivElement>(null);
  const stop = () => {
    playing?.stop();
    setPlaying(null);
  };
  const begin = async () => {
    setFailed(null);
    try {
      setPlaying(await playSlate(slate, gainOf(levelDb)));
    } catch {
      setFailed('This browser would not play sound. Press start again, or use the files below.');
    }
  };
  const toggle = () => void (playing ? stop() : begin());
  const full = () =>
    void (document.fullscreenElement ? document.exitFullscreen() : stage.current?.requestFullscreen?.())?.catch(
      () => undefined,
    );
  useEffect(() => () => playing?.stop(), [playing]);
  useKey('s', 'Start or stop the slate', toggle);
  useKey('f', 'All of the screen, or not', full);
  const choose = (key: string, value: string) => {
    stop();
    setParams(
      (all) => {
        all.set(key, value);
        return all;
      },
      { replace: true },
    );
  };
  return (
    <TakeFrame>
      <TakePage title={<Term id="slate">Slate</Term>} bench="/bench">
        <p className="quiet">
          Show it on any screen or phone, or play it from the console. A take of it tells how late its sound is against
          its picture, whether pictures were lost, and at which rate they really came.
        </p>
        <div ref={stage} className="slate-stage" data-testid="slate">
          <SlateCanvas slate={slate} words={words} player={playing} />
        </div>
        <div className="row" style={{ marginTop: 10 }}>
          <Button variant="solid" onClick={toggle}>
            {playing ? 'Stop' : 'Start'} <kbd>s</kbd>
          </Button>
          <Button onClick={full}>
            All of the screen <kbd>f</kbd>
          </Button>
          <LevelSlider
            db={levelDb}
            onDb={(db) => {
              setLevelDb(db);
              playing?.level(gainOf(db));
            }}
          />
          <Choice
            label="Frames of the slate"
            value={String(SLATE_RATES.indexOf(slate.rate))}
            onChange={(i) => choose('rate', rateName(SLATE_RATES[Number(i)]!))}
            options={SLATE_RATES.map((r, i) => [String(i), `${rateName(r)} frames a second`])}
          />
          <Choice
            label="Number of the slate"
            value={String(slate.id)}
            onChange={(id) => choose('id', id)}
            options={Array.from({ length: SLATE_IDS }, (_, id) => [String(id), `number ${id + 1}`])}
          />
        </div>
        {failed && <p className="fix">{failed}</p>}
        <p className="quiet small">
          It begins silent: turn it up slowly, while whoever wears headphones on the way has them off. It flashes once
          in two seconds.
        </p>
        {playing && <Latency player={playing} />}
        <SlateFiles slate={slate} />
        <h2>Where no slate can be shown</h2>
        <ul className="plain-list">
          <li>
            A hand clap: both hands in the picture, clear of the body, one sharp clap each second or so, four at least;
            fingers apart, so that the frame in which they meet is seen. A dark sleeve behind a light hand helps.
          </li>
          <li>
            A wooden slate or two rulers: flat towards the camera, the hinge up, closed at once and kept closed for a
            second.
          </li>
          <li>
            A console that plays no files: a menu whose pointer clicks as it moves. Click it ten times, about a second
            apart, and in Measure mark the region of the picture that changes.
          </li>
        </ul>
        <p className="row no-print" style={{ marginTop: 8 }}>
          <Button onClick={() => printSheets([clapSheet('a4')], 'a4', false)}>Print the clap sheet</Button>
          <span className="quiet small">A board to hold into the picture, how to clap, and a list of the takes.</span>
        </p>
      </TakePage>
    </TakeFrame>
  );
}

const gainOf = (db: number): number => (db <= START_DB ? 0 : ratioFromDb(db));

function slateOf(params: URLSearchParams): Slate {
  const id = Number(params.get('id') ?? 0);
  return {
    rate: SLATE_RATES.find((r) => rateName(r) === params.get('rate')) ?? SLATE_RATES[SIXTY]!,
    id: Number.isInteger(id) && id >= 0 && id < SLATE_IDS ? id : 0,
  };
}

const LOOK_MS = 1000;

/** What the browser says of its own delays, and what it cannot know. */
function Latency({ player }: { player: SlatePlayer }) {
  const [latency, setLatency] = useState<SlateLatency>(player.latency());
  useEffect(() => {
    const timer = setInterval(() => setLatency(player.latency()), LOOK_MS);
    return () => clearInterval(timer);
  }, [player]);
  return (
    <p className="small" data-testid="slate-latency">
      Sound leaves this computer {formatNumber(latency.outputMs)} ms after it was made, says the browser
      {latency.baseMs > 0 && `, ${formatNumber(latency.baseMs)} ms of them its own`}; the picture is drawn for that.
      What the screen and the sound card add, nobody tells it: up to 40 ms either way stay in the spread, until a{' '}
      <Term id="slate-skew">clap beside the slate</Term> in one take takes them out.
    </p>
  );
}
