import { applyEdit, type Edit, type Rig, type SettingChange } from '#core/rig/index.ts';
import { type Evaluation, evaluate } from '#core/signal/index.ts';
import { alignListener } from '#core/solve/index.ts';

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
    acting.has(`${c.deviceId}.${c.settingId}`),
  );
}

/** The pair that the take's name speaks of, word by word; otherwise the first that can be read. */
export function guessPair(
  name: string,
  rig: Rig,
  readable: Evaluation['pairs'],
): { sourceId: string; listenerId: string } {
  const words = new Set(name.toLowerCase().split(/[^a-z0-9]+/));
  const score = (text: string) =>
    text
      .toLowerCase()
      .split(/[^a-z0-9]+/)
      .filter((w) => w.length > 2 && words.has(w)).length;
  const rated = readable.map((p) => ({
    p,
    points:
      2 * score(`${p.sourceId} ${rig.sources.find((s) => s.id === p.sourceId)!.name}`) -
      (p.sourceId.includes('-') ? 0.5 : 0),
  }));
  const best = rated.reduce<(typeof rated)[number] | undefined>(
    (b, r) => (b && b.points >= r.points ? b : r),
    undefined,
  );
  return { sourceId: best?.p.sourceId ?? '', listenerId: best?.p.listenerId ?? '' };
}
