import { listOf, type Text } from '#core/base/said/index.ts';
import {
  applyEdit,
  atMoment,
  type Carried,
  type Change,
  carryOut,
  type Rig,
  settingKey,
} from '#core/model/rig/index.ts';
import { makeWhole } from '#core/routing/plan/index.ts';
import { alignAll, type SolveProgram, solveRouting } from '#core/routing/suggest/index.ts';
import { check, type Finding, fixesOf } from '#core/rules/index.ts';
import { evaluationAt } from '#core/signal/index.ts';
import type { Outcome } from './draft.ts';

/** Changes that may take issues away, with what they are called; null where their settings say it. */
export interface Remedy extends Carried {
  /** The same for the same changes. */
  readonly key: string;
  readonly label: Text | null;
  /** It leaves something of what it is for, and less than before. */
  readonly partly?: true;
}

const keyOf = (momentId: string | null, changes: readonly Change[]): string =>
  [
    momentId ?? '',
    ...changes
      .map((c) =>
        'cableId' in c
          ? `lead:${c.cableId}=${JSON.stringify(c.cable)}`
          : `${settingKey(c.deviceId, c.settingId)}=${c.value}`,
      )
      .sort(),
  ].join(' ');

const remedyOf = (carried: Carried, label: Text | null, partly = false): Remedy => ({
  ...carried,
  label,
  ...(partly && { partly }),
  key: keyOf(carried.momentId, carried.changes),
});

/** The fixes of one finding. */
export const fixRemedies = (rig: Rig, finding: Finding): Remedy[] =>
  fixesOf(rig, finding, evaluationAt(rig, null)).map(({ label, first, changes, partly = false }) =>
    remedyOf(
      { momentId: finding.momentId, changes, ...(first && { first }) },
      changes.every((c) => 'settingId' in c) && !partly ? null : label,
      partly,
    ),
  );

/** Rigs that are looked at for a set of settings: a plan that takes long is old when it comes. */
const MAX_EVALUATIONS = 250;

/** Settings that make the plan of a moment so: all at once, and each by itself. */
export function routingRemedies(rig: Rig, momentId: string | null): Remedy[] {
  const changes = solveRouting(atMoment(rig, momentId), evaluationAt(rig, momentId), MAX_EVALUATIONS).changes.map(
    ({ deviceId, settingId, value }): Change => ({ deviceId, settingId, value }),
  );
  if (changes.length === 0) return [];
  const each = changes.length > 1 ? changes.map((c) => remedyOf({ momentId, changes: [c] }, null)) : [];
  return [remedyOf({ momentId, changes }, null), ...each];
}

/** Cables and devices for what no setting brings. */
export const bridgeRemedies = (rig: Rig, momentId: string | null): Remedy[] =>
  makeWhole(atMoment(rig, momentId)).bridges.map(({ box, cables, parts, changes }) =>
    remedyOf(
      {
        momentId,
        ...(box && { first: box.edit }),
        changes: [
          ...cables.map((cable): Change => ({ cableId: cable.id, cable })),
          ...changes.map(({ deviceId, settingId, value }): Change => ({ deviceId, settingId, value })),
        ],
      },
      listOf('and', [...(box ? [box.name] : []), ...parts]),
    ),
  );

/** Delays that put every listener in time, or as near as the devices allow. */
export function delayRemedies(rig: Rig, solve: SolveProgram): Remedy[] {
  const { changes } = alignAll(rig, evaluationAt(rig, null), solve);
  return changes.length === 0 ? [] : [remedyOf({ momentId: null, changes }, null)];
}

/** The rig with changes carried out and confirmed; null where they can't be. */
export function carriedOut(rig: Rig, carried: Carried): Outcome | null {
  const done = applyEdit(rig, carryOut(rig, carried, 'done', NEVER));
  return done.ok ? outcomeOf(done.rig) : null;
}
/** What is done already opens no task. */
const NEVER = '2000-01-01T00:00:00Z';

export const outcomeOf = (rig: Rig): Outcome => ({ rig, findings: check(rig, evaluationAt(rig, null)) });
