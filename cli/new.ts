import { listOf, quoted } from '#core/base/said/index.ts';
import { readDesk, sayMade } from '#core/intake/index.ts';
import { deviceIn } from '#core/model/rig/index.ts';
import { titleOf } from '#core/routing/grammar/index.ts';
import { cli as say, textOf } from '#words/index.ts';
import type { Command } from './command.ts';
import { UsageError } from './edges.ts';

/**
 * A rig from plain words: 'console > splitter > capture > computer; me > usb mic > computer'. What was understood, what
 * was assumed and what is to be decided go to the standard error, so that the rig alone can be sent to a file.
 */
export const newRig: Command = async ([line]) => {
  const { typed, made, decisions, rig } = readDesk(line!, { name: titleOf(line!) ?? say.myDesk() });
  if (!rig)
    throw new UsageError(
      say.nothingHereIsUnderstood({
        words:
          typed.boxes.length > 0
            ? `: ${textOf(
                listOf(
                  'and',
                  typed.boxes.map((b) => quoted(b.word)),
                ),
              )}`
            : '',
      }),
    );
  const understood = typed.boxes
    .filter((b) => b.type !== null)
    .map(({ word, type, count }) => ({ words: word, typeId: type!.id, count }));
  const unknown = typed.boxes.flatMap((b) => (b.type === null ? [b.word] : b.left));
  const assumed = made.map((m) => `${textOf(sayMade(m))}.`);
  const asked = decisions.map(({ asks, options, taken }) => ({
    question: textOf(asks),
    choices: options.map((o) => textOf(o.label)),
    taken: textOf(options.find((o) => o.id === taken)!.label),
  }));
  const name = (id: string) => deviceIn(rig, id).name;
  const notes = [
    say.understood(),
    ...understood.map(({ words, typeId, count }) => `  ${count > 1 ? `${count} x ` : ''}${words} = ${typeId}`),
    ...(unknown.length > 0 ? [say.notUnderstoodLeftOut({ names: textOf(listOf('and', unknown.map(quoted))) })] : []),
    ...typed.noSocket.map(({ deviceId, socket }) => say.noSocketOnClosest({ socket, device: name(deviceId) })),
    ...(assumed.length > 0 ? [say.assumed(), ...assumed.map((s) => `  ${s}`)] : []),
    ...(asked.length > 0 ? [say.toDecide()] : []),
    ...asked.map((q) => `  ${q.question} ${q.choices.map((c) => (c === q.taken ? `[${c}]` : c)).join(' / ')}`),
  ];
  return {
    json: { rig, understood, assumed, asked, unknown },
    text: JSON.stringify(rig, null, 2),
    notes: notes.join('\n'),
  };
};
