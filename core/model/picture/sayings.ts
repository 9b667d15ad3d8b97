import { sayersOf } from '#core/base/said/index.ts';

/** Codes that picture reports, with their parameters. Their sentences are in words/en/core/picture.ts. */
export const say = sayersOf('picture', {
  isNotVideoMode: { text: 'name' },
  xIsOutRange: { width: 'text', height: 'text', most: 'text' },
  fpsIsOutRange: { hz: 'text', most: 'text' },
  bitsPerComponentAre: { bits: 'text', all: 'text' },
  carriesAtMostBits: {},
  isNotChromaFormat: { text: 'name' },
  fps: { width: 'text', height: 'text', rate: 'text' },
  notHexadecimalBytesPaste: {},
  edidHasBytesOr: {},
  notEdidItShould: {},
  edidIsCorruptChecksum: {},
  dataBlockRunsPast: {},
  byte: { sentence: 'text', byte: 'text' },
  itsEdidDoesntList: { mode: 'text' },
  itAcceptsInOnly: { mode: 'text' },
  itDoesntAccept: { chroma: 'text' },
  itDoesntAcceptBits: { bits: 'text', chroma: 'text' },
  atBitsAndNeeds: { mode: 'text', bits: 'text', chroma: 'text', need: 'text', link: 'text' },
});
