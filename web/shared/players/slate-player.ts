import { framesALoop, renderSlateSound, type Slate, secondsALoop } from '#core/desk-tests/slates/index.ts';
import { hertz } from '#core/model/units/index.ts';
import { heardAtS, LEAD_S, RAMP_S } from './clock.ts';

/** Output latency as the browser reports it, ms. */
export interface SlateLatency {
  readonly baseMs: number;
  readonly outputMs: number;
}

/** A slate that sounds: its picture goes by the clock of its sound. */
export interface SlatePlayer {
  /** The frame whose sound leaves the speaker at an instant of `performance.now`. */
  frameAt(performanceMs: number): number;
  latency(): SlateLatency;
  /** Linear, 0 is silent. */
  level(gain: number): void;
  stop(): void;
}

/** Loops are handed to the sound card this far ahead. */
const AHEAD_S = 4;
const TICK_MS = 500;

/**
 * Plays a slate without end: loop after loop at instants of the sound card's own clock, so that sound never wanders
 * against what is drawn.
 */
export async function playSlate(
  slate: Slate,
  gain: number,
  makeContext = () => new AudioContext(),
): Promise<SlatePlayer> {
  const context = makeContext();
  await context.resume();
  const out = context.createGain();
  out.gain.value = gain;
  out.connect(context.destination);
  const loopS = secondsALoop(slate.rate);
  const samples = renderSlateSound(slate, loopS, context.sampleRate);
  const buffer = context.createBuffer(1, samples.length, context.sampleRate);
  buffer.copyToChannel(samples, 0);
  const startS = context.currentTime + LEAD_S;
  let loops = 0;
  const feed = () => {
    while (startS + loops * loopS < context.currentTime + AHEAD_S) {
      const source = context.createBufferSource();
      source.buffer = buffer;
      source.connect(out);
      source.start(startS + loops * loopS);
      loops++;
    }
  };
  feed();
  const timer = setInterval(feed, TICK_MS);
  return {
    frameAt(performanceMs) {
      const frame = Math.floor((heardAtS(context, performanceMs) - startS) * hertz(slate.rate) + 1e-6);
      const loop = framesALoop(slate.rate);
      return ((frame % loop) + loop) % loop;
    },
    latency: () => ({ baseMs: 1000 * (context.baseLatency || 0), outputMs: 1000 * (context.outputLatency || 0) }),
    level(next) {
      out.gain.setTargetAtTime(next, context.currentTime, RAMP_S);
    },
    stop() {
      clearInterval(timer);
      if (context.state !== 'closed') void context.close();
    },
  };
}
