import {
  applyEdit,
  type Edit,
  findTypes,
  type Moment,
  type PlanCell,
  type Rig,
  sourceIn,
} from '#core/model/rig/index.ts';
import { freeId } from '#core/routing/wiring/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { downstream } from './around.ts';
import type { Builder } from './builder.ts';

/** A switch in the position that lets a source through, for which it is shut as the desk stands. */
interface Position {
  readonly deviceId: string;
  readonly settingId: string;
  readonly value: string;
  readonly label: string;
  readonly sourceIds: readonly string[];
}

/**
 * Sources that come only when someone turns a switch: each position is a moment of its own, in which what comes then
 * is wanted as it would be, and what is shut out is not.
 */
export function momentsOfSwitches(b: Builder): void {
  const heard = (rig: Rig) =>
    new Set(
      evaluate(rig)
        .pairs.filter((p) => p.ways.length > 0)
        .map((p) => p.sourceId),
    );
  const now = heard(b.rig);
  const silent = b.rig.sources.filter((s) => !now.has(s.id));
  const positions: Position[] = [];
  for (const source of silent) {
    if (positions.some((p) => p.sourceIds.includes(source.id))) continue;
    const found = switchesAfter(b, source.sound.deviceId).find(({ edit }) => {
      const done = applyEdit(b.rig, edit);
      return done.ok && heard(done.rig).has(source.id);
    });
    if (!found) continue;
    const done = applyEdit(b.rig, found.edit);
    const then = done.ok ? heard(done.rig) : now;
    positions.push({ ...found.at, sourceIds: silent.filter((s) => then.has(s.id)).map((s) => s.id) });
  }
  if (positions.length === 0) return;
  const plain = b.rig.sources.find(
    (s) => now.has(s.id) && positions.some((p) => downstream(b.rig, s.sound.deviceId).has(p.deviceId)),
  );
  for (const position of positions) b.take({ kind: 'add-moment', moment: momentFor(b, position, plain?.id) });
  const later = new Set(positions.flatMap((p) => p.sourceIds));
  // As the desk stands now, what is shut out is wanted nowhere.
  for (const cell of b.rig.plan.filter((c) => later.has(c.sourceId) && c.want === 'must'))
    b.take({ kind: 'set-plan', sourceId: cell.sourceId, listenerId: cell.listenerId, cell: { ...cell, want: 'may' } });
  if (plain) b.take({ kind: 'set-session', session: { ...b.rig.session, plainMoment: plain.name } });
}

function momentFor(
  b: Builder,
  { deviceId, settingId, value, sourceIds }: Position,
  plainId: string | undefined,
): Moment {
  const name = sourceIds
    .map((id) => sourceIn(b.rig, id).name)
    .join(', ')
    .slice(0, 120);
  const cells: PlanCell[] = [
    ...b.rig.plan.filter((c) => sourceIds.includes(c.sourceId)),
    ...b.rig.plan
      .filter((c) => c.sourceId === plainId && c.want === 'must')
      .map((c): PlanCell => ({ ...c, want: 'may' })),
  ];
  const id = freeId(new Set(b.rig.moments.map((m) => m.id)), sourceIds[0]!);
  return { id, name, settings: [{ deviceId, settingId, value }], plan: cells };
}

/** Every other position of the switches that a source reaches. */
function switchesAfter(b: Builder, sourceId: string): { edit: Edit; at: Omit<Position, 'sourceIds'> }[] {
  const types = findTypes(b.rig);
  return [...downstream(b.rig, sourceId)].flatMap((deviceId) => {
    const type = types.get(b.device(deviceId).typeId)!;
    return type.settings.flatMap((spec) => {
      if (spec.kind !== 'switch') return [];
      const now = b.device(deviceId).settings[spec.id]?.value ?? spec.default;
      return spec.options
        .filter((o) => o.value !== now)
        .map(({ value, label }) => ({
          edit: b.set(deviceId, spec.id, value),
          at: { deviceId, settingId: spec.id, value, label },
        }));
    });
  });
}
