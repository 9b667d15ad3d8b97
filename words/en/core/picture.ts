import { say } from '#core/model/picture/sayings.ts';
import { wordingOf } from '../../said.ts';

export const picture = wordingOf(say, {
  isNotVideoMode: '{text} is not a video mode. Write it like 3840x2160@60 or 1920x1080@59.94.',
  xIsOutRange: '{width} x {height} is out of range: 64 to {most} pixels each way.',
  fpsIsOutRange: '{hz} fps is out of range: 1 to {most}.',
  bitsPerComponentAre: '{bits} bits per component are not supported. Use {all}.',
  carriesAtMostBits: '4:2:2 carries at most 12 bits per component. Use 12, 10 or 8.',
  isNotChromaFormat: '{text} is not a chroma format. Write 4:4:4 (RGB too), 4:2:2 or 4:2:0.',
  fps: '{width} × {height}, {rate} fps',
  notHexadecimalBytesPaste: 'Not hexadecimal bytes. Paste the bytes alone, two digits each.',
  edidHasBytesOr:
    'An EDID has 128 bytes or a multiple of that; this has fewer than it announces. Read it from the device again.',
  notEdidItShould: 'Not an EDID: it should start with 00 FF FF FF FF FF FF 00. Choose another file.',
  edidIsCorruptChecksum: 'The EDID is corrupt (checksum error). Read it from the device again.',
  dataBlockRunsPast: 'A data block runs past the end of its extension. Read it from the device again.',
  byte: '{sentence} (byte {byte})',
  itsEdidDoesntList: 'Its EDID doesn’t list {mode}.',
  itAcceptsInOnly: 'It accepts {mode} in 4:2:0 only.',
  itDoesntAccept: 'It doesn’t accept {chroma}.',
  itDoesntAcceptBits: 'It doesn’t accept {bits} bits per component in {chroma}.',
  atBitsAndNeeds:
    '{mode} at {bits} bits and {chroma} needs {need, select, none {a faster link than there is} other {{need}}}; it states {link}.',
});
