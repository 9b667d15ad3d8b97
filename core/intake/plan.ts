import {
  findDevice,
  findTypes,
  isPerson,
  listenerIn,
  type PlanCell,
  type Rig,
  sourceIn,
} from '#core/model/rig/index.ts';
import { proposePlan } from '#core/routing/plan/index.ts';
import { evaluate, evaluationAt, rolesOf } from '#core/signal/index.ts';
import type { Builder } from './builder.ts';
import type { Answers } from './questions.ts';

/** Who must hear what, by what they are; games and music are no matter of a call, and music none of the ears here. */
export function planFor({ rig, spared }: Builder, answers: Answers): PlanCell[] {
  const roles = rolesOf(rig);
  const tracks = trackPlan(rig);
  const heard = new Set(
    evaluate(rig)
      .pairs.filter((p) => p.ways.length > 0)
      .map((p) => `${p.sourceId} ${p.listenerId}`),
  );
  const proposed = proposePlan(rig).map(({ cell }): PlanCell => {
    const source = sourceIn(rig, cell.sourceId);
    const listener = listenerIn(rig, cell.listenerId);
    const kind = roles.source(source);
    const ears = roles.listener(listener);
    const isVoice = kind.endsWith('voice');
    if (cell.want === 'must' && spared.some((p) => p.sourceId === cell.sourceId && p.listenerId === cell.listenerId))
      return { ...cell, want: 'may' };
    const isHeard = () => heard.has(`${cell.sourceId} ${cell.listenerId}`);
    // At someone's own ears without anything worn, only what sounds in the room.
    if (
      cell.want === 'must' &&
      listener.sound.deviceId !== source.sound.deviceId &&
      isPersonAt(rig, listener) &&
      !isHeard()
    )
      return { ...cell, want: 'may' };
    // Who sits at the same desk is heard there, and who is on the same call hears the others by the call.
    if (cell.want === 'must' && ears === 'ears' && (kind === 'voice' || kind === 'second-voice') && !isHeard())
      return { ...cell, want: 'may' };
    if (cell.want === 'must' && ears === 'far-ears' && kind === 'far-voice') return { ...cell, want: 'may' };
    if (cell.want === 'must' && ears === 'far-ears' && !isVoice) return { ...cell, want: 'may' };
    if (cell.want === 'must' && ears === 'ears' && !isVoice && kind !== 'game') return { ...cell, want: 'may' };
    if (
      ears === 'mix' &&
      kind === 'far-voice' &&
      [...answers].some(([id, a]) => id.startsWith('stream-hears:') && a === 'no')
    )
      return { ...cell, want: 'must-not' };
    return cell;
  });
  return [...proposed, ...tracks];
}

/** Where an app records tracks and no mix, what arrives at a track is what it is for. */
function trackPlan(rig: Rig): PlanCell[] {
  const roles = rolesOf(rig);
  const mixed = new Set(rig.listeners.filter((l) => roles.listener(l) === 'mix').map((l) => l.sound.deviceId));
  const tracks = rig.listeners.filter((l) => roles.listener(l) === 'track' && !mixed.has(l.sound.deviceId));
  return evaluate(rig)
    .pairs.filter((p) => p.ways.length > 0 && tracks.some((t) => t.id === p.listenerId))
    .map(({ sourceId, listenerId }) => ({ sourceId, listenerId, want: 'must' }));
}

const isPersonAt = (rig: Rig, { sound }: Rig['listeners'][number]): boolean =>
  isPerson(findTypes(rig).get(findDevice(rig, sound.deviceId)!.typeId)!);

/** What has no way to a mix, in no moment and by no setting, is no part of it: a console that one plays beside. */
export function dropUnreached(b: Builder): void {
  const roles = rolesOf(b.rig);
  const isPart = ({ sourceId, listenerId }: PlanCell): boolean => {
    const source = sourceIn(b.rig, sourceId);
    const listener = listenerIn(b.rig, listenerId);
    return roles.listener(listener) === 'mix' && !roles.source(source).endsWith('voice');
  };
  const comes = (momentId: string | null, { sourceId, listenerId }: PlanCell): boolean =>
    evaluationAt(b.rig, momentId).pairs.some(
      (p) => p.sourceId === sourceId && p.listenerId === listenerId && p.ways.length > 0,
    );
  const moments = b.rig.moments.map((m) => m.id);
  for (const moment of b.rig.moments) {
    const plan = moment.plan.map((c) =>
      c.want === 'must' && isPart(c) && !comes(moment.id, c) ? { ...c, want: 'may' as const } : c,
    );
    b.take({ kind: 'set-moment', moment: { ...moment, plan } });
  }
  for (const cell of b.rig.plan)
    if (cell.want === 'must' && isPart(cell) && ![null, ...moments].some((id) => comes(id, cell)))
      b.take({
        kind: 'set-plan',
        sourceId: cell.sourceId,
        listenerId: cell.listenerId,
        cell: { ...cell, want: 'may' },
      });
}
