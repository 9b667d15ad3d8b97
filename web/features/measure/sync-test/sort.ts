import { z } from 'zod';
import type { SetDelay } from '#core/desk-tests/reconcile/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { settingKey } from '#core/model/rig/index.ts';
import { delaySettingsFor, type Evaluation, type Pair } from '#core/signal/index.ts';
import { guessPair, keepForTakes, readForTakes, type TakeOffset } from '#web/shared/take/index.ts';

/** What a take of the heap is taken for. */
export interface SortedTake {
  readonly sourceId: string;
  readonly listenerId: string;
  readonly settings: readonly SetDelay[];
}

const SHOWN_BY = 'slate-shown-by';
const slateKey = (rigId: string, slateId: number): string[] => [rigId, String(slateId)];

/** Which source shows a slate, as it was said once; null where no one said. */
const sourceOfSlate = (rigId: string, slateId: number): string | null =>
  readForTakes(SHOWN_BY, slateKey(rigId, slateId), z.string());
export const keepSourceOfSlate = (rigId: string, slateId: number, sourceId: string): boolean =>
  keepForTakes(SHOWN_BY, slateKey(rigId, slateId), sourceId);

/** Delay settings that affect a pair, with their present values. */
export function settingsOfPair(rig: Rig, evaluation: Evaluation, sourceId: string, listenerId: string) {
  return delaySettingsFor(rig, evaluation, listenerId)
    .filter((s) => s.delaysSound.includes(sourceId) || s.delaysPicture.includes(sourceId))
    .map((s) => ({
      setting: settingKey(s.deviceId, s.spec.id),
      name: `${s.deviceName}, ${s.spec.name}`,
      spec: s.spec,
      value: Number(s.task ? s.task.before.value : s.value),
    }));
}

/**
 * A take finds its place: by its slate's number where someone said which source shows it, else by the words of its
 * name. Its delays are the present ones, or the one number of ms in its name.
 */
export function sortTake(
  rigId: string,
  rig: Rig,
  evaluation: Evaluation,
  readable: readonly Pair[],
  name: string,
  read: TakeOffset,
): SortedTake {
  const shownBy = read.slateId === undefined ? null : sourceOfSlate(rigId, read.slateId);
  const own = readable.filter((p) => p.sourceId === shownBy);
  const { sourceId, listenerId } = guessPair(name, rig, own.length > 0 ? own : readable);
  const settings = settingsOfPair(rig, evaluation, sourceId, listenerId);
  const named = /(?:^|[^a-z0-9.])(\d+(?:\.\d+)?) ?ms(?![a-z])/i.exec(name);
  const value = named ? Number(named[1]) : null;
  // A number in the name is that of the one setting it can be of.
  const could = settings.filter(
    (s) => value !== null && s.spec.unit === 'ms' && value >= s.spec.min && value <= s.spec.max,
  );
  const of = could.length === 1 ? could[0] : could.find((s) => s.value !== s.spec.min);
  return {
    sourceId,
    listenerId,
    settings: settings.map((s) => ({ setting: s.setting, value: s === of && value !== null ? value : s.value })),
  };
}
