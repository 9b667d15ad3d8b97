import { parseRigText, type Rig } from '#core/rig/index.ts';
import { openFile, UsageError } from './edges.ts';

const LARGEST_RIG_BYTES = 5_000_000;

/** @throws UsageError, or RigError with the place and the reason */
export async function readRig(path: string): Promise<Rig> {
  const file = await openFile(path);
  try {
    if (file.size > LARGEST_RIG_BYTES)
      throw new UsageError(
        `${path} has ${file.size} bytes; a rig has at most ${LARGEST_RIG_BYTES}. Name another file.`,
      );
    return parseRigText(new TextDecoder().decode(await file.read(0, file.size)));
  } finally {
    await file.close();
  }
}
