import { findDevice, findTypes, type Rig, settingOf, settingsOf } from '#core/rig/index.ts';
import { type Evaluation, evaluate } from '#core/signal/index.ts';
import { withSettings } from './flips.ts';

interface PairRef {
  readonly sourceId: string;
  readonly listenerId: string;
}

/** A mute, and the pairs that are not heard any more when it is pressed. */
export interface MuteSeen {
  readonly deviceId: string;
  readonly settingId: string;
  readonly takes: readonly PairRef[];
}

/**
 * Every open mute on the ways of a pair, with all that it takes along; those that silence the pair, and of them the one
 * that takes least, first. Costs an evaluation for each.
 */
export function mutesOn(rig: Rig, evaluation: Evaluation, pair: PairRef): MuteSeen[] {
  const here = evaluation.pairs.find((p) => p.sourceId === pair.sourceId && p.listenerId === pair.listenerId);
  const types = findTypes(rig);
  const keys = new Set(here?.ways.flatMap((w) => w.settings) ?? []);
  const seen = [...keys].flatMap((key): MuteSeen[] => {
    const [deviceId, settingId] = key.split('.') as [string, string];
    const device = findDevice(rig, deviceId)!;
    const spec = settingsOf(types.get(device.typeId)!).get(settingId);
    if (spec?.kind !== 'mute') return [];
    const value = !settingOf(device, spec).value;
    const after = evaluate(withSettings(rig, [{ deviceId, settingId, value }])).pairs;
    const takes = evaluation.pairs
      .filter((p, i) => p.ways.length > 0 && after[i]!.ways.length === 0)
      .map(({ sourceId, listenerId }) => ({ sourceId, listenerId }));
    return takes.length > 0 ? [{ deviceId, settingId, takes }] : [];
  });
  const silences = ({ takes }: MuteSeen) =>
    takes.some((t) => t.sourceId === pair.sourceId && t.listenerId === pair.listenerId);
  return seen.sort((a, b) => Number(silences(b)) - Number(silences(a)) || a.takes.length - b.takes.length);
}
