import { type InputWatch, inputWatch, type WatchState } from '#core/audio/measure/index.ts';
import { type LiveInput, openInput, openPieces } from '#web/shared/listen/index.ts';
import { canWatchTracks, watchTrack } from '#web/shared/workers/index.ts';
import { listen as say } from '#words/index.ts';

/** An open input with how it is. */
export interface OpenWatch {
  readonly inputs: readonly LiveInput[];
  readonly inputId: string;
  /** Null while too little was heard. */
  state(): WatchState | null;
  setUsual(lufs: number | null): void;
  stop(): void;
}

interface Expects {
  readonly voice: boolean;
}
const SIDES = 2;

/**
 * Opens an input and watches it: beside the page where the browser hands out what it captures, else on the page.
 * @param onEnd  when the input ends unexpectedly, with a sentence
 * @throws Error with a sentence, where it cannot be opened
 */
export const openWatch = (inputId: string | null, expects: Expects, onEnd: (why: string) => void): Promise<OpenWatch> =>
  (canWatchTracks() ? besidePage : onPage)(inputId, expects, onEnd);

async function besidePage(inputId: string | null, expects: Expects, onEnd: (why: string) => void): Promise<OpenWatch> {
  const { stream, inputs, inputId: opened } = await openInput(inputId, SIDES);
  const track = stream.getAudioTracks()[0]!;
  let state: WatchState | null = null;
  const end = (why: string) => {
    stop();
    onEnd(why);
  };
  const watch = watchTrack(
    track,
    expects,
    (now) => {
      state = now;
    },
    end,
  );
  const stop = () => {
    track.stop();
    watch.close();
  };
  track.addEventListener('ended', () => end(say.inputDisappearedItWas()));
  return { inputs, inputId: opened, state: () => state, setUsual: watch.setUsual, stop };
}

async function onPage(inputId: string | null, expects: Expects, onEnd: (why: string) => void): Promise<OpenWatch> {
  let watch: InputWatch | null = null;
  let sides = 0;
  const {
    inputs,
    inputId: opened,
    stop,
  } = await openPieces(
    inputId,
    SIDES,
    (pieces, sampleRateHz) => {
      if (!watch || pieces.length !== sides) {
        sides = pieces.length;
        watch = inputWatch(sides, sampleRateHz, expects);
      }
      watch.push(pieces);
    },
    onEnd,
  );
  return {
    inputs,
    inputId: opened,
    state: () => watch?.state() ?? null,
    setUsual: (lufs) => watch?.setUsual(lufs),
    stop,
  };
}
