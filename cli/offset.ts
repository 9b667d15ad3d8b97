import { measureOffset } from '#core/measure/index.ts';
import { type Command, withWavs } from './command.ts';
import { loadFft } from './edges.ts';

const SAME_SOUND = 0.5;

/** How much later the same sound stands in the second file. */
export const offset: Command = (files, options) =>
  withWavs(files, options, async ([ref, other]) => {
    const { offsetMs, spreadMs, confidence, driftPpm, driftSdPpm, polarity } = await measureOffset(
      await loadFft(),
      ref!,
      other!,
    );
    const drift = driftPpm === null ? 'drift unknown (too short)' : `drift ${driftPpm.toFixed(2)} ppm`;
    const text =
      confidence < SAME_SOUND
        ? `Not the same sound (confidence ${confidence.toFixed(2)}).`
        : `${Math.abs(offsetMs).toFixed(3)} ms ${offsetMs < 0 ? 'earlier' : 'later'} (± ${spreadMs.toFixed(3)}), ${drift}, ${polarity < 0 ? 'inverted' : 'same polarity'}, confidence ${confidence.toFixed(2)}`;
    return { json: { offsetMs, confidence, driftPpm, polarity, spreadMs, driftSdPpm }, text };
  });
