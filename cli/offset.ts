import { measureOffset } from '#core/audio/measure/index.ts';
import { cli as say } from '#words/index.ts';
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
    const drift = driftPpm === null ? say.driftUnknownTooShort() : say.driftPpm({ driftPpm: driftPpm.toFixed(2) });
    const text =
      confidence < SAME_SOUND
        ? say.notSameSoundConfidence2({ confidence: confidence.toFixed(2) })
        : say.msEarlierInverted({
            offset: Math.abs(offsetMs).toFixed(3),
            order: offsetMs < 0 ? 'earlier' : 'later',
            spread: spreadMs.toFixed(3),
            drift,
            polarity: polarity < 0 ? 'inverted' : 'same',
            confidence: confidence.toFixed(2),
          });
    return { json: { offsetMs, confidence, driftPpm, polarity, spreadMs, driftSdPpm }, text };
  });
