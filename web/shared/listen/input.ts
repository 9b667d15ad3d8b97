import { listen as say } from '#words/index.ts';
/** What an input is called, and how it is asked for. */
export interface LiveInput {
  readonly id: string;
  readonly name: string;
}

/**
 * Opens an input of this computer, as it comes: without echo canceling, noise suppression or gain of the browser's own.
 * @throws Error with a sentence, where no leave was given or no input is there
 */
export async function openInput(
  inputId: string | null,
  channels: number,
): Promise<{ readonly stream: MediaStream; readonly inputs: readonly LiveInput[]; readonly inputId: string }> {
  const media = navigator.mediaDevices as MediaDevices | undefined;
  if (!media?.getUserMedia) throw new Error(say.thisBrowserWontOpen());
  const stream = await media
    .getUserMedia({
      audio: {
        ...(inputId ? { deviceId: { exact: inputId } } : {}),
        channelCount: { ideal: channels },
        echoCancellation: false,
        noiseSuppression: false,
        autoGainControl: false,
      },
    })
    .catch((error: unknown) => {
      throw new Error(sayRefusal(error));
    });
  const inputs = (await media.enumerateDevices())
    .filter((d) => d.kind === 'audioinput')
    .map((d, i) => ({ id: d.deviceId, name: d.label || say.input({ n1: i + 1 }) }));
  return { stream, inputs, inputId: stream.getAudioTracks()[0]?.getSettings().deviceId ?? inputs[0]?.id ?? '' };
}

function sayRefusal(error: unknown): string {
  const name = error instanceof DOMException ? error.name : '';
  if (name === 'NotAllowedError') return say.microphoneAccessWasDenied();
  if (name === 'NotFoundError' || name === 'OverconstrainedError') return say.thatInputIsntThere();
  return say.inputCantBeOpened();
}
