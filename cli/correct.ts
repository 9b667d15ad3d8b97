import { createWriteStream } from 'node:fs';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { measureJumps, measureOffset, piecesOf, stretchesOf } from '#core/measure/index.ts';
import { corrected, wavPieces } from '#core/samples/index.ts';
import { type Command, withWavs } from './command.ts';
import { loadFft, UsageError } from './edges.ts';

const SAME_SOUND = 0.5;

/** Writes the second recording so that it lies to the first, from beginning to end: moved, its drift undone, cut where a buffer was lost; as a broadcast wave with its time reference, where one is given. */
export const correct: Command = ([ref, other, out], options) => {
  if (out === ref || out === other) throw new UsageError('Name a new file for the result: the takes are not changed.');
  const asked = options.values['time-reference'];
  if (asked !== undefined && !/^\d{1,15}$/.test(asked))
    throw new UsageError('A time reference is a whole number of samples since midnight.');
  return withWavs([ref!, other!], options, async ([first, second]) => {
    const fftOf = await loadFft();
    const offset = await measureOffset(fftOf, first!, second!);
    const { confidence } = offset;
    if (confidence < SAME_SOUND)
      throw new UsageError(`Not the same sound (confidence ${confidence.toFixed(2)}). Nothing was written.`);
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
      text: `${out}: moved by ${(-offsetMs).toFixed(3)} ms, played at ${(1 + longerPpm * 1e-6).toFixed(8)} of its speed${stretches.length > 1 ? `, in ${stretches.length} parts, each aligned on its own` : ''}.`,
    };
  });
};
