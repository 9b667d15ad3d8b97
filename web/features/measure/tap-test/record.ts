import { openInput } from '#web/shared/listen/index.ts';

/** A take straight from an input of this computer. */
export interface Recording {
  /** What was recorded, once it has been stopped. */
  readonly file: Promise<File>;
  stop(): void;
}

const CHANNELS = 2;

/**
 * Records an input until it is stopped.
 * @throws Error with a sentence, where the browser gives no input
 */
export async function recordInput(name: string): Promise<Recording> {
  const { stream } = await openInput(null, CHANNELS);
  const recorder = new MediaRecorder(stream, { audioBitsPerSecond: 256_000 });
  const pieces: Blob[] = [];
  const file = new Promise<File>((resolve) => {
    recorder.ondataavailable = (e) => pieces.push(e.data);
    recorder.onstop = () => {
      for (const track of stream.getTracks()) track.stop();
      resolve(new File(pieces, `${name}.webm`, { type: 'audio/webm' }));
    };
  });
  recorder.start();
  return {
    file,
    stop: () => {
      if (recorder.state !== 'inactive') recorder.stop();
    },
  };
}
