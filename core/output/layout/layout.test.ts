import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Drawing, heightOf, layout, type Point, portOffset, type Shape, type Wire } from './index.ts';
import { bundleOf, byLibrary, crossingsOf, pieces } from './layout.testkit.ts';

/** Devices by name; lines as 'a.1 > b.2'. */
function graph(names: readonly string[], lines: readonly string[]): { shapes: Shape[]; wires: Wire[] } {
  const wires = lines.map((text, i): Wire => {
    const [from, to] = text.split(' > ').map((end) => {
      const [node, port] = end.split('.') as [string, string];
      return { node, port };
    }) as [Wire['from'], Wire['to']];
    return { id: `w${i}`, from, to };
  });
  const ports = (node: string, end: 'from' | 'to') =>
    [...new Set(wires.filter((w) => w[end].node === node).map((w) => w[end].port))].sort();
  const shapes = names.map(
    (id): Shape => ({ id, widthPx: 100, headPx: 24, ins: ports(id, 'to'), outs: ports(id, 'from') }),
  );
  return { shapes, wires };
}

/** Small graphs with loops, lines back, lines to oneself, and outputs that several lines leave. */
const aGraph = (most = 10): fc.Arbitrary<ReturnType<typeof graph>> =>
  fc.integer({ min: 1, max: most }).chain((count) =>
    fc
      .array(fc.tuple(fc.nat(count - 1), fc.nat(2), fc.nat(count - 1), fc.nat(3)), { maxLength: count * 2 })
      .map((lines) =>
        graph(
          Array.from({ length: count }, (_, i) => `n${i}`),
          [...new Set(lines.map(([a, p, b, q]) => `n${a}.${p} > n${b}.${q}`))],
        ),
      ),
  );

/** Two dozen devices whose lines mostly lead to the next few, and now and then back. */
const aDenseGraph = (): fc.Arbitrary<ReturnType<typeof graph>> =>
  fc
    .array(fc.tuple(fc.nat(23), fc.nat(2), fc.integer({ min: -1, max: 6 }), fc.nat(3)), {
      minLength: 40,
      maxLength: 60,
    })
    .map((lines) =>
      graph(
        Array.from({ length: 24 }, (_, i) => `n${i}`),
        [
          ...new Set(
            lines
              .map(([a, p, by, q]) => ({ a, p, b: Math.min(23, Math.max(0, a + by)), q }))
              .filter(({ a, b }) => a !== b)
              .map(({ a, p, b, q }) => `n${a}.${p} > n${b}.${q}`),
          ),
        ],
      ),
    );

/** Whether a piece of line runs through the inside of a device. */
const cuts = (
  [a, b]: readonly [Point, Point],
  box: { xPx: number; yPx: number; widthPx: number; heightPx: number },
) => {
  const [x1, x2] = [Math.min(a[0], b[0]), Math.max(a[0], b[0])];
  const [y1, y2] = [Math.min(a[1], b[1]), Math.max(a[1], b[1])];
  return (
    x2 > box.xPx + 0.01 &&
    x1 < box.xPx + box.widthPx - 0.01 &&
    y2 > box.yPx + 0.01 &&
    y1 < box.yPx + box.heightPx - 0.01
  );
};

/** Pairs of bundles of which two upright pieces lie on one another. */
function sharedTracks(drawing: Drawing, wires: readonly Wire[]): string[] {
  const uprights = wires.flatMap((w) =>
    pieces(drawing.wires.get(w.id)!)
      .filter(([a, b]) => a[0] === b[0])
      .map(([a, b]) => ({ bundle: bundleOf(w), x: a[0], low: Math.min(a[1], b[1]), high: Math.max(a[1], b[1]) })),
  );
  return uprights.flatMap((u, i) =>
    uprights
      .slice(i + 1)
      .filter((v) => v.bundle !== u.bundle && v.x === u.x && v.low < u.high && u.low < v.high)
      .map((v) => `${u.bundle} | ${v.bundle} at ${u.x}`),
  );
}

describe('a layout', () => {
  it('draws level and upright lines from port to port, through no box, and no two bundles on one track', () => {
    let back = 0;
    fc.assert(
      fc.property(aGraph(), ({ shapes, wires }) => {
        const drawing = layout(shapes, wires);
        const boxes = [...drawing.boxes.values()];
        for (const [i, a] of boxes.entries())
          for (const b of boxes.slice(i + 1))
            expect(
              a.xPx >= b.xPx + b.widthPx ||
                b.xPx >= a.xPx + a.widthPx ||
                a.yPx >= b.yPx + b.heightPx ||
                b.yPx >= a.yPx + a.heightPx,
            ).toBe(true);
        for (const wire of wires) {
          const points = drawing.wires.get(wire.id)!;
          const shape = (id: string) => shapes.find((s) => s.id === id)!;
          const [from, to] = [drawing.boxes.get(wire.from.node)!, drawing.boxes.get(wire.to.node)!];
          expect(points[0]).toEqual([
            from.xPx + from.widthPx,
            from.yPx + portOffset(shape(wire.from.node), shape(wire.from.node).outs.indexOf(wire.from.port)),
          ]);
          expect(points.at(-1)).toEqual([
            to.xPx,
            to.yPx + portOffset(shape(wire.to.node), shape(wire.to.node).ins.indexOf(wire.to.port)),
          ]);
          if (to.rank <= from.rank) back++;
          for (const piece of pieces(points)) {
            expect(piece[0][0] === piece[1][0] || piece[0][1] === piece[1][1]).toBe(true);
            expect(boxes.some((box) => cuts(piece, box))).toBe(false);
          }
        }
        expect(sharedTracks(drawing, wires)).toEqual([]);
      }),
      { numRuns: 400 },
    );
    expect(back).toBeGreaterThan(50);
  });
  it('runs with the signal: without loops, every line leads to a later column', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(8), fc.integer({ min: 1, max: 4 })), { maxLength: 14 }), (lines) => {
        const names = Array.from({ length: 13 }, (_, i) => `n${i}`);
        const { shapes, wires } = graph(names, [...new Set(lines.map(([a, by]) => `n${a}.0 > n${a + by}.0`))]);
        const { boxes } = layout(shapes, wires);
        for (const w of wires) expect(boxes.get(w.to.node)!.rank).toBeGreaterThan(boxes.get(w.from.node)!.rank);
      }),
    );
  });
  it('turns back as little as a loop asks for: one line of a ring', () => {
    const ring = graph(['a', 'b', 'c', 'd'], ['a.0 > b.0', 'b.0 > c.0', 'c.0 > d.0', 'd.0 > a.0']);
    const { boxes } = layout(ring.shapes, ring.wires);
    const back = ring.wires.filter((w) => boxes.get(w.to.node)!.rank <= boxes.get(w.from.node)!.rank);
    expect(back).toHaveLength(1);
  });
  it('opens a loop where it goes through air, whatever else is in it', () => {
    fc.assert(
      fc.property(fc.nat(4), (air) => {
        const names = ['a', 'b', 'c', 'd', 'e'];
        const ring = graph(
          names,
          names.map((n, i) => `${n}.0 > ${names[(i + 1) % 5]}.0`),
        );
        const wires = ring.wires.map((w, i) => ({ ...w, weak: i === air }));
        const { boxes } = layout(ring.shapes, wires);
        const back = wires.filter((w) => boxes.get(w.to.node)!.rank <= boxes.get(w.from.node)!.rank);
        expect(back.map((w) => w.weak)).toEqual([true]);
      }),
    );
  });
  it('is the same for the same, and holds for nothing at all', () => {
    const { shapes, wires } = graph(['a', 'b', 'c'], ['a.0 > b.0', 'a.1 > c.0']);
    expect(layout(shapes, wires)).toEqual(layout(shapes, wires));
    expect(layout([], [])).toMatchObject({ widthPx: 0, heightPx: 0, crossings: 0 });
    expect(layout(shapes.slice(0, 1), []).boxes.get('a')).toMatchObject({ rank: 0, heightPx: heightOf(shapes[0]!) });
  });
  it('keeps boxes where they sit after a small edit: no other changes its order or goes across the map', () => {
    fc.assert(
      fc.property(aGraph(12), fc.nat(), ({ shapes, wires }, pick) => {
        fc.pre(wires.length > 2);
        const before = layout(shapes, wires);
        const without = wires.filter((_, i) => i !== pick % wires.length);
        // The ports stay drawn: a line is taken out, not the device changed.
        const after = layout(shapes, without, before.seats);
        const inColumn = (d: Drawing, rank: number) =>
          [...d.boxes]
            .filter(([, b]) => b.rank === rank)
            .sort((a, b) => a[1].yPx - b[1].yPx)
            .map(([id]) => id);
        for (let r = 0; r < 12; r++) {
          const [was, is] = [inColumn(before, r), inColumn(after, r)];
          const both = was.filter((id) => is.includes(id));
          expect(is.filter((id) => both.includes(id))).toEqual(both);
        }
      }),
      { numRuns: 200 },
    );
  });
});

describe('against a well-known layout library', () => {
  it('crosses no more than 1.15 times as often, on made-up maps with loops', async () => {
    let [own, theirs] = [0, 0];
    for (const { shapes, wires } of fc.sample(aDenseGraph(), { numRuns: 12, seed: 7 })) {
      own += crossingsOf(layout(shapes, wires).wires, wires);
      theirs += crossingsOf(await byLibrary(shapes, wires), wires);
    }
    expect(theirs).toBeGreaterThan(100);
    expect(own).toBeLessThanOrEqual(theirs * 1.15);
  });
});
