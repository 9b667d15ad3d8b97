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
  const listed = (await media.enumerateDevices()).filter((d) => d.kind === 'audioinput');
  const inputs = listed.map((d, i) => ({ id: d.deviceId, name: d.label || say.input({ n1: i + 1 }) }));
  const openedId = stream.getAudioTracks()[0]?.getSettings().deviceId ?? inputs[0]?.id ?? '';
  return { stream, inputs, inputId: deviceBehind(listed, openedId) };
}

/** What some browsers list for the system's choice, beside the device that it is. */
const ALIASES = new Set(['default', 'communications']);

/** The device itself, where the one that was opened only stands for the system's choice. */
function deviceBehind(listed: readonly MediaDeviceInfo[], id: string): string {
  if (!ALIASES.has(id)) return id;
  const alias = listed.find((d) => d.deviceId === id);
  const own = listed.find((d) => !ALIASES.has(d.deviceId) && d.groupId !== '' && d.groupId === alias?.groupId);
  return own?.deviceId ?? id;
}

function sayRefusal(error: unknown): string {
  const name = error instanceof DOMException ? error.name : '';
  if (name === 'NotAllowedError') return say.microphoneAccessWasDenied();
  if (name === 'NotFoundError' || name === 'OverconstrainedError') return say.thatInputIsntThere();
  return say.inputCantBeOpened();
}
