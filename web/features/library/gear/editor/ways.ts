import type { DeviceType, Stage, Way } from '#core/model/rig/index.ts';
import { sayStage } from '#web/features/library/gear/inside.ts';
import { gear as say } from '#words/index.ts';

/** Ways between the same two ports that meet the same: one row for left and right. */
export interface WayGroup {
  readonly from: string;
  readonly to: string;
  /** Channels that go along: 'left' to 'left'. */
  readonly channels: readonly (readonly [from: string, to: string])[];
  readonly stages: readonly Stage[];
}

const split = (place: string) => place.split('.') as [string, string];

export function groupWays(inside: readonly Way[]): WayGroup[] {
  const groups = new Map<string, { from: string; to: string; channels: [string, string][]; stages: Stage[] }>();
  for (const { from, to, stages } of inside) {
    const [[fromPort, fromChannel], [toPort, toChannel]] = [split(from), split(to)];
    const key = `${fromPort} ${toPort} ${JSON.stringify(stages)}`;
    const group = groups.get(key) ?? { from: fromPort, to: toPort, channels: [], stages };
    group.channels.push([fromChannel, toChannel]);
    groups.set(key, group);
  }
  return [...groups.values()];
}

export const ungroupWays = (groups: readonly WayGroup[]): Way[] =>
  groups.flatMap(({ from, to, channels, stages }) =>
    channels.map(([a, b]): Way => ({ from: `${from}.${a}`, to: `${to}.${b}`, stages: [...stages] })),
  );

/** A way from one port to another, like to like; one channel goes to all of its kind, as a cable has it. */
export function newWay(type: DeviceType, from: string, to: string): WayGroup {
  const channels = (id: string) => type.ports.find((p) => p.id === id)?.channels ?? [];
  const [outs, ins] = [channels(from), channels(to)];
  const pairs = (['sound', 'picture'] as const).flatMap((carries): [string, string][] => {
    const [a, b] = [outs, ins].map((list) => list.filter((c) => c.carries === carries).map((c) => c.id));
    if (a!.length === 1) return b!.map((id): [string, string] => [a![0]!, id]);
    if (b!.length === 1) return a!.map((id): [string, string] => [id, b![0]!]);
    return a!.slice(0, b!.length).map((id, i): [string, string] => [id, b![i]!]);
  });
  return { from, to, channels: pairs, stages: [] };
}

/** Every stage that a way of this type may be given, in words; its numbers are changed afterwards. */
export function stageChoices(type: DeviceType): { readonly says: string; readonly stage: Stage }[] {
  const own = type.settings.flatMap((spec): Stage[] => {
    if (spec.kind === 'delay') return [{ do: 'delay', setting: spec.id }];
    if (spec.kind === 'gain') return [{ do: 'gain', setting: spec.id }];
    if (spec.kind === 'mute') return [{ do: 'door', setting: spec.id, openWhen: false }];
    if (spec.kind === 'value') return [];
    return spec.options.map((o): Stage => ({ do: 'door', setting: spec.id, openWhen: o.value }));
  });
  const plain: Stage[] = [
    ...Object.keys(type.figures).map((figure): Stage => ({ do: 'latency', figure })),
    { do: 'fixed-gain', db: 0 },
    { do: 'convert', to: 'digital', fullScaleDbu: [12, 18, 24] },
    { do: 'convert', to: 'analogue', fullScaleDbu: [12, 18, 24] },
    { do: 'hear', sensitivityDbvPerPa: [-60, -54, -48] },
    { do: 'radiate', splAt0Dbu: [88, 94, 100] },
    { do: 'noise', db: -90 },
    { do: 'ceiling', db: 18 },
    { do: 'band', lowHz: 20, highHz: 20_000 },
    { do: 'invert' },
    { do: 'clock' },
  ];
  return [...own, ...plain].map((stage) => ({ says: sayStage(type, stage), stage }));
}

/** The numbers of a stage, by name, so that each can be typed. */
export function numbersOf(stage: Stage): readonly (readonly [name: string, value: number])[] {
  switch (stage.do) {
    case 'fixed-gain':
    case 'noise':
    case 'ceiling':
      return [['dB', stage.db]];
    case 'band':
      return [
        [say.fromHz(), stage.lowHz],
        [say.toHz(), stage.highHz],
      ];
    case 'convert':
      return ranged(say.fullScaleDbu(), stage.fullScaleDbu);
    case 'hear':
      return ranged('dBV/Pa', stage.sensitivityDbvPerPa);
    case 'radiate':
      return ranged(say.dbSplAtDbu(), stage.splAt0Dbu);
    default:
      return [];
  }
}

const ranged = (name: string, [low, nominal, high]: readonly [number, number, number]) =>
  [
    [say.minWith({ name }), low],
    [say.typical({ name }), nominal],
    [say.maxWith({ name }), high],
  ] as const;

/** The stage with one of its numbers changed. */
export function withNumber(stage: Stage, index: number, value: number): Stage {
  const at = (range: readonly [number, number, number]) =>
    range.map((v, i) => (i === index ? value : v)) as [number, number, number];
  switch (stage.do) {
    case 'fixed-gain':
    case 'noise':
    case 'ceiling':
      return { ...stage, db: value };
    case 'band':
      return index === 0 ? { ...stage, lowHz: value } : { ...stage, highHz: value };
    case 'convert':
      return { ...stage, fullScaleDbu: at(stage.fullScaleDbu) };
    case 'hear':
      return { ...stage, sensitivityDbvPerPa: at(stage.sensitivityDbvPerPa) };
    case 'radiate':
      return { ...stage, splAt0Dbu: at(stage.splAt0Dbu) };
    default:
      return stage;
  }
}
