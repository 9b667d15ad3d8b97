import type { Figures } from '#core/routing/variants/index.ts';
import { formatNumber } from '#web/shared/parts/index.ts';
import { variants as say } from '#words/index.ts';

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

/** Figures in which two rigs are compared; less is better in each. */
export const FIGURES: readonly FigureLine[] = [
  {
    id: 'missing',
    name: say.requiredAndReceived(),
    value: (f) => f.wanted - f.heard,
    say: (f) => say.values({ heard: f.heard, wanted: f.wanted }),
  },
  plain('stops', say.blockers()),
  plain('fixes', say.toFix()),
  plain('watches', say.warnings()),
  plain('boxes', say.devices()),
  plain('programs', say.apps()),
  plain('leads', say.cables()),
  plain('failures', say.pointsFailure(), 'can-fail'),
  plain('single', say.whichWouldTakeOut()),
  plain('conversions', say.conversionsOnLongestPath()),
  {
    id: 'latest',
    name: say.latestRequiredAudioMs(),
    value: (f) => Math.round(f.latestMs),
    say: (f) => formatNumber(f.latestMs),
  },
  {
    id: 'snr',
    name: say.mainVoiceAboveNoise(),
    value: (f) => (f.leastSnrDb === null ? 0 : -Math.round(f.leastSnrDb)),
    say: (f) => (f.leastSnrDb === null ? 'none' : formatNumber(f.leastSnrDb)),
  },
  {
    id: 'room',
    name: say.leastHeadroomOverIts(),
    value: (f) => (f.leastRoomDb === null ? 0 : -Math.round(f.leastRoomDb)),
    say: (f) => (f.leastRoomDb === null ? 'none' : formatNumber(f.leastRoomDb)),
  },
  {
    id: 'price',
    name: say.costEverythingEurosTypical(),
    value: (f) => f.priceEur[0] + f.priceEur[1],
    say: ({ priceEur: [low, high] }) =>
      low === high ? formatNumber(low) : say.to({ n0: formatNumber(low), n1: formatNumber(high) }),
  },
];
