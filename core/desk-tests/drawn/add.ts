import type { ScanRead } from '#core/desk-tests/scan/index.ts';
import { applyEdit, type Edit, findTypes, type Rig, sameEnd } from '#core/model/rig/index.ts';
import { addNamed, bestBetween, boxesNamed, type NamedEnd } from '#core/routing/wiring/index.ts';
import { type Bindings, boxBehind, drawnDevices, isAlike } from './bind.ts';

/** Devices of a scan that the drawing hasn't, or hasn't plugged in, and the edit that draws them. */
export interface Undrawn {
  readonly names: readonly string[];
  readonly edit: Edit;
}

/**
 * What a scan lists and no device of the drawing is: plugged in where it is drawn by that name, else added. Null for nothing.
 * What may be one that is drawn, or is the other direction of one, is not added: someone says which it is.
 */
export function undrawnDevices(
  rig: Rig,
  computerId: string | null,
  scan: ScanRead,
  bindings: Bindings,
): Undrawn | null {
  const types = findTypes(rig);
  const groups = new Set(
    [
      ...scan.outputs.filter(({ id }) => bindings.outputs[id]),
      ...scan.inputs.filter(({ id }) => bindings.inputs[id]),
    ].flatMap(({ groupId }) => groupId || []),
  );
  const open = (what: keyof Bindings, kind: NamedEnd['kind'], use: 'play' | 'record'): NamedEnd[] => {
    const of = bindings[what];
    const free = (computerId === null ? [] : drawnDevices(rig, computerId, use)).filter(
      (d) => !Object.values(of).some((ref) => ref && sameEnd(ref, d.ref)),
    );
    const mayBe = (name: string) => free.some((d) => d.names.some((n) => isAlike(name, n)));
    return scan[what]
      .filter(({ id, name, groupId }) =>
        of[id] === undefined ? !groups.has(groupId ?? '') && !mayBe(name) : of[id] === null,
      )
      .map(({ id, name, groupId }) => ({ kind, label: name, groupId: groupId ?? '', deviceId: id }));
  };
  const boxes = boxesNamed([...open('outputs', 'audiooutput', 'play'), ...open('inputs', 'audioinput', 'record')]);
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
