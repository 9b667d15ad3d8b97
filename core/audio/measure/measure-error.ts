import { SaidError, type Text } from '#core/base/said/index.ts';
import { say } from './sayings.ts';

/** What keeps a take from being measured, each with what to do about it. */
const SENTENCES = {
  'too-short': say.audioIsTooShort(),
  silent: say.trackIsSilentCheck(),
  'no-layout': say.fileDoesntSayWhich(),
  'rates-differ': say.tracksHaveDifferentSample(),
  'not-a-number': say.fileContainsInvalidSamples(),
} as const;

export type MeasureErrorCode = keyof typeof SENTENCES;

/** A take that cannot be measured. `which` names the file or track it is about. */
export class MeasureError extends SaidError {
  readonly code: MeasureErrorCode;
  constructor(code: MeasureErrorCode, which: Text = '') {
    super(which ? say.ofFile({ which, problem: SENTENCES[code] }) : SENTENCES[code]);
    this.name = 'MeasureError';
    this.code = code;
  }
}
