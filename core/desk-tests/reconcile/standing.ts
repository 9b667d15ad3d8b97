import type { Text } from '#core/base/said/index.ts';
import {
  findDevice,
  findSetting,
  findTypes,
  isKey,
  type Measurement,
  type Rig,
  settingAt,
} from '#core/model/rig/index.ts';
import { add, exactly, type Interval } from '#core/model/units/index.ts';
import {
  type DelayTerm,
  delayMeasurements,
  deviceName,
  difference,
  type Evaluation,
  evaluate,
  type Pair,
  type ReceivedPath,
  SCALE_UNITS,
  type State,
  settle,
} from '#core/signal/index.ts';
import { say } from './sayings.ts';

/** One number of a measurement, and what the rig has without it. */
export interface StandingFigure {
  readonly what: Text;
  readonly unit: string;
  /** Within two standard deviations to each side. */
  readonly value: Interval;
  readonly count: number;
  /** Null where nothing but a take can know it. */
  readonly expected: Interval | null;
  readonly isOutside: boolean;
}

/** Status of a measurement in the rig: what it is about, whether that still exists, and how it compares with typical. */
export interface MeasurementStatus {
  readonly measurement: TakenIn;
  readonly speaksOf: Text;
  readonly figures: readonly StandingFigure[];
  /** Why nothing follows from it as the rig is drawn; null where something does. */
  readonly idle: Text | null;
}

/** Takes of a sync test are evidence only once added to the rig. */
type TakenIn = Exclude<Measurement, { kind: 'offset' }>;
type Of<K extends TakenIn['kind']> = Extract<TakenIn, { kind: K }>;

/**
 * Everything that was measured into a rig, the newest first.
 * @param evaluations  of that rig in all its moments: a way that is open in one of them is there
 */
export function standingsOf(rig: Rig, evaluations: readonly Evaluation[]): MeasurementStatus[] {
  const pairs = evaluations.flatMap((e) => e.pairs);
  const scene: Scene = { rig, pairs, terms: termsOf(pairs) };
  return rig.measurements
    .filter((m): m is TakenIn => m.kind !== 'offset')
    .sort((a, b) => (a.takenAt < b.takenAt ? 1 : a.takenAt > b.takenAt ? -1 : a.id < b.id ? -1 : 1))
    .map((m) => standingOf(scene, m));
}

interface Scene {
  readonly rig: Rig;
  readonly pairs: readonly Pair[];
  /** Every delay on every way, as its type has it. */
  readonly terms: ReadonlyMap<string, DelayTerm>;
}

function standingOf(scene: Scene, m: TakenIn): MeasurementStatus {
  switch (m.kind) {
    case 'delay':
      return delay(scene, m);
    case 'drift':
      return drift(scene, m);
    case 'level':
      return level(scene, m);
    case 'noise':
      return noise(scene, m);
    case 'band':
      return band(scene, m);
  }
}

const NO_WAY = say.inThisRigSource();

function delay({ rig, pairs, terms }: Scene, m: Of<'delay'>): MeasurementStatus {
  const known = m.terms.map((t) => ({ ...t, term: terms.get(t.figure) }));
  const lacking = known.find((t) => !t.term);
  const expected = lacking
    ? null
    : settle(
        [],
        '',
        known.map(({ term, sign }) => ({ term: term!, count: sign })),
      ).value;
  const named = known.map(
    ({ term, sign, figure }, i) => `${sign < 0 ? '− ' : i > 0 ? '+ ' : ''}${term?.label ?? figure}`,
  );
  const own = delayMeasurements([m]);
  const speaks = (t: Parameters<typeof settle>[2]) => settle(own, '', t).terms.some((f) => f.kind === 'measured');
  const isUsed = pairs.some(
    (p) =>
      (p.picture && speaks(difference(p.picture.terms, []))) ||
      p.ways.some(
        (w) =>
          speaks(w.offsetTerms) ||
          speaks(difference(w.soundTerms, [])) ||
          (w.afterFirst && speaks(difference(w.soundTerms, p.ways[0]!.soundTerms))),
      ),
  );
  return {
    measurement: m,
    speaksOf: `${pairName(rig, m)}: ${named.join(' ')}`,
    figures: [figure(say.isDelay(), 'ms', m.ms, expected)],
    idle: lacking
      ? say.isOnNoPath({ device: deviceName(rig, settingAt(lacking.figure).deviceId) })
      : isUsed
        ? null
        : say.noPathHasAll(),
  };
}

function drift({ rig }: Scene, m: Of<'drift'>): MeasurementStatus {
  const gone = [m.deviceId, m.againstDeviceId].find((id) => !findDevice(rig, id));
  return {
    measurement: m,
    speaksOf: say.vs({ device: deviceName(rig, m.deviceId), device2: deviceName(rig, m.againstDeviceId) }),
    figures: [figure(say.isDrift(), 'ppm', m.ppm, null)],
    idle: gone ? say.thereIsNoIn({ gone }) : null,
  };
}

function level({ rig, pairs }: Scene, m: Of<'level'>): MeasurementStatus {
  const way = waysOf(pairs, m)[0];
  const { deviceId, settingId } = settingAt(m.means);
  const device = isKey(m.means) ? findDevice(rig, deviceId) : undefined;
  const setting = device && findSetting(rig, findTypes(rig), device.id, settingId);
  const means = device ? `${device.name}, ${setting?.name ?? settingId}` : say.source();
  return {
    measurement: m,
    speaksOf: say.usedFor({ pair: pairName(rig, m), means }),
    figures: [figure(say.isLevel(), way ? SCALE_UNITS[way.scale] : 'dB', m.db, way?.levelDb ?? null)],
    idle: way ? null : NO_WAY,
  };
}

function noise({ rig, pairs }: Scene, m: Of<'noise'>): MeasurementStatus {
  const way = pairs.find((p) => p.listenerId === m.listenerId && p.ways.length > 0)?.ways[0];
  const expected = m.expectedDb === null ? null : exactly(m.expectedDb);
  return {
    measurement: m,
    speaksOf: say.withNothingPlaying({ listener: nameIn(rig.listeners, m.listenerId) }),
    figures: [{ ...figure(say.isNoise(), way ? SCALE_UNITS[way.scale] : 'dB', m.db, expected), isOutside: false }],
    idle: rig.listeners.some((l) => l.id === m.listenerId) ? null : say.thatDestinationNoLonger(),
  };
}

function band({ rig, pairs }: Scene, m: Of<'band'>): MeasurementStatus {
  const ways = waysOf(pairs, m);
  const way = ways.find((w) => w.deviceIds.join() === m.deviceIds.join());
  const ends = [
    [say.isFrom(), m.lowHz, way?.arrival.lowHz],
    [say.isUpTo(), m.highHz, way?.arrival.highHz],
  ] as const;
  return {
    measurement: m,
    speaksOf: say.through({
      pair: pairName(rig, m),
      between:
        m.deviceIds
          .slice(1, -1)
          .map((id) => deviceName(rig, id))
          .join(', ') || say.pathBetween(),
    }),
    figures: ends.flatMap(([what, end, drawn]): StandingFigure[] => {
      if (end === null || end === 'beyond') return [];
      const value = { low: end[0], nominal: end[1], high: end[2] };
      const isDrawn = drawn !== undefined && drawn > 0 && Number.isFinite(drawn);
      const expected = isDrawn ? exactly(drawn) : null;
      return [{ what, unit: 'Hz', value, count: 1, expected, isOutside: apart(value, expected) }];
    }),
    idle: way ? null : ways.length === 0 ? NO_WAY : say.itGoesThroughOther(),
  };
}

const SIGMAS = 2;

function figure(
  what: Text,
  unit: string,
  { mean, sd, count }: { readonly mean: number; readonly sd: number; readonly count: number },
  expected: Interval | null,
): StandingFigure {
  const value = add({ low: -SIGMAS * sd, nominal: 0, high: SIGMAS * sd }, exactly(mean));
  return { what, unit, value, count, expected, isOutside: apart(value, expected) };
}

const apart = (a: Interval, b: Interval | null): boolean => b !== null && (a.high < b.low || a.low > b.high);

const nameIn = (list: readonly { readonly id: string; readonly name: string }[], id: string): string =>
  list.find((e) => e.id === id)?.name ?? id;

const pairName = (rig: Rig, m: { readonly sourceId: string; readonly listenerId: string }): Text =>
  say.at({ source: nameIn(rig.sources, m.sourceId), listener: nameIn(rig.listeners, m.listenerId) });

const waysOf = (
  pairs: readonly Pair[],
  m: { readonly sourceId: string; readonly listenerId: string },
): readonly ReceivedPath[] =>
  pairs.flatMap((p) => (p.sourceId === m.sourceId && p.listenerId === m.listenerId ? p.ways : []));

function termsOf(pairs: readonly Pair[]): ReadonlyMap<string, DelayTerm> {
  const terms = new Map<string, DelayTerm>();
  for (const { ways, picture } of pairs)
    for (const t of [...(picture?.terms ?? []), ...ways.flatMap((w) => w.soundTerms)]) terms.set(t.key, t);
  return terms;
}

/** What of one pair is known otherwise without a measurement. */
export interface Dependent {
  readonly sourceId: string;
  readonly listenerId: string;
  readonly what: 'offset' | 'delay' | 'apart' | 'band' | 'noise';
  readonly unit: string;
  readonly withIt: Interval;
  readonly without: Interval;
  /** The pair's state, where it is another one without. */
  readonly state: { readonly withIt: State; readonly without: State } | null;
}

/** All that rests on a measurement: each pair that would be known otherwise if it were dropped. */
export function restsOn(rig: Rig, evaluation: Evaluation, measurementId: string): Dependent[] {
  const without = evaluate({ ...rig, measurements: rig.measurements.filter((m) => m.id !== measurementId) });
  return evaluation.pairs.flatMap((pair, i): Dependent[] => {
    const other = without.pairs[i]!;
    const [is, was] = [pair.ways[0], other.ways[0]];
    if (!is || !was) return [];
    const [first] = [
      { what: 'offset' as const, unit: 'ms', withIt: is.offset?.value, without: was.offset?.value },
      { what: 'delay' as const, unit: 'ms', withIt: is.delay.value, without: was.delay.value },
      { what: 'apart' as const, unit: 'ms', withIt: apartOf(pair), without: apartOf(other) },
      { what: 'band' as const, unit: 'Hz', withIt: passing(is), without: passing(was) },
      { what: 'noise' as const, unit: SCALE_UNITS[is.scale], withIt: floor(is), without: floor(was) },
    ].filter((c) => c.withIt && c.without && !isSame(c.withIt, c.without));
    if (!first) return [];
    const state =
      pair.verdict.state === other.verdict.state ? null : { withIt: pair.verdict.state, without: other.verdict.state };
    const { sourceId, listenerId } = pair;
    return [{ sourceId, listenerId, ...first, withIt: first.withIt!, without: first.without!, state }];
  });
}

const isSame = (a: Interval, b: Interval): boolean => a.low === b.low && a.nominal === b.nominal && a.high === b.high;
/** How long after the loudest way the next one comes, of those that are heard beside it. */
const apartOf = ({ ways }: Pair): Interval | undefined => ways.find((w) => w.afterFirst)?.afterFirst?.value;
const floor = ({ noiseDb }: ReceivedPath): Interval | undefined => (noiseDb === null ? undefined : exactly(noiseDb));
const passing = ({ band }: ReceivedPath): Interval => ({ low: band.lowHz, nominal: band.highHz, high: band.highHz });
