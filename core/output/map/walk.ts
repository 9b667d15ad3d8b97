import type { PortRef, Rig } from '#core/model/rig/index.ts';
import type { Evaluation } from '#core/signal/index.ts';
import type { LineMap } from './line-map.ts';

/** Where a tap goes: on with the signal, back against it, or to the neighbor above or below. */
export type Turn = 'on' | 'back' | 'up' | 'down';

const same = (a: PortRef, b: PortRef): boolean => a.deviceId === b.deviceId && a.portId === b.portId;

/** Ends that the signal goes to from here, or comes from: through cables, and through open ways inside. */
function neighbours({ graph }: Evaluation, at: PortRef, turn: 'on' | 'back'): PortRef[] {
  const here = new Set(graph.nodesOf(at));
  const found: PortRef[] = [];
  const note = (node: number) => {
    const { deviceId, portId } = graph.nodes[node]!;
    const ref = { deviceId, portId };
    if (!same(ref, at) && !found.some((f) => same(f, ref))) found.push(ref);
  };
  for (let e = 0; e < graph.edges.length; e++) {
    const [from, to] = [graph.from[e]!, graph.to[e]!];
    if (turn === 'on' && here.has(from)) note(to);
    if (turn === 'back' && here.has(to)) note(from);
  }
  return found;
}

/** The tap's next place; where it is when there is none. Among several, the one that most arrives by, or at. */
export function stepTap(rig: Rig, evaluation: Evaluation, map: LineMap, at: PortRef, turn: Turn): PortRef {
  if (turn === 'up' || turn === 'down') return besides(rig, map, at, turn === 'down' ? 1 : -1);
  const { graph, arrivals } = evaluation;
  /** How loud the loudest is that passes from one place to the other. */
  const passing = (from: PortRef, to: PortRef): number => {
    const starts = new Set(graph.nodesOf(from));
    const levels = graph
      .nodesOf(to)
      .flatMap((n) => arrivals[n]!.filter((a) => a.from && starts.has(a.from.node)).map((a) => a.levelDb));
    return levels.length === 0 ? Number.NEGATIVE_INFINITY : Math.max(...levels);
  };
  const loud = (ref: PortRef): number => (turn === 'on' ? passing(at, ref) : passing(ref, at));
  const next = neighbours(evaluation, at, turn);
  const outside = next.filter((n) => n.deviceId !== at.deviceId);
  const choices = outside.length > 0 ? outside : next;
  return choices.reduce<PortRef | null>((best, n) => (best && loud(best) >= loud(n) ? best : n), null) ?? at;
}

/** Ends that lines are drawn to, one below the other: of the device, then of its neighbors in the column. */
function besides(rig: Rig, { lines, drawing, boxOf }: LineMap, at: PortRef, by: number): PortRef {
  const isOut = lines.some((l) => same(l.from, at)) || rig.sources.some((s) => same(s.sound, at));
  const rankOf = (ref: PortRef) => drawing.boxes.get(boxOf.get(ref.deviceId) ?? '')?.rank;
  const rank = rankOf(at);
  const ends = lines
    .map((l) => {
      const ref = isOut ? l.from : l.to;
      const points = drawing.wires.get(l.id)!;
      return { ref, y: (isOut ? points[0]! : points[points.length - 1]!)[1] };
    })
    .filter(({ ref }) => rankOf(ref) === rank)
    .sort((a, b) => a.y - b.y)
    .map(({ ref }) => ref)
    .filter((ref, i, all) => all.findIndex((o) => same(o, ref)) === i);
  const now = ends.findIndex((ref) => same(ref, at));
  return ends[Math.min(ends.length - 1, Math.max(0, now + by))] ?? at;
}
