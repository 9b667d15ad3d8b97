/** What keeps a take from being measured, each with what to do about it. */
const SENTENCES = {
  'too-short': 'The sound is too short to measure: half a second is needed at least. Record a longer take.',
  silent: 'There is only silence. Check that the track was recorded, or choose another one.',
  'no-layout':
    'The file does not say which channel belongs to which loudspeaker, so there is no loudness of them all. Measure its tracks one by one.',
  'rates-differ': 'The tracks have different sample rates. Export them at one rate, or choose tracks of one take.',
  'not-a-number': 'The file holds samples that are no numbers. Export it again.',
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
