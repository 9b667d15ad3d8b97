import { type Cable, findDevice, findSource, type PortRef, type Rig } from '#core/model/rig/index.ts';
import type { Point } from '#core/output/layout/index.ts';
import {
  type Area,
  LETTER_PX,
  type LineMap,
  MAX_STRANDS,
  type MapLabel,
  type MapLine,
  placeLabels,
  STRAND_PITCH,
} from '#core/output/map/index.ts';
import type { Finding } from '#core/rules/index.ts';
import { type Evaluation, readPath } from '#core/signal/index.ts';
import { wire as say } from '#words/index.ts';
import type { View } from './useView.ts';

/** The thinnest and the thickest strand, px. */
const THIN = 1.1;
const THICK = 3.2;
/** Beyond its corner a balloon stands clear of the device. */
const BALLOON_APART = 15;
/** The gap of a line where nothing arrives. */
const BREAK_PX = 7;

export const strandWidth = (strength: number): number => THIN + (THICK - THIN) * strength;

/** Where a strand runs, beside the middle of its cable. */
export const strandOffset = (index: number, count: number): number =>
  (index - (Math.min(count, MAX_STRANDS) - 1) / 2) * STRAND_PITCH;

/** A line moved sideways: level pieces up or down, upright ones along. */
export function beside(points: readonly Point[], by: number): Point[] {
  return points.map(([x, y], i) => {
    const upright = [points[i - 1], points[i + 1]].some((p) => p && p[0] === x && p[1] !== y);
    const level = [points[i - 1], points[i + 1]].some((p) => p && p[1] === y && p[0] !== x);
    return [upright ? x + by : x, level || !upright ? y + by : y];
  });
}

export const polyline = (points: readonly Point[]): string => points.map(([x, y]) => `${x},${y}`).join(' ');

/** The middle of a line's longest piece: where a mark beside it is seen. */
export function middleOf(points: readonly Point[]): { x: number; y: number; level: boolean; length: number } {
  let best = { x: 0, y: 0, level: true, length: -1 };
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1]!, points[i]!];
    const length = Math.abs(a[0] - b[0]) + Math.abs(a[1] - b[1]);
    // A level piece is chosen over an upright one that is hardly longer: marks sit better over it.
    const level = a[1] === b[1];
    if (length + (level ? 20 : 0) > best.length + (best.level ? 20 : 0))
      best = { x: (a[0] + b[0]) / 2, y: (a[1] + b[1]) / 2, level, length };
  }
  return best;
}

/** The line in two parts, with a gap in the middle of its longest piece. */
export function broken(points: readonly Point[]): { before: Point[]; after: Point[]; at: Point; level: boolean } {
  const middle = middleOf(points);
  const at: Point = [middle.x, middle.y];
  const i = points.findIndex((p, k) => {
    const q = points[k + 1];
    return q !== undefined && (p[0] + q[0]) / 2 === middle.x && (p[1] + q[1]) / 2 === middle.y;
  });
  const [a, b] = [points[i]!, points[i + 1]!];
  const gap = Math.min(BREAK_PX, middle.length / 4);
  const [dx, dy] = [Math.sign(b[0] - a[0]) * gap, Math.sign(b[1] - a[1]) * gap];
  return {
    before: [...points.slice(0, i + 1), [at[0] - dx, at[1] - dy]],
    after: [[at[0] + dx, at[1] + dy], ...points.slice(i + 1)],
    at,
    level: middle.level,
  };
}

/** A finding's number and where its balloon stands. */
export interface Balloon {
  readonly number: number;
  readonly finding: Finding;
  readonly x: number;
  readonly y: number;
}

/** A balloon for every open finding, beside its cable or device; several at one place form a row. */
export function balloonsOf({ lines, drawing, boxOf }: LineMap, findings: readonly Finding[]): Balloon[] {
  const crowd = new Map<string, number>();
  return findings.flatMap((finding, i): Balloon[] => {
    if (finding.dismissed) return [];
    const number = i + 1;
    const line = lines.find((l) => l.cableIds.some((id) => finding.where.cableIds.includes(id)));
    const boxId = finding.where.deviceIds.map((id) => boxOf.get(id)).find((id) => id && drawing.boxes.has(id));
    const box = boxId === undefined ? undefined : drawing.boxes.get(boxId);
    const key = line?.id ?? boxId ?? '';
    const before = crowd.get(key) ?? 0;
    crowd.set(key, before + 1);
    const along = before * 2 * BALLOON_APART;
    if (line) {
      const { x, y, level } = middleOf(drawing.wires.get(line.id)!);
      return [
        { number, finding, x: level ? x + along : x + BALLOON_APART + 4, y: level ? y - BALLOON_APART - 4 : y + along },
      ];
    }
    if (!box) return [];
    return [{ number, finding, x: box.xPx + BALLOON_APART + along, y: box.yPx + box.heightPx + BALLOON_APART }];
  });
}

/** Steps in which the part that lengths are set for follows the view: panning by less sets none anew, px. */
const PART_PX = 600;

/** The view with some room around it, in whole steps: as text, so that it is the same as long as it is. */
export const partOf = (view: View, pageW: number, pageH: number): string => {
  const down = (px: number) => Math.floor(px / PART_PX) * PART_PX;
  return [
    down(view.x),
    down(view.y),
    down(view.x + pageW / view.scale) + PART_PX,
    down(view.y + pageH / view.scale) + PART_PX,
  ].join(' ');
};
export function areaOf(part: string): Area {
  const [left, top, right, bottom] = part.split(' ').map(Number) as [number, number, number, number];
  return { left, top, right, bottom };
}

/** Lengths of cables, where there is room for them on the map. */
export function lengthsOf(
  { lines, drawing }: LineMap,
  cables: ReadonlyMap<string, Cable>,
  balloons: readonly Balloon[],
  within: Area,
): MapLabel[] {
  const cableOf = (line: MapLine) => cables.get(line.cableIds[0] ?? '');
  const wanted = lines.flatMap((line) => {
    const cable = cableOf(line);
    return cable?.medium === 'lead'
      ? [{ id: line.id, text: say.lengthLabel({ lengthM: cable.lengthM }), lengthM: cable.lengthM }]
      : [];
  });
  const strands = new Map(lines.map((l) => [l.id, l.strands.length]));
  return placeLabels(
    drawing,
    wanted.sort((a, b) => b.lengthM - a.lengthM),
    LETTER_PX,
    (id) => 2 + Math.min(MAX_STRANDS, strands.get(id) ?? 0) * STRAND_PITCH,
    balloons.map(({ x, y }) => ({ x, y, r: BALLOON_APART })),
    within,
  );
}

/** Cables on the ways of a source, a listener, or both; null where nothing is isolated. */
export function isolated(
  evaluation: Evaluation,
  sourceId: string | null,
  listenerId: string | null,
): Set<string> | null {
  if (!sourceId && !listenerId) return null;
  const { graph } = evaluation;
  const cables = new Set<string>();
  for (const pair of evaluation.pairs) {
    if ((sourceId && pair.sourceId !== sourceId) || (listenerId && pair.listenerId !== listenerId)) continue;
    for (const way of pair.ways)
      for (const { via } of readPath(graph, way.arrival).edges) if ('cableId' in via) cables.add(via.cableId);
  }
  return cables;
}

/** Cables that a finding is about: its own, and the ways of its source and listener. */
export function concerned(evaluation: Evaluation, { where }: Finding): Set<string> | null {
  const ways = isolated(evaluation, where.sourceId ?? null, where.listenerId ?? null);
  if (!ways && where.cableIds.length === 0) return null;
  return new Set([...(ways ?? []), ...where.cableIds]);
}

/** Cables by which what is tapped comes: all ways of everything that arrives there. */
export function tappedCables({ graph, arrivals }: Evaluation, tap: PortRef | null): Set<string> {
  const cables = new Set<string>();
  if (!tap) return cables;
  for (const node of graph.nodesOf(tap))
    for (const arrival of arrivals[node]!)
      for (const { via } of readPath(graph, arrival).edges) if ('cableId' in via) cables.add(via.cableId);
  return cables;
}

/** Accessible name of a line. */
export function sayLine(rig: Rig, line: MapLine): string {
  const name = (id: string) => findDevice(rig, id)?.name ?? id;
  const sources = line.strands.map((s) => findSource(rig, s.sourceId)?.name).join(', ');
  const carries = sources || (line.silent ? say.noSignal() : line.picture ? say.videoMark() : line.medium);
  return say.lineTitle({ deviceId: name(line.from.deviceId), deviceId2: name(line.to.deviceId), carries });
}

interface Extent {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** How far each line reaches, for `withinView`. */
export const extentsOf = ({ wires }: LineMap['drawing']): Map<string, Extent> =>
  new Map(
    [...wires].map(([id, points]) => {
      const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
      return [id, { left: Math.min(...xs), top: Math.min(...ys), right: Math.max(...xs), bottom: Math.max(...ys) }];
    }),
  );

/** Margin around the view, px: what is further out is not drawn; panning by less needs no new drawing. */
const AROUND_PX = 200;

/** Whether something of it can be seen. */
export function withinView(at: Extent, view: View, pageW: number, pageH: number): boolean {
  const [left, top] = [view.x - AROUND_PX, view.y - AROUND_PX];
  const [right, bottom] = [view.x + pageW / view.scale + AROUND_PX, view.y + pageH / view.scale + AROUND_PX];
  return at.left <= right && at.right >= left && at.top <= bottom && at.bottom >= top;
}
