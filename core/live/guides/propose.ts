import { applyEdit, type Carried, type Change, carryOut, type Rig, type SettingChange } from '#core/model/rig/index.ts';
import type { Bridge, Whole } from '#core/routing/plan/index.ts';
import { type Evaluation, evaluationAt, type Pair } from '#core/signal/index.ts';
import { asking, type Followed, isSo } from './follow.ts';

/** What makes a step so: settings, or a cable or device with the settings that have to follow. */
export interface Proposal extends Carried {
  readonly bridge: Bridge | null;
  readonly settings: readonly SettingChange[];
}

type PairId = Pick<Pair, 'sourceId' | 'listenerId'>;
const isSame = (a: PairId, b: PairId): boolean => a.sourceId === b.sourceId && a.listenerId === b.listenerId;

/**
 * What of a whole proposal is for one step: as few of its settings as do, else all of them, else a cable or device. Each is
 * tried on the rig: the step is so then, and no pair that was right is wrong. Null where none of them does.
 * @param whole  what `makeWhole` found for `asking(rig, followed)`
 */
export function proposalFor(rig: Rig, followed: Followed, { changes, bridges }: Whole): Proposal | null {
  const { pair, step } = followed;
  if (!pair || !('from' in step)) return null;
  const asked = asking(rig, followed);
  const before = evaluationAt(asked, null);
  const settings = (list: readonly SettingChange[]): Proposal => ({
    momentId: null,
    bridge: null,
    settings: list.map(({ deviceId, settingId, value }) => ({ deviceId, settingId, value })),
    changes: list.map(({ deviceId, settingId, value }): Change => ({ deviceId, settingId, value })),
  });
  const own = changes.filter((c) => c.mends.some((w) => isSame(w, pair)));
  const candidates = [
    ...(own.length > 0 ? [settings(own)] : []),
    ...(changes.length > own.length ? [settings(changes)] : []),
    ...bridges.filter((b) => isSame(b.pair, pair)).map((b) => bridged(b)),
  ];
  const does = (proposal: Proposal): boolean => {
    const done = applyEdit(asked, carryOut(asked, proposal, 'done', NEVER));
    if (!done.ok) return false;
    const after = evaluationAt(done.rig, null);
    const now = after.pairs.find((p) => isSame(p, pair));
    return now !== undefined && isSo(step, now) && wrongs(after).every((w) => wrongs(before).includes(w));
  };
  return candidates.find(does) ?? null;
}
/** What is done already opens no task. */
const NEVER = '2000-01-01T00:00:00Z';

const bridged = (bridge: Bridge): Proposal => ({
  momentId: null,
  bridge,
  settings: bridge.changes,
  ...(bridge.box && { first: bridge.box.edit }),
  changes: [
    ...bridge.cables.map((cable): Change => ({ cableId: cable.id, cable })),
    ...bridge.changes.map(({ deviceId, settingId, value }): Change => ({ deviceId, settingId, value })),
  ],
});

/** Pairs that are wrong in a way that one that is mended must not buy. */
const wrongs = ({ pairs }: Evaluation): string[] =>
  pairs
    .filter(
      ({ want, verdict: { word } }) =>
        word === 'missing' || word === 'unwanted' || (word === 'twice' && want === 'must'),
    )
    .map((p) => `${p.sourceId}>${p.listenerId}`);
