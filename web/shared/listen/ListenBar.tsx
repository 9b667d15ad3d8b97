import { Button } from '@chakra-ui/react';
import { useEffect, useSyncExternalStore } from 'react';
import type { Rig } from '#core/model/rig/index.ts';
import { rich, SourceLetter, Term, useKey } from '#web/shared/parts/index.ts';
import { listen as say } from '#words/index.ts';
import { LOWEST_DB } from './deck.ts';
import { LEVEL_STEP_DB, LevelSlider } from './LevelSlider.tsx';
import { player, type Spot } from './player.ts';

const usePlayer = () => useSyncExternalStore(player.subscribe, player.state);

function turn(rig: Rig, spot: Spot): void {
  const { spot: now } = player.state();
  if (now && isSame(now, spot)) player.stop();
  else void player.listen(rig, spot);
}

/** The key of listening, for a page whose card may be a moment behind what is chosen. */
export function useListenKey(rig: Rig, spot: Spot | null): void {
  useKey('h', say.startOrStopListening(), () => spot && turn(rig, spot), spot !== null);
}

interface ListenProps {
  readonly rig: Rig;
  readonly spot: Spot;
  /** Nothing sounds here: there is nothing to listen to. */
  readonly silent?: boolean;
  /** Whether the page around it holds its key (`useListenKey`). */
  readonly keyOutside?: boolean;
}

/** Listens at a place, or stops where one listens there already. */
export function ListenButton({ rig, spot, silent = false, keyOutside = false }: ListenProps) {
  const { spot: now } = usePlayer();
  const here = now !== null && isSame(now, spot);
  useListenKey(rig, silent || keyOutside ? null : spot);
  return (
    <Button
      disabled={silent && !here}
      aria-pressed={here}
      variant={here ? 'solid' : 'outline'}
      onClick={() => turn(rig, spot)}
    >
      {here ? say.stopListening() : say.listenHere()} <kbd>h</kbd>
    </Button>
  );
}

const isSame = (a: Spot, b: Spot): boolean => a.at.deviceId === b.at.deviceId && a.at.portId === b.at.portId;

/** While something sounds: where one listens, to what, how loud; on to the next listener without a gap. */
export function ListenBar({ rig }: { rig: Rig }) {
  const { spot, loop, busy, levelDb, failed } = usePlayer();
  const on = spot !== null;
  // What is heard follows the rig: another setting is heard as soon as it is drawn.
  // biome-ignore lint/correctness/useExhaustiveDependencies: the parts of it that sound
  useEffect(() => {
    const { spot: at } = player.state();
    if (at) void player.listen(rig, at);
    // What is wanted of it changes nothing of what is heard.
  }, [rig.devices, rig.cables, rig.sources, rig.types]);
  useEffect(() => player.stop, []);
  const spots = rig.listeners.map((l): Spot => ({ at: l.sound, name: l.name }));
  const go = (by: number) => {
    // As it stands now: keys may come faster than the page is drawn.
    const { spot: here } = player.state();
    const at = here ? spots.findIndex((s) => isSame(s, here)) : -1;
    const next = spots[(at + by + spots.length) % spots.length];
    if (next) void player.listen(rig, next);
  };
  const level = (db: number) => player.level(Math.max(LOWEST_DB, Math.min(0, db)));
  useKey('shift+arrowright', say.listenAtNextDestination(), () => go(1), on);
  useKey('shift+arrowleft', say.listenAtPrevious(), () => go(-1), on);
  useKey('shift+arrowup', say.louder(), () => level(player.state().levelDb + LEVEL_STEP_DB), on);
  useKey('shift+arrowdown', say.quieter(), () => level(player.state().levelDb - LEVEL_STEP_DB), on);
  if (!spot) return null;
  const heard = rig.sources.filter((s) => loop?.sourceIds.includes(s.id));
  return (
    <section className="listening" aria-label={say.listening()}>
      <p className="row" role="status">
        <span className="strong">{spot.name}</span>
        <span className="quiet small">
          <Term id="stand-in">{say.simulated()}</Term>
        </span>
        {busy && !loop && <span className="quiet">{say.renderingAudio()}</span>}
        {failed && <span className="fix">{failed}</span>}
        {loop && heard.length === 0 && <span>{say.noSignalHere({ hum: loop.hums ? say.butHum() : '' })}</span>}
        {heard.map((s) => (
          <SourceLetter key={s.id} source={s} />
        ))}
        {loop?.hums && heard.length > 0 && <span className="fix small">{say.andHum()}</span>}
      </p>
      <LevelSlider db={levelDb} onDb={level} />
      <span className="row">
        <Button onClick={() => go(-1)}>{rich(say.previous, {})}</Button>
        <Button onClick={() => go(1)}>{rich(say.next, {})}</Button>
        <Button variant="solid" onClick={player.stop}>
          {rich(say.stopH, {})}
        </Button>
      </span>
      <span className="quiet small">{say.allPointsPlayAt()}</span>
    </section>
  );
}
