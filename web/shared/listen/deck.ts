/** A sound that goes round, and the gain it is played at. */
export interface Loop {
  readonly channels: readonly Float32Array[];
  readonly sampleRateHz: number;
  readonly gain: number;
}

/** What makes sound of it: the browser's audio, or a test's. */
export type MakeContext = () => AudioContext;

/** Plays one loop at a time. It starts from nothing and comes up slowly; goes over to another loop at the same instant. */
export interface Deck {
  /** The browser's audio, begun. @returns the rate that loops are best made at */
  open(): Promise<number>;
  isOpen(): boolean;
  play(loop: Loop): void;
  level(db: number): void;
  stop(): void;
}

export const LOWEST_DB = -60;
export const START_DB = -18;
/** Fade-in time from silence to the set level, s. */
const RISE_S = 4;
const CROSS_S = 0.04;
const QUICK_S = 0.05;

const gainOf = (db: number): number => (db <= LOWEST_DB ? 0 : 10 ** (db / 20));

export function makeDeck(makeContext: MakeContext): Deck {
  let levelDb = START_DB;
  let audio: { context: AudioContext; master: GainNode; startedAt: number } | null = null;
  let playing: { source: AudioBufferSourceNode; gain: GainNode } | null = null;
  let buffers = new WeakMap<readonly Float32Array[], AudioBuffer>();
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
  const bufferOf = ({ channels, sampleRateHz }: Loop): AudioBuffer => {
    const known = buffers.get(channels);
    if (known) return known;
    const length = Math.max(1, channels[0]?.length ?? 1);
    const buffer = audio!.context.createBuffer(Math.max(1, channels.length), length, sampleRateHz);
    channels.forEach((c, i) => {
      buffer.copyToChannel(c as Float32Array<ArrayBuffer>, i);
    });
    buffers.set(channels, buffer);
    return buffer;
  };
  return {
    async open() {
      const { context } = audio ?? begin();
      await context.resume();
      return context.sampleRate;
    },
    isOpen: () => audio !== null,
    play(loop) {
      if (!audio) return;
      const { context, master, startedAt } = audio;
      const first = playing === null;
      const source = context.createBufferSource();
      source.loop = true;
      source.buffer = bufferOf(loop);
      const gain = context.createGain();
      gain.gain.value = 0;
      source.connect(gain).connect(master);
      const seconds = Math.max(1, loop.channels[0]?.length ?? 1) / loop.sampleRateHz;
      source.start(0, (context.currentTime - startedAt) % seconds);
      glide(gain.gain, loop.gain, CROSS_S);
      if (playing) {
        glide(playing.gain.gain, 0, CROSS_S);
        playing.source.stop(context.currentTime + 2 * CROSS_S);
      }
      playing = { source, gain };
      if (first) glide(master.gain, gainOf(levelDb), RISE_S);
    },
    level(db) {
      levelDb = db;
      if (audio) glide(audio.master.gain, gainOf(db), QUICK_S);
    },
    stop() {
      const old = audio;
      audio = null;
      playing = null;
      buffers = new WeakMap();
      if (!old) return;
      const at = old.context.currentTime;
      old.master.gain.cancelScheduledValues(at);
      old.master.gain.setValueAtTime(old.master.gain.value, at);
      old.master.gain.linearRampToValueAtTime(0, at + QUICK_S);
      setTimeout(() => void old.context.close(), 2000 * QUICK_S);
    },
  };
}

export const browserAudio: MakeContext = () => new AudioContext({ latencyHint: 'playback' });
