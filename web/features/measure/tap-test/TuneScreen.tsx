import { Button } from '@chakra-ui/react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { TUNES } from '#core/desk-tests/tunes/index.ts';
import { FRAME_RATES, hertz, ratioFromDb } from '#core/model/units/index.ts';
import { LevelSlider } from '#web/shared/listen/index.ts';
import { rich, Term, useKey } from '#web/shared/parts/index.ts';
import { playTune, SlateCanvas, type TunePlayer, tryTune } from '#web/shared/players/index.ts';
import { common, tapTest as say } from '#words/index.ts';

const SIXTY = FRAME_RATES.find((r) => hertz(r) === 60)!;
/** Quiet at first: the user turns it up. */
const START_DB = -40;
const SILENT_DB = -60;

/** One source's test tune on this screen, with the panel that measures its video: for a device in the place of a source. */
export function TuneScreen() {
  const [params] = useSearchParams();
  const asked = Number(params.get('id') ?? 1) - 1;
  const tune = Number.isInteger(asked) && asked >= 0 && asked < TUNES ? asked : 0;
  return (
    <main className="page">
      <h1>
        <Term id="tune">{say.testTuneWith({ n1: tune + 1 })}</Term>
      </h1>
      <TuneStage key={tune} tune={tune} name={params.get('for') ?? ''} />
    </main>
  );
}

/** The panel, one large button and the level. */
export function TuneStage({ tune, name }: { tune: number; name: string }) {
  const [playing, setPlaying] = useState<{ player: TunePlayer; counts: boolean } | null>(null);
  const [levelDb, setLevelDb] = useState(START_DB);
  const [says, setSays] = useState('');
  const stage = useRef<HTMLDivElement>(null);
  const slate = useMemo(() => ({ rate: SIXTY, id: tune }), [tune]);
  const words = useMemo(() => [say.testTuneWith({ n1: tune + 1 }), name], [tune, name]);
  useEffect(() => () => playing?.player.stop(), [playing]);
  const begin = async (counts: boolean) => {
    setSays('');
    const play = {
      gain: gainOf(levelDb),
      rate: SIXTY,
      onEnd: () => {
        setPlaying(null);
        setSays(counts ? say.played() : '');
      },
    };
    try {
      setPlaying({ counts, player: counts ? await playTune({ ...play, tune }) : await tryTune(play) });
    } catch {
      setSays(say.yourBrowserBlockedAudio());
    }
  };
  const stop = () => {
    playing?.player.stop();
    setPlaying(null);
  };
  const toggle = () => (playing ? stop() : void begin(true));
  useKey('s', say.playOrStopTune(), toggle);
  useKey('f', say.fullScreenOnOr(), () => full(stage.current));
  return (
    <>
      {/* biome-ignore lint/a11y/noStaticElementInteractions lint/a11y/useKeyWithClickEvents: with all of the screen taken there is no room for the button below, nor for its key */}
      <div ref={stage} className="slate-stage" data-testid="tune" onClick={toggle}>
        <SlateCanvas slate={slate} words={words} player={playing?.counts ? playing.player : null} />
      </div>
      <p className="row tap-buttons">
        <Button size="lg" variant="solid" className="tap-play" onClick={toggle}>
          {playing ? common.stop() : say.playWith({ tune: name || say.theTune() })} <kbd>s</kbd>
        </Button>
        <Button size="lg" disabled={playing !== null} onClick={() => void begin(false)}>
          {say.tryItFadingIn()}
        </Button>
        <Button onClick={() => full(stage.current)}>{rich(say.fullScreenF, {})}</Button>
      </p>
      <LevelSlider
        db={levelDb}
        onDb={(db) => {
          setLevelDb(db);
          playing?.player.level(gainOf(db));
        }}
      />
      <p role="status">{says}</p>
      <p className="quiet small">{say.usingTrialSoundNot()}</p>
    </>
  );
}

const gainOf = (db: number): number => (db <= SILENT_DB ? 0 : ratioFromDb(db));

function full(stage: HTMLElement | null): void {
  void (document.fullscreenElement ? document.exitFullscreen() : stage?.requestFullscreen?.())?.catch(() => undefined);
}
