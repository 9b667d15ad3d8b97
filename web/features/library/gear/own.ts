import type { DeviceType, Edit, Rig } from '#core/model/rig/index.ts';
import { gear as say } from '#words/index.ts';

/** A copy with an id and a name of its own. */
export function copyType(rig: Rig, type: DeviceType, taken: ReadonlySet<string>): DeviceType {
  const base = `own-${type.id}`.slice(0, 58);
  let id = base;
  for (let n = 2; taken.has(id) || rig.types.some((t) => t.id === id); n++) id = `${base}-${n}`;
  return { ...structuredClone(type), id, name: `${type.name}, my own`.slice(0, 120) };
}

/** Puts a type into the rig, in place of the one with its id. */
export const putType = (rig: Rig, type: DeviceType): Edit => ({
  kind: 'batch',
  edits: [
    ...(rig.types.some((t) => t.id === type.id) ? [{ kind: 'remove-type' as const, typeId: type.id }] : []),
    { kind: 'add-type', type },
  ],
});

/** An unknown device: this many inputs and outputs, and nothing known of its inside. */
export function sealedType(name: string, ins: number, outs: number): DeviceType {
  const port = (direction: 'in' | 'out') => (_: unknown, i: number) => ({
    id: `${direction}-${i + 1}`,
    name: `${direction} ${i + 1}`,
    direction,
    connector: 'jack-35-trs',
    level: 'line' as const,
    channels: [
      { id: 'left', carries: 'sound' as const },
      { id: 'right', carries: 'sound' as const },
    ],
  });
  return {
    id: 'sealed',
    name,
    family: 'sealed',
    summary: say.deviceWhichOnlySockets(),
    ports: [...Array.from({ length: ins }, port('in')), ...Array.from({ length: outs }, port('out'))],
    settings: [],
    figures: {},
    inside: [],
  };
}
