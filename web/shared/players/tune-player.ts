import { renderTune } from '#core/desk-tests/tunes/index.ts';
import { hertz, type Rate } from '#core/model/units/index.ts';
import { heardAtS, LEAD_S, RAMP_S } from './clock.ts';

/** A tune that sounds once; the panel beside it goes by the clock of its sound. */
export interface TunePlayer {
  frameAt(performanceMs: number): number;
  /** Linear, 0 is silent. */
  level(gain: number): void;
  stop(): void;
}

/** A tune that no one looks for: to hear how loud it will be, without being taken for one that counts. */
const TRY_TUNE = 31;
const RISE_S = 5;

interface Play {
  readonly tune: number;
  readonly gain: number;
  readonly rate: Rate;
  readonly onEnd: () => void;
  readonly makeContext?: () => AudioContext;
}

/** Plays a tune once, by a plain buffer: it needs nothing that a page without encryption would not get. */
export const playTune = (play: Play): Promise<TunePlayer> =>
  start(play, play.tune, (out, context) => out.setValueAtTime(play.gain, context.currentTime));

/** Plays a trial tune that fades in slowly to the set level: anyone who hears it can still call stop. */
export const tryTune = (play: Omit<Play, 'tune'>): Promise<TunePlayer> =>
  start({ ...play, tune: TRY_TUNE }, TRY_TUNE, (out, context) => {
    out.setValueAtTime(0, context.currentTime);
    out.linearRampToValueAtTime(play.gain, context.currentTime + RISE_S);
  });

async function start(
  { rate, onEnd, makeContext = () => new AudioContext() }: Play,
  tune: number,
  begin: (gain: AudioParam, context: AudioContext) => void,
): Promise<TunePlayer> {
  const context = makeContext();
  await context.resume();
  const out = context.createGain();
  begin(out.gain, context);
  out.connect(context.destination);
  const samples = renderTune(tune, context.sampleRate);
  const buffer = context.createBuffer(1, samples.length, context.sampleRate);
  buffer.getChannelData(0).set(samples);
  const source = context.createBufferSource();
  source.buffer = buffer;
  source.connect(out);
  const startS = context.currentTime + LEAD_S;
  const stop = () => {
    if (context.state !== 'closed') void context.close();
  };
  source.onended = () => {
    stop();
    onEnd();
  };
  source.start(startS);
  return {
    frameAt: (performanceMs) =>
      Math.max(0, Math.floor((heardAtS(context, performanceMs) - startS) * hertz(rate) + 1e-6)),
    level(gain) {
      out.gain.cancelScheduledValues(context.currentTime);
      out.gain.setTargetAtTime(gain, context.currentTime, RAMP_S);
    },
    stop,
  };
}
