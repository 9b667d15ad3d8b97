/** What can be wrong with a WAV, each with what to do about it. */
const SENTENCES = {
  'not-wav': 'This is not a WAV file. Choose a .wav, or open it in Measure if it is a video.',
  'no-format': 'This WAV has no format information. Export it again from the app that made it.',
  'no-data': 'The WAV has no audio. Record or export it again.',
  'no-channels': 'The WAV has 0 channels. Export it again as mono or stereo.',
  'bad-format': 'The WAV contradicts itself about its format. Export it again as PCM, 16 or 24 bit.',
  'bad-rate': 'The WAV has an impossible sample rate: 4 to 768 kHz can be read. Export it again at 48 kHz.',
  unsupported: 'The audio in this WAV is compressed. Export it as PCM (8 to 32 bit) or float.',
  'cut-short': 'This WAV is shorter than its header says. If the rest of it exists elsewhere, copy it again.',
} as const;

export type WavErrorCode = keyof typeof SENTENCES;

/** A WAV that cannot be read, or not as it stands. `detail` adds figures to the sentence. */
export class WavError extends Error {
  readonly code: WavErrorCode;
  constructor(code: WavErrorCode, detail = '') {
    super(detail ? `${SENTENCES[code]} (${detail})` : SENTENCES[code]);
    this.name = 'WavError';
    this.code = code;
  }
  /** Whether `asItIs` would open it. */
  get canBeSalvaged(): boolean {
    return this.code === 'cut-short';
  }
}
