import { createWriteStream } from 'node:fs';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { measureJumps, measureOffset, piecesOf, stretchesOf } from '#core/audio/measure/index.ts';
import { corrected, wavPieces } from '#core/audio/samples/index.ts';
import { cli as say } from '#words/index.ts';
import { type Command, withWavs } from './command.ts';
import { loadFft, UsageError } from './edges.ts';

const SAME_SOUND = 0.5;

/** Writes the second recording so that it lies to the first, from beginning to end: moved, its drift undone, cut where a buffer was lost; as a broadcast wave with its time reference, where one is given. */
export const correct: Command = ([ref, other, out], options) => {
  if (out === ref || out === other) throw new UsageError(say.nameNewFileFor());
  const asked = options.values['time-reference'];
  if (asked !== undefined && !/^\d{1,15}$/.test(asked)) throw new UsageError(say.timeReferenceIsWhole());
  return withWavs([ref!, other!], options, async ([first, second]) => {
    const fftOf = await loadFft();
    const offset = await measureOffset(fftOf, first!, second!);
    const { confidence } = offset;
    if (confidence < SAME_SOUND)
      throw new UsageError(say.notSameSoundConfidence({ confidence: confidence.toFixed(2) }));
    const stretches = stretchesOf(await measureJumps(fftOf, first!, second!, offset));
    const moved = corrected(second!, piecesOf(stretches, second!.sampleRateHz));
    const { offsetMs, longerPpm } = stretches[0]!;
    const pieces = wavPieces(moved, asked === undefined ? {} : { timeReference: Number(asked) });
    await pipeline(Readable.from(pieces), createWriteStream(out!));
    return {
      json: {
        file: out!,
        movedMs: -offsetMs,
        speed: 1 + longerPpm * 1e-6,
        stretches,
        frames: moved.frames,
        sampleRateHz: moved.sampleRateHz,
      },
      text: say.movedByMsPlayed({
        out: out!,
        byMs: (-offsetMs).toFixed(3),
        speed: (1 + longerPpm * 1e-6).toFixed(8),
        parts: stretches.length,
      }),
    };
  });
};
