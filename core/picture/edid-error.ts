/** What is wrong with an EDID, and at which byte it shows. */
const SENTENCES = {
  'not-hex': 'Not hexadecimal bytes. Paste the bytes alone, two digits each.',
  'too-short':
    'An EDID has 128 bytes or a multiple of that; this has fewer than it announces. Read it from the device again.',
  'no-header': 'Not an EDID: it should start with 00 FF FF FF FF FF FF 00. Choose another file.',
  checksum: 'The EDID is corrupt (checksum error). Read it from the device again.',
  'bad-block': 'A data block runs past the end of its extension. Read it from the device again.',
} as const;
export type EdidErrorCode = keyof typeof SENTENCES;

export class EdidError extends Error {
  readonly code: EdidErrorCode;
  /** Counted from 0. */
  readonly byte: number;
  constructor(code: EdidErrorCode, byte: number) {
    super(`${SENTENCES[code]} (byte ${byte})`);
    this.name = 'EdidError';
    this.code = code;
    this.byte = byte;
  }
}
