import { type Edit, findDevice, findTypes, type PlanCell, type Rig, type Types } from '#core/rig/index.ts';

/** A want that follows from what a source and a listener are, with the reason in words. */
export interface Proposed {
  readonly cell: PlanCell;
  readonly why: string;
}

type Source = Rig['sources'][number];
type Listener = Rig['listeners'][number];

/**
 * A hearing plan for a rig that has none: whoever is not there, streams and recorders get everything; ears get all but
 * their own voice; single tracks are left to the person. To be looked at and changed.
 */
export function proposePlan(rig: Rig): Proposed[] {
  const types = findTypes(rig);
  return rig.listeners.flatMap((listener) =>
    rig.sources.flatMap((source): Proposed[] => {
      const said = wantOf(rig, types, source, listener);
      return said ? [{ cell: { sourceId: source.id, listenerId: listener.id, want: said.want }, why: said.why }] : [];
    }),
  );
}

/** The proposal as one step. */
export const planEdit = (proposed: readonly Proposed[]): Edit => ({
  kind: 'batch',
  edits: proposed.map(({ cell }) => ({
    kind: 'set-plan',
    sourceId: cell.sourceId,
    listenerId: cell.listenerId,
    cell,
  })),
});

function wantOf(
  rig: Rig,
  types: Types,
  source: Source,
  listener: Listener,
): { want: PlanCell['want']; why: string } | null {
  const kind = kindOf(rig, types, listener);
  if (kind === 'track') return null;
  if (kind === 'ears' && isOwn(rig, source, listener)) {
    return isFar(rig, types, listener)
      ? { want: 'must-not', why: 'nobody bears the own voice back, late, over a call' }
      : { want: 'may', why: 'the own voice at once does no harm' };
  }
  return {
    want: 'must',
    why: kind === 'ears' ? 'ears want everything but their own voice' : 'it is made for everything',
  };
}

type Kind = 'mix' | 'track' | 'ears';

/** A program's stream and a recorder take the whole; of several tracks, each is the person's own matter. */
function kindOf(rig: Rig, types: Types, { sound }: Listener): Kind {
  const type = types.get(findDevice(rig, sound.deviceId)?.typeId ?? '');
  const port = type?.ports.find((p) => p.id === sound.portId);
  if (port?.connector !== 'file') return port?.id === 'stream' ? 'mix' : 'ears';
  const files = type!.ports.filter((p) => p.connector === 'file').length;
  return files > 1 ? 'track' : 'mix';
}

/** Whether the source is the voice of whoever listens there: at the own ears, or into the microphone of the same box. */
function isOwn(rig: Rig, source: Source, { sound }: Listener): boolean {
  if (source.sound.deviceId === sound.deviceId) return true;
  return rig.cables.some(
    (c) => c.medium === 'air' && c.from.deviceId === source.sound.deviceId && c.to.deviceId === sound.deviceId,
  );
}

/** Whether a call, at its far side, stands before the ears. */
function isFar(rig: Rig, types: Types, { sound }: Listener): boolean {
  const seen = new Set([sound.deviceId]);
  const open = [sound.deviceId];
  for (let id = open.pop(); id !== undefined; id = open.pop())
    for (const { from, to } of rig.cables) {
      if (to.deviceId !== id || seen.has(from.deviceId)) continue;
      if (from.portId === 'far-loudspeaker') return true;
      const family = types.get(findDevice(rig, from.deviceId)?.typeId ?? '')?.family;
      // A call that is met from its near side is somebody else's.
      if (family === 'people' || family === 'programs') continue;
      seen.add(from.deviceId);
      open.push(from.deviceId);
    }
  return false;
}
