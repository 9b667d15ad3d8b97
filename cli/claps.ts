import { findClaps } from '#core/measure/index.ts';
import { type Command, withWavs } from './command.ts';
import { loadFft } from './edges.ts';

/** The instants of claps and slate clacks. */
export const claps: Command = (files, options) =>
  withWavs(files, options, async ([file]) => {
    const found = await findClaps(await loadFft(), file!);
    const text =
      found.length === 0
        ? 'No claps.'
        : found
            .map(
              (c) =>
                `${(c.atMs / 1000).toFixed(4)} s, ${c.strength.toFixed(0)} dB above its surroundings, confidence ${Math.round(100 * c.confidence)}%`,
            )
            .join('\n');
    return { json: { claps: found }, text };
  });
