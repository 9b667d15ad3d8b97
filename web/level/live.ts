import { type LiveMeter, type LiveReading, liveMeter } from '#core/measure/index.ts';

/** What an input is called, and how it is asked for. */
export interface LiveInput {
  readonly id: string;
  readonly name: string;
}

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
  const media = navigator.mediaDevices as MediaDevices | undefined;
  if (!media?.getUserMedia) throw new Error('This browser opens no inputs. Open Mellow Tap at 127.0.0.1.');
  const stream = await media
    .getUserMedia({
      audio: {
        ...(inputId ? { deviceId: { exact: inputId } } : {}),
        channelCount: { ideal: TWO_SIDES },
        echoCancellation: false,
        noiseSuppression: false,
        autoGainControl: false,
      },
    })
    .catch((error: unknown) => {
      throw new Error(sayRefusal(error));
    });
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
    node.port.onmessage = ({ data }: MessageEvent<Float32Array[]>) => {
      const channels = data.slice(0, TWO_SIDES);
      // An input may become stereo while it runs: then it is another meter.
      if (!meter || channels.length !== sides) {
        sides = channels.length;
        meter = liveMeter(sides, context.sampleRate);
      }
      meter.push(channels);
    };
    context.createMediaStreamSource(stream).connect(node);
    if (context.state === 'suspended') await context.resume();
    const inputs = (await media.enumerateDevices())
      .filter((d) => d.kind === 'audioinput')
      .map((d, i) => ({ id: d.deviceId, name: d.label || `Input ${i + 1}` }));
    return { inputs, inputId: track?.getSettings().deviceId ?? inputs[0]?.id ?? '', stop };
  } catch (error) {
    stop();
    throw error instanceof Error ? error : new Error(String(error));
  }
}

function sayRefusal(error: unknown): string {
  const name = error instanceof DOMException ? error.name : '';
  if (name === 'NotAllowedError')
    return 'The browser was not given leave. Allow the microphone for this page, and start again.';
  if (name === 'NotFoundError' || name === 'OverconstrainedError')
    return 'That input is not there. Plug it in, or choose another one.';
  return 'The input cannot be opened: another program may hold it. Close that one, and start again.';
}
