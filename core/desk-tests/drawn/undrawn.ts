import { cellKey, expectedOf, type Judged } from '#core/desk-tests/tap-test/index.ts';
import { type DirectLook, FAULT_WEIGHTS, type Fault } from '#core/live/troubleshoot/index.ts';
import {
  applyEdit,
  type Cable,
  type Edit,
  findDevice,
  findTypes,
  type PortRef,
  type Rig,
  soundDeviceName,
} from '#core/model/rig/index.ts';
import { bestBetween } from '#core/routing/wiring/index.ts';
import { evaluate, whereItStops } from '#core/signal/index.ts';
import { boxBehind } from './bind.ts';
import { say } from './sayings.ts';

const LOOK_S = 20;
/** Leads that are tried for each path that isn't drawn. */
const MAX_LEADS = 6;
const MEDIA: readonly Cable['medium'][] = ['lead', 'air'];

/**
 * Links that the drawing hasn't and that would bring what was found where nothing is drawn: an input that is played on
 * through an output of the computer, and leads and paths through air between the devices.
 * @param seen  the probed rig, and how the scan was judged against it
 */
export function undrawnLinks(rig: Rig, seen: Rig, { cells }: Judged): Fault[] {
  const extra = cells.filter((c) => c.disagreements.some((d) => d.kind === 'extra' || d.kind === 'twice'));
  const sourceAt = new Map(seen.sources.map((s) => [s.id, s.sound]));
  const listenerAt = new Map(seen.listeners.map((l) => [l.id, l.sound]));
  const evaluation = evaluate(seen);
  const expected = expectedOf(
    seen,
    evaluation,
    seen.listeners.map((l) => l.id),
  );
  const arrives = (sourceId: string, listenerId: string): boolean =>
    (expected.get(cellKey(sourceId, listenerId))?.ways.length ?? 0) > 0;
  const faults = new Map<string, Fault>();
  const keep = (fault: Fault | null): void => {
    if (fault && !faults.has(fault.id)) faults.set(fault.id, fault);
  };
  for (const { sourceId, listenerId } of extra) {
    for (const input of seen.listeners.filter((l) => arrives(sourceId, l.id)))
      for (const output of seen.sources.filter((s) => arrives(s.id, listenerId)))
        keep(monitored(rig, input.sound, output.sound));
    const [from, to] = [sourceAt.get(sourceId)!, listenerAt.get(listenerId)!];
    let leads = 0;
    for (const a of endsOf(seen, from, to, 'from'))
      for (const b of endsOf(seen, from, to, 'to')) {
        const fault = leads < MAX_LEADS ? notDrawn(rig, a, b) : null;
        if (fault) leads++;
        keep(fault);
      }
  }
  return [...faults.values()];
}

/** Devices at which the sound of an output ends as drawn, or from which an input is fed. */
function endsOf(rig: Rig, from: PortRef, to: PortRef, which: 'from' | 'to'): readonly string[] {
  const { graph } = evaluate(rig);
  const stop = whereItStops(graph, from, to);
  const own = boxBehind(rig, findTypes(rig), which === 'from' ? from : to);
  const beyond = stop?.kind === 'no-way' ? (which === 'from' ? stop.reaches : stop.fedBy) : [];
  return [...new Set([...(own === null ? [] : [own]), ...beyond])];
}

/** What an input brings is played on through an output of the computer. */
function monitored(rig: Rig, from: PortRef, to: PortRef): Fault | null {
  const types = findTypes(rig);
  const [input, output] = [from, to].map((ref) => soundDeviceName(rig, types, ref)) as [string, string];
  const id = `monitored-${from.deviceId}-${from.portId}-${to.deviceId}-${to.portId}`.slice(0, 64);
  if (
    rig.cables.some(
      (c) =>
        c.from.portId === from.portId &&
        c.to.portId === to.portId &&
        c.from.deviceId === from.deviceId &&
        c.to.deviceId === to.deviceId,
    )
  )
    return null;
  const edit: Edit = { kind: 'plug', cable: { id, medium: 'software', from, to, lengthM: 0, known: 'confirmed' } };
  const look: DirectLook = {
    id: `monitor:${id}`,
    asks: say.isMonitored({ input, output }),
    well: say.isNotMonitored(),
    deviceIds: [from.deviceId],
    seconds: LOOK_S,
  };
  return faultOf(rig, 'monitored', id, edit, look, {
    says: say.monitors({ input, output }),
    mend: say.endMonitoring({ input }),
  });
}

function notDrawn(rig: Rig, fromId: string, toId: string): Fault | null {
  if (fromId === toId) return null;
  const offer = bestBetween(rig, fromId, toId, { suits: (o) => MEDIA.includes(o.cables[0]!.medium) });
  if (!offer) return null;
  const [from, to] = [fromId, toId].map((id) => findDevice(rig, id)!.name) as [string, string];
  const isAir = offer.cables[0]!.medium === 'air';
  const edit: Edit = {
    kind: 'batch',
    edits: offer.cables.map((cable): Edit => ({ kind: 'plug', cable: { ...cable, known: 'confirmed' } })),
  };
  const look: DirectLook = {
    id: `between:${fromId}:${toId}`,
    asks: isAir ? say.doesItHear({ from, to }) : say.isCableBetween({ from, to }),
    well: say.noItIsNot(),
    deviceIds: [fromId, toId],
    seconds: LOOK_S,
  };
  return faultOf(rig, 'not-drawn', `${fromId}-${toId}`, edit, look, {
    says: isAir ? say.isHeardBy({ from, to }) : say.isPluggedTo({ from, to }),
    mend: isAir ? say.keepApart({ from, to }) : say.unplugIt({ from, to }),
  });
}

function faultOf(
  rig: Rig,
  kind: 'monitored' | 'not-drawn',
  id: string,
  edit: Edit,
  look: DirectLook,
  said: Pick<Fault, 'says' | 'mend'>,
): Fault | null {
  if (!applyEdit(rig, edit).ok) return null;
  return {
    id: `${kind}:${id}`,
    kind,
    edit,
    dead: [],
    marks: [],
    weight: FAULT_WEIGHTS[kind],
    looks: [look],
    shows: said.says,
    ...said,
  };
}
