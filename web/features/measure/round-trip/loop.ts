import { LONGEST_TRIP_S, type SentChirp, TRIP_EVERY_S, type Trip, tripChirp } from '#core/desk-tests/slates/index.ts';
import { type LiveInput, openInput } from '#web/shared/listen/index.ts';
import { roundTrip as say } from '#words/index.ts';

/** What returns to the page: an input of this computer, or the simulated loop. */
export type Back = { readonly kind: 'input'; readonly inputId: string | null } | { readonly kind: 'stand-in' };

/** Delay of the simulated loop, s, and its gain. */
export const STAND_IN_MS = 48.3;
const STAND_IN_GAIN = 0.4;

export interface RunningLoop {
  readonly inputs: readonly LiveInput[];
  readonly inputId: string;
  readonly sampleRateHz: number;
  /** What the browser says of itself, ms; null where it says nothing. */
  readonly outputMs: number;
  readonly inputMs: number | null;
  /** Linear; nothing is louder than set. */
  level(gain: number): void;
  stop(): void;
}

interface Options {
  readonly back: Back;
  readonly gain: number;
  readonly read: (samples: Float32Array, sampleRateHz: number, startS: number, sent: SentChirp) => Promise<Trip>;
  readonly onTrip: (trip: Trip) => void;
  readonly onEnd: (why: string) => void;
  readonly makeContext?: () => AudioContext;
}

const LEAD_S = 0.3;
const AHEAD_S = 1;
const TICK_MS = 150;
const RAMP_S = 0.05;
const CHIRP_SAMPLES_S = 0.1;
/** Length of the recording that is kept: a repetition is read once all of its possible return has arrived. */
const KEPT_S = 6;

/**
 * Sends chirps out and listens for them, both by the one clock of the sound card, until it is stopped. Each repeat is
 * handed over when all that could be its return has been heard.
 * @throws Error with a sentence where no input can be opened
 */
export async function runLoop({
  back,
  gain,
  read,
  onTrip,
  onEnd,
  makeContext = () => new AudioContext(),
}: Options): Promise<RunningLoop> {
  const opened = back.kind === 'input' ? await openInput(back.inputId, 1) : null;
  const context = makeContext();
  const out = context.createGain();
  out.gain.value = gain;
  let ended = false;
  const stop = () => {
    ended = true;
    clearInterval(timer);
    for (const track of opened?.stream.getTracks() ?? []) track.stop();
    if (context.state !== 'closed') void context.close();
  };
  opened?.stream.getAudioTracks()[0]?.addEventListener('ended', () => {
    if (ended) return;
    stop();
    onEnd(say.inputDisappearedItWas());
  });
  const rate = context.sampleRate;
  const heard = new Float32Array(KEPT_S * rate);
  let until = 0;
  const sent: SentChirp[] = [];
  const sendDue = () => {
    while (nextAtS < context.currentTime + AHEAD_S) {
      const kind = (count % 2) as 0 | 1;
      const samples = tripChirp(kind, rate) as Float32Array<ArrayBuffer>;
      const buffer = context.createBuffer(1, Math.ceil(CHIRP_SAMPLES_S * rate), rate);
      buffer.copyToChannel(samples, 0);
      const source = context.createBufferSource();
      source.buffer = buffer;
      source.connect(out);
      // On a whole sample: what stands between two is rounded by some browsers and not by others.
      const atS = Math.round(nextAtS * rate) / rate;
      source.start(atS);
      sent.push({ atS, kind });
      nextAtS += TRIP_EVERY_S;
      count++;
    }
  };
  const readDue = () => {
    const first = sent[0];
    if (!first || until / rate < first.atS + LONGEST_TRIP_S + CHIRP_SAMPLES_S) return;
    sent.shift();
    const fromFrame = Math.round(first.atS * rate);
    const samples = new Float32Array(Math.ceil((LONGEST_TRIP_S + CHIRP_SAMPLES_S) * rate));
    for (let i = 0; i < samples.length; i++) samples[i] = heard[(fromFrame + i) % heard.length]!;
    void read(samples, rate, fromFrame / rate, first).then((trip) => !ended && onTrip(trip));
  };
  let nextAtS = 0;
  let count = 0;
  const timer = setInterval(() => {
    sendDue();
    readDue();
  }, TICK_MS);
  try {
    await context.audioWorklet.addModule(new URL('/meter-worklet.js', window.location.href));
    const ears = new AudioWorkletNode(context, 'mellow-tap-pieces', { numberOfOutputs: 0 });
    ears.port.onmessage = ({ data }: MessageEvent<{ frame: number; pieces: Float32Array[] }>) => {
      const [piece] = data.pieces;
      if (!piece) return;
      for (let i = 0; i < piece.length; i++) heard[(data.frame + i) % heard.length] = piece[i]!;
      until = data.frame + piece.length;
    };
    if (opened) {
      out.connect(context.destination);
      context.createMediaStreamSource(opened.stream).connect(ears);
    } else {
      const loop = context.createDelay(1);
      loop.delayTime.value = STAND_IN_MS / 1000;
      const quieter = context.createGain();
      quieter.gain.value = STAND_IN_GAIN;
      out.connect(loop).connect(quieter).connect(ears);
    }
    if (context.state === 'suspended') await context.resume();
    nextAtS = context.currentTime + LEAD_S;
    const settings = opened?.stream.getAudioTracks()[0]?.getSettings() as { latency?: number } | undefined;
    return {
      inputs: opened?.inputs ?? [],
      inputId: opened?.inputId ?? '',
      sampleRateHz: rate,
      outputMs: 1000 * ((context.baseLatency || 0) + (context.outputLatency || 0)),
      inputMs: settings?.latency ? 1000 * settings.latency : null,
      level: (next) => void out.gain.setTargetAtTime(next, context.currentTime, RAMP_S),
      stop,
    };
  } catch (error) {
    stop();
    throw error instanceof Error ? error : new Error(String(error));
  }
}
