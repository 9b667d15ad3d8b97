import type { MeasureId, Option } from '#core/routing/plan/index.ts';
import { formatNumber } from '#web/shared/parts/index.ts';
import { common, alternatives as say } from '#words/index.ts';

/** A measure as the head of its column. */
export interface MeasureSaid {
  readonly name: string;
  readonly says: string;
  readonly say: (o: Option) => string;
}

export const SAID: Record<MeasureId, MeasureSaid> = {
  cannot: {
    name: say.unmet(),
    says: say.requirementsPlanThatIt(),
    say: (o) => String(o.cannot.length),
  },
  toBuy: {
    name: say.toBuy(),
    says: say.devicesYouDontOwn(),
    say: ({ toBuyEur: [least, most] }) =>
      most === 0 ? say.nothingToBuy() : `${formatNumber(least)}–${formatNumber(most)}`,
  },
  boxes: { name: say.devices(), says: say.hardwareAllIt(), say: (o) => String(o.figures.boxes) },
  leads: { name: say.cables(), says: say.pluggedByHand(), say: (o) => String(o.figures.leads) },
  single: {
    name: say.singlePointsFailure(),
    says: say.partsWhoseFailureTakes(),
    say: (o) => String(o.figures.single),
  },
  conversions: {
    name: say.conversions(),
    says: say.onLongestRequiredPath(),
    say: (o) => String(o.figures.conversions),
  },
  latest: {
    name: say.latencyMs(),
    says: say.latestRequiredAudioTypical(),
    say: (o) => formatNumber(o.figures.latestMs),
  },
  balance: {
    name: say.ownFader(),
    says: say.sourcesInStreamWhose(),
    say: (o) => (o.together === 0 ? say.noStream() : say.values({ apart: o.apart, together: o.together })),
  },
  noise: {
    name: say.snrDb(),
    says: say.mainVoiceAtIts(),
    say: (o) => (o.figures.leastSnrDb === null ? common.none() : formatNumber(o.figures.leastSnrDb)),
  },
  free: { name: say.spareIO(), says: say.freeInputsOutputs(), say: (o) => `${o.freeIns} + ${o.freeOuts}` },
  wrong: {
    name: say.toFix(),
    says: say.issuesInRigAs(),
    say: (o) => String(o.figures.stops + o.figures.fixes),
  },
};
