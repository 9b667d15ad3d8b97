import { type Text, textOf } from '#core/base/said/index.ts';
import { type LevelReading, reconcileDrift } from '#core/desk-tests/reconcile/index.ts';
import type { Measurement, Rig } from '#core/model/rig/index.ts';
import { type DelayTerm, difference, type SignedTerm, uncertain } from '#core/signal/index.ts';
import { bandsIn } from './apply-bands.ts';
import { clockOf, type Judged, type TakeRead, type TapCell } from './judge.ts';
import type { Players } from './players.ts';
import { say } from './sayings.ts';
import { type Base, inPlaceOf, MAX_LABEL, nameIn, type Taken } from './taken.ts';

/** A tap's times are good to about this, one standard deviation: a fifth of the test limit. */
const SD_MS = 0.05;
const SD_PPM = 1;
const MIN_PPM = 2;
const SURE_APART_MS = 1;

type DelayMeasurement = Extract<Measurement, { kind: 'delay' }>;

type Signed = readonly (readonly [terms: readonly DelayTerm[], sign: 1 | -1, atMs: number])[];

/**
 * Figures of the rig that readings determine: time between two paths of one source, delays as far as the joins allow,
 * clocks of recorders against each other, and bands. Only what agrees with the drawing is taken: what does not is explained
 * first. A band that is not as drawn is taken all the same, where nothing else is amiss: types have typical bands only.
 */
export function figuresOf(
  rig: Rig,
  { cells }: Judged,
  takes: readonly TakeRead[],
  players: Players,
  base: Base,
): Taken[] {
  const good = cells.filter((c) => c.read?.heard && c.time && c.disagreements.length === 0);
  const banded = cells.filter((c) => c.read?.heard && c.disagreements.every((d) => d.kind === 'band'));
  return [
    ...waysApart(rig, good, base),
    ...delays(rig, good, takes, players, base),
    ...clocks(rig, good, base),
    ...bandsIn(rig, banded, base),
  ];
}

/** A measurement of the figures that a signed sum of ways leaves open; null where it leaves none, or any more than once. */
export function measurementOf(
  cell: TapCell,
  signed: Signed,
  label: string,
  { takenAt, newId, sdMs = SD_MS }: Base,
): DelayMeasurement | null {
  const plus = signed.flatMap(([terms, sign]) => (sign === 1 ? terms : []));
  const minus = signed.flatMap(([terms, sign]) => (sign === -1 ? terms : []));
  const all = difference(plus, minus);
  const open = uncertain(all);
  if (open.length === 0 || open.some((t) => Math.abs(t.count) !== 1)) return null;
  const exact = all.filter((t: SignedTerm) => !open.includes(t)).reduce((ms, t) => ms + t.count * t.term.ms.nominal, 0);
  const read = signed.reduce((ms, [, sign, at]) => ms + sign * at, 0);
  return {
    kind: 'delay',
    id: newId(),
    label,
    takenAt,
    sourceId: cell.sourceId,
    listenerId: cell.listenerId,
    terms: open.map((t) => ({ figure: t.term.key, sign: t.count as 1 | -1 })),
    ms: { mean: thousandths(read - exact), sd: sdMs, count: 1 },
    offsetMs: thousandths(read),
  };
}

const thousandths = (x: number): number => Math.round(1000 * x) / 1000;
/** Which figures a measurement speaks of. */
const keyOf = (m: DelayMeasurement): string =>
  m.terms
    .map((t) => `${t.sign}${t.figure}`)
    .sort()
    .join();

/** The edit that takes a measurement in, in place of one that speaks of the very same figures; none where it is in, or refused. */
export function taken(rig: Rig, measurement: DelayMeasurement, says: Text): Taken[] {
  const before = rig.measurements.filter((m) => m.kind === 'delay' && keyOf(m) === keyOf(measurement));
  return inPlaceOf(rig, before, measurement, says, say.ms({ spread: measurement.ms.sd }));
}

/** A second way against the first needs no join: both are in one take, of one player. */
function waysApart(rig: Rig, cells: readonly TapCell[], base: Base): Taken[] {
  const seen = new Set<string>();
  return cells.flatMap((cell) => {
    const first = cell.time!.way;
    const others = cell.expected.ways.filter((w) => w !== first);
    return cell.read!.heard!.seconds.ways.flatMap(({ afterMs }) => {
      const matches = others.filter((w) => {
        const open = uncertain(difference(w.terms, first.terms));
        const half = open.reduce((ms, t) => ms + (t.term.ms.high - t.term.ms.low) / 2, SURE_APART_MS);
        return Math.abs(w.delayMs.nominal - first.delayMs.nominal - afterMs) <= half;
      });
      // Where two drawn ways would do, nothing says which.
      if (matches.length !== 1) return [];
      const says = say.reachesTwice({
        source: nameIn(rig.sources, cell.sourceId),
        listener: nameIn(rig.listeners, cell.listenerId),
      });
      const signed: Signed = [
        [matches[0]!.terms, 1, afterMs],
        [first.terms, -1, 0],
      ];
      const m = measurementOf(cell, signed, textOf(say.tap({ says })).slice(0, MAX_LABEL), base);
      if (!m || seen.has(keyOf(m))) return [];
      seen.add(keyOf(m));
      return taken(rig, m, say.msApart({ says, apart: Math.abs(afterMs).toFixed(1) }));
    });
  });
}

/** Delays alone, against another source or take, or both, whichever the joins allow. */
function delays(
  rig: Rig,
  cells: readonly TapCell[],
  takes: readonly TakeRead[],
  players: Players,
  base: Base,
): Taken[] {
  const of = (sourceId: string, listenerId: string) =>
    cells.find((c) => c.sourceId === sourceId && c.listenerId === listenerId);
  const player = (id: string) => players.find((p) => p.sourceId === id)!.playerId;
  const file = (id: string) => takes.find((t) => t.listenerId === id)!.fileId;
  const part = (c: TapCell, sign: 1 | -1) => [c.time!.way.terms, sign, c.read!.heard!.atMs] as const;
  const name = (c: TapCell) =>
    say.at({ source: nameIn(rig.sources, c.sourceId), listener: nameIn(rig.listeners, c.listenerId) });
  const seen = new Set<string>();
  const out: Taken[] = [];
  const add = (cell: TapCell, signed: Signed, says: Text) => {
    const m = measurementOf(cell, signed, textOf(say.tap({ says })).slice(0, MAX_LABEL), base);
    if (!m || seen.has(keyOf(m))) return;
    seen.add(keyOf(m));
    out.push(...taken(rig, m, say.ms2({ says, offset: m.offsetMs.toFixed(1).replace('-', '−') })));
  };
  for (const a of cells) {
    const known = a.time?.known;
    const other = cells.find(
      (c) => c.listenerId === a.listenerId && c.sourceId !== a.sourceId && player(c.sourceId) === player(a.sourceId),
    );
    if (known === 'between-sources' && other)
      add(
        a,
        [part(a, 1), part(other, -1)],
        say.laterThanThere({ pair: name(a), source: nameIn(rig.sources, other.sourceId) }),
      );
    const there = cells.find(
      (c) => c.sourceId === a.sourceId && c.listenerId !== a.listenerId && file(c.listenerId) === file(a.listenerId),
    );
    if (known === 'between-takes' && there)
      add(
        a,
        [part(a, 1), part(there, -1)],
        say.laterThanAt({ pair: name(a), listener: nameIn(rig.listeners, there.listenerId) }),
      );
  }
  const [s0, l0] = [mostOf(cells, (c) => c.sourceId), mostOf(cells, (c) => c.listenerId)];
  const corner = s0 !== null && l0 !== null ? of(s0, l0) : undefined;
  if (!corner) return out;
  for (const a of cells) {
    if (a.sourceId === s0 || a.listenerId === l0 || a.time?.known !== 'double') continue;
    const [row, column] = [of(a.sourceId, l0!), of(s0!, a.listenerId)];
    if (row && column)
      add(
        a,
        [part(a, 1), part(row, -1), part(column, -1), part(corner, 1)],
        say.vsAndVs({ pair: name(a), source: nameIn(rig.sources, s0!), listener: nameIn(rig.listeners, l0!) }),
      );
  }
  return out;
}

function mostOf(cells: readonly TapCell[], keyOf: (c: TapCell) => string): string | null {
  const counts = new Map<string, number>();
  for (const c of cells) counts.set(keyOf(c), (counts.get(keyOf(c)) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? null;
}

/** Clocks that count takes, against each other: by what they make of the same players. */
function clocks(rig: Rig, cells: readonly TapCell[], base: Base): Taken[] {
  const byClock = new Map<string, TapCell[]>();
  for (const c of cells) {
    const clock = clockOf(c.expected);
    if (clock) byClock.set(clock, [...(byClock.get(clock) ?? []), c]);
  }
  const [first, ...others] = [...byClock].sort((a, b) => b[1].length - a[1].length);
  if (!first) return [];
  return others.flatMap(([clockId, own]) => {
    const diffs = own.flatMap((c) => {
      const at = first[1].find((o) => o.sourceId === c.sourceId);
      const [ppm, there] = [c.read!.heard!.ppm, at?.read?.heard?.ppm ?? null];
      return ppm !== null && there !== null ? [ppm - there] : [];
    });
    const ppm = [...diffs].sort((a, b) => a - b)[diffs.length >> 1] ?? 0;
    if (Math.abs(ppm) < MIN_PPM) return [];
    const id = base.newId();
    const read = reconcileDrift(rig, {
      id,
      label: textOf(say.tapTestClocks()),
      takenAt: base.takenAt,
      deviceId: clockId,
      againstDeviceId: first[0],
      ppm,
      sdPpm: SD_PPM,
      count: diffs.length,
    });
    const isIn = rig.measurements.some(
      (m) =>
        m.kind === 'drift' && m.deviceId === clockId && m.againstDeviceId === first[0] && m.takenAt === base.takenAt,
    );
    if (isIn || !read.ok) return [];
    return [
      {
        id,
        spread: say.ppm({ spread: SD_PPM }),
        edit: read.edit,
        says: say.runsPpmFastAgainst({
          clock: nameIn(rig.devices, clockId),
          ppm: Math.abs(ppm).toFixed(0),
          fast: ppm > 0 ? 'fast' : 'slow',
          other: nameIn(rig.devices, first[0]),
        }),
      },
    ];
  });
}

const SD_LEVEL_DB = 1;
/** Where its delay moved: 90 of a hundred are within 2.6 dB. */
const SD_LEVEL_WANDERING_DB = 1.6;
/** Nearer than this a level is as drawn. */
const AS_DRAWN_DB = 1.5;

/**
 * Level of a source in a take, as a level there: the drawing's, corrected by the deviation of its reading. Null where
 * it agrees. The player's own volume cancels, so the source's own level is not determined.
 */
export function levelOf(rig: Rig, cell: TapCell, { takenAt, newId }: Base): LevelReading | null {
  const first = cell.expected.ways[0];
  if (!first || cell.levelOffDb === null || Math.abs(cell.levelOffDb) < AS_DRAWN_DB) return null;
  return {
    id: newId(),
    takenAt,
    label: `tap: ${nameIn(rig.sources, cell.sourceId)} at ${nameIn(rig.listeners, cell.listenerId)}`.slice(
      0,
      MAX_LABEL,
    ),
    sourceId: cell.sourceId,
    listenerId: cell.listenerId,
    levelDb: first.levelDb + cell.levelOffDb,
    sdDb: cell.read?.heard?.wander ? SD_LEVEL_WANDERING_DB : SD_LEVEL_DB,
    count: 1,
    floor: null,
  };
}
