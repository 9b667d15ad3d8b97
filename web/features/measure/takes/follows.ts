import { applyEdit, type Edit, type Rig, type SettingChange, settingKey } from '#core/model/rig/index.ts';
import { alignListener } from '#core/routing/suggest/index.ts';
import { type Evaluation, evaluate } from '#core/signal/index.ts';
import { wordsIn } from '#web/shared/take/index.ts';

/** The delay settings on this source's way that would put it right once the edit is made. */
export function settingsThatFollow(
  rig: Rig,
  edit: Edit,
  sourceId: string,
  listenerId: string,
): readonly SettingChange[] {
  const done = applyEdit(rig, edit);
  if (!done.ok) return [];
  const evaluation = evaluate(done.rig);
  const pair = evaluation.pairs.find((p) => p.sourceId === sourceId && p.listenerId === listenerId);
  const acting = new Set([...(pair?.ways[0]?.settings ?? []), ...(pair?.picture?.settings ?? [])]);
  return alignListener(done.rig, evaluation, listenerId).changes.filter((c) =>
    acting.has(settingKey(c.deviceId, c.settingId)),
  );
}

/** The device whose clock a take went by, from the take's name: the device's own, or that of the track it names. */
export function guessClock(name: string, rig: Rig, { pairs }: Evaluation, clockIds: readonly string[]): string {
  const named = [
    ...rig.devices.map((d) => ({ clockId: d.id, points: wordsIn(name, d.name) })),
    ...rig.listeners.map((l) => ({
      clockId: pairs.find((p) => p.listenerId === l.id && p.ways[0]?.clock)?.ways[0]?.clock ?? '',
      points: wordsIn(name, l.name),
    })),
  ].filter((c) => c.points > 0 && clockIds.includes(c.clockId));
  return named.sort((a, b) => b.points - a.points)[0]?.clockId ?? '';
}
