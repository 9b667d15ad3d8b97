import { Button, chakra } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { rich, useKey } from '#web/shared/parts/index.ts';
import { listen as say } from '#words/index.ts';
import { browserAudio, type Deck, LOWEST_DB, type Loop, makeDeck, START_DB } from './deck.ts';
import { LEVEL_STEP_DB, LevelSlider } from './LevelSlider.tsx';

/** One of the sounds that are switched between; null while it is being made. */
export interface ReceivedPath {
  readonly name: string;
  readonly loop: Loop | null;
}

interface Props {
  readonly sounds: readonly ReceivedPath[];
  readonly says: string;
  /** When it changes, what sounds goes back to the first one: what the last one was then is not to be heard in the switch. */
  readonly round?: number;
}

/** Sounds of one length, one heard at a time, switched without a gap by keys 1, 2 and so on. */
export function SwitchBar({ sounds, says, round = 0 }: Props) {
  const [deck] = useState<Deck>(() => makeDeck(browserAudio));
  const [on, setOn] = useState<number | null>(null);
  const [levelDb, setLevelDb] = useState(START_DB);
  const [failed, setFailed] = useState<string | null>(null);
  useEffect(() => () => deck.stop(), [deck]);
  const [heardIn, setHeardIn] = useState(round);
  if (heardIn !== round) {
    setHeardIn(round);
    if (on !== null) setOn(0);
  }
  const loop = on === null ? null : (sounds[on]?.loop ?? null);
  // Another setting of what is heard is heard at once.
  useEffect(() => {
    if (loop) deck.play(loop);
  }, [loop, deck]);
  const stop = () => {
    deck.stop();
    setOn(null);
  };
  const hear = async (n: number) => {
    try {
      await deck.open();
      deck.level(levelDb);
      setFailed(null);
      // What is still being made is heard as soon as it is there.
      setOn(n);
    } catch {
      setFailed(say.cantPlayAudioChoose());
    }
  };
  const level = (db: number) => {
    const held = Math.max(LOWEST_DB, Math.min(0, db));
    setLevelDb(held);
    deck.level(held);
  };
  useKey('1', sounds[0] ? say.hear({ name: sounds[0].name }) : '', () => void hear(0), Boolean(sounds[0]));
  useKey('2', sounds[1] ? say.hear({ name: sounds[1].name }) : '', () => void hear(1), Boolean(sounds[1]));
  useKey('3', sounds[2] ? say.hear({ name: sounds[2].name }) : '', () => void hear(2), Boolean(sounds[2]));
  useKey('h', say.startOrStopListeningTitle(), () => (on === null ? void hear(0) : stop()));
  useKey('shift+arrowup', say.louder(), () => level(levelDb + LEVEL_STEP_DB), on !== null);
  useKey('shift+arrowdown', say.quieter(), () => level(levelDb - LEVEL_STEP_DB), on !== null);
  return (
    <chakra.section className="row" aria-label={say.listening()} flexWrap="wrap" gap="10px">
      {sounds.map(({ name }, n) => (
        <Button
          key={name}
          aria-pressed={on === n}
          variant={on === n ? 'solid' : 'outline'}
          onClick={() => void hear(n)}
        >
          {name} <kbd>{n + 1}</kbd>
        </Button>
      ))}
      {on !== null && <Button onClick={stop}>{rich(say.stopH, {})}</Button>}
      {on !== null && !loop && <span className="quiet">{say.renderingAudio()}</span>}
      <LevelSlider db={levelDb} onDb={level} />
      <span className="quiet small">{say.itFadesInStart({ says })}</span>
      {failed && <span className="fix small">{failed}</span>}
    </chakra.section>
  );
}
