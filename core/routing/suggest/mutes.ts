import { findDevice, findTypes, type Rig, settingAt, settingOf, settingsOf } from '#core/model/rig/index.ts';
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

type Place = Pick<MuteSeen, 'deviceId' | 'settingId'>;

/** Every open mute of these places, pressed on the rig, with the pairs that are not heard any more. Costs an evaluation for each. */
function press(rig: Rig, evaluation: Evaluation, keys: Iterable<string>): MuteSeen[] {
  const types = findTypes(rig);
  return [...keys].flatMap((key): MuteSeen[] => {
    const { deviceId, settingId } = settingAt(key);
    const device = findDevice(rig, deviceId)!;
    if (settingsOf(types.get(device.typeId)!).get(settingId)?.kind !== 'mute') return [];
    const takes = lost(evaluation, pressed(rig, evaluation, [{ deviceId, settingId }]));
    return takes.length > 0 ? [{ deviceId, settingId, takes }] : [];
  });
}

function pressed(rig: Rig, near: Evaluation, mutes: readonly Place[]): Evaluation {
  const types = findTypes(rig);
  const changes = mutes.map(({ deviceId, settingId }) => {
    const device = findDevice(rig, deviceId)!;
    const spec = settingsOf(types.get(device.typeId)!).get(settingId)!;
    return { deviceId, settingId, value: !settingOf(device, spec).value };
  });
  return evaluate(withSettings(rig, changes), near);
}

const lost = (before: Evaluation, after: Evaluation): PairRef[] =>
  before.pairs
    .filter((p, i) => p.ways.length > 0 && after.pairs[i]!.ways.length === 0)
    .map(({ sourceId, listenerId }) => ({ sourceId, listenerId }));

/**
 * Every open mute on the paths of a pair, with what else it would silence; those that silence the pair, and of them the one
 * that takes least, first.
 */
export function mutesOn(rig: Rig, evaluation: Evaluation, pair: PairRef): MuteSeen[] {
  const here = evaluation.pairs.find((p) => p.sourceId === pair.sourceId && p.listenerId === pair.listenerId);
  const seen = press(rig, evaluation, new Set(here?.ways.flatMap((w) => w.settings) ?? []));
  const silences = ({ takes }: MuteSeen) => takes.some((t) => keyOf(t) === keyOf(pair));
  return seen.sort((a, b) => Number(silences(b)) - Number(silences(a)) || a.takes.length - b.takes.length);
}

/** Every mute of the rig that takes anything from anyone, one after another: each costs an evaluation when it is asked for. */
export function* allMutes(rig: Rig, evaluation: Evaluation): Generator<MuteSeen | null> {
  for (const key of new Set(evaluation.pairs.flatMap((p) => p.ways.flatMap((w) => w.settings))))
    yield press(rig, evaluation, [key])[0] ?? null;
}

/** Mutes to press together, and how what they take differs from what was asked for. */
export interface MuteChoice {
  readonly mutes: readonly Place[];
  /** Taken besides. */
  readonly more: readonly PairRef[];
  /** Asked for, and heard still. */
  readonly less: readonly PairRef[];
}

const keyOf = ({ sourceId, listenerId }: PairRef): string => `${sourceId}>${listenerId}`;
const MAX_PAIRS_TRIED = 16;
const OFFERED = 3;

/**
 * The mute that takes exactly these sources from exactly these listeners; where no single one does, two together that
 * do; else those that come nearest. Each answer is what pressing them does, not a sum of what each does alone.
 */
export function mutesFor(
  rig: Rig,
  evaluation: Evaluation,
  all: readonly MuteSeen[],
  wanted: readonly PairRef[],
): MuteChoice[] {
  const asked = new Set(wanted.map(keyOf));
  const choice = (mutes: readonly Place[], takes: readonly PairRef[]): MuteChoice => {
    const taken = new Set(takes.map(keyOf));
    return {
      mutes,
      more: takes.filter((t) => !asked.has(keyOf(t))),
      less: wanted.filter((w) => !taken.has(keyOf(w))),
    };
  };
  const off = ({ more, less }: MuteChoice): number => more.length + less.length;
  const nearest = (a: MuteChoice, b: MuteChoice): number => off(a) - off(b) || a.mutes.length - b.mutes.length;
  const single = all.map((m) => choice([m], m.takes)).filter((c) => c.less.length < wanted.length);
  if (single.some((c) => off(c) === 0)) return single.filter((c) => off(c) === 0).slice(0, OFFERED);
  // Two mutes together may silence what each alone leaves through the other path: those without side effects are tried in pairs.
  const clean = all.filter((m) => m.takes.every((t) => asked.has(keyOf(t))));
  const pairs = clean.flatMap((a, i) => clean.slice(i + 1).map((b) => [a, b] as const)).slice(0, MAX_PAIRS_TRIED);
  const both = pairs.map((mutes) => choice(mutes, lost(evaluation, pressed(rig, evaluation, mutes))));
  return [...single, ...both].sort(nearest).slice(0, OFFERED);
}
