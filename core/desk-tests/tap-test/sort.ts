import type { TuneReading } from '#core/desk-tests/tunes/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { expectedOf } from './expected.ts';
import { judge, type TapCell } from './judge.ts';
import type { Players } from './players.ts';

/** A listener whose take it could be, and how far it is from what the rig would have it hold. */
export interface Likeness {
  readonly listenerId: string;
  readonly apart: number;
}

/** Whose take it is by what it holds, the likeliest first. */
export function whoseTake(rig: Rig, tunes: readonly TuneReading[], players: Players): Likeness[] {
  const expected = expectedOf(
    rig,
    evaluate(rig),
    rig.listeners.map((l) => l.id),
  );
  return rig.listeners
    .map(({ id }) => {
      const { apart, cells } = judge(rig, expected, [{ listenerId: id, fileId: id, tunes }], players);
      return { listenerId: id, apart: apart + levelsApart(cells) };
    })
    .sort((a, b) => a.apart - b.apart);
}

/** Players are about as loud as their sources: what is louder than the rest is some evidence, too. */
const DB_A_POINT = 5;
function levelsApart(cells: readonly TapCell[]): number {
  const both = cells.flatMap((c) =>
    c.underDb === null || c.expected.underDb === null ? [] : [Math.abs(c.underDb - c.expected.underDb)],
  );
  return both.length === 0 ? 0 : both.reduce((sum, db) => sum + db, 0) / both.length / DB_A_POINT;
}

const words = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

/** The destination whose name or id occurs in a file's or a track's name; the longest match; null for none. */
export function namedIn(rig: Rig, name: string): string | null {
  const said = ` ${words(name)} `;
  const named = rig.listeners
    .flatMap((l) => [l.name, l.id].map((n) => ({ id: l.id, text: words(n) })))
    .filter((l) => l.text !== '' && said.includes(` ${l.text} `))
    .sort((a, b) => b.text.length - a.text.length);
  return named[0]?.id ?? null;
}
