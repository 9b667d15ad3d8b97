/** Where a channel's speaker stands, in the order of the bits of a WAVE channel mask. */
const SPEAKERS = [
  'front-left',
  'front-right',
  'front-center',
  'lfe',
  'back-left',
  'back-right',
  'front-left-of-center',
  'front-right-of-center',
  'back-center',
  'side-left',
  'side-right',
  'top-center',
  'top-front-left',
  'top-front-center',
  'top-front-right',
  'top-back-left',
  'top-back-center',
  'top-back-right',
] as const;
export type Speaker = (typeof SPEAKERS)[number];
/** The speaker of each channel, in the order of the channels. */
export type Layout = readonly Speaker[];

const MONO: Layout = ['front-center'];
const STEREO: Layout = ['front-left', 'front-right'];
const FIVE_ONE: Layout = [...STEREO, 'front-center', 'lfe', 'back-left', 'back-right'];

/** Channel order of decoders, by number of channels, in the order of WAVE; none for more than eight. */
const BY_COUNT: readonly Layout[] = [
  MONO,
  STEREO,
  [...STEREO, 'front-center'],
  [...STEREO, 'back-left', 'back-right'],
  [...STEREO, 'front-center', 'back-left', 'back-right'],
  FIVE_ONE,
  [...STEREO, 'front-center', 'lfe', 'back-center', 'side-left', 'side-right'],
  [...FIVE_ONE, 'side-left', 'side-right'],
];

/** The layout that codecs use for this number of channels; null where they define none. */
export const layoutOfCount = (channels: number): Layout | null => BY_COUNT[channels - 1] ?? null;

/** The layout of a WAVE channel mask; null where it has fewer bits than there are channels. */
export function layoutOfMask(mask: number, channels: number): Layout | null {
  const told = SPEAKERS.filter((_, bit) => (mask & (1 << bit)) !== 0).slice(0, channels);
  return told.length === channels ? told : null;
}

/** A layout as a WAVE channel mask. */
export const maskOf = (layout: Layout): number =>
  layout.reduce((mask, speaker) => mask | (1 << SPEAKERS.indexOf(speaker)), 0);

/** 'mono', 'stereo', '5.1': speakers, and those for low effects. */
export function layoutName(layout: Layout): string {
  if (layout.length === 1) return 'mono';
  if (layout.length === 2 && STEREO.every((s) => layout.includes(s))) return 'stereo';
  const effects = layout.filter((s) => s === 'lfe').length;
  return `${layout.length - effects}.${effects}`;
}

/** 'left', 'side right', 'low effects': as a channel is called. */
export const speakerName = (speaker: Speaker): string =>
  speaker === 'lfe' ? 'low effects' : speaker.replace(/^front-/, '').replaceAll('-', ' ');

const SURROUND = 1.41;

/**
 * How much each channel counts for loudness: ITU-R BS.1770-5, annexes 1 and 3. Low effects are left out; what stands at
 * the listener's ear height, 60 to 120 degrees to the side, counts 1.41 times. The only pair beside or behind the
 * listener stands at 110 degrees; where there are two, that behind is at 135.
 */
export function loudnessWeights(layout: Layout): number[] {
  const hasSides = layout.includes('side-left') || layout.includes('side-right');
  return layout.map((speaker) => {
    switch (speaker) {
      case 'lfe':
        return 0;
      case 'side-left':
      case 'side-right':
        return SURROUND;
      case 'back-left':
      case 'back-right':
        return hasSides ? 1 : SURROUND;
      default:
        return 1;
    }
  });
}
