import { SaidError } from '#core/base/said/index.ts';
import { say } from './sayings.ts';

/** What is wrong with an EDID, and at which byte it shows. */
const SENTENCES = {
  'not-hex': say.notHexadecimalBytesPaste(),
  'too-short': say.edidHasBytesOr(),
  'no-header': say.notEdidItShould(),
  checksum: say.edidIsCorruptChecksum(),
  'bad-block': say.dataBlockRunsPast(),
} as const;
export type EdidErrorCode = keyof typeof SENTENCES;

export class EdidError extends SaidError {
  readonly code: EdidErrorCode;
  /** Counted from 0. */
  readonly byte: number;
  constructor(code: EdidErrorCode, byte: number) {
    super(say.byte({ sentence: SENTENCES[code], byte }));
    this.name = 'EdidError';
    this.code = code;
    this.byte = byte;
  }
}
