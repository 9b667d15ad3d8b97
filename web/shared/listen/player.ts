import type { PortRef, Rig } from '#core/model/rig/index.ts';
import { type HeardLoop, renderLoop } from '#web/shared/workers/index.ts';
import { browserAudio, type MakeContext, makeDeck, START_DB } from './deck.ts';
import { evenGain } from './even.ts';

/** A place one listens at, with its name as one would say it. */
export interface Spot {
  readonly at: PortRef;
  readonly name: string;
}

interface PlayerState {
  /** Where one listens; null: nothing sounds. */
  readonly spot: Spot | null;
  /** The loop that sounds; null while the first is made. */
  readonly loop: Pick<HeardLoop, 'sourceIds' | 'hums' | 'integratedLufs'> | null;
  readonly busy: boolean;
  readonly levelDb: number;
  readonly failed: string | null;
}

const SECONDS = 10;

export interface Player {
  state(): PlayerState;
  subscribe(onChange: () => void): () => void;
  /** Listens at a place of a rig; at another place or another rig it goes over without a gap. */
  listen(rig: Rig, spot: Spot): Promise<void>;
  level(db: number): void;
  stop(): void;
}

const SILENT: PlayerState = { spot: null, loop: null, busy: false, levelDb: START_DB, failed: null };

/** What is heard at one place at a time. */
export function makePlayer(makeContext: MakeContext, render = renderLoop): Player {
  const deck = makeDeck(makeContext);
  let now = SILENT;
  let asked = 0;
  const heard = new Set<() => void>();
  const set = (part: Partial<PlayerState>) => {
    now = { ...now, ...part };
    for (const tell of heard) tell();
  };
  return {
    state: () => now,
    subscribe(onChange) {
      heard.add(onChange);
      return () => heard.delete(onChange);
    },
    async listen(rig, spot) {
      const ask = ++asked;
      set({ spot, busy: true, failed: null });
      try {
        const rate = await deck.open();
        const loop = await render(rig, spot.at, SECONDS, rate);
        if (ask !== asked || !deck.isOpen()) return;
        deck.play({ ...loop, gain: evenGain(loop) });
        const { sourceIds, hums, integratedLufs } = loop;
        set({ busy: false, loop: { sourceIds, hums, integratedLufs } });
      } catch (error) {
        if (ask === asked) set({ busy: false, failed: (error as Error).message });
      }
    },
    level(db) {
      set({ levelDb: db });
      deck.level(db);
    },
    stop() {
      asked++;
      deck.stop();
      set({ spot: null, loop: null, busy: false, failed: null });
    },
  };
}

export const player: Player = makePlayer(browserAudio);
