import {
  applyEdit,
  type Cable,
  type Edit,
  endName,
  findDevice,
  findPort,
  findTypes,
  isSettingTask,
  type LeadChange,
  type PortRef,
  type Rig,
  type Types,
} from '#core/model/rig/index.ts';
import { type Evaluation, evaluate } from '#core/signal/index.ts';

/** What joins two places: a cable with all that goes in it, a link between programs, air, radio. */
export interface Connection {
  /** The first of its cables. */
  readonly id: string;
  readonly cables: readonly Cable[];
  readonly medium: Cable['medium'];
  readonly from: PortRef;
  readonly to: PortRef;
  /** Something goes in it the other way, too. */
  readonly both: boolean;
}

/** Where a cable is plugged: all ends behind one socket are one place. */
function placeOf(rig: Rig, types: Types, { deviceId, portId }: PortRef): string {
  const port = findPort(rig, types, { deviceId, portId });
  return `${deviceId}/${port?.socket ?? portId}`;
}

/** Every connection of a rig, or of one of its devices: cables between the same two places in one medium are one. */
export function connectionsOf(rig: Rig, deviceId?: string): Connection[] {
  const types = findTypes(rig);
  const found = new Map<string, Cable[]>();
  for (const cable of rig.cables) {
    if (deviceId !== undefined && cable.from.deviceId !== deviceId && cable.to.deviceId !== deviceId) continue;
    const key = `${cable.medium} ${[placeOf(rig, types, cable.from), placeOf(rig, types, cable.to)].sort().join(' ')}`;
    found.set(key, [...(found.get(key) ?? []), cable]);
  }
  return [...found.values()].map((cables): Connection => {
    const [first] = cables as [Cable, ...Cable[]];
    const both = cables.some((c) => c.from.deviceId === first.to.deviceId);
    return { id: first.id, cables, medium: first.medium, from: first.from, to: first.to, both };
  });
}

/** Takes a connection out, with what was still to be done at its cables. */
export function removeConnection(rig: Rig, { cables }: Pick<Connection, 'cables'>): Edit {
  const gone = new Set(cables.map((c) => c.id));
  return {
    kind: 'batch',
    edits: [
      ...rig.tasks
        .filter((t) => !isSettingTask(t) && gone.has(t.cableId))
        .map((t): Edit => ({ kind: 'close-task', taskId: t.id })),
      ...cables.map((c): Edit => ({ kind: 'unplug', cableId: c.id })),
    ],
  };
}

/** Sources that someone must hear, and would not any more. */
export function lostBy(rig: Rig, evaluation: Evaluation, edit: Edit): { sourceId: string; listenerId: string }[] {
  const done = applyEdit(rig, edit);
  if (!done.ok) return [];
  const after = evaluate(done.rig, evaluation).pairs;
  const isHeard = (sourceId: string, listenerId: string) =>
    after.some((p) => p.sourceId === sourceId && p.listenerId === listenerId && p.ways.length > 0);
  return evaluation.pairs
    .filter((p) => p.want === 'must' && p.ways.length > 0 && !isHeard(p.sourceId, p.listenerId))
    .map(({ sourceId, listenerId }) => ({ sourceId, listenerId }));
}

/**
 * Cables that are unplugged when another one is plugged in: a socket holds one. What joins the same two places already is
 * plugged again.
 */
export function pulledBy(rig: Rig, plugged: readonly Cable[]): LeadChange[] {
  const types = findTypes(rig);
  const [first] = plugged;
  if (first?.medium !== 'lead') return [];
  const places = new Set([placeOf(rig, types, first.from), placeOf(rig, types, first.to)]);
  return rig.cables
    .filter((c) => c.medium === 'lead' && [c.from, c.to].some((end) => places.has(placeOf(rig, types, end))))
    .map((c) => ({ cableId: c.id, cable: null }));
}

/** 'Mixer, main out' */
export const sayEnd = (rig: Rig, ref: PortRef): string =>
  `${findDevice(rig, ref.deviceId)?.name ?? ref.deviceId}, ${endName(rig, findTypes(rig), ref)}`;
