import { type LiveMeter, type LiveReading, liveMeter } from '#core/audio/measure/index.ts';
import { type LiveInput, openPieces } from '#web/shared/listen/index.ts';

export interface Listening {
  readonly inputs: readonly LiveInput[];
  readonly inputId: string;
  stop(): void;
}

const READ_MS = 100;
const TWO_SIDES = 2;

/**
 * Meters an input of this computer.
 * @param onReading  ten times a second
 * @param onEnd      when the input ends unexpectedly, with a sentence
 * @throws Error with a sentence, where no leave was given or no input is there
 */
export async function listenLive(
  inputId: string | null,
  onReading: (reading: LiveReading) => void,
  onEnd: (why: string) => void,
): Promise<Listening> {
  let meter: LiveMeter | null = null;
  let sides = 0;
  const hear = (pieces: readonly Float32Array[], sampleRateHz: number) => {
    // An input may become stereo while it runs: then it is another meter.
    if (!meter || pieces.length !== sides) {
      sides = pieces.length;
      meter = liveMeter(sides, sampleRateHz);
    }
    meter.push(pieces);
  };
  const timer = setInterval(() => meter && onReading(meter.reading()), READ_MS);
  const end = (why: string) => {
    clearInterval(timer);
    onEnd(why);
  };
  try {
    const { inputs, inputId: opened, stop } = await openPieces(inputId, TWO_SIDES, hear, end);
    return {
      inputs,
      inputId: opened,
      stop: () => {
        clearInterval(timer);
        stop();
      },
    };
  } catch (error) {
    clearInterval(timer);
    throw error;
  }
}
