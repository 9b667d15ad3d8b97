import { expose } from 'comlink';
import { type InputWatch, inputWatch, type WatchState } from '#core/audio/measure/index.ts';

const SIDES = 2;
const STATE_S = 1;
let watch: InputWatch | null = null;

/** One input, watched beside the page by its own clock. */
const api = {
  /** Watches until the stream ends; `onState` gets how it is about once a second of sound. */
  async watch(
    pieces: ReadableStream<AudioData>,
    expects: { readonly voice: boolean },
    onState: (state: WatchState) => void,
  ): Promise<void> {
    const reader = pieces.getReader();
    let [sides, rate, sinceState] = [0, 0, 0];
    for (;;) {
      const { value, done } = await reader.read();
      if (done) return;
      const channels = Array.from({ length: Math.min(SIDES, value.numberOfChannels) }, (_, planeIndex) => {
        const samples = new Float32Array(value.numberOfFrames);
        value.copyTo(samples, { planeIndex, format: 'f32-planar' });
        return samples;
      });
      const { sampleRate, numberOfFrames } = value;
      value.close();
      if (!watch || channels.length !== sides || sampleRate !== rate) {
        [sides, rate] = [channels.length, sampleRate];
        watch = inputWatch(sides, rate, expects);
      }
      watch.push(channels);
      sinceState += numberOfFrames / rate;
      if (sinceState < STATE_S) continue;
      sinceState = 0;
      onState(watch.state());
    }
  },
  setUsual(lufs: number | null): void {
    watch?.setUsual(lufs);
  },
};

export type WatchApi = typeof api;
expose(api);
