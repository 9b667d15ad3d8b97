/** What keeps a take from being measured, each with what to do about it. */
const SENTENCES = {
  'too-short': 'The audio is too short to measure: half a second is needed at least. Record a longer take.',
  silent: 'The track is silent. Check that it was recorded, or choose another.',
  'no-layout':
    'The file doesn’t say which channel belongs to which speaker, so it has no loudness as a whole. Measure its tracks one by one.',
  'rates-differ': 'The tracks have different sample rates. Export them at one rate, or choose tracks of one take.',
  'not-a-number': 'The file contains invalid samples (NaN). Export it again.',
} as const;

export type MeasureErrorCode = keyof typeof SENTENCES;

/** A take that cannot be measured. `which` names the file or track it is about. */
export class MeasureError extends Error {
  readonly code: MeasureErrorCode;
  constructor(code: MeasureErrorCode, which = '') {
    super(which ? `${which}: ${SENTENCES[code]}` : SENTENCES[code]);
    this.name = 'MeasureError';
    this.code = code;
  }
}
