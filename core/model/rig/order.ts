import type { Moment, PlanCell, Rig } from './schema.ts';

/** The same list object if already in order: caches keyed by it stay valid, so an edit costs only what it touches. */
function inOrderOf<T>(list: T[], compare: (a: T, b: T) => number): T[] {
  for (let i = 1; i < list.length; i++) if (compare(list[i - 1]!, list[i]!) > 0) return [...list].sort(compare);
  return list;
}
const byId = <T extends { id: string }>(list: T[]): T[] =>
  inOrderOf(list, (a, b) => (a.id < b.id ? -1 : a.id > b.id ? 1 : 0));

/** Lists that have no order of their own stand sorted by id: equal rigs are equal JSON. Sources and listeners keep theirs. */
export const sorted = (rig: Rig): Rig => ({
  ...rig,
  types: byId(rig.types),
  devices: byId(rig.devices),
  cables: byId(rig.cables),
  measurements: byId(rig.measurements),
  tasks: byId(rig.tasks),
  dismissed: byId(rig.dismissed),
  plan: inOrderOf(rig.plan, byPair),
});

/** Wants in the order that documents keep them: by source, then by listener. */
export function byPair(a: PlanCell, b: PlanCell): number {
  if (a.sourceId !== b.sourceId) return a.sourceId < b.sourceId ? -1 : 1;
  return a.listenerId < b.listenerId ? -1 : a.listenerId > b.listenerId ? 1 : 0;
}

type Pressed = Moment['settings'][number];
function byPlace(a: Pressed, b: Pressed): number {
  if (a.deviceId !== b.deviceId) return a.deviceId < b.deviceId ? -1 : 1;
  return a.settingId < b.settingId ? -1 : a.settingId > b.settingId ? 1 : 0;
}

/** A moment as documents store it: without an order of its own it has its index. */
export const inOrder = (moment: Moment): Moment => ({
  ...moment,
  settings: inOrderOf(moment.settings, byPlace),
  plan: inOrderOf(moment.plan, byPair),
});
