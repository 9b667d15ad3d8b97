import type { Text } from '#core/base/said/index.ts';
import {
  type Cable,
  type Device,
  endName,
  findTypes,
  isHardware,
  isProgram,
  type Rig,
  sayValue,
  settingKey,
  settingOf,
} from '#core/model/rig/index.ts';
import { check, type Finding, leadsOf, tally } from '#core/rules/index.ts';
import { CREST_DB, deviceName, evaluate, mainVoiceOf } from '#core/signal/index.ts';
import { failuresOf } from './failures.ts';
import { say } from './sayings.ts';
import { shoppingList } from './shopping.ts';

/** One rig in figures, for comparison with another. */
export interface Figures {
  readonly stops: number;
  readonly fixes: number;
  readonly watches: number;
  readonly boxes: number;
  readonly programs: number;
  readonly leads: number;
  /** Things that can fail, and those of them that take something wanted along. */
  readonly failures: number;
  readonly single: number;
  /** Wanted pairs that are heard, of all that are wanted. */
  readonly heard: number;
  readonly wanted: number;
  /** Most conversions, and the latest sound, on any way that is wanted; ms, nominal. */
  readonly conversions: number;
  readonly latestMs: number;
  /** The main voice where it is wanted: the least distance to the noise, and to a ceiling over its usual peaks, dB; null without one. */
  readonly leastSnrDb: number | null;
  readonly leastRoomDb: number | null;
  /** Devices, leads and adapters together, low and high, euros, as such things usually cost. */
  readonly priceEur: readonly [number, number];
}

/** Something that is in one of two rigs, or otherwise in them. */
export interface Difference {
  readonly id: string;
  readonly where: 'first' | 'second' | 'both';
  readonly says: Text;
}

export interface Comparison {
  readonly figures: readonly [Figures, Figures];
  readonly devices: readonly Difference[];
  readonly leads: readonly Difference[];
  readonly settings: readonly Difference[];
  /** Findings of only one; those of both are left out. */
  readonly findings: readonly (Difference & { readonly finding: Finding })[];
}

/** Two rigs compared: what each has that the other lacks, and the effect. Devices are matched by id. */
export function compareRigs(first: Rig, second: Rig): Comparison {
  const [a, b] = [lookAt(first), lookAt(second)];
  return {
    figures: [figuresOf(a), figuresOf(b)],
    devices: deviceDifferences(first, second),
    leads: leadDifferences(first, second),
    settings: settingDifferences(first, second),
    findings: [...only(a.findings, b.findings, 'first'), ...only(b.findings, a.findings, 'second')],
  };
}

/** One rig in figures, by itself. */
export const figuresFor = (rig: Rig): Figures => figuresOf(lookAt(rig));

interface Look {
  readonly rig: Rig;
  readonly evaluation: ReturnType<typeof evaluate>;
  readonly findings: readonly Finding[];
}

function lookAt(rig: Rig): Look {
  const evaluation = evaluate(rig);
  return { rig, evaluation, findings: check(rig, evaluation).filter((f) => !f.dismissed) };
}

function figuresOf({ rig, evaluation, findings }: Look): Figures {
  const types = findTypes(rig);
  const kinds = rig.devices.map((d) => types.get(d.typeId)!);
  const hardware = kinds.filter(isHardware);
  const failures = failuresOf(rig, evaluation);
  const wanted = evaluation.pairs.filter((p) => p.want === 'must');
  const ways = wanted.flatMap((p) => p.ways.slice(0, 1));
  const voiceId = mainVoiceOf(rig);
  const voice = wanted.filter((p) => p.sourceId === voiceId).flatMap((p) => p.ways.slice(0, 1));
  const items = shoppingList(rig);
  const price = (side: 0 | 1) =>
    hardware.reduce((sum, t) => sum + (t.priceEur?.[side] ?? 0), 0) +
    items.reduce((sum, item) => sum + item.count * item.price[side], 0);
  return {
    ...tally(rig, evaluation, findings),
    boxes: hardware.length,
    programs: kinds.filter(isProgram).length,
    leads: leadsOf(rig, types).filter((l) => !l.twin).length,
    failures: failures.length,
    single: failures.filter((f) => f.loses > 0).length,
    heard: wanted.filter((p) => p.ways.length > 0).length,
    wanted: wanted.length,
    conversions: Math.max(0, ...ways.map((w) => w.conversions)),
    latestMs: Math.max(0, ...ways.map((w) => w.delay.value.nominal)),
    leastSnrDb: least(voice.flatMap((w) => (w.noiseDb === null ? [] : [w.levelDb.nominal - w.noiseDb]))),
    leastRoomDb: least(voice.flatMap((w) => (w.headroomDb === null ? [] : [w.headroomDb - CREST_DB.nominal]))),
    priceEur: [price(0), price(1)],
  };
}

const least = (values: readonly number[]): number | null => (values.length > 0 ? Math.min(...values) : null);

/** Items of only one list, and differences of items in both. */
function differences<T>(
  first: ReadonlyMap<string, T>,
  second: ReadonlyMap<string, T>,
  told: (value: T, where: 'first' | 'second') => Text,
  changed: (a: T, b: T) => Text | null,
): Difference[] {
  const gone = [...first].flatMap(([id, a]): Difference[] => {
    const b = second.get(id);
    if (b === undefined) return [{ id, where: 'first', says: told(a, 'first') }];
    const says = changed(a, b);
    return says === null ? [] : [{ id, where: 'both', says }];
  });
  const come = [...second]
    .filter(([id]) => !first.has(id))
    .map(([id, b]): Difference => ({ id, where: 'second', says: told(b, 'second') }));
  return [...gone, ...come];
}

const byId = <T extends { readonly id: string }>(list: readonly T[]): Map<string, T> =>
  new Map(list.map((x) => [x.id, x]));

function deviceDifferences(first: Rig, second: Rig): Difference[] {
  const types = { first: findTypes(first), second: findTypes(second) };
  const typeName = (d: Device, where: 'first' | 'second') => types[where].get(d.typeId)!.name;
  return differences(
    byId(first.devices),
    byId(second.devices),
    (d, where) => `${d.name}: ${typeName(d, where)}`,
    (a, b) => {
      if (a.typeId !== b.typeId) return `${a.name}: ${typeName(a, 'first')} → ${typeName(b, 'second')}`;
      if (a.name !== b.name) return `${a.name} → ${b.name}`;
      if (a.fedBy !== b.fedBy) return say.poweredElsewhere({ device: a.name });
      return a.on === b.on ? null : say.otherComputer({ device: a.name });
    },
  );
}

/** Cables are the same by their ends: ids say nothing to a person. */
function leadDifferences(first: Rig, second: Rig): Difference[] {
  const key = ({ from, to }: Cable) => `${from.deviceId}.${from.portId} > ${to.deviceId}.${to.portId}`;
  const index = (rig: Rig) => new Map(rig.cables.map((c) => [key(c), c]));
  const rigs = { first, second };
  const cableOf = (c: Cable, where: 'first' | 'second') => {
    const rig = rigs[where];
    const name = ({ deviceId, portId }: Cable['from']) =>
      `${deviceName(rig, deviceId)}, ${endName(rig, findTypes(rig), { deviceId, portId })}`;
    return `${name(c.from)} → ${name(c.to)}`;
  };
  return differences(index(first), index(second), cableOf, (a, b) => {
    if (a.medium !== b.medium) return `${cableOf(a, 'first')}: ${a.medium} → ${b.medium}`;
    return a.lengthM === b.lengthM ? null : `${cableOf(a, 'first')}: ${a.lengthM} m → ${b.lengthM} m`;
  });
}

/** Settings of devices that both have, with the same type. */
function settingDifferences(first: Rig, second: Rig): Difference[] {
  const types = findTypes(first);
  const others = byId(second.devices);
  return first.devices.flatMap((device) => {
    const other = others.get(device.id);
    if (!other || other.typeId !== device.typeId) return [];
    return types.get(device.typeId)!.settings.flatMap((spec): Difference[] => {
      const [a, b] = [settingOf(device, spec).value, settingOf(other, spec).value];
      if (a === b) return [];
      return [
        {
          id: settingKey(device.id, spec.id),
          where: 'both',
          says: say.settingFromTo({
            device: device.name,
            setting: spec.name,
            before: sayValue(spec, a),
            after: sayValue(spec, b),
          }),
        },
      ];
    });
  });
}

const only = (here: readonly Finding[], there: readonly Finding[], where: 'first' | 'second') => {
  const known = new Set(there.map((f) => f.id));
  return here
    .filter((f) => !known.has(f.id))
    .map((finding) => ({ id: finding.id, where, says: finding.asks ?? finding.says, finding }));
};
