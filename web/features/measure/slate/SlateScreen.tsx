import '#words/core.ts';
import { Button, chakra } from '@chakra-ui/react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { SLATE_IDS, SLATE_RATES, type Slate } from '#core/desk-tests/slates/index.ts';
import { rateName, ratioFromDb } from '#core/model/units/index.ts';
import { clapSheet } from '#core/output/sheets/index.ts';
import { LevelSlider } from '#web/shared/listen/index.ts';
import { Choice, formatNumber, printSheets, rich, Term, useKey } from '#web/shared/parts/index.ts';
import { playSlate, SlateCanvas, type SlateLatency, type SlatePlayer } from '#web/shared/players/index.ts';
import { TakeFrame, TakePage } from '#web/shared/take/index.ts';
import { common, slate as say } from '#words/index.ts';
import { SlateFiles } from './SlateFiles.tsx';

/** No one is startled: the first beat is silent until someone turns it up. */
const START_DB = -60;
const SIXTY = 7;

/** A slate on this screen: what a camera or a capture device reads back, and the same as files. */
export function SlateScreen() {
  const [params, setParams] = useSearchParams();
  const slate = useMemo(() => slateOf(params), [params]);
  const words = useMemo(() => [say.syncSlate({ n1: slate.id + 1 }), say.fps({ rate: rateName(slate.rate) })], [slate]);
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
      setFailed(say.yourBrowserBlockedAudio());
    }
  };
  const toggle = () => void (playing ? stop() : begin());
  const full = () =>
    void (document.fullscreenElement ? document.exitFullscreen() : stage.current?.requestFullscreen?.())?.catch(
      () => undefined,
    );
  useEffect(() => () => playing?.stop(), [playing]);
  useKey('s', say.startOrStopSlate(), toggle);
  useKey('f', say.fullScreenOnOr(), full);
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
      <TakePage title={<Term id="slate">{say.syncSlateTitle()}</Term>} bench="/bench">
        <p className="quiet">{say.showItOnAny()}</p>
        <div ref={stage} className="slate-stage" data-testid="slate">
          <SlateCanvas slate={slate} words={words} player={playing} />
        </div>
        <chakra.div className="row" marginTop="10px">
          <Button variant="solid" onClick={toggle}>
            {playing ? common.stop() : common.start()} <kbd>s</kbd>
          </Button>
          <Button onClick={full}>{rich(say.fullScreenF, {})}</Button>
          <LevelSlider
            db={levelDb}
            onDb={(db) => {
              setLevelDb(db);
              playing?.level(gainOf(db));
            }}
          />
          <Choice
            label={say.frameRateSlate()}
            value={String(SLATE_RATES.indexOf(slate.rate))}
            onChange={(i) => choose('rate', rateName(SLATE_RATES[Number(i)]!))}
            options={SLATE_RATES.map((r, i) => [String(i), say.fpsOf({ r: rateName(r) })])}
          />
          <Choice
            label={say.slateNumber()}
            value={String(slate.id)}
            onChange={(id) => choose('id', id)}
            options={Array.from({ length: SLATE_IDS }, (_, id) => [String(id), say.number({ n1: id + 1 })])}
          />
        </chakra.div>
        {failed && <p className="fix">{failed}</p>}
        <p className="quiet small">{say.itStartsSilentTurn()}</p>
        {playing && <Latency player={playing} />}
        <SlateFiles slate={slate} />
        <h2>{say.ifYouCantShow()}</h2>
        <ul className="plain-list">
          <li>{say.handClapBothHands()}</li>
          <li>{say.woodenSlateOrTwo()}</li>
          <li>{say.consoleThatPlaysNo()}</li>
        </ul>
        <chakra.p className="row no-print" marginTop="8px">
          <Button onClick={() => printSheets([clapSheet('a4')], 'a4', false)}>{say.printClapSheet()}</Button>
          <span className="quiet small">{say.boardToHoldIn()}</span>
        </chakra.p>
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
      {rich(say.browserReportsMsOutput, {
        outputMs: formatNumber(latency.outputMs),
        own: latency.baseMs > 0 ? say.ofItOwn({ baseMs: formatNumber(latency.baseMs) }) : '',
      })}
    </p>
  );
}
