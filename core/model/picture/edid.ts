import type { Text } from '#core/base/said/index.ts';
import { hertz } from '#core/model/units/index.ts';
import { DETAILED, readDetailed, readName, readOldTimings, type StatedMode } from './edid-blocks.ts';
import { type CtaFacts, readCta, type SoundFormat } from './edid-cta.ts';
import { EdidError } from './edid-error.ts';
import { isEnough, type Link, linkName, needOf } from './link.ts';
import { type Coding, type Mode, modeName } from './mode.ts';
import { say } from './sayings.ts';
import { timingOf } from './timing.ts';

/** What a screen or capture device says of itself (VESA E-EDID 1.3 and 1.4 with CTA-861 extensions). */
export interface Edid {
  /** As the device calls itself; null where it does not. */
  readonly name: string | null;
  readonly version: string;
  /** Each once, the one it prefers first. */
  readonly modes: readonly StatedMode[];
  readonly sound: readonly SoundFormat[];
  readonly chromas: readonly Coding['chroma'][];
  readonly deepColourBits: readonly number[];
  /** The best link that it states. */
  readonly link: Link;
  /** Extensions that were not read, by their tag. */
  readonly unread: readonly number[];
}

const BLOCK = 128;
const HEADER = [0, 255, 255, 255, 255, 255, 255, 0];
const DESCRIPTORS_AT = 54;
const DESCRIPTORS = 4;
const CTA = 2;
/** Without an HDMI block of its own a digital input is a single link at this character rate. */
const SINGLE_LINK_HZ = 165e6;

/** Reads pasted bytes: digits in pairs, whatever stands between them. @throws EdidError */
export function edidBytes(text: string): Uint8Array {
  const digits = text.replace(/0x/gi, ' ').replace(/[\s,;:-]+/g, '');
  const strange = digits.search(/[^0-9a-f]/i);
  if (strange >= 0) throw new EdidError('not-hex', strange >> 1);
  if (digits.length === 0 || digits.length % 2) throw new EdidError('not-hex', digits.length >> 1);
  return Uint8Array.from(digits.match(/../g)!, (pair) => Number.parseInt(pair, 16));
}

/** @throws EdidError that names the byte */
export function parseEdid(bytes: Uint8Array): Edid {
  if (bytes.length < BLOCK) throw new EdidError('too-short', bytes.length);
  const wrong = HEADER.findIndex((byte, i) => bytes[i] !== byte);
  if (wrong >= 0) throw new EdidError('no-header', wrong);
  const blocks = 1 + bytes[126]!;
  if (bytes.length < blocks * BLOCK) throw new EdidError('too-short', bytes.length);
  for (let b = 0; b < blocks; b++) {
    const sum = bytes.subarray(b * BLOCK, (b + 1) * BLOCK).reduce((total, byte) => total + byte, 0);
    if (sum % 256 !== 0) throw new EdidError('checksum', (b + 1) * BLOCK - 1);
  }
  const facts: CtaFacts = {
    modes: [],
    sound: [],
    basicSound: false,
    chroma422: false,
    chroma444: false,
    deepColourBits: [],
    maxCharacterRateHz: 0,
    frl: null,
    may420: [],
  };
  let name: string | null = null;
  for (let d = 0; d < DESCRIPTORS; d++) {
    const at = DESCRIPTORS_AT + d * DETAILED;
    const detailed = readDetailed(bytes, at);
    if (detailed) facts.modes.push(detailed);
    name ??= readName(bytes, at);
  }
  const old = readOldTimings(bytes);
  const unread: number[] = [];
  for (let b = 1; b < blocks; b++) {
    const tag = bytes[b * BLOCK]!;
    if (tag === CTA) readCta(bytes, b * BLOCK, facts);
    else unread.push(tag);
  }
  return {
    name,
    version: `${bytes[18]}.${bytes[19]}`,
    modes: eachOnce([...facts.modes, ...old]),
    sound: facts.sound.length > 0 || !facts.basicSound ? facts.sound : [BASIC_SOUND],
    chromas: [
      '4:4:4',
      ...(facts.chroma422 ? (['4:2:2'] as const) : []),
      ...(facts.may420.length > 0 || facts.modes.some((m) => m.only420) ? (['4:2:0'] as const) : []),
    ],
    deepColourBits: facts.deepColourBits,
    link: facts.frl ?? tmdsLink(Math.max(SINGLE_LINK_HZ, facts.maxCharacterRateHz)),
    unread,
  };
}

const BASIC_SOUND: SoundFormat = { format: 'PCM', channels: 2, ratesHz: [32_000, 44_100, 48_000], bits: [16] };

const tmdsLink = (characterRateHz: number): Link =>
  characterRateHz >= 600e6 ? 'tmds-600' : characterRateHz >= 340e6 ? 'tmds-340' : 'tmds-165';

const keyOf = ({ width, height, rate }: Mode): string => `${width}x${height}@${hertz(rate).toFixed(3)}`;

/** The first of each mode stays; in full color it counts more than in 4:2:0 only. */
function eachOnce(modes: readonly StatedMode[]): StatedMode[] {
  const byKey = new Map<string, StatedMode>();
  for (const stated of modes) {
    const known = byKey.get(keyOf(stated.mode));
    if (!known || (known.only420 && !stated.only420)) byKey.set(keyOf(stated.mode), stated);
  }
  return [...byKey.values()];
}

/** Why a device with this EDID does not take a mode in a coding; null where it does. */
export function whyNot(edid: Edid, mode: Mode, coding: Coding): Text | null {
  // 59.94 and 60 are one mode to a device that states either.
  const stated = edid.modes.find(
    (s) =>
      s.mode.width === mode.width &&
      s.mode.height === mode.height &&
      Math.abs(hertz(s.mode.rate) / hertz(mode.rate) - 1) < 0.002,
  );
  if (!stated) return say.itsEdidDoesntList({ mode: modeName(mode) });
  if (stated.only420 && coding.chroma !== '4:2:0') return say.itAcceptsInOnly({ mode: modeName(mode) });
  if (!edid.chromas.includes(coding.chroma)) return say.itDoesntAccept({ chroma: coding.chroma });
  if (coding.chroma === '4:4:4' && coding.bits > 8 && !edid.deepColourBits.includes(coding.bits))
    return say.itDoesntAcceptBits({ bits: coding.bits, chroma: coding.chroma });
  const need = needOf(mode, coding, stated.timing ?? timingOf(mode));
  if (!isEnough(edid.link, need))
    return say.atBitsAndNeeds({
      mode: modeName(mode),
      bits: coding.bits,
      chroma: coding.chroma,
      need: need.minimumLink ? linkName(need.minimumLink) : 'none',
      link: linkName(edid.link),
    });
  return null;
}
