import { atMoment, parseRigText, type Rig } from '#core/model/rig/index.ts';
import { cli as say } from '#words/index.ts';
import { openFile, UsageError } from './edges.ts';

const LARGEST_RIG_BYTES = 5_000_000;

/** @throws UsageError, or RigError with the place and the reason */
export async function readRig(path: string): Promise<Rig> {
  const file = await openFile(path);
  try {
    if (file.size > LARGEST_RIG_BYTES)
      throw new UsageError(say.hasBytesRigHas({ path, size: file.size, most: LARGEST_RIG_BYTES }));
    return parseRigText(new TextDecoder().decode(await file.read(0, file.size)));
  } finally {
    await file.close();
  }
}

/**
 * The rig as it stands in a moment, by its id or name; the plain rig where none is named.
 * @throws UsageError with the moments that there are
 */
export function inMoment(rig: Rig, named: string | undefined): Rig {
  if (named === undefined || named === rig.session.plainMoment) return rig;
  const moment = rig.moments.find((m) => m.id === named || m.name === named);
  if (moment) return atMoment(rig, moment.id);
  const known = rig.moments.map((m) => m.id).join(', ');
  throw new UsageError(say.thereIsNoMoment({ moment: named, known: known === '' ? 'none' : known }));
}
