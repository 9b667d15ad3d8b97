/** What is wrong with an EDID, and at which byte it shows. */
const SENTENCES = {
  'not-hex': 'This is not a row of hexadecimal bytes. Paste the bytes alone, two digits each.',
  'too-short':
    'An EDID has 128 bytes or a multiple of it; this has fewer than it promises. Read it out of the device again.',
  'no-header': 'This does not begin as an EDID does (00 FF FF FF FF FF FF 00). Choose another file.',
  checksum: 'The bytes of a block do not add up: the EDID was damaged on the way. Read it out of the device again.',
  'bad-block': 'A data block runs past the end of its extension. Read it out of the device again.',
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
