import type { Figures } from '#core/variant/index.ts';
import { formatNumber } from '#web/parts/index.ts';

interface FigureLine {
  readonly id: string;
  readonly name: string;
  readonly term?: 'can-fail';
  /** Smaller is better. */
  readonly value: (f: Figures) => number;
  readonly say: (f: Figures) => string;
}

const plain = (id: keyof Figures, name: string, term?: 'can-fail'): FigureLine => ({
  id,
  name,
  ...(term && { term }),
  value: (f) => f[id] as number,
  say: (f) => formatNumber(f[id] as number),
});

/** What two rigs are laid side by side in; of each, less is better. */
export const FIGURES: readonly FigureLine[] = [
  {
    id: 'missing',
    name: 'Wanted and heard',
    value: (f) => f.wanted - f.heard,
    say: (f) => `${f.heard} of ${f.wanted}`,
  },
  plain('stops', 'It stops it'),
  plain('fixes', 'To fix'),
  plain('watches', 'To watch'),
  plain('boxes', 'Boxes'),
  plain('programs', 'Programs'),
  plain('leads', 'Leads'),
  plain('failures', 'Things that can fail', 'can-fail'),
  plain('single', 'of them, taking something wanted along'),
  plain('conversions', 'Conversions on the longest way (typical)'),
  {
    id: 'latest',
    name: 'Latest sound that is wanted, ms (typical)',
    value: (f) => Math.round(f.latestMs),
    say: (f) => formatNumber(f.latestMs),
  },
  {
    id: 'snr',
    name: 'Main voice over the noise, at its worst place, dB (typical)',
    value: (f) => (f.leastSnrDb === null ? 0 : -Math.round(f.leastSnrDb)),
    say: (f) => (f.leastSnrDb === null ? 'none' : formatNumber(f.leastSnrDb)),
  },
  {
    id: 'room',
    name: 'Room over its peaks, at its tightest place, dB (typical)',
    value: (f) => (f.leastRoomDb === null ? 0 : -Math.round(f.leastRoomDb)),
    say: (f) => (f.leastRoomDb === null ? 'none' : formatNumber(f.leastRoomDb)),
  },
  {
    id: 'price',
    name: 'Cost of all of it, euros (typical)',
    value: (f) => f.priceEur[0] + f.priceEur[1],
    say: (f) => `${formatNumber(f.priceEur[0])} to ${formatNumber(f.priceEur[1])}`,
  },
];
