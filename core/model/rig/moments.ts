import { textOf } from '#core/base/said/index.ts';
import type { Edit } from './edit.ts';
import { isKey, settingAt } from './keys.ts';
import { findDevice, findSetting, findTypes } from './lookup.ts';
import { byPair, inOrder } from './order.ts';
import { say } from './sayings.ts';
import type { Moment, PlanCell, Rig } from './schema.ts';
import type { SettingValue } from './schema-type.ts';

const pairOf = (c: Pick<PlanCell, 'sourceId' | 'listenerId'>): string => `${c.sourceId} ${c.listenerId}`;
const placeOf = (s: { readonly deviceId: string; readonly settingId: string }): string =>
  `${s.deviceId} ${s.settingId}`;

const seen = new WeakMap<Rig, Map<string, Rig>>();
/** Devices in a moment: an unchanged device stays the same object, so that caches keep what is known of it. */
const boxes = new WeakMap<Rig['devices'][number], Map<string, Rig['devices'][number]>>();

/**
 * The rig in a moment: its settings applied, its requirements in place of the plain ones. The plain rig for null,
 * and for a moment that is not there. What a moment presses is a decision, so it counts as seen.
 */
export function atMoment(rig: Rig, momentId: string | null): Rig {
  const moment = momentId === null ? undefined : rig.moments.find((m) => m.id === momentId);
  if (!moment) return rig;
  let known = seen.get(rig);
  if (!known) {
    known = new Map();
    seen.set(rig, known);
  }
  const before = known.get(moment.id);
  if (before) return before;
  const wants = new Set(moment.plan.map(pairOf));
  const made: Rig = {
    ...rig,
    devices: rig.devices.map((device) => {
      const own = moment.settings.filter((s) => s.deviceId === device.id);
      return own.length === 0 ? device : pressed(device, own);
    }),
    plan: [...rig.plan.filter((c) => !wants.has(pairOf(c))), ...moment.plan].sort(byPair),
  };
  known.set(moment.id, made);
  return made;
}

function pressed(device: Rig['devices'][number], own: Moment['settings']): Rig['devices'][number] {
  const key = JSON.stringify(own);
  let kept = boxes.get(device);
  if (!kept) {
    kept = new Map();
    boxes.set(device, kept);
  }
  const known = kept.get(key);
  if (known) return known;
  const settings = { ...device.settings };
  for (const { settingId, value } of own) settings[settingId] = { value, known: 'confirmed' };
  const made = { ...device, settings };
  kept.set(key, made);
  return made;
}

/** What a moment is called; the plain rig has a name among them too. */
export const momentName = (rig: Rig, momentId: string | null): string =>
  (momentId === null ? undefined : rig.moments.find((m) => m.id === momentId)?.name) ??
  rig.session.plainMoment ??
  textOf(say.asSet());

/**
 * An edit made while a moment is looked at: wants, and what is pressed (mutes, switches, levels), go into the moment;
 * delays and everything else are the rig's. What is the same as in the plain rig leaves the moment again. A moment
 * has no tasks: what is pressed in it is pressed each time.
 */
export function editInMoment(rig: Rig, momentId: string | null, edit: Edit): Edit {
  const moment = momentId === null ? undefined : rig.moments.find((m) => m.id === momentId);
  if (!moment) return edit;
  const types = findTypes(rig);
  let now = moment;
  const rest: Edit[] = [];
  const goesIn = (deviceId: string, settingId: string): boolean => {
    const kind = findSetting(rig, types, deviceId, settingId)?.kind;
    return kind !== undefined && kind !== 'delay';
  };
  const take = (one: Edit): void => {
    if (one.kind === 'batch') one.edits.forEach(take);
    else if (one.kind === 'set-plan') {
      const others = now.plan.filter((c) => pairOf(c) !== pairOf(one));
      const plain = rig.plan.find((c) => pairOf(c) === pairOf(one)) ?? null;
      const cell = one.cell ?? (plain && { sourceId: one.sourceId, listenerId: one.listenerId, want: 'may' as const });
      now = { ...now, plan: cell && !sameCell(cell, plain) ? [...others, cell] : others };
    } else if (one.kind === 'set-setting' && goesIn(one.deviceId, one.settingId)) {
      const others = now.settings.filter((s) => placeOf(s) !== placeOf(one));
      const plain = plainValue(rig, one.deviceId, one.settingId);
      const value = one.setting?.value ?? findSetting(rig, types, one.deviceId, one.settingId)!.default;
      const own = { deviceId: one.deviceId, settingId: one.settingId, value };
      now = { ...now, settings: value === plain ? others : [...others, own] };
    } else if (one.kind === 'open-task' && 'settingId' in one.task && goesIn(one.task.deviceId, one.task.settingId))
      return;
    else if (one.kind === 'close-task' && isTaskOfMoment(one.taskId, goesIn)) return;
    else rest.push(one);
  };
  take(edit);
  if (now !== moment) rest.push({ kind: 'set-moment', moment: inOrder(now) });
  return rest.length === 1 ? rest[0]! : { kind: 'batch', edits: rest };
}

function isTaskOfMoment(taskId: string, goesIn: (deviceId: string, settingId: string) => boolean): boolean {
  const { deviceId, settingId } = settingAt(taskId);
  return isKey(taskId) && goesIn(deviceId, settingId);
}

const sameCell = (a: PlanCell, b: PlanCell | null): boolean =>
  b !== null &&
  a.want === b.want &&
  a.inTimeWith === b.inTimeWith &&
  a.underVoiceDb === b.underVoiceDb &&
  (a.ownTrack ?? false) === (b.ownTrack ?? false) &&
  (a.keepTime ?? true) === (b.keepTime ?? true);

const plainValue = (rig: Rig, deviceId: string, settingId: string): SettingValue | undefined =>
  findDevice(rig, deviceId)?.settings[settingId]?.value ??
  findSetting(rig, findTypes(rig), deviceId, settingId)?.default;

/** Where a moment stands otherwise than the plain rig. */
export interface Differs {
  readonly settings: readonly {
    readonly deviceId: string;
    readonly settingId: string;
    readonly from: SettingValue;
    readonly to: SettingValue;
  }[];
  readonly wants: readonly {
    readonly sourceId: string;
    readonly listenerId: string;
    readonly from: PlanCell | null;
    readonly to: PlanCell;
  }[];
}

/** Settings that change from the plain rig to a moment, and requirements that differ there. */
export function differences(rig: Rig, momentId: string): Differs {
  const moment = rig.moments.find((m) => m.id === momentId);
  if (!moment) return { settings: [], wants: [] };
  return {
    settings: moment.settings.flatMap(({ deviceId, settingId, value }) => {
      const from = plainValue(rig, deviceId, settingId);
      return from === undefined || from === value ? [] : [{ deviceId, settingId, from, to: value }];
    }),
    wants: moment.plan.flatMap((to) => {
      const from = rig.plan.find((c) => pairOf(c) === pairOf(to)) ?? null;
      return sameCell(to, from) ? [] : [{ sourceId: to.sourceId, listenerId: to.listenerId, from, to }];
    }),
  };
}

/** Moments without the settings and wants that go: one edit for each that is touched. */
export function withoutIn(
  rig: Rig,
  goes: {
    readonly setting?: (setting: Moment['settings'][number]) => boolean;
    readonly cell?: (cell: PlanCell) => boolean;
  },
): Edit[] {
  return rig.moments.flatMap((moment): Edit[] => {
    const settings = moment.settings.filter((s) => !goes.setting?.(s));
    const plan = moment.plan.filter((c) => !goes.cell?.(c));
    const same = settings.length === moment.settings.length && plan.length === moment.plan.length;
    return same ? [] : [{ kind: 'set-moment', moment: { ...moment, settings, plan } }];
  });
}
