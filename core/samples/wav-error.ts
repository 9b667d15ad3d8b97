/** What can be wrong with a WAV, each with what to do about it. */
const SENTENCES = {
  'not-wav': 'This is not a WAV file. Choose a .wav, or open it in Measure if it is a video.',
  'no-format': 'The WAV says nothing of its format. Export it again from the program that made it.',
  'no-data': 'The WAV holds no sound. Record or export it again.',
  'no-channels': 'The WAV says that it has 0 channels. Export it again as mono or stereo.',
  'bad-format': 'The WAV contradicts itself about its format. Export it again as PCM, 16 or 24 bit.',
  'bad-rate': 'The WAV says a sample rate that no sound has: 4 to 768 kHz are read. Export it again at 48 kHz.',
  unsupported: 'The sound in this WAV is compressed. Export it as PCM (8 to 32 bit) or float.',
  'cut-short':
    'The WAV is cut short: it promises more sound than it holds. Copy it again, or open it as it is to use what is there.',
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
