export interface Point {
  readonly x: number;
  readonly y: number;
}

/** Corners of a panel in a picture, from its own upper left one, in its own order round. */
export type Quad = readonly [Point, Point, Point, Point];

/** Takes a place on the panel (0 to 1 each way) to the picture: a projection, so that a camera may stand askew. */
export type Projection = (u: number, v: number, out: { x: number; y: number }) => void;

/** The projection of the unit square onto four corners (Heckbert 1989). */
export function projection([a, b, c, d]: Quad): Projection {
  const dx1 = b.x - c.x;
  const dx2 = d.x - c.x;
  const sx = a.x - b.x + c.x - d.x;
  const dy1 = b.y - c.y;
  const dy2 = d.y - c.y;
  const sy = a.y - b.y + c.y - d.y;
  const det = dx1 * dy2 - dx2 * dy1;
  const g = det === 0 ? 0 : (sx * dy2 - dx2 * sy) / det;
  const h = det === 0 ? 0 : (dx1 * sy - sx * dy1) / det;
  const xu = b.x - a.x + g * b.x;
  const xv = d.x - a.x + h * d.x;
  const yu = b.y - a.y + g * b.y;
  const yv = d.y - a.y + h * d.y;
  return (u, v, out) => {
    const w = g * u + h * v + 1;
    out.x = (xu * u + xv * v + a.x) / w;
    out.y = (yu * u + yv * v + a.y) / w;
  };
}

/** Where two lines meet, each through two points; null for parallels. */
export function crossing(p: Point, q: Point, r: Point, s: Point): Point | null {
  const [dx, dy, ex, ey] = [q.x - p.x, q.y - p.y, s.x - r.x, s.y - r.y];
  const det = dx * ey - dy * ex;
  if (Math.abs(det) < 1e-9) return null;
  const t = ((r.x - p.x) * ey - (r.y - p.y) * ex) / det;
  return { x: p.x + t * dx, y: p.y + t * dy };
}

/** Whether its sides are upright and level to a small part of its width: what a camera on a stand hardly ever sees. */
export function isSquareOn(quad: Quad): boolean {
  const width = Math.hypot(quad[1].x - quad[0].x, quad[1].y - quad[0].y);
  const off = quad.reduce((worst, p, i) => {
    const q = quad[(i + 1) % 4]!;
    return Math.max(worst, Math.min(Math.abs(p.x - q.x), Math.abs(p.y - q.y)));
  }, 0);
  return off < Math.max(0.75, SQUARE_ON * width);
}
const SQUARE_ON = 0.003;

export const centerOf = (quad: Quad): Point => ({
  x: quad.reduce((sum, p) => sum + p.x, 0) / 4,
  y: quad.reduce((sum, p) => sum + p.y, 0) / 4,
});
export const widthOf = (quad: Quad): number => Math.hypot(quad[1].x - quad[0].x, quad[1].y - quad[0].y);

const LOOKED_AT = 41;

/** Corner by corner the middle of many: where one picture's edges were found badly, others were not. */
export function medianQuad(quads: readonly Quad[]): Quad {
  const step = Math.max(1, Math.ceil(quads.length / LOOKED_AT));
  const some = quads.filter((_, i) => i % step === 0);
  const middle = (values: number[]) => values.sort((a, b) => a - b)[values.length >> 1]!;
  const corner = (c: 0 | 1 | 2 | 3): Point => ({
    x: middle(some.map((q) => q[c].x)),
    y: middle(some.map((q) => q[c].y)),
  });
  return [corner(0), corner(1), corner(2), corner(3)];
}
