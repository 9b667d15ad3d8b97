import { verifyFolder } from '#server/index.ts';
import { cli as say } from '#words/index.ts';
import type { Command } from './command.ts';
import { dataFolder } from './data.ts';

/** Looks at all that is kept: the database, every file against its hash, what speaks of what. It only reads. */
export const verify: Command = async () => {
  const found = await verifyFolder(dataFolder());
  const { rigs, revisions, takes, photographs, bytes, faults } = found;
  return {
    json: found,
    text: [
      say.rigWithVersionTakePhoto({ rigs, revisions, takes, photographs, mb: (bytes / 1e6).toFixed(1) }),
      ...(faults.length === 0 ? [say.noFaultsFound()] : faults),
    ].join('\n'),
    exitCode: faults.length === 0 ? 0 : 1,
  };
};
