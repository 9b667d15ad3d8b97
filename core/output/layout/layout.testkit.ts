import ELK from 'elkjs/lib/elk.bundled.js';
import { heightOf, type Point, portOffset, type Shape, type Wire } from './index.ts';

export const pieces = (points: readonly Point[]) => points.slice(1).map((p, i) => [points[i]!, p] as const);
export const bundleOf = (w: Wire) => `${w.from.node} ${w.from.port}`;

interface ElkNode {
  id: string;
  children?: { id: string; ports?: { id: string; y?: number }[]; x?: number; y?: number }[];
  edges?: {
    id: string;
    sections?: {
      startPoint: { x: number; y: number };
      endPoint: { x: number; y: number };
      bendPoints?: { x: number; y: number }[];
    }[];
  }[];
}

/** Devices and lines as the library wants them: ports where they stand. */
export function libraryGraph(shapes: readonly Shape[], wires: readonly Wire[]) {
  const port = (s: Shape, side: 'WEST' | 'EAST', id: string, i: number) => ({
    id: `${s.id}/${side}/${id}`,
    x: side === 'WEST' ? 0 : s.widthPx,
    y: portOffset(s, i),
    width: 0,
    height: 0,
    layoutOptions: { 'elk.port.side': side },
  });
  return {
    id: 'map',
    layoutOptions: { 'elk.algorithm': 'layered', 'elk.direction': 'RIGHT', 'elk.edgeRouting': 'ORTHOGONAL' },
    children: shapes.map((s) => ({
      id: s.id,
      width: s.widthPx,
      height: heightOf(s),
      layoutOptions: { 'elk.portConstraints': 'FIXED_POS' },
      ports: [...s.ins.map((p, i) => port(s, 'WEST', p, i)), ...s.outs.map((p, i) => port(s, 'EAST', p, i))],
    })),
    edges: wires.map((w) => ({
      id: w.id,
      sources: [`${w.from.node}/EAST/${w.from.port}`],
      targets: [`${w.to.node}/WEST/${w.to.port}`],
    })),
  };
}

/** The library's answer to the same graph, as points. */
export async function byLibrary(
  shapes: readonly Shape[],
  wires: readonly Wire[],
): Promise<ReadonlyMap<string, readonly Point[]>> {
  const drawn = (await new ELK().layout(libraryGraph(shapes, wires))) as ElkNode;
  return new Map(
    drawn.edges!.map((e) => {
      const { startPoint, endPoint, bendPoints = [] } = e.sections![0]!;
      return [e.id, [startPoint, ...bendPoints, endPoint].map((p): Point => [p.x, p.y])];
    }),
  );
}

/** Where a level piece of one bundle meets an upright one of another, once for each place. */
export function crossingsOf(lines: ReadonlyMap<string, readonly Point[]>, wires: readonly Wire[]): number {
  const level: { bundle: string; y: number; low: number; high: number }[] = [];
  const upright: { bundle: string; x: number; low: number; high: number }[] = [];
  for (const w of wires) {
    for (const [a, b] of pieces(lines.get(w.id)!)) {
      if (Math.abs(a[1] - b[1]) < 0.01)
        level.push({ bundle: bundleOf(w), y: a[1], low: Math.min(a[0], b[0]), high: Math.max(a[0], b[0]) });
      else upright.push({ bundle: bundleOf(w), x: a[0], low: Math.min(a[1], b[1]), high: Math.max(a[1], b[1]) });
    }
  }
  const places = new Set<string>();
  for (const l of level)
    for (const u of upright)
      if (l.bundle !== u.bundle && u.x > l.low && u.x < l.high && l.y > u.low && l.y < u.high)
        places.add([`${l.bundle}|${u.bundle}`, Math.round(u.x), Math.round(l.y)].join());
  return places.size;
}
