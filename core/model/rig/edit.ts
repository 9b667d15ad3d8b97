import { z } from 'zod';
import type { Text } from '#core/base/said/index.ts';
import { findTypes } from './lookup.ts';
import { migratedEdit } from './migrations.ts';
import { inOrder, sorted } from './order.ts';
import { checkReferences } from './references.ts';
import { say } from './sayings.ts';
import { type Device, Dismissal, LeadTask, Moment, type Rig, RigDocument, SettingTask } from './schema.ts';

const shape = RigDocument.shape;
const Id = shape.devices.element.shape.id;

const Place = z.int().min(0).max(64);

const SingleEdit = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('rename'), name: shape.name }),
  /** All of it: an earlier version is brought back. */
  z.strictObject({ kind: z.literal('replace'), rig: RigDocument }),
  z.strictObject({ kind: z.literal('set-session'), session: shape.session }),
  /** `setting: null` takes it back to the type's default. */
  z.strictObject({
    kind: z.literal('set-setting'),
    deviceId: Id,
    settingId: Id,
    setting: SettingTask.shape.before.nullable(),
  }),
  /** Its name, computer, feed and the like; the device is known by its id. */
  z.strictObject({ kind: z.literal('set-device'), device: shape.devices.element }),
  z.strictObject({ kind: z.literal('add-device'), device: shape.devices.element }),
  z.strictObject({ kind: z.literal('remove-device'), deviceId: Id }),
  z.strictObject({ kind: z.literal('plug'), cable: shape.cables.element }),
  z.strictObject({ kind: z.literal('unplug'), cableId: Id }),
  /** Sources and destinations are in the user's order: at the end, or at an index. */
  z.strictObject({ kind: z.literal('add-source'), source: shape.sources.element, at: Place.optional() }),
  z.strictObject({ kind: z.literal('remove-source'), sourceId: Id }),
  z.strictObject({ kind: z.literal('add-listener'), listener: shape.listeners.element, at: Place.optional() }),
  z.strictObject({ kind: z.literal('remove-listener'), listenerId: Id }),
  z.strictObject({ kind: z.literal('add-type'), type: shape.types.element }),
  z.strictObject({ kind: z.literal('remove-type'), typeId: Id }),
  z.strictObject({ kind: z.literal('add-measurement'), measurement: shape.measurements.element }),
  z.strictObject({ kind: z.literal('remove-measurement'), measurementId: Id }),
  z.strictObject({ kind: z.literal('open-task'), task: shape.tasks.element }),
  z.strictObject({ kind: z.literal('close-task'), taskId: z.union([SettingTask.shape.id, LeadTask.shape.id]) }),
  z.strictObject({ kind: z.literal('dismiss'), dismissal: Dismissal }),
  z.strictObject({ kind: z.literal('reinstate'), findingId: Dismissal.shape.id }),
  z.strictObject({ kind: z.literal('add-moment'), moment: Moment, at: Place.optional() }),
  z.strictObject({ kind: z.literal('set-moment'), moment: Moment }),
  z.strictObject({ kind: z.literal('remove-moment'), momentId: Id }),
  /** `cell: null` takes the pair out of the plan. */
  z.strictObject({ kind: z.literal('set-plan'), sourceId: Id, listenerId: Id, cell: shape.plan.element.nullable() }),
]);

/** A change as a value. A batch is one step: all of it, or none. Steps that a browser kept in older terms are read too. */
export type Edit = z.infer<typeof SingleEdit> | { kind: 'batch'; edits: Edit[] };
export const Edit: z.ZodType<Edit> = z.lazy(() =>
  z.preprocess(
    migratedEdit,
    z.union([SingleEdit, z.strictObject({ kind: z.literal('batch'), edits: z.array(Edit).max(2000) })]),
  ),
);

export interface Refusal {
  readonly path: string;
  readonly reason: Text;
}
export type Applied = { ok: true; rig: Rig; inverse: Edit } | { ok: false; refusal: Refusal };

const refuse = (path: string, reason: Text): Applied => ({ ok: false, refusal: { path, reason } });

/**
 * The rig after the edit, with the edit that undoes it; or a refusal with the reason. Pure: the rig given is not changed.
 * The result is always consistent: no duplicate id, no cable to nowhere, no setting out of range.
 */
export function applyEdit(rig: Rig, edit: Edit): Applied {
  const done = change(rig, edit);
  if (!done.ok) return done;
  const [trouble] = checkReferences(done.rig, findTypes(done.rig));
  return trouble ? refuse(trouble.path, trouble.said) : done;
}

function change(rig: Rig, edit: Edit): Applied {
  const accept = (changes: Partial<Rig>, inverse: Edit): Applied => ({
    ok: true,
    rig: sorted({ ...rig, ...changes }),
    inverse,
  });
  switch (edit.kind) {
    case 'rename':
      return accept({ name: edit.name }, { kind: 'rename', name: rig.name });
    case 'replace':
      return { ok: true, rig: sorted(edit.rig), inverse: { kind: 'replace', rig } };
    case 'set-session':
      return accept({ session: edit.session }, { kind: 'set-session', session: rig.session });
    case 'set-setting': {
      const device = rig.devices.find((d) => d.id === edit.deviceId);
      if (!device) return refuse('devices', say.thereIsNoDevice({ device: edit.deviceId }));
      return accept(
        { devices: rig.devices.map((d) => (d === device ? withSetting(d, edit.settingId, edit.setting) : d)) },
        { ...edit, setting: device.settings[edit.settingId] ?? null },
      );
    }
    case 'set-device': {
      const before = rig.devices.find((d) => d.id === edit.device.id);
      if (!before) return refuse('devices', say.thereIsNoDevice({ device: edit.device.id }));
      return accept(
        { devices: rig.devices.map((d) => (d === before ? edit.device : d)) },
        { kind: 'set-device', device: before },
      );
    }
    case 'add-device':
      return accept({ devices: [...rig.devices, edit.device] }, { kind: 'remove-device', deviceId: edit.device.id });
    case 'remove-device':
      return remove(rig, 'devices', edit.deviceId, (device) => ({ kind: 'add-device', device }));
    case 'plug':
      return accept({ cables: [...rig.cables, edit.cable] }, { kind: 'unplug', cableId: edit.cable.id });
    case 'unplug':
      return remove(rig, 'cables', edit.cableId, (cable) => ({ kind: 'plug', cable }));
    case 'add-source':
      return accept(
        { sources: inserted(rig.sources, edit.source, edit.at) },
        { kind: 'remove-source', sourceId: edit.source.id },
      );
    case 'remove-source':
      return remove(rig, 'sources', edit.sourceId, (source) => ({
        kind: 'add-source',
        source,
        at: rig.sources.indexOf(source),
      }));
    case 'add-listener':
      return accept(
        { listeners: inserted(rig.listeners, edit.listener, edit.at) },
        { kind: 'remove-listener', listenerId: edit.listener.id },
      );
    case 'remove-listener':
      return remove(rig, 'listeners', edit.listenerId, (listener) => ({
        kind: 'add-listener',
        listener,
        at: rig.listeners.indexOf(listener),
      }));
    case 'add-type':
      return accept({ types: [...rig.types, edit.type] }, { kind: 'remove-type', typeId: edit.type.id });
    case 'remove-type':
      return remove(rig, 'types', edit.typeId, (type) => ({ kind: 'add-type', type }));
    case 'add-measurement':
      return accept(
        { measurements: [...rig.measurements, edit.measurement] },
        { kind: 'remove-measurement', measurementId: edit.measurement.id },
      );
    case 'remove-measurement':
      return remove(rig, 'measurements', edit.measurementId, (measurement) => ({
        kind: 'add-measurement',
        measurement,
      }));
    case 'open-task':
      return accept({ tasks: [...rig.tasks, edit.task] }, { kind: 'close-task', taskId: edit.task.id });
    case 'close-task':
      return remove(rig, 'tasks', edit.taskId, (task) => ({ kind: 'open-task', task }));
    case 'dismiss':
      return accept(
        { dismissed: [...rig.dismissed, edit.dismissal] },
        { kind: 'reinstate', findingId: edit.dismissal.id },
      );
    case 'reinstate':
      return remove(rig, 'dismissed', edit.findingId, (dismissal) => ({ kind: 'dismiss', dismissal }));
    case 'add-moment':
      return accept(
        { moments: inserted(rig.moments, inOrder(edit.moment), edit.at) },
        { kind: 'remove-moment', momentId: edit.moment.id },
      );
    case 'set-moment': {
      const before = rig.moments.find((m) => m.id === edit.moment.id);
      if (!before) return refuse('moments', say.thereIsNoMoment({ moment: edit.moment.id }));
      return accept(
        { moments: rig.moments.map((m) => (m === before ? inOrder(edit.moment) : m)) },
        { kind: 'set-moment', moment: before },
      );
    }
    case 'remove-moment':
      return remove(rig, 'moments', edit.momentId, (moment) => ({
        kind: 'add-moment',
        moment,
        at: rig.moments.indexOf(moment),
      }));
    case 'set-plan': {
      if (edit.cell && (edit.cell.sourceId !== edit.sourceId || edit.cell.listenerId !== edit.listenerId)) {
        return refuse('plan', say.cellNamesAnotherPair());
      }
      const at = rig.plan.findIndex((c) => c.sourceId === edit.sourceId && c.listenerId === edit.listenerId);
      const inverse: Edit = { ...edit, cell: rig.plan[at] ?? null };
      if (edit.cell && at >= 0) return accept({ plan: rig.plan.with(at, edit.cell) }, inverse);
      const others = rig.plan.filter((_, i) => i !== at);
      return accept({ plan: edit.cell ? [...others, edit.cell] : others }, inverse);
    }
    case 'batch': {
      let current = rig;
      const inverses: Edit[] = [];
      for (const part of edit.edits) {
        const done = change(current, part);
        if (!done.ok) return done;
        current = done.rig;
        inverses.unshift(done.inverse);
      }
      return { ok: true, rig: current, inverse: { kind: 'batch', edits: inverses } };
    }
  }
}

const inserted = <T>(list: readonly T[], item: T, at = list.length): T[] => [
  ...list.slice(0, at),
  item,
  ...list.slice(at),
];

function withSetting(device: Device, settingId: string, setting: Device['settings'][string] | null): Device {
  const others = Object.entries(device.settings).filter(([id]) => id !== settingId);
  const all = setting ? [...others, [settingId, setting] as const] : others;
  return { ...device, settings: Object.fromEntries(all.sort(([a], [b]) => (a < b ? -1 : 1))) };
}

type Listed =
  | 'types'
  | 'devices'
  | 'cables'
  | 'sources'
  | 'listeners'
  | 'measurements'
  | 'tasks'
  | 'dismissed'
  | 'moments';
function remove<L extends Listed>(rig: Rig, list: L, id: string, inverse: (item: Rig[L][number]) => Edit): Applied {
  const items: readonly Rig[L][number][] = rig[list];
  const item = items.find((i) => i.id === id);
  if (!item) return refuse(list, say.thereIsNoTo({ id }));
  return { ok: true, rig: { ...rig, [list]: items.filter((i) => i !== item) }, inverse: inverse(item) };
}
