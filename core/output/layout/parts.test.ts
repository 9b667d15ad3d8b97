import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Columns, cutIntoColumns } from './columns.ts';
import { findTops } from './heights.ts';
import { findRanks, type Net, RANKINGS } from './ranks.ts';
import { countCrossings, orderRows, type Rows } from './rows.ts';
import { sift } from './sift.ts';
import { countOnTracks, findTracks, type Upright } from './tracks.ts';
import type { Shape, Wire } from './types.ts';

/** Devices of two ports on either side, and lines between them, without a line to itself. */
const aMap = () =>
  fc.integer({ min: 2, max: 12 }).chain((count) =>
    fc
      .array(fc.tuple(fc.nat(count - 1), fc.nat(1), fc.nat(count - 1), fc.nat(1)), { minLength: 1, maxLength: 20 })
      .map((lines) => {
        const shapes: Shape[] = Array.from({ length: count }, (_, i) => ({
          id: `n${i}`,
          widthPx: 100,
          headPx: 20,
          ins: ['0', '1'],
          outs: ['0', '1'],
        }));
        const wires: Wire[] = lines
          .filter(([a, , b]) => a !== b)
          .map(([a, p, b, q], i) => ({
            id: `w${i}`,
            from: { node: `n${a}`, port: String(p) },
            to: { node: `n${b}`, port: String(q) },
          }));
        const index = (id: string) => Number(id.slice(1));
        const net: Net = {
          ids: shapes.map((s) => s.id),
          from: Int32Array.from(wires, (w) => index(w.from.node)),
          to: Int32Array.from(wires, (w) => index(w.to.node)),
          weak: new Uint8Array(wires.length),
        };
        return { shapes, wires, net };
      }),
  );
const columnsOf = ({ shapes, wires, net }: { shapes: Shape[]; wires: Wire[]; net: Net }): Columns =>
  cutIntoColumns(net, shapes, wires, findRanks(net, RANKINGS[0]!));
const plainRows = ({ rank, ranks }: Columns): Rows =>
  Array.from({ length: ranks }, (_, r) => [...rank.keys()].filter((i) => rank[i] === r));

/** The slow twin: every pair of straight stretches of one channel. */
function crossingsByPairs({ stretches, height }: Columns, rows: Rows): number {
  const place = new Map(rows.flatMap((row) => row.map((item, i) => [item, i] as const)));
  const at = (item: number, offset: number) => place.get(item)! + offset / (height[item]! + 1);
  const straight = stretches
    .filter((s) => s.aLeft !== s.bLeft)
    .map((s) => ({
      channel: s.channel,
      left: s.aLeft ? at(s.a, s.aOffset) : at(s.b, s.bOffset),
      right: s.aLeft ? at(s.b, s.bOffset) : at(s.a, s.aOffset),
    }));
  let count = 0;
  straight.forEach((s, i) => {
    for (const t of straight.slice(i + 1))
      if (s.channel === t.channel && (s.left - t.left) * (s.right - t.right) < 0) count++;
  });
  return count;
}

describe('columns', () => {
  it.each(RANKINGS.map((r) => [`${r.by}, ${r.pulled ? 'pulled' : 'as far left as may be'}`, r] as const))(
    'found by %s begin at 0, and only lines of a loop run backward',
    (_, ranking) => {
      fc.assert(
        fc.property(aMap(), ({ net }) => {
          const rank = findRanks(net, ranking);
          expect(Math.min(...rank)).toBe(0);
          // What runs forward closes no ring: ranks rise along it.
          const leads = (from: number, to: number, seen = new Set<number>()): boolean => {
            if (from === to) return true;
            if (seen.has(from)) return false;
            seen.add(from);
            return [...net.from].some((f, j) => f === from && leads(net.to[j]!, to, seen));
          };
          [...net.from].forEach((from, j) => {
            const to = net.to[j]!;
            if (rank[to]! <= rank[from]!) expect(leads(to, from)).toBe(true);
          });
        }),
      );
    },
  );
  it('run forward along a line between two loops, whatever its heavier end would have', () => {
    const net: Net = {
      ids: ['a', 'b', 'c', 'd'],
      from: Int32Array.of(0, 2, 0, 1, 3, 0, 1),
      to: Int32Array.of(3, 1, 3, 2, 0, 3, 0),
      weak: new Uint8Array(7),
    };
    for (const ranking of RANKINGS) {
      const rank = findRanks(net, ranking);
      expect(rank[0]!, ranking.by).toBeGreaterThan(rank[1]!);
    }
  });
  it('hold each wire as stretches from its output to its input, one a channel', () => {
    fc.assert(
      fc.property(aMap(), (map) => {
        const columns = columnsOf(map);
        columns.wires.forEach((parts, w) => {
          const [first, last] = [columns.stretches[parts[0]!]!, columns.stretches[parts.at(-1)!]!];
          expect(first.a).toBe(map.net.from[w]);
          expect(last.b).toBe(map.net.to[w]);
          parts.slice(1).forEach((p, i) => {
            expect(columns.stretches[p]!.a).toBe(columns.stretches[parts[i]!]!.b);
          });
        });
      }),
    );
  });
});

describe('rows', () => {
  it('have their crossings counted as the slow twin counts them', () => {
    fc.assert(
      fc.property(aMap(), (map) => {
        const columns = columnsOf(map);
        const rows = plainRows(columns);
        expect(countCrossings(columns, rows)).toBe(crossingsByPairs(columns, rows));
      }),
    );
  });
  it('cross no more after the sweeps, and hold every item once', () => {
    fc.assert(
      fc.property(aMap(), (map) => {
        const columns = columnsOf(map);
        const rows = plainRows(columns);
        const swept = orderRows(columns, rows);
        expect(countCrossings(columns, swept)).toBeLessThanOrEqual(countCrossings(columns, rows));
        const sorted = (all: Rows) => all.map((row) => [...row].sort((a, b) => a - b));
        expect(sorted(swept)).toEqual(sorted(rows));
        expect(sorted(sift(columns, swept))).toEqual(sorted(rows));
      }),
    );
  });
  it('keep the order of boxes where only lines may move', () => {
    fc.assert(
      fc.property(aMap(), (map) => {
        const columns = columnsOf(map);
        const rows = plainRows(columns);
        const boxes = (all: Rows) => all.map((row) => row.filter((i) => i < columns.boxes));
        expect(boxes(sift(columns, rows, columns.boxes))).toEqual(boxes(rows));
      }),
    );
  });
});

describe('tops', () => {
  it('stand in the order of the rows, apart, on whole pixels from 0', () => {
    fc.assert(
      fc.property(aMap(), (map) => {
        const columns = columnsOf(map);
        const rows = orderRows(columns, plainRows(columns));
        const tops = findTops(columns, rows);
        expect(Math.min(...tops)).toBe(0);
        for (const row of rows) {
          row.slice(1).forEach((item, i) => {
            const above = row[i]!;
            // Rounding may take a pixel of the gap, never the gap itself.
            expect(tops[item]! - tops[above]! - columns.height[above]!).toBeGreaterThan(5);
          });
        }
        for (const top of tops) expect(Number.isInteger(top)).toBe(true);
      }),
    );
  });
  it('make a lone line straight', () => {
    const shapes: Shape[] = ['n0', 'n1'].map((id) => ({
      id,
      widthPx: 100,
      headPx: id === 'n0' ? 20 : 60,
      ins: ['0'],
      outs: ['0'],
    }));
    const net: Net = { ids: ['n0', 'n1'], from: Int32Array.of(0), to: Int32Array.of(1), weak: new Uint8Array(1) };
    const columns = cutIntoColumns(
      net,
      shapes,
      [{ id: 'w', from: { node: 'n0', port: '0' }, to: { node: 'n1', port: '0' } }],
      findRanks(net, RANKINGS[0]!),
    );
    const tops = findTops(columns, plainRows(columns));
    const [s] = columns.stretches;
    expect(tops[s!.a]! + s!.aOffset).toBe(tops[s!.b]! + s!.bOffset);
  });
});

const anUpright = (): fc.Arbitrary<Upright> =>
  fc.record({
    bundle: fc.nat(1000),
    lefts: fc.array(fc.nat(200), { maxLength: 2 }),
    rights: fc.array(fc.nat(200), { minLength: 1, maxLength: 2 }),
  });
const span = ({ lefts, rights }: Upright) => [Math.min(...lefts, ...rights), Math.max(...lefts, ...rights)] as const;

describe('tracks', () => {
  it('hold no two uprights that touch', () => {
    fc.assert(
      fc.property(fc.array(anUpright(), { maxLength: 14 }), (uprights) => {
        const track = findTracks(uprights);
        uprights.forEach((u, i) => {
          const [low, high] = span(u);
          expect(track[i]! >= 0).toBe(high > low);
          uprights.slice(i + 1).forEach((v, k) => {
            const j = i + 1 + k;
            if (track[i]! < 0 || track[i] !== track[j]) return;
            const [vLow, vHigh] = span(v);
            expect(low > vHigh || vLow > high).toBe(true);
          });
        });
      }),
    );
  });
  it('are ordered so that two lines that need not cross do not', () => {
    // One goes down from the top, the other from the middle: the lower one has to turn first.
    const down: Upright[] = [
      { bundle: 1, lefts: [0], rights: [60] },
      { bundle: 2, lefts: [40], rights: [100] },
    ];
    const track = findTracks(down);
    expect(track[1]!).toBeLessThan(track[0]!);
    expect(countOnTracks(down, track)).toBe(0);
    expect(countOnTracks(down, Int32Array.of(0, 1))).toBe(2);
  });
});
