import { writeFile } from 'node:fs/promises';
import { encodeWav } from '#core/audio/samples/index.ts';
import { renderTune, SILENCE_S, TUNE_S, TUNES } from '#core/desk-tests/tunes/index.ts';
import { cli as say } from '#words/index.ts';
import type { Command } from './command.ts';
import { UsageError } from './edges.ts';

const RATES = [44_100, 48_000];

/** Writes the tune of a source, to be carried to a player by hand. */
export const tune: Command = async ([id, out], { values }) => {
  const number = Number(id);
  if (!/^\d{1,2}$/.test(id!) || number < 1 || number > TUNES)
    throw new UsageError(say.tuneHasNumberFrom({ most: TUNES }));
  const rate = Number(values.rate ?? 48_000);
  if (!RATES.includes(rate)) throw new UsageError(say.isOne({ option: '--rate', names: RATES.join(', ') }));
  const sound = renderTune(number - 1, rate);
  await writeFile(out!, encodeWav([sound], rate));
  const seconds = TUNE_S + 2 * SILENCE_S;
  return {
    json: { file: out!, tune: number, seconds, sampleRateHz: rate },
    text: say.tuneSStartQuietly({ out: out!, number, seconds }),
  };
};
