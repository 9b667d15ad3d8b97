import { findClaps } from '#core/audio/measure/index.ts';
import { cli as say } from '#words/index.ts';
import { type Command, withWavs } from './command.ts';
import { loadFft } from './edges.ts';

/** The instants of claps and slate clacks. */
export const claps: Command = (files, options) =>
  withWavs(files, options, async ([file]) => {
    const found = await findClaps(await loadFft(), file!);
    const text =
      found.length === 0
        ? say.noClaps()
        : found
            .map((c) =>
              say.sDbAboveIts({
                atS: (c.atMs / 1000).toFixed(4),
                strength: c.strength.toFixed(0),
                confidence: Math.round(100 * c.confidence),
              }),
            )
            .join('\n');
    return { json: { claps: found }, text };
  });
