import type { Rig } from '#core/model/rig/index.ts';

/** Shorthand for writing demo rigs; all of it yields plain data. */

export type Cable = Rig['cables'][number];
export type Settings = Rig['devices'][number]['settings'];

export const lead = (
  id: string,
  from: string,
  to: string,
  lengthM: number,
  known: Cable['known'] = 'confirmed',
): Cable => ({
  id,
  from: ref(from),
  to: ref(to),
  medium: 'lead',
  lengthM,
  known,
});
type Pairs = readonly (readonly [string, string])[];
export const pairs = (list: Pairs): NonNullable<Cable['map']> => list.map(([from, to]) => ({ from, to }));
export const software = (id: string, from: string, to: string, map?: Pairs): Cable => ({
  ...lead(id, from, to, 0),
  medium: 'software',
  ...(map && { map: pairs(map) }),
});
export const air = (id: string, from: string, to: string, lengthM: number): Cable => ({
  ...lead(id, from, to, lengthM, 'assumed'),
  medium: 'air',
});
export const light = (id: string, from: string, to: string, lengthM: number): Cable => ({
  ...air(id, from, to, lengthM),
  medium: 'light',
});

export function ref(place: string): { deviceId: string; portId: string } {
  const [deviceId, portId] = place.split('/') as [string, string];
  return { deviceId, portId };
}

export const seen = (values: Record<string, number | boolean | string>): Settings =>
  Object.fromEntries(Object.entries(values).map(([id, value]) => [id, { value, known: 'confirmed' as const }]));

type Device = Rig['devices'][number];
export const device = (
  id: string,
  typeId: string,
  name: string,
  settings: Settings = {},
  more: Partial<Device> = {},
): Device => ({
  id,
  typeId,
  name,
  settings,
  ...more,
});
export const must = (listenerId: string, ...sourceIds: string[]) =>
  sourceIds.map((sourceId) => ({ sourceId, listenerId, want: 'must' as const }));
