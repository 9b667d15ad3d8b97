/** One comparison: the same work by this program and by a public tool, in one run on one machine. */
export interface Row {
  readonly what: string;
  readonly ours: string;
  readonly other: string;
  /** Above 1: this program is so many times as fast. Null where nothing public does the work. */
  readonly ratio: number | null;
  /** What has to hold, and whether it does. */
  readonly goal: string;
  readonly reached: boolean;
}

export type Bench = () => Promise<readonly Row[]>;

/** A bench that lacks a tool says which, and how to get it; the others go on. */
export class MissingTool extends Error {}

export function print(rows: readonly Row[]): void {
  const heads = ['what', 'ours', 'the other', 'ratio', 'goal', ''];
  const cells = rows.map((r) => [
    r.what,
    r.ours,
    r.other,
    r.ratio === null ? '' : r.ratio.toFixed(2),
    r.goal,
    r.reached ? 'reached' : 'MISSED',
  ]);
  const widths = heads.map((head, c) => Math.max(head.length, ...cells.map((row) => row[c]!.length)));
  const line = (row: readonly string[]) => row.map((cell, c) => cell.padEnd(widths[c]!)).join('  ');
  process.stdout.write(`${[heads, ...cells].map(line).join('\n')}\n`);
}

/** So long at least a work is run before it is timed: an editor that is in use is warm. */
const WARM_MS = 800;

/** The median of so many timed runs, milliseconds each, once it is warm. */
export function medianMs(runs: number, work: () => void): number {
  const warm = performance.now() + WARM_MS;
  for (let i = 0; i < Math.min(5, runs) || performance.now() < warm; i++) work();
  const times = Array.from({ length: runs }, () => {
    const begun = performance.now();
    work();
    return performance.now() - begun;
  });
  return times.sort((a, b) => a - b)[runs >> 1]!;
}
