import { listen as say } from '#words/index.ts';
import { type LiveInput, openInput } from './input.ts';

export interface OpenPieces {
  readonly inputs: readonly LiveInput[];
  readonly inputId: string;
  readonly sampleRateHz: number;
  stop(): void;
}

/**
 * Opens an input of this computer, as it comes: without echo canceling, noise suppression or gain of the browser's own.
 * Nothing is kept or played.
 * @param onPieces  a piece of each channel, up to this many frames, as received
 * @param onEnd     when the input ends unexpectedly, with a sentence
 * @throws Error with a sentence, where no leave was given or no input is there
 */
export async function openPieces(
  inputId: string | null,
  sides: number,
  onPieces: (pieces: readonly Float32Array[], sampleRateHz: number) => void,
  onEnd: (why: string) => void,
): Promise<OpenPieces> {
  const { stream, inputs, inputId: opened } = await openInput(inputId, sides);
  const context = new AudioContext();
  const stop = () => {
    for (const track of stream.getTracks()) track.stop();
    if (context.state !== 'closed') void context.close();
  };
  const [track] = stream.getAudioTracks();
  track?.addEventListener('ended', () => {
    stop();
    onEnd(say.inputDisappearedItWas());
  });
  try {
    await context.audioWorklet.addModule(new URL('/meter-worklet.js', window.location.href));
    const node = new AudioWorkletNode(context, 'mellow-tap-pieces', { numberOfOutputs: 0 });
    node.port.onmessage = ({ data }: MessageEvent<{ pieces: Float32Array[] }>) =>
      onPieces(data.pieces.slice(0, sides), context.sampleRate);
    context.createMediaStreamSource(stream).connect(node);
    if (context.state === 'suspended') await context.resume();
    return { inputs, inputId: opened, sampleRateHz: context.sampleRate, stop };
  } catch (error) {
    stop();
    throw error instanceof Error ? error : new Error(String(error));
  }
}
