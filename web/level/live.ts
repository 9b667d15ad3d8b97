import { type LiveMeter, type LiveReading, liveMeter } from '#core/measure/index.ts';
import { type LiveInput, openInput } from '#web/listen/index.ts';

export interface Listening {
  readonly inputs: readonly LiveInput[];
  readonly inputId: string;
  stop(): void;
}

const READ_MS = 100;
const TWO_SIDES = 2;

/**
 * Opens an input of this computer, as it comes: without echo cancelling, noise suppression or gain of the browser's own.
 * Nothing is kept or played.
 * @param onReading  ten times a second
 * @param onEnd      when the input ends by itself, with a sentence
 * @throws Error with a sentence, where no leave was given or no input is there
 */
export async function listenLive(
  inputId: string | null,
  onReading: (reading: LiveReading) => void,
  onEnd: (why: string) => void,
): Promise<Listening> {
  const { stream, inputs, inputId: opened } = await openInput(inputId, TWO_SIDES);
  const context = new AudioContext();
  let meter: LiveMeter | null = null;
  let sides = 0;
  const stop = () => {
    clearInterval(timer);
    for (const track of stream.getTracks()) track.stop();
    if (context.state !== 'closed') void context.close();
  };
  const timer = setInterval(() => meter && onReading(meter.reading()), READ_MS);
  const [track] = stream.getAudioTracks();
  track?.addEventListener('ended', () => {
    stop();
    onEnd('The input went away: it was pulled, or another program took it. Plug it in and start again.');
  });
  try {
    await context.audioWorklet.addModule(new URL('/meter-worklet.js', window.location.href));
    const node = new AudioWorkletNode(context, 'mellow-tap-pieces', { numberOfOutputs: 0 });
    node.port.onmessage = ({ data }: MessageEvent<{ pieces: Float32Array[] }>) => {
      const channels = data.pieces.slice(0, TWO_SIDES);
      // An input may become stereo while it runs: then it is another meter.
      if (!meter || channels.length !== sides) {
        sides = channels.length;
        meter = liveMeter(sides, context.sampleRate);
      }
      meter.push(channels);
    };
    context.createMediaStreamSource(stream).connect(node);
    if (context.state === 'suspended') await context.resume();
    return { inputs, inputId: opened, stop };
  } catch (error) {
    stop();
    throw error instanceof Error ? error : new Error(String(error));
  }
}
