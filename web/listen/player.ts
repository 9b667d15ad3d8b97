import type { PortRef, Rig } from '#core/rig/index.ts';
import { type HeardLoop, renderLoop } from '#web/workers/index.ts';

/** A place one listens at, with its name as one would say it. */
export interface Spot {
  readonly at: PortRef;
  readonly name: string;
}

export interface PlayerState {
  /** Where one listens; null: nothing sounds. */
  readonly spot: Spot | null;
  /** The loop that sounds; null while the first is made. */
  readonly loop: Pick<HeardLoop, 'sourceIds' | 'hums' | 'integratedLufs'> | null;
  readonly busy: boolean;
  readonly levelDb: number;
  readonly failed: string | null;
}

const SECONDS = 10;
/** Every loop is brought to this before the level: so a switch compares places, not loudness. */
const EVEN_LUFS = -23;
/** Never louder than this at its tops, whatever its loudness is. */
const TOP = 0.9;
export const LOWEST_DB = -60;
const START_DB = -18;
/** It comes up slowly: from nothing to the level in so many seconds. */
const RISE_S = 4;
const CROSS_S = 0.04;
const QUICK_S = 0.05;

const gainOf = (db: number): number => (db <= LOWEST_DB ? 0 : 10 ** (db / 20));

/** The gain that brings a loop to the even loudness, its tops kept under full scale. */
export function evenGain({ integratedLufs, channels }: Pick<HeardLoop, 'integratedLufs' | 'channels'>): number {
  if (integratedLufs === null) return 0;
  let top = 0;
  for (const c of channels) for (let i = 0; i < c.length; i++) top = Math.max(top, Math.abs(c[i]!));
  return Math.min(10 ** ((EVEN_LUFS - integratedLufs) / 20), top > 0 ? TOP / top : 0);
}

/** What makes sound of it: the browser's audio, or a test's. */
export type MakeContext = () => AudioContext;

export interface Player {
  state(): PlayerState;
  subscribe(onChange: () => void): () => void;
  /** Listens at a place of a rig; at another place or another rig it goes over without a gap. */
  listen(rig: Rig, spot: Spot): Promise<void>;
  level(db: number): void;
  stop(): void;
}

const SILENT: PlayerState = { spot: null, loop: null, busy: false, levelDb: START_DB, failed: null };

/** One loop at a time, which starts at nothing and comes up slowly. */
export function makePlayer(makeContext: MakeContext, render = renderLoop): Player {
  let now = SILENT;
  let audio: { context: AudioContext; master: GainNode; startedAt: number } | null = null;
  let playing: { source: AudioBufferSourceNode; gain: GainNode } | null = null;
  let asked = 0;
  const heard = new Set<() => void>();
  const set = (part: Partial<PlayerState>) => {
    now = { ...now, ...part };
    for (const tell of heard) tell();
  };
  const begin = () => {
    const context = makeContext();
    const master = context.createGain();
    master.gain.value = 0;
    master.connect(context.destination);
    audio = { context, master, startedAt: context.currentTime };
    return audio;
  };
  const glide = (gain: AudioParam, to: number, seconds: number) => {
    const at = audio!.context.currentTime;
    gain.cancelScheduledValues(at);
    gain.setValueAtTime(gain.value, at);
    gain.linearRampToValueAtTime(to, at + seconds);
  };
  const play = (loop: HeardLoop) => {
    const { context, master, startedAt } = audio!;
    const first = playing === null;
    const source = context.createBufferSource();
    source.loop = true;
    const length = Math.max(1, loop.channels[0]?.length ?? 1);
    const buffer = context.createBuffer(Math.max(1, loop.channels.length), length, loop.sampleRateHz);
    loop.channels.forEach((c, i) => {
      buffer.copyToChannel(c as Float32Array<ArrayBuffer>, i);
    });
    source.buffer = buffer;
    const gain = context.createGain();
    gain.gain.value = 0;
    source.connect(gain).connect(master);
    source.start(0, (context.currentTime - startedAt) % SECONDS);
    glide(gain.gain, evenGain(loop), CROSS_S);
    if (playing) {
      glide(playing.gain.gain, 0, CROSS_S);
      playing.source.stop(context.currentTime + 2 * CROSS_S);
    }
    playing = { source, gain };
    if (first) glide(master.gain, gainOf(now.levelDb), RISE_S);
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
        const { context } = audio ?? begin();
        await context.resume();
        const loop = await render(rig, spot.at, SECONDS, context.sampleRate);
        if (ask !== asked || !audio) return;
        play(loop);
        const { sourceIds, hums, integratedLufs } = loop;
        set({ busy: false, loop: { sourceIds, hums, integratedLufs } });
      } catch (error) {
        if (ask === asked) set({ busy: false, failed: (error as Error).message });
      }
    },
    level(db) {
      set({ levelDb: db });
      if (audio) glide(audio.master.gain, gainOf(db), QUICK_S);
    },
    stop() {
      asked++;
      const old = audio;
      audio = null;
      playing = null;
      set({ spot: null, loop: null, busy: false, failed: null });
      if (!old) return;
      const at = old.context.currentTime;
      old.master.gain.cancelScheduledValues(at);
      old.master.gain.setValueAtTime(old.master.gain.value, at);
      old.master.gain.linearRampToValueAtTime(0, at + QUICK_S);
      setTimeout(() => void old.context.close(), 2000 * QUICK_S);
    },
  };
}

export const player: Player = makePlayer(() => new AudioContext({ latencyHint: 'playback' }));
