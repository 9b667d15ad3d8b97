/** Bits of the frame number, in Gray code: from frame to frame one of them changes, and their parity. */
const FRAME_BITS = 10;
const ID_BITS = 4;
/** Frame, its parity, id, its parity. */
export const CODE_BITS = FRAME_BITS + 1 + ID_BITS + 1;
export const MAX_FRAMES = 2 ** FRAME_BITS;

const parity = (n: number): number => {
  let odd = 0;
  for (let rest = n; rest > 0; rest >>= 1) odd ^= rest & 1;
  return odd;
};
const grayOf = (n: number): number => n ^ (n >> 1);
function fromGray(gray: number): number {
  let n = 0;
  for (let rest = gray; rest > 0; rest >>= 1) n ^= rest;
  return n;
}

/** The bits of a frame, 1 or -1 each. The parity of the id is odd, so that no id is all alike. */
export function codeOf(frame: number, id: number): Int8Array {
  const gray = grayOf(frame % MAX_FRAMES);
  const word = gray | (parity(gray) << FRAME_BITS);
  const name = id | ((1 - parity(id)) << ID_BITS);
  return Int8Array.from({ length: CODE_BITS }, (_, bit) =>
    ((bit <= FRAME_BITS ? word >> bit : name >> (bit - FRAME_BITS - 1)) & 1) === 1 ? 1 : -1,
  );
}

/** What the cells of a picture say. */
export interface CodeRead {
  readonly frame: number;
  readonly id: number;
  /** The share of `frame + 1` that is mixed in, 0 to 1; 0 where the picture shows one frame. */
  readonly blend: number;
  /** Where the shutter was open for more than a frame: the middle of what it saw, in frames; null otherwise. */
  readonly middle: number | null;
}

/** Constant bits are at least this far from even; between these fractions two frames are mixed. */
const SURE = 0.4;
export const MIN_BLEND = 0.08;
/** Root mean square distance of the bits from what they should be. */
const MAX_OFF = 0.34;

/**
 * Reads the code from each cell relative to its inverse, so that neither exposure nor contrast matters.
 * @param cells  brightness of each bit's cell and of its inverse, in turn: black 0, white 1
 * @param power  by which stored brightness becomes light, see `powerOf`
 * @returns null where it isn't a code, or is unreadable
 */
export function readCells(cells: ArrayLike<number>, power: number): CodeRead | null {
  const values = new Float32Array(CODE_BITS);
  const shares = new Float32Array(CODE_BITS);
  for (let bit = 0; bit < CODE_BITS; bit++) {
    const [a, b] = [cells[2 * bit]!, cells[2 * bit + 1]!];
    values[bit] = a - b;
    const [p, q] = [a ** power, b ** power];
    shares[bit] = p + q > 0 ? p / (p + q) : 0.5;
  }
  let name = 0;
  for (let bit = 0; bit <= ID_BITS; bit++) {
    const v = values[FRAME_BITS + 1 + bit]!;
    if (Math.abs(v) < SURE) return null;
    if (v > 0) name |= 1 << bit;
  }
  const id = name & (2 ** ID_BITS - 1);
  if (name >> ID_BITS !== 1 - parity(id)) return null;
  let gray = 0;
  for (let bit = 0; bit < FRAME_BITS; bit++) if (values[bit]! > 0) gray |= 1 << bit;
  const near = fromGray(gray);
  const sharp = sharpest(values, shares, near, id);
  return sharp ?? smeared(shares, near, id);
}

/** One frame, or two of them mixed. */
function sharpest(values: ArrayLike<number>, shares: ArrayLike<number>, near: number, id: number): CodeRead | null {
  let best: CodeRead | null = null;
  let least = MAX_OFF;
  for (const frame of [near - 1, near]) {
    if (frame < 0 || frame + 1 >= MAX_FRAMES) continue;
    const tried = blendOf(values, shares, frame, id);
    if (tried && tried.off < least) {
      least = tried.off;
      best = { frame, id, blend: tried.blend, middle: null };
    }
  }
  if (!best) return null;
  if (best.blend < MIN_BLEND) return { ...best, blend: 0 };
  return best.blend > 1 - MIN_BLEND ? { frame: best.frame + 1, id, blend: 0, middle: null } : best;
}

/** A camera stores light by a curve of about this power; a converter that mixes frames adds what is stored. */
const LIGHT_POWER = 2.2;
const MAX_POWER = 2.8;
const CLEARLY_MIXED = 0.15;
const FEWEST_MIXED = 3;

/**
 * The power by which the brightness of pictures becomes light: where two frames are mixed, a cell and its inverse share
 * the time between them, so that their light adds up to white. The middle of what all mixed cells say.
 */
export function powerOf(pictures: readonly ArrayLike<number>[], fallback = (1 + LIGHT_POWER) / 2): number {
  const powers: number[] = [];
  for (const cells of pictures)
    for (let i = 0; i < cells.length; i += 2) {
      const [a, b] = [cells[i]!, cells[i + 1]!];
      if (Math.min(a, b) < CLEARLY_MIXED || Math.max(a, b) > 1) continue;
      let [low, high] = [0.8, MAX_POWER];
      for (let round = 0; round < 12; round++) {
        const mid = (low + high) / 2;
        if (a ** mid + b ** mid > 1) low = mid;
        else high = mid;
      }
      powers.push((low + high) / 2);
    }
  if (powers.length < FEWEST_MIXED) return fallback;
  powers.sort((p, q) => p - q);
  return powers[powers.length >> 1]!;
}

/** How well a mix of a frame and the next explains the cells, and which mix does it best. */
function blendOf(
  values: ArrayLike<number>,
  shares: ArrayLike<number>,
  frame: number,
  id: number,
): { blend: number; off: number } | null {
  const from = codeOf(frame, id);
  const to = codeOf(frame + 1, id);
  let [sum, changing] = [0, 0];
  for (let bit = 0; bit < CODE_BITS; bit++) {
    if (from[bit] === to[bit]) {
      if (values[bit]! * from[bit]! < SURE) return null;
    } else {
      // The share of the lit cell's time that belongs to the frame to come.
      sum += to[bit] === 1 ? shares[bit]! : 1 - shares[bit]!;
      changing++;
    }
  }
  const blend = sum / changing;
  let off = 0;
  for (let bit = 0; bit < CODE_BITS; bit++) {
    const moved = from[bit] === to[bit] ? values[bit]! : 2 * shares[bit]! - 1;
    const wanted = from[bit]! + (to[bit]! - from[bit]!) * blend;
    off += (Math.max(-1.2, Math.min(1.2, moved)) - wanted) ** 2;
  }
  return { blend, off: Math.sqrt(off / CODE_BITS) };
}

/** Exposures longer than one frame, in frames; and the search range around the number that is read. */
const WIDTHS = [1.25, 1.5, 1.75, 2, 2.25, 2.5];
const AROUND = 6;
const STEPS_A_FRAME = 16;
/** What is smeared has to fit better: there is more to choose from. */
const MAX_SMEARED_OFF = 0.2;

/** Three frames or more in one picture: the middle at which each bit was lit for the share that it shows. */
function smeared(shares: ArrayLike<number>, near: number, id: number): CodeRead | null {
  let least = MAX_SMEARED_OFF;
  let middle: number | null = null;
  const codes = Array.from({ length: 2 * AROUND + 5 }, (_, i) => {
    const frame = near - AROUND - 2 + i;
    return frame < 0 || frame >= MAX_FRAMES ? null : codeOf(frame, id);
  });
  for (const width of WIDTHS) {
    for (let step = 0; step <= 2 * AROUND * STEPS_A_FRAME; step++) {
      const at = near - AROUND + step / STEPS_A_FRAME;
      const off = offOfSmear(shares, codes, near - AROUND - 2, at, width);
      if (off < least) [least, middle] = [off, at];
    }
  }
  return middle === null ? null : { frame: Math.floor(middle), id, blend: 0, middle };
}

function offOfSmear(
  shares: ArrayLike<number>,
  codes: readonly (Int8Array | null)[],
  first: number,
  at: number,
  width: number,
): number {
  const [from, to] = [at - width / 2, at + width / 2];
  let off = 0;
  for (let bit = 0; bit < CODE_BITS; bit++) {
    let lit = 0;
    for (let frame = Math.floor(from); frame < to; frame++) {
      const code = codes[frame - first];
      if (!code) return Number.POSITIVE_INFINITY;
      const part = Math.min(to, frame + 1) - Math.max(from, frame);
      lit += (part * (1 + code[bit]!)) / 2;
    }
    off += (2 * shares[bit]! - (2 * lit) / width) ** 2;
  }
  return Math.sqrt(off / CODE_BITS);
}
