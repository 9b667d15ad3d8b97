import type { Treatment } from '#core/audio/process/index.ts';
import type { Text } from '#core/base/said/index.ts';
import {
  findDevice,
  findTypes,
  heldTo,
  type Rig,
  type SettingChange,
  type SettingSpec,
  settingOf,
} from '#core/model/rig/index.ts';
import { say } from './sayings.ts';

type ValueSpec = Extract<SettingSpec, { kind: 'value' }>;

/** A place of the rig where a voice can be treated: a device, or one strip of it. */
export interface TreatingPlace {
  readonly id: string;
  readonly deviceId: string;
  readonly name: string;
  readonly specs: readonly ValueSpec[];
}

/** What a treatment asks of a place, in the device's own units. */
interface TreatedSetting extends SettingChange {
  readonly spec: ValueSpec;
  readonly now: number;
  readonly value: number;
  /** What was wanted, where the device cannot be set to it. */
  readonly wanted: number | null;
}

export interface TreatmentAtPlace {
  readonly settings: readonly TreatedSetting[];
  /** Steps of the treatment that the place has not got. */
  readonly lacks: readonly Text[];
}

const stripOf = ({ group = '' }: ValueSpec): string => group;

/** Where in the rig a voice can be treated. */
export function treatingPlaces(rig: Rig): TreatingPlace[] {
  const types = findTypes(rig);
  return rig.devices.flatMap((device) => {
    const specs = (types.get(device.typeId)?.settings ?? []).filter((s): s is ValueSpec => s.kind === 'value');
    const strips = [...new Set(specs.map(stripOf))];
    return strips.map((strip) => ({
      id: `${device.id}/${strip}`,
      deviceId: device.id,
      name: strip ? `${device.name}, ${strip}` : device.name,
      specs: specs.filter((s) => stripOf(s) === strip),
    }));
  });
}

const STEPS: readonly (readonly [keyof Treatment, Text])[] = [
  ['lowCut', say.stepLowCut()],
  ['gate', say.stepGate()],
  ['presence', say.stepPresence()],
  ['deEss', say.stepDeEss()],
  ['compressor', say.stepCompressor()],
  ['limiter', say.stepLimiter()],
];

/** What of a treatment a place can be set to, and what it lacks. A step that is left out is turned off, where it has an off. */
export function treatmentAt(rig: Rig, place: TreatingPlace, treatment: Treatment): TreatmentAtPlace {
  const device = findDevice(rig, place.deviceId)!;
  const settings = place.specs.flatMap((spec): TreatedSetting[] => {
    const wanted = figureOf(treatment, spec.treats);
    const now = settingOf(device, spec).value as number;
    const value = wanted === null ? spec.off : heldTo(spec, wanted);
    if (value === undefined) return [];
    const off = wanted !== null && Math.abs(value - wanted) > 1e-6;
    return [{ deviceId: device.id, settingId: spec.id, spec, now, value, wanted: off ? wanted : null }];
  });
  const has = new Set(place.specs.map((s) => s.treats.split('.')[0]));
  const lacks = STEPS.filter(([step]) => treatment[step] !== null && !has.has(step)).map(([, name]) => name);
  return { settings, lacks };
}

/** A figure by its name: 'compressor.ratio'; null where its step is left out. */
function figureOf(treatment: Treatment, treats: ValueSpec['treats']): number | null {
  if (treats === 'makeupDb') return treatment.makeupDb;
  const [step, key] = treats.split('.') as [keyof Treatment, string];
  const values = treatment[step] as Readonly<Record<string, number>> | null;
  return values?.[key] ?? null;
}
