/** Builds EDIDs from what they are to say, byte by byte as VESA and CTA lay them out: the reader's slow twin. */

interface Detailed {
  readonly clockMhz: number;
  readonly active: readonly [number, number];
  readonly total: readonly [number, number];
  readonly interlaced?: boolean;
}

const withSum = (block: number[]): number[] => {
  const bytes = [...block, ...new Array(127 - block.length).fill(0)].slice(0, 127);
  return [...bytes, (256 - (bytes.reduce((a, b) => a + b, 0) % 256)) % 256];
};

export function detailed({ clockMhz, active, total, interlaced = false }: Detailed): number[] {
  const clock = Math.round(clockMhz * 100);
  const [w, h] = active;
  const [bw, bh] = [total[0] - w, total[1] - h];
  return [
    ...[clock & 255, clock >> 8],
    ...[w & 255, bw & 255, ((w >> 8) << 4) | (bw >> 8)],
    ...[h & 255, bh & 255, ((h >> 8) << 4) | (bh >> 8)],
    ...[0, 0, 0, 0, 0, 0, 0, 0, 0],
    interlaced ? 0x80 : 0,
  ];
}

export const nameDescriptor = (name: string): number[] => [
  ...[0, 0, 0, 0xfc, 0],
  ...[...`${name}\n`.padEnd(13).slice(0, 13)].map((c) => c.charCodeAt(0)),
];

interface Base {
  readonly descriptors?: readonly number[][];
  readonly established?: readonly [number, number, number];
  readonly standard?: readonly (readonly [number, number])[];
  readonly extensions?: readonly number[][];
}

export function edid({ descriptors = [], established = [0, 0, 0], standard = [], extensions = [] }: Base): Uint8Array {
  const pairs = Array.from({ length: 8 }, (_, i) => standard[i] ?? ([1, 1] as const)).flat();
  const four = Array.from({ length: 4 }, (_, i) => descriptors[i] ?? [0, 0, 0, 0x10, ...new Array(14).fill(0)]).flat();
  const head = [0, 255, 255, 255, 255, 255, 255, 0, 0, 0, 0, 0, 0, 0, 0, 0, 1, 30, 1, 4];
  const base = [...head, 0xa5, 60, 34, 120, 0, ...new Array(10).fill(0), ...established, ...pairs, ...four];
  return Uint8Array.from([withSum([...base, extensions.length]), ...extensions.map(withSum)].flat());
}

const dataBlock = (tag: number, body: readonly number[]): number[] => [(tag << 5) | body.length, ...body];

interface Cta {
  readonly flags?: number;
  readonly vics?: readonly number[];
  readonly sound?: readonly number[];
  /** Character rate in MHz and deep color bits 0x10, 0x20, 0x40. */
  readonly hdmi?: { readonly mhz: number; readonly deep: number };
  readonly forum?: { readonly mhz: number; readonly frl: number };
  readonly only420?: readonly number[];
  readonly may420?: readonly number[];
  readonly detailed?: readonly number[][];
  readonly raw?: readonly number[];
}

export function cta(what: Cta): number[] {
  const blocks = [
    ...(what.vics ? dataBlock(2, what.vics) : []),
    ...(what.sound ? dataBlock(1, what.sound) : []),
    ...(what.hdmi ? dataBlock(3, [0x03, 0x0c, 0x00, 0x10, 0x00, what.hdmi.deep, what.hdmi.mhz / 5]) : []),
    ...(what.forum ? dataBlock(3, [0xd8, 0x5d, 0xc4, 1, what.forum.mhz / 5, 0x80, what.forum.frl << 4]) : []),
    ...(what.only420 ? dataBlock(7, [0x0e, ...what.only420]) : []),
    ...(what.may420 ? dataBlock(7, [0x0f, ...what.may420]) : []),
    ...(what.raw ?? []),
  ];
  return [2, 3, 4 + blocks.length, what.flags ?? 0, ...blocks, ...(what.detailed ?? []).flat()];
}
