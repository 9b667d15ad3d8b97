import type { Ahead, NextStep, Readiness } from '#core/live/next/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { deviceName } from '#core/signal/index.ts';
import { next as say, textOf } from '#words/index.ts';

const MINUTE_S = 60;
/** Whole minutes; 0 for less than one. */
export const minutesOf = (seconds: number): number => Math.round(seconds / MINUTE_S);

/** Where one stands for it. */
export const sayPlace = (rig: Rig, { deviceId, far }: Pick<NextStep, 'deviceId' | 'far'>): string =>
  deviceId === null || !rig.devices.some((d) => d.id === deviceId)
    ? say.atTheDesk()
    : far
      ? say.atFarSide({ device: deviceName(rig, deviceId) })
      : say.atDevice({ device: deviceName(rig, deviceId) });

/** 'Clears the blocker and 3 issues.' */
export function sayTakesAway({ takesAway: { blockers, fixes, doubts } }: NextStep): string {
  const parts = [
    blockers > 0 ? say.blockersGone({ count: blockers }) : '',
    fixes > 0 ? say.issuesGone({ count: fixes }) : '',
    doubts > 0 ? say.doubtsGone({ count: doubts }) : '',
  ].filter(Boolean);
  return parts.length === 0 ? '' : say.clears({ what: parts.join(say.and()) });
}

/** 'Ready in about 14 min: 9 steps' */
export const sayAhead = ({ steps, seconds, readiness }: Ahead, open: number): string =>
  steps.length === 0 || open === 0
    ? readiness.ready
      ? say.ready()
      : say.nearlyReady()
    : say.readyIn({ minutes: Math.max(1, minutesOf(seconds)), steps: open });

/** 'none measured' */
export const sayMeasured = ({ measured }: Readiness): string =>
  measured.done === 0 ? say.noneMeasured() : say.measuredOf({ done: measured.done, of: measured.of });

/** 'drawn, 3 of 11 confirmed' */
export const sayConfirmed = ({ drawn, confirmed, rehearsed }: Readiness): string =>
  [
    drawn ? say.drawn() : '',
    say.confirmedOf({ done: confirmed.done, of: confirmed.of }),
    rehearsed ? say.rehearsed() : '',
  ]
    .filter(Boolean)
    .join(', ');

/** A step in one line, for the history and the log. */
export const sayStep = (step: NextStep): string => textOf(step.says).slice(0, 180);
