import { DETAILED, readDetailed, type StatedMode } from './edid-blocks.ts';
import { EdidError } from './edid-error.ts';
import type { Link } from './link.ts';
import { modeOfVic } from './vic.ts';

/** A sound format that a screen or receiver takes. */
export interface SoundFormat {
  /** 'PCM', or the CTA-861 name of a compressed one. */
  readonly format: string;
  readonly channels: number;
  readonly ratesHz: readonly number[];
  /** Sample sizes, for PCM. */
  readonly bits: readonly number[];
}

/** What a CTA-861 extension adds. */
export interface CtaFacts {
  modes: StatedMode[];
  sound: SoundFormat[];
  /** Takes PCM in two channels without naming it. */
  basicSound: boolean;
  chroma422: boolean;
  chroma444: boolean;
  /** Bits a component beyond 8 that TMDS may carry. */
  deepColourBits: number[];
  maxCharacterRateHz: number;
  frl: Link | null;
  /** Modes that are also supported in 4:2:0. */
  may420: StatedMode[];
}

const FORMATS: Record<number, string> = {
  1: 'PCM',
  2: 'AC-3',
  3: 'MPEG-1',
  4: 'MP3',
  5: 'MPEG-2',
  6: 'AAC',
  7: 'DTS',
  8: 'ATRAC',
  9: 'One-bit',
  10: 'Enhanced AC-3',
  11: 'DTS-HD',
  12: 'MAT',
  13: 'DST',
  14: 'WMA Pro',
};
const RATES_HZ = [32_000, 44_100, 48_000, 88_200, 96_000, 176_400, 192_000];
const PCM_BITS = [16, 20, 24];
const FRL: readonly (Link | null)[] = [null, 'frl-9', 'frl-18', 'frl-24', 'frl-32', 'frl-40', 'frl-48'];
/** Organisation numbers that name HDMI's own blocks. */
const HDMI = 0x000c03;
const HDMI_FORUM = 0xc45dd8;
const MHZ_STEP = 5e6;
const TAG = { sound: 1, video: 2, vendor: 3, extended: 7 };
const EXTENDED = { only420: 0x0e, may420: 0x0f, forum: 0x79 };

/** Reads a CTA-861 extension at offset `at`. @throws EdidError where a block runs past its end */
export function readCta(bytes: Uint8Array, at: number, facts: CtaFacts): void {
  const flags = bytes[at + 3]!;
  facts.basicSound ||= (flags & 0x40) !== 0;
  facts.chroma444 ||= (flags & 0x20) !== 0;
  facts.chroma422 ||= (flags & 0x10) !== 0;
  const detailedAt = bytes[at + 2]!;
  const end = at + (detailedAt === 0 ? 127 : detailedAt);
  const videos: StatedMode[] = [];
  for (let p = at + 4; p < end; ) {
    const [tag, length] = [bytes[p]! >> 5, bytes[p]! & 0x1f];
    if (p + 1 + length > end) throw new EdidError('bad-block', p);
    const body = bytes.subarray(p + 1, p + 1 + length);
    if (tag === TAG.sound) readSound(body, facts);
    else if (tag === TAG.video) videos.push(...readVideo(body, false));
    else if (tag === TAG.vendor) readVendor(body, facts);
    else if (tag === TAG.extended) readExtended(body, facts, videos);
    p += 1 + length;
  }
  facts.modes.push(...videos);
  if (detailedAt < 4) return;
  for (let p = at + detailedAt; p + DETAILED <= at + 127; p += DETAILED) {
    const detailed = readDetailed(bytes, p);
    if (detailed) facts.modes.push(detailed);
  }
}

/** Codes up to 64 may bear a mark 'native' in their highest bit. */
const vicOf = (byte: number): number => (byte >= 129 && byte <= 192 ? byte & 0x7f : byte);

function readVideo(body: Uint8Array, only420: boolean): StatedMode[] {
  return [...body].flatMap((byte): StatedMode[] => {
    const mode = modeOfVic(vicOf(byte));
    return mode ? [{ mode, only420 }] : [];
  });
}

function readSound(body: Uint8Array, facts: CtaFacts): void {
  for (let i = 0; i + 3 <= body.length; i += 3) {
    const code = (body[i]! >> 3) & 0x0f;
    const format = FORMATS[code];
    if (!format) continue;
    const bitsIn = (byte: number, values: readonly number[]) => values.filter((_, bit) => byte & (1 << bit));
    facts.sound.push({
      format,
      channels: (body[i]! & 7) + 1,
      ratesHz: bitsIn(body[i + 1]!, RATES_HZ),
      bits: code === 1 ? bitsIn(body[i + 2]!, PCM_BITS) : [],
    });
  }
}

function readVendor(body: Uint8Array, facts: CtaFacts): void {
  const organisation = (body[0] ?? 0) | ((body[1] ?? 0) << 8) | ((body[2] ?? 0) << 16);
  if (organisation === HDMI) {
    for (const [mask, bits] of [
      [0x10, 10],
      [0x20, 12],
      [0x40, 16],
    ] as const)
      if ((body[5] ?? 0) & mask) facts.deepColourBits.push(bits);
    facts.maxCharacterRateHz = Math.max(facts.maxCharacterRateHz, (body[6] ?? 0) * MHZ_STEP);
  } else if (organisation === HDMI_FORUM) readForum(body.subarray(3), facts);
}

/** HDMI Forum's block, from its version byte on. */
function readForum(body: Uint8Array, facts: CtaFacts): void {
  facts.maxCharacterRateHz = Math.max(facts.maxCharacterRateHz, (body[1] ?? 0) * MHZ_STEP);
  facts.frl = FRL[(body[3] ?? 0) >> 4] ?? facts.frl;
}

function readExtended(body: Uint8Array, facts: CtaFacts, videos: readonly StatedMode[]): void {
  const rest = body.subarray(1);
  if (body[0] === EXTENDED.only420) facts.modes.push(...readVideo(rest, true));
  // Two bytes are kept free before the version.
  if (body[0] === EXTENDED.forum) readForum(rest.subarray(2), facts);
  if (body[0] === EXTENDED.may420) {
    // A map of the video block's modes, bit by bit; without a map, all of them.
    const all = rest.length === 0;
    facts.may420.push(...videos.filter((_, i) => all || (rest[i >> 3] ?? 0) & (1 << (i & 7))));
  }
}
