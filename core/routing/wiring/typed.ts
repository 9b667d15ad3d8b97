import { type Edit, findTypes, type Rig } from '#core/model/rig/index.ts';
import { type OwnWords, readChains } from '#core/routing/grammar/index.ts';
import { fitsAmong } from './between.ts';
import { chooseTypes } from './choose.ts';
import { Drawing, type Spoken, type TypedBox, type TypedLead, type TypedUse } from './drawing.ts';
import { countForEach } from './each.ts';
import { startingLevels } from './levels.ts';

export interface Typed {
  readonly boxes: readonly TypedBox[];
  readonly leads: readonly TypedLead[];
  readonly uses: readonly TypedUse[];
  readonly spoken: readonly Spoken[];
  /** Sockets that were named and that the device has not: 'Mixer: aux in'. */
  readonly noSocket: readonly { readonly deviceId: string; readonly socket: string }[];
  /** Named beside something that no one knows: where they lead is open. */
  readonly waiting: readonly string[];
  /** The person who types, where they named themselves. */
  readonly you: string | null;
  /** What was put there although no one named it. */
  readonly added: readonly string[];
  /** Null where nothing was understood. */
  readonly edit: Edit | null;
  /** The rig with it. */
  readonly rig: Rig;
}

export interface TypedOptions {
  /** Whether gains are set. */
  readonly levels?: boolean;
  /** Called as typed, or as the library has it. */
  readonly names?: 'typed' | 'type';
  readonly own?: OwnWords;
  /** Whether an app that is named after its computer captures at once what arrives there. */
  readonly takes?: boolean;
}

/**
 * Reads what was typed of a desk and draws it: devices, and leads from each to the next, as assumed. The same words mean
 * the same device, and a device of that name on the desk is meant where there is one; '2 mic' are two. What is no word of any
 * type is left out, and reported.
 */
export function readTyped(
  rig: Rig,
  text: string,
  { levels = true, names = 'typed', own, takes = false }: TypedOptions = {},
): Typed {
  const types = findTypes(rig);
  const fits = fitsAmong(types);
  const chains = countForEach(readChains(text, types, fits, own));
  const chosen = chooseTypes(chains, fits);
  const desk = new Drawing(rig, names, chosen, takes);
  for (const chain of chains) desk.draw(chain);
  desk.finish();
  const before = new Set(rig.devices.map((d) => d.id));
  const fresh = desk.rig.devices.filter((d) => !before.has(d.id)).map((d) => d.id);
  if (levels) for (const edit of startingLevels(desk.rig, new Set(fresh))) desk.take(edit);
  const { boxes, leads, uses, spoken, noSocket, waiting, you, added, edits } = desk;
  const understood = boxes.some((b) => b.type !== null);
  const edit: Edit | null = understood ? { kind: 'batch', edits } : null;
  return { boxes, leads, uses, spoken, noSocket, waiting, you, added, edit, rig: desk.rig };
}
