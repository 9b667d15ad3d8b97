import { applyEdit, emptyRig } from '#core/rig/index.ts';
import { readTyped } from '#core/wire/index.ts';
import type { Command } from './command.ts';
import { UsageError } from './edges.ts';

/** A rig from a typed line of boxes: 'console > splitter > capture > computer; usb mic > computer'. */
export const newRig: Command = async ([line]) => {
  const empty = emptyRig('My desk');
  const typed = readTyped(empty, line!);
  const unknown = typed.boxes.filter((b) => b.type === null).map((b) => `'${b.word}'`);
  if (unknown.length > 0) throw new UsageError(`No type has the words ${unknown.join(', ')}.`);
  const done = typed.edit && applyEdit(empty, typed.edit);
  if (!done?.ok)
    throw new UsageError('Nothing was typed. Write boxes from source to end, as: console > capture > computer.');
  return { json: done.rig, text: JSON.stringify(done.rig, null, 2) };
};
