import { listOf } from '#core/base/said/index.ts';
import { settingAt, settingOf } from '#core/model/rig/index.ts';
import { ratioFromDb, width } from '#core/model/units/index.ts';
import { type Arrival, difference, readPath } from '#core/signal/index.ts';
import { closers, tried } from './doors.ts';
import { type Context, type Draft, type Fix, type Rule, rule, setFix } from './finding.ts';
import { say } from './sayings.ts';

/** Loss by meeting an inverted copy of itself, dB, from which on a source is watched, and from which on it is audibly gone. */
const TOLD_DB = 3;
const GONE_DB = 10;
/** Copies nearer than this are in step as far as one hears. */
const IN_STEP_MS = 0.02;

/** Where a source meets its own copy upside down, the worst of each device; but where that is what takes an unwanted source away. */
function meetings({ evaluation: { graph, arrivals, pairs } }: Context): Arrival[] {
  const all = arrivals.flatMap((list) => list.filter((a) => lossOf(a) >= TOLD_DB));
  // As good as always: then nothing has to be asked of who wants what.
  if (all.length === 0) return [];
  const [wanted, unwanted] = [new Set<Arrival>(), new Set<Arrival>()];
  for (const { want, ways } of pairs)
    for (const way of ways)
      for (let at: Arrival | null = way.arrival; at; at = at.from) (want === 'must-not' ? unwanted : wanted).add(at);
  const worst = new Map<string, Arrival>();
  for (const arrival of all) {
    if (unwanted.has(arrival) && !wanted.has(arrival)) continue;
    const key = placeOf(graph.nodes[arrival.node]!.deviceId, arrival.sourceIndex);
    if (lossOf(arrival) > lossOf(worst.get(key))) worst.set(key, arrival);
  }
  return [...worst.values()];
}
const lossOf = (arrival: Arrival | undefined): number => arrival?.cancelledBy?.lossDb ?? 0;
const placeOf = (deviceId: string, source: number): string => `${deviceId}:${source}`;

/** Devices on one of two ways and not on the other. */
const only = (own: readonly string[], other: readonly string[]): string[] => own.filter((id) => !other.includes(id));

function drafts(context: Context): Draft[] {
  const { rig, evaluation, box } = context;
  return meetings(context).map((arrival) => {
    const { deviceId } = evaluation.graph.nodes[arrival.node]!;
    const { other, lossDb } = arrival.cancelledBy!;
    const [one, two] = [readPath(evaluation.graph, arrival), readPath(evaluation.graph, other)];
    // What both go through is no difference between them, however uncertain it is.
    const spreadMs = difference(one.terms, two.terms).reduce((ms, t) => ms + Math.abs(t.count) * width(t.term.ms), 0);
    const inStep = spreadMs < IN_STEP_MS;
    const upToHz = 1000 / (6 * Math.max(spreadMs / 2, IN_STEP_MS));
    const [byOne, byTwo] = [only(one.deviceIds, two.deviceIds), only(two.deviceIds, one.deviceIds)];
    const name = (id: string) => box(id).device.name;
    const ways = [byOne, byTwo].filter((ids) => ids.length > 0).map((ids) => ids.map(name).join(', '));
    const by = ways.length > 0 ? say.throughPaths({ by: listOf('and', ways) }) : '';
    const source = rig.sources[arrival.sourceIndex]!;
    const apartDb = Math.abs(-20 * Math.log10(1 - ratioFromDb(-Math.min(lossDb, 79))));
    return {
      at: `${source.id}>${deviceId}`,
      severity: lossDb >= GONE_DB && inStep ? 'fix' : 'watch',
      where: { sourceId: source.id, deviceIds: [deviceId, ...byOne, ...byTwo] },
      says: say.cancels({
        source: source.name,
        deviceId: name(deviceId),
        by,
        to: inStep ? '' : say.upTo(),
        n0: lossDb.toFixed(0),
      }),
      why: [
        {
          says: say.differBy({ n1: apartDb.toFixed(1), n0: lossDb.toFixed(0) }),
          source: say.twoEqualCopiesOne(),
        },
        {
          says: inStep
            ? say.bothTakeEquallyLong()
            : say.certainUpTo({
                n1: spreadMs.toFixed(1),
                kHz:
                  upToHz < 1000 ? say.inHz({ n0: upToHz.toFixed(0) }) : say.inKhz({ n1: (upToHz / 1000).toFixed(1) }),
              }),
          source: say.copySixthPeriodLate(),
        },
      ],
    };
  });
}

/** Tries another value of each setting on only one of the paths: with it, the source meets no inverted copy there. */
function fixes(
  context: Context,
  { where }: { readonly where: { readonly sourceId?: string; readonly deviceIds: readonly string[] } },
): Fix[] {
  const { rig, evaluation, box } = context;
  const here = (a: Arrival, graph = evaluation.graph) =>
    graph.nodes[a.node]!.deviceId === where.deviceIds[0] && rig.sources[a.sourceIndex]!.id === where.sourceId;
  const arrival = meetings(context).find((a) => here(a));
  if (!arrival) return [];
  const [one, two] = [arrival, arrival.cancelledBy!.other].map((a) => readPath(evaluation.graph, a).settings) as [
    string[],
    string[],
  ];
  const settings = [...new Set([...only(one, two), ...only(two, one)])];
  const turned = settings.flatMap((key): Fix[] => {
    const { deviceId, settingId } = settingAt(key);
    const { device, type } = box(deviceId);
    const spec = type.settings.find((s) => s.id === settingId)!;
    if (spec.kind !== 'switch') return [];
    const now = settingOf(device, spec).value;
    return spec.options.filter((o) => o.value !== now).flatMap((o) => setFix({ device, type }, settingId, o.value));
  });
  return [...turned, ...closers(context, settings)].filter((fix) => {
    const after = tried(context, fix)?.evaluation;
    return after !== undefined && !meetings({ ...context, evaluation: after }).some((a) => here(a, after.graph));
  });
}

export const cancelRules: readonly Rule[] = [rule('route', 'cancels', drafts, fixes)];
