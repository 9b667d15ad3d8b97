import { memoized } from '#core/base/memo/index.ts';
import type { DeviceType, SettingSpec } from './schema-type.ts';

/** The controls of a device as a table: one row for what they belong to, one column for what they do. */
interface ControlTable {
  readonly rows: readonly string[];
  readonly columns: readonly string[];
  /** Null where the row has no such control. */
  at(row: number, column: number): SettingSpec | null;
}
export interface Controls {
  readonly table: ControlTable | null;
  /** What belongs to the device as a whole. */
  readonly general: readonly SettingSpec[];
}

/** 'Channel 1, send 2' belongs to channel 1 and is its send 2; 'Input 3 to output 5' likewise. */
function split(name: string): [row: string, column: string] | null {
  const found = /^(.+?)(?:, | (?=to ))(.+)$/.exec(name);
  return found ? [found[1]!, found[2]!] : null;
}

/** Controls by their names, which say what each belongs to: a row needs to share a column with another one. */
export const controlsOf = memoized((type: DeviceType): Controls => {
  const named = type.settings.map((spec) => ({ spec, place: split(spec.name) }));
  const uses = new Map<string, number>();
  for (const { place } of named) if (place) uses.set(place[1], (uses.get(place[1]) ?? 0) + 1);
  const isShared = (row: string) => named.some((n) => n.place?.[0] === row && (uses.get(n.place[1]) ?? 0) > 1);
  const inTable = named.filter((n) => n.place && isShared(n.place[0]));
  const rows = [...new Set(inTable.map((n) => n.place![0]))];
  const columns = [...new Set(inTable.map((n) => n.place![1]))];
  const cells = new Map(inTable.map((n) => [n.place!.join('\n'), n.spec]));
  const general = named.filter((n) => !inTable.includes(n)).map((n) => n.spec);
  const table: ControlTable = { rows, columns, at: (r, c) => cells.get(`${rows[r]}\n${columns[c]}`) ?? null };
  return { table: rows.length > 1 ? table : null, general: rows.length > 1 ? general : type.settings };
});
