import { SaidError, type Text } from '#core/base/said/index.ts';
import { say } from './sayings.ts';

/** What can be wrong with a WAV, each with what to do about it. */
const SENTENCES = {
  'not-wav': say.thisIsNotWav(),
  'no-format': say.thisWavHasNo(),
  'no-data': say.wavHasNoAudio(),
  'no-channels': say.wavHasChannelsExport(),
  'bad-format': say.wavContradictsItselfAbout(),
  'bad-rate': say.wavHasImpossibleSample(),
  unsupported: say.audioInThisWav(),
  'cut-short': say.thisWavIsShorter(),
} as const;

export type WavErrorCode = keyof typeof SENTENCES;

/** A WAV that cannot be read, or not as it stands. `detail` adds figures to the sentence. */
export class WavError extends SaidError {
  readonly code: WavErrorCode;
  constructor(code: WavErrorCode, detail: Text = '') {
    super(detail ? say.withDetail({ problem: SENTENCES[code], detail }) : SENTENCES[code]);
    this.name = 'WavError';
    this.code = code;
  }
  /** Whether `asItIs` would open it. */
  get canBeSalvaged(): boolean {
    return this.code === 'cut-short';
  }
}
