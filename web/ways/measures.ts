import type { MeasureId, Option } from '#core/plan/index.ts';
import { formatNumber } from '#web/parts/index.ts';

/** A measure as it stands over its column. */
export interface MeasureSaid {
  readonly name: string;
  readonly says: string;
  readonly say: (o: Option) => string;
}

export const SAID: Record<MeasureId, MeasureSaid> = {
  cannot: {
    name: 'Cannot',
    says: 'wants of the plan that it does not bring',
    say: (o) => String(o.cannot.length),
  },
  toBuy: {
    name: 'To buy, €',
    says: 'boxes that are not owned yet (typical)',
    say: (o) => `${formatNumber(o.toBuyEur[0])}–${formatNumber(o.toBuyEur[1])}`,
  },
  boxes: { name: 'Boxes', says: 'hardware, all of it', say: (o) => String(o.figures.boxes) },
  leads: { name: 'Leads', says: 'plugged by hand', say: (o) => String(o.figures.leads) },
  single: {
    name: 'Single points',
    says: 'things whose failure takes something wanted along',
    say: (o) => String(o.figures.single),
  },
  conversions: {
    name: 'Conversions',
    says: 'on the longest way that is wanted',
    say: (o) => String(o.figures.conversions),
  },
  latest: {
    name: 'Latest, ms',
    says: 'the latest sound that is wanted (typical)',
    say: (o) => formatNumber(o.figures.latestMs),
  },
  balance: {
    name: 'Own fader',
    says: 'sources in the stream whose level can be set without another’s',
    say: (o) => (o.together === 0 ? 'no stream' : `${o.apart} of ${o.together}`),
  },
  noise: {
    name: 'Over noise, dB',
    says: 'the main voice at its worst place (typical)',
    say: (o) => (o.figures.leastSnrDb === null ? 'none' : formatNumber(o.figures.leastSnrDb)),
  },
  free: { name: 'Free', says: 'inputs and outputs to spare', say: (o) => `${o.freeIns} + ${o.freeOuts}` },
  wrong: {
    name: 'To fix',
    says: 'what the checks find as it is drawn',
    say: (o) => String(o.figures.stops + o.figures.fixes),
  },
};
