import type { ScanRead } from '#core/desk-tests/scan/index.ts';
import { applyEdit, type Edit, findTypes, type Rig } from '#core/model/rig/index.ts';
import { addNamed, bestBetween, boxesNamed, type NamedEnd } from '#core/routing/wiring/index.ts';
import { type Bindings, boxBehind, isAlike } from './bind.ts';

/** Devices of a scan that the drawing hasn't, or hasn't plugged in, and the edit that draws them. */
export interface Undrawn {
  readonly names: readonly string[];
  readonly edit: Edit;
}

/** What a scan lists and no device of the drawing is: plugged in where it is drawn by that name, else added. Null for nothing. */
export function undrawnDevices(
  rig: Rig,
  computerId: string | null,
  scan: ScanRead,
  bindings: Bindings,
): Undrawn | null {
  const types = findTypes(rig);
  const open = (of: Bindings['outputs'], kind: NamedEnd['kind'], devices: ScanRead['outputs'] | ScanRead['inputs']) =>
    devices
      .filter(({ id }) => !of[id])
      .map(({ id, name, groupId }): NamedEnd => ({ kind, label: name, groupId: groupId ?? '', deviceId: id }));
  const boxes = boxesNamed([
    ...open(bindings.outputs, 'audiooutput', scan.outputs),
    ...open(bindings.inputs, 'audioinput', scan.inputs),
  ]);
  const bound = new Set(
    [...Object.values(bindings.outputs), ...Object.values(bindings.inputs)].flatMap((ref) =>
      ref ? [ref.deviceId, boxBehind(rig, types, ref)] : [],
    ),
  );
  const edits: Edit[] = [];
  let now = rig;
  const take = (edit: Edit): void => {
    const done = applyEdit(now, edit);
    if (!done.ok) return;
    now = done.rig;
    edits.push(edit);
  };
  const added = boxes.filter(({ name }) => {
    const there = rig.devices.find((d) => !bound.has(d.id) && isAlike(d.name, name));
    const offer =
      there && computerId !== null
        ? (bestBetween(now, there.id, computerId, PLUGGED) ?? bestBetween(now, computerId, there.id, PLUGGED))
        : null;
    if (offer) take({ kind: 'batch', edits: offer.cables.map((cable): Edit => ({ kind: 'plug', cable })) });
    return !offer;
  });
  if (added.length > 0) take(addNamed(now, added, computerId ?? undefined));
  return edits.length > 0 ? { names: boxes.map((b) => b.name), edit: { kind: 'batch', edits } } : null;
}

const PLUGGED: Parameters<typeof bestBetween>[3] = {
  suits: ({ cables }) => ['lead', 'radio'].includes(cables[0]!.medium),
};
