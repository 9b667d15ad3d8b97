import type { Levels } from '#core/audio/measure/index.ts';
import { cli as say } from '#words/index.ts';
import { type Command, withWavs } from './command.ts';
import { levelsOfFile } from './levels.ts';

/** Loudness by BS.1770-5 and EBU Tech 3341 and 3342, true peak and sample peak. */
export const loudness: Command = (files, options) =>
  withWavs(files, options, async ([file]) => {
    const levels = await levelsOfFile(files[0]!, file!, options.asItIs);
    return { json: rounded(levels), text: sayLevels(levels) };
  });

const rounded = (levels: Levels): Record<string, number | null> =>
  Object.fromEntries(
    Object.entries(levels).map(([key, value]) => [key, value === null ? null : Math.round(value * 1000) / 1000]),
  );

function sayLevels({
  integratedLufs,
  rangeLu,
  maxMomentaryLufs,
  maxShortTermLufs,
  truePeakDbtp,
  samplePeakDbfs,
}: Levels): string {
  if (samplePeakDbfs === null) return say.silence();
  const level = (value: number | null, unit: string) => (value === null ? say.none() : `${value.toFixed(1)} ${unit}`);
  return [
    say.integrated({ level: level(integratedLufs, 'LUFS') }),
    say.range({ level: level(rangeLu, 'LU') }),
    say.momentaryMax({ level: level(maxMomentaryLufs, 'LUFS') }),
    say.shortTermMax({ level: level(maxShortTermLufs, 'LUFS') }),
    say.truePeak({ level: level(truePeakDbtp, 'dBTP') }),
    say.samplePeak({ level: level(samplePeakDbfs, 'dBFS') }),
  ].join('\n');
}
