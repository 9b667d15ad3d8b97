import { listOf, type Text } from '#core/base/said/index.ts';
import {
  applyEdit,
  asDefault,
  cableIn,
  choosing,
  chosenDevice,
  findDevice,
  findTypes,
  listenerIn,
  makeDefault,
  type Rig,
  redrawn,
  relinked,
  settingAt,
  settingKey,
  settingOf,
  soundDeviceName,
  sourceIn,
} from '#core/model/rig/index.ts';
import { deviceName, type Evaluation, evaluate, type Pair, type Stop, whereItStops } from '#core/signal/index.ts';
import { type Context, type Fix, setFix } from './finding.ts';
import { say } from './sayings.ts';

/** Where a pair that is not heard stops; null where it arrives. */
export const stopOf = ({ rig, evaluation }: Context, { sourceId, listenerId }: Pair): Stop | null => {
  const source = sourceIn(rig, sourceId);
  const listener = listenerIn(rig, listenerId);
  return whereItStops(evaluation.graph, source.sound, listener.sound);
};

const setTo = (label: Text, deviceId: string, settingId: string, value: number | boolean): Fix => ({
  label,
  changes: [{ deviceId, settingId, value }],
  edit: { kind: 'set-setting', deviceId, settingId, setting: { value, known: 'assumed' } },
});

/** The effect of a fix; null where it can't be made, or breaks a pair that was right. */
export function tried({ rig, evaluation }: Context, fix: Fix): { rig: Rig; evaluation: Evaluation } | null {
  const done = applyEdit(rig, fix.edit);
  if (!done.ok) return null;
  const after = evaluate(done.rig);
  const before = wrongs(evaluation);
  return [...wrongs(after)].every((w) => before.has(w)) ? { rig: done.rig, evaluation: after } : null;
}

/** Pairs that are wrong in a way that a mended one must not buy. */
const wrongs = ({ pairs }: Evaluation): Set<string> =>
  new Set(
    pairs
      .filter(
        ({ want, verdict: { word } }) =>
          word === 'missing' || word === 'unwanted' || (word === 'twice' && want === 'must'),
      )
      .map((p) => `${p.sourceId}>${p.listenerId}:${p.verdict.word}`),
  );

/** A change that leaves the fault, but this much quieter, is worth offering. */
const WORTH_DB = 6;

/** How many pairs are heard at another level, or not at all: the less a fix touches, the better. */
function touched(before: Evaluation, after: Evaluation): number {
  const levelOf = ({ ways }: Pair): number => ways[0]?.levelDb.nominal ?? Number.NEGATIVE_INFINITY;
  return before.pairs.filter((pair, i) => Math.abs(levelOf(pair) - levelOf(after.pairs[i]!)) > 0.1).length;
}

/** Those of the edits that mend the pair, or most of it, and break nothing else that was right; what touches least first. */
function thatMend(context: Context, pair: Pair, fixes: readonly Fix[]): Fix[] {
  const { rig, evaluation } = context;
  const isPair = (p: Pair) => p.sourceId === pair.sourceId && p.listenerId === pair.listenerId;
  const mending = fixes.flatMap((fix): { fix: Fix; touches: number }[] => {
    const after = tried(context, fix)?.evaluation;
    if (!after) return [];
    const touches = touched(evaluation, after);
    const now = after.pairs.find(isPair)!;
    if (now.verdict.word !== pair.verdict.word) return [{ fix, touches }];
    const left = now.ways[0];
    if (pair.verdict.word !== 'unwanted' || !left) return [];
    const lessDb = pair.ways[0]!.levelDb.nominal - left.levelDb.nominal;
    if (lessDb < WORTH_DB) return [];
    const by = left.deviceIds.find((id) => !pair.ways[0]!.deviceIds.includes(id));
    const remains = say.lessLeft({ n0: lessDb.toFixed(0), by: by ? say.byDevice({ by: deviceName(rig, by) }) : '' });
    return [{ fix: { ...fix, label: say.labelAndRest({ label: fix.label, remains }), partly: true }, touches }];
  });
  return mending.sort((a, b) => a.touches - b.touches).map(({ fix }) => fix);
}

/** Ways to shut: a mute on it, or a level that can be turned down altogether. */
export const shutDoors = (context: Context, pair: Pair, settings: readonly string[]): Fix[] =>
  thatMend(context, pair, closers(context, settings));

/** What shuts a way by one of its settings. */
export function closers(context: Context, settings: readonly string[]): Fix[] {
  const types = findTypes(context.rig);
  return settings.flatMap((key): Fix[] => {
    const { deviceId, settingId } = settingAt(key);
    const device = findDevice(context.rig, deviceId)!;
    const spec = types.get(device.typeId)!.settings.find((s) => s.id === settingId)!;
    const label = `${device.name}, ${spec.name}`;
    if (spec.kind === 'mute') return [setTo(say.on({ label }), deviceId, settingId, true)];
    if (spec.kind === 'gain' && spec.offAtMin) return [setTo(say.allWayDown({ label }), deviceId, settingId, spec.min)];
    return [];
  });
}

/** All doors of the way with the fewest shut ones, as one fix. */
function openWay(context: Context, pair: Pair): Fix[] {
  const stop = stopOf(context, pair);
  if (stop?.kind !== 'shut' || stop.doors.length < 2) return [];
  const fixes = stop.doors.flatMap((d) => setFix(context.box(d.deviceId), d.settingId, d.opensAt));
  return [
    {
      label: listOf(
        'and',
        fixes.map((f) => f.label),
      ),
      changes: fixes.flatMap((f) => f.changes),
      edit: { kind: 'batch', edits: fixes.map((f) => f.edit) },
    },
  ];
}

/** Blocking settings: the one that is alone in the way, else all of them on the path with the fewest. */
export function openDoors(context: Context, pair: Pair): Fix[] {
  const { rig, evaluation } = context;
  const types = findTypes(rig);
  const shut = [...new Set(evaluation.graph.shut.map((s) => settingKey(s.deviceId, s.settingId)))];
  const single = shut.flatMap((key): Fix[] => {
    const { deviceId, settingId } = settingAt(key);
    const device = findDevice(rig, deviceId)!;
    const spec = types.get(device.typeId)!.settings.find((s) => s.id === settingId)!;
    const label = `${device.name}, ${spec.name}`;
    if (spec.kind === 'mute') return [setTo(say.off({ label }), deviceId, settingId, false)];
    if (spec.kind === 'gain' && settingOf(device, spec).value === spec.min)
      return [setTo(say.upToDb({ label }), deviceId, settingId, Math.min(0, spec.max))];
    return [];
  });
  return thatMend(context, pair, [...single, ...openWay(context, pair)]);
}

/** Where a program goes with the default of its computer and that is another device: the one chosen in the program, or made the default. */
export function otherDevices(context: Context, pair: Pair): Fix[] {
  const { rig, types } = context;
  const stop = stopOf(context, pair);
  if (stop?.kind !== 'no-way') return [];
  const fixes = stop.breaks.flatMap((found): Fix[] => {
    if (found.kind !== 'default') return [];
    const cable = cableIn(rig, found.cableId);
    const { at, use, computerId } = chosenDevice(rig, types, cable)!;
    const program = at === 'to' ? cable.from : cable.to;
    const name = soundDeviceName(rig, types, found.other);
    const chosen = choosing(rig, cable, found.other);
    const then = asDefault(rig, computerId, found.other);
    return [
      {
        label: say.chooseAt({ deviceId: deviceName(rig, program.deviceId), name }),
        changes: [{ cableId: cable.id, cable: chosen }],
        edit: relinked(chosen),
      },
      {
        label: say.makeDefault({
          computerId: deviceName(rig, computerId),
          name,
          input: use === 'play' ? say.outputWord() : say.inputWord(),
        }),
        first: redrawn(then.devices),
        changes: then.cables.map((c) => ({ cableId: c.id, cable: c })),
        edit: makeDefault(rig, computerId, found.other),
      },
    ];
  });
  return thatMend(context, pair, fixes);
}
