import { say } from '#core/live/troubleshoot/sayings.ts';
import {
  type Device,
  type DeviceType,
  findTypes,
  type Rig,
  type SettingSpec,
  type SettingValue,
  sayValue,
  settingKey,
  settingOf,
} from '#core/model/rig/index.ts';
import { actingSettings, type Evaluation } from '#core/signal/index.ts';
import { type DirectLook, type Fault, type FaultKind, UNSEEN_TIMES, WEIGHTS } from './fault.ts';

/** A control turned far enough to be audible. */
const DOWN_DB = 20;
const UP_DB = 15;
const HEARD_DB = 6;
/** Maximum number of other positions of a switch that are considered. */
const MAX_POSITIONS = 3;

/** Every setting that acts on something, and how it may stand otherwise than drawn. */
export function settingFaults(rig: Rig, evaluation: Evaluation): Fault[] {
  const types = findTypes(rig);
  const acting = actingSettings(evaluation);
  return rig.devices.flatMap((device) => {
    const type = types.get(device.typeId)!;
    return type.settings.flatMap((spec) => {
      const { value, known } = settingOf(device, spec);
      const acts = spec.kind === 'switch' || acting.has(settingKey(device.id, spec.id));
      if (!acts) return [];
      const others = otherwise(spec, value);
      return others.map(({ kind, to }): Fault => {
        const stands = say.settingIs({ setting: spec.name, value: sayValue(spec, to) });
        return {
          id: `set:${device.id}.${spec.id}:${String(to)}`,
          kind,
          says: say.instead({ device: device.name, stands, value: sayValue(spec, value) }),
          mend: say.setTo({ device: device.name, spec: spec.name, value: sayValue(spec, value) }),
          edit: {
            kind: 'set-setting',
            deviceId: device.id,
            settingId: spec.id,
            setting: { value: to, known: 'confirmed' },
          },
          dead: [],
          marks: [],
          weight: (WEIGHTS[kind] * (known === 'assumed' ? UNSEEN_TIMES : 1)) / others.length,
          looks: looksAt(device, type, spec),
          shows: stands,
        };
      });
    });
  });
}

function otherwise(spec: SettingSpec, value: SettingValue): { kind: FaultKind; to: SettingValue }[] {
  switch (spec.kind) {
    case 'mute':
      return [{ kind: value ? 'open' : 'muted', to: !value }];
    case 'switch':
      return spec.options
        .filter((o) => o.value !== value)
        .slice(0, MAX_POSITIONS)
        .map((o) => ({ kind: 'switched', to: o.value }));
    case 'gain': {
      const now = Number(value);
      const down = spec.offAtMin ? spec.min : stepped(spec, Math.max(spec.min, now - DOWN_DB));
      const up = stepped(spec, Math.min(spec.max, now + UP_DB));
      return [
        ...(now - down >= HEARD_DB ? [{ kind: 'turned-down' as const, to: down }] : []),
        ...(up - now >= HEARD_DB ? [{ kind: 'turned-up' as const, to: up }] : []),
      ];
    }
    case 'delay': {
      const quarter = stepped(spec, spec.min + (spec.max - spec.min) / 4);
      return [...new Set([spec.min, quarter])].filter((to) => to !== value).map((to) => ({ kind: 'delay', to }));
    }
    case 'value':
      return [];
  }
}

const stepped = (spec: { readonly min: number; readonly step: number }, value: number): number =>
  spec.min + Math.floor((value - spec.min) / spec.step + 1e-9) * spec.step;

const LOOK_S = 8;
const READ_S = 0.5;

/** One glance checks a channel strip; a large device is checked against its settings sheet. */
function looksAt(device: Device, type: DeviceType, spec: SettingSpec): DirectLook[] {
  const { group } = spec;
  const together = type.settings.filter((s) => s.group === group);
  const look = (id: string, of: string, settings: number): DirectLook => ({
    id: `settings:${device.id}${id}`,
    asks: say.checkSettingsDoesAnything({ of }),
    well: say.allAsDrawn(),
    deviceIds: [device.id],
    seconds: LOOK_S + READ_S * settings,
  });
  const whole = look('', device.name, type.settings.length);
  return together.length === type.settings.length
    ? [whole]
    : [look(`.${group ?? ''}`, group ? `${device.name}, ${group}` : device.name, together.length), whole];
}
