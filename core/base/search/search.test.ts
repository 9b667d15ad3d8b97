import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { leadsTo, postOrder, reachedFrom, walk } from './index.ts';

/** A graph of up to nine nodes, as the list of those that each leads to. */
const graphs = fc
  .integer({ min: 1, max: 9 })
  .chain((count) =>
    fc.array(fc.uniqueArray(fc.nat({ max: count - 1 }), { maxLength: count }), { minLength: count, maxLength: count }),
  );
/** Whether there is a path of whatever length: by squaring the matrix of what leads where (Warshall). */
function closure(ahead: readonly (readonly number[])[]): boolean[][] {
  const reach = ahead.map((to, i) => ahead.map((_, j) => i === j || to.includes(j)));
  for (const k of ahead.keys())
    for (const i of ahead.keys()) for (const j of ahead.keys()) reach[i]![j] ||= reach[i]![k]! && reach[k]![j]!;
  return reach;
}

describe('a search', () => {
  it('reaches just what a matrix of paths says, each node once', () => {
    fc.assert(
      fc.property(graphs, (ahead) => {
        const reach = closure(ahead);
        for (const from of ahead.keys()) {
          const met = [...walk([from], (n) => ahead[n]!)];
          expect(new Set(met).size).toBe(met.length);
          expect(met.sort()).toEqual([...ahead.keys()].filter((to) => reach[from]![to]));
          for (const to of ahead.keys()) expect(leadsTo(from, to, (n) => ahead[n]!)).toBe(reach[from]![to]);
        }
      }),
    );
  });
  it('from several is the union of each', () => {
    fc.assert(
      fc.property(graphs, fc.nat(), fc.nat(), (ahead, a, b) => {
        const [x, y] = [a % ahead.length, b % ahead.length];
        const next = (n: number) => ahead[n]!;
        expect([...reachedFrom([x, y], next)].sort()).toEqual(
          [...new Set([...reachedFrom([x], next), ...reachedFrom([y], next)])].sort(),
        );
      }),
    );
  });
  it('leaves each node behind all that it leads to, but within a ring', () => {
    fc.assert(
      fc.property(graphs, (ahead) => {
        const reach = closure(ahead);
        const order = postOrder(ahead.keys(), (n) => ahead[n]!);
        expect([...order].sort()).toEqual([...ahead.keys()]);
        for (const [from, to] of ahead.entries())
          for (const other of to)
            if (!reach[other]![from]) expect(order.indexOf(other)).toBeLessThan(order.indexOf(from));
      }),
    );
  });
  it('goes down a chain of a hundred thousand', () => {
    const long = 100_000;
    expect(postOrder([0], (n) => (n < long ? [n + 1] : []))).toHaveLength(long + 1);
  });
});
