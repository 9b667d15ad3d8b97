import { LARGEST_RIG_BYTES } from '#api/index.ts';
import { type Measurement, parseRig, parseRigText, type Rig } from '#core/model/rig/index.ts';
import { server as say } from '#words/index.ts';
import { HttpProblem } from '../http/problem.ts';
import { pack } from './packed.ts';

/** A rig prepared for writing: its text, and what goes into tables of its own. */
export interface MadeRig {
  readonly name: string;
  readonly text: string;
  /** The text, deflated. */
  readonly packed: Uint8Array;
  readonly measurements: readonly Measurement[];
  /** Photographs that it speaks of, by their hashes. */
  readonly photos: readonly string[];
}

/** @throws HttpProblem 413 for one that is too large */
export async function makeRig(rig: Rig): Promise<MadeRig> {
  const text = JSON.stringify(rig);
  // The same limit for every way in: what is imported can be saved again.
  if (Buffer.byteLength(text) > LARGEST_RIG_BYTES) throw new HttpProblem(413, say.tooLarge(), say.rigIsLargerThan());
  const photos = [...new Set(rig.devices.flatMap((d) => (d.photos ?? []).map((p) => p.sha256)))];
  return { name: rig.name, text, packed: await pack(text), measurements: rig.measurements, photos };
}

/** From the body of a request; null where it doesn't declare JSON. @throws RigError, HttpProblem 400 for invalid JSON */
export async function readRig(bytes: Uint8Array | null): Promise<MadeRig> {
  if (bytes === null) return makeRig(parseRig(undefined));
  const text = new TextDecoder().decode(bytes);
  try {
    return await makeRig(parseRigText(text));
  } catch (error) {
    if ((error as { code?: string }).code !== 'not-json') throw error;
    throw new HttpProblem(400, say.notJson(), say.requestIsNotJson());
  }
}
