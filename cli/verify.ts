import { verifyFolder } from '#server/index.ts';
import type { Command } from './command.ts';
import { dataFolder } from './data.ts';

/** Looks at all that is kept: the database, every file against its hash, what speaks of what. It only reads. */
export const verify: Command = async () => {
  const found = await verifyFolder(dataFolder());
  const { rigs, revisions, takes, photographs, bytes, faults } = found;
  return {
    json: found,
    text: [
      `${rigs} rigs with ${revisions} versions, ${takes} takes, ${photographs} photos; ${(bytes / 1e6).toFixed(1)} MB.`,
      ...(faults.length === 0 ? ['No faults found.'] : faults),
    ].join('\n'),
    exitCode: faults.length === 0 ? 0 : 1,
  };
};
