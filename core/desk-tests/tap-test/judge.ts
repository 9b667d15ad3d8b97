import { type Join, type TuneHeard, type TuneReading, wanderMs, whatIsKnown } from '#core/desk-tests/tunes/index.ts';
import type { PlanCell, Rig } from '#core/model/rig/index.ts';
import { type Reading, restsOf, type Ties } from './apart.ts';
import { type Disagreement, disagreementsOf, LIKE_DB, SURE_TIME_MS } from './disagree.ts';
import { type AllExpected, cellKey, type Expected, type ExpectedWay } from './expected.ts';
import type { Players } from './players.ts';

/** One listener's take, read. */
export interface TakeRead {
  readonly listenerId: string;
  /** Takes of one file run on one clock, and began at one moment. */
  readonly fileId: string;
  readonly tunes: readonly TuneReading[];
}

/** How a time is known: alone, against another source at the same take, the same source at another take, or neither. */
export type TimeKnown = 'alone' | 'between-sources' | 'between-takes' | 'double';

/** A source in a take: what was wanted, expected and read. */
export interface TapCell {
  readonly sourceId: string;
  readonly listenerId: string;
  readonly want: PlanCell['want'] | null;
  readonly expected: Expected;
  /** Null where its tune was not looked for: it has none. */
  readonly read: TuneReading | null;
  /** Under the loudest that was read in the take; null where it was not found. */
  readonly underDb: number | null;
  readonly toPlan: 'as-wanted' | 'lacking' | 'unwanted' | 'open';
  readonly disagreements: readonly Disagreement[];
  /** Later (or earlier) than expected once the unknown start times are fitted so that the fewest readings disagree. */
  readonly time: {
    readonly offMs: number;
    readonly toleranceMs: number;
    readonly known: TimeKnown;
    /** The drawn way that the strongest arrival was held against. */
    readonly way: ExpectedWay;
  } | null;
  readonly levelOffDb: number | null;
  readonly clockOffPpm: number | null;
}

export interface Judged {
  readonly cells: readonly TapCell[];
  /** How far readings and rig are apart: the sum of all weights. */
  readonly apart: number;
  /** Joins that would determine more times. */
  readonly lacking: number;
}

/** What is known of players and takes beside their tunes, where one page plays and records. */
export interface Known {
  /** Levels are those of the path itself: nothing was turned up or down on either end. */
  readonly levels: boolean;
  /** No player or take began further than this from when it says, ms. */
  readonly startsWithinMs: number;
  /** Resolution of the times, ms. */
  readonly timesToMs: number;
}

/**
 * Lays what was read over what the rig has one expect.
 * @param given  where absent, nothing is known of how loud anything was turned, or when it began
 */
export function judge(
  rig: Rig,
  expected: AllExpected,
  takes: readonly TakeRead[],
  players: Players,
  given?: Known,
): Judged {
  const joins = joinsOf(takes, players);
  const known = whatIsKnown(
    players.map((p) => p.sourceId),
    takes.map((t) => t.listenerId),
    joins,
  );
  const wants = new Map(rig.plan.map((c) => [cellKey(c.sourceId, c.listenerId), c.want]));
  const raw = takes.flatMap((take) =>
    players.map((player) => {
      const key = cellKey(player.sourceId, take.listenerId);
      return {
        key,
        take,
        player,
        expected: expected.get(key)!,
        read: take.tunes.find((t) => t.id === player.tune) ?? null,
      };
    }),
  );
  const heard = raw.filter((c) => c.read?.heard && c.expected.ways.length > 0);
  const everyone = raw.map((r) => r.expected);
  const tolerances = heard.map(
    (c) => wanderMs(c.read!.heard!) + toleranceOf(c.expected, everyone) + (given?.timesToMs ?? 0),
  );
  const ties: Ties = {
    playerOf: (id) => players.find((p) => p.sourceId === id)!.playerId,
    fileOf: (id) => takes.find((t) => t.listenerId === id)!.fileId,
    isExact: (sourceId, takeId) => isExactPath(joins, sourceId, takeId),
  };
  const rests = (offs: readonly number[], by: Ties, tolerance?: readonly number[], within?: number): number[] =>
    restsOf(
      heard.map(
        (c, i): Reading => ({
          sourceId: c.player.sourceId,
          takeId: c.take.listenerId,
          off: offs[i]!,
          ...(tolerance ? { tolerance: tolerance[i]! } : {}),
        }),
      ),
      by,
      within,
    );
  const byKey = (values: readonly number[]) => new Map(heard.map((c, i) => [c.key, values[i]!]));
  const late = timesOff(
    heard.map((c) => ({ atMs: c.read!.heard!.atMs, expected: c.expected })),
    (offs) => rests(offs, ties, tolerances, given?.startsWithinMs),
  );
  const times = new Map(heard.map((c, i) => [c.key, { ...late[i]!, toleranceMs: tolerances[i]! }]));
  // How loud a player is turned up, and how a take is, is known of none; clocks run on whatever was pressed together.
  const loose: Ties = { ...ties, isExact: () => false };
  const levels = byKey(
    given?.levels
      ? heard.map((c) => levelOff(c.read!.heard!.gainDb, c.expected.ways[0]!))
      : rests(
          heard.map((c) => c.read!.heard!.gainDb - c.expected.ways[0]!.levelDb),
          { ...loose, playerOf: (id) => id, fileOf: (id) => id },
        ),
  );
  // Paths by different clocks drift apart in one take; where either may be the strongest, no drift is reported.
  const clocked = heard.filter((c) => clockOf(c.expected) !== null && c.read!.heard!.ppm !== null);
  const clockRests = restsOf(
    clocked.map(
      (c): Reading => ({
        sourceId: c.player.sourceId,
        takeId: clockOf(c.expected)!,
        off: c.read!.heard!.ppm!,
      }),
    ),
    { ...loose, fileOf: (id) => id },
  );
  const clocks = new Map(clocked.map((c, i) => [c.key, clockRests[i]!]));
  const cells = raw.map((c): TapCell => {
    const { sourceId } = c.player;
    const { listenerId } = c.take;
    const strongest = strongestOf(c.take);
    const found = c.read?.heard ?? null;
    const off = times.get(c.key);
    const time = off ? { ...off, known: knownOf(known, sourceId, listenerId, players, takes) } : null;
    const base = {
      sourceId,
      listenerId,
      want: wants.get(c.key) ?? null,
      expected: c.expected,
      read: c.read,
      underDb: found && strongest ? strongest.gainDb - found.gainDb : null,
      time,
      levelOffDb: levels.get(c.key) ?? null,
      clockOffPpm: clocks.get(c.key) ?? null,
    };
    const strongestExpected =
      strongest && expected.get(cellKey(players.find((p) => p.tune === strongest.id)?.sourceId ?? '', listenerId));
    return {
      ...base,
      toPlan: toPlanOf(base),
      disagreements: disagreementsOf(base, strongestExpected?.ways[0] ?? null),
    };
  });
  return { cells, apart: cells.reduce((sum, c) => sum + apartOf(c), 0), lacking: known.lacking };
}

/** How far apart things are, and which way they point, is rarely drawn: so much more or less through air, dB. */
const AIR_DB = 12;

/** How far a known level is out of what is drawn: 0 within it. */
function levelOff(db: number, { levelsDb: { low, high }, throughAir }: ExpectedWay): number {
  const open = throughAir ? AIR_DB : 0;
  return db > high + open ? db - high - open : db < low - open ? db - low + open : 0;
}

const CHOICES = 3;
/**
 * Lateness of each reading. Of paths with similar level, the strongest in the take may be the drawing's second: starts are fitted to the
 * first paths, then each reading is matched with the nearest path, and starts are fitted again.
 */
function timesOff(
  heard: readonly { readonly atMs: number; readonly expected: Expected }[],
  rests: (offs: readonly number[]) => number[],
): { offMs: number; way: ExpectedWay }[] {
  const ways = heard.map(({ expected }) =>
    expected.ways.filter((w) => expected.ways[0]!.levelDb - w.levelDb <= LIKE_DB),
  );
  const chosen = ways.map((w) => w[0]!);
  let off: number[] = [];
  for (let choice = 0; choice < CHOICES; choice++) {
    off = rests(heard.map((h, i) => h.atMs - chosen[i]!.delayMs.nominal));
    if (choice === CHOICES - 1) break;
    ways.forEach((own, i) => {
      const late = off[i]! + chosen[i]!.delayMs.nominal;
      const distance = (w: ExpectedWay) => Math.abs(late - w.delayMs.nominal);
      chosen[i] = own.reduce((best, w) => (distance(w) < distance(best) ? w : best), chosen[i]!);
    });
  }
  return off.map((offMs, i) => ({ offMs, way: chosen[i]! }));
}

/** Whose clock counts what comes, where all that may be the strongest agree; null where they do not. */
export function clockOf({ ways }: Expected): string | null {
  const like = ways.filter((w) => ways[0]!.levelDb - w.levelDb <= LIKE_DB);
  return like.length > 0 && like.every((w) => w.clock === like[0]!.clock) ? like[0]!.clock : null;
}

export const apartOf = ({ disagreements }: TapCell): number => disagreements.reduce((sum, d) => sum + d.weight, 0);

/** Players that play several sources, and files with several tracks. */
function joinsOf(takes: readonly TakeRead[], players: Players): Join[] {
  const joins: Join[] = [];
  players.forEach((p, i) => {
    const other = players.slice(0, i).find((o) => o.playerId === p.playerId);
    if (other) joins.push({ kind: 'player', sourceIds: [other.sourceId, p.sourceId] });
    for (const takeId of p.knownAt) joins.push({ kind: 'path', sourceId: p.sourceId, takeId });
  });
  takes.forEach((t, i) => {
    const other = takes.slice(0, i).find((o) => o.fileId === t.fileId);
    if (other) joins.push({ kind: 'file', takeIds: [other.listenerId, t.listenerId] });
  });
  return joins;
}

const isExactPath = (joins: readonly Join[], sourceId: string, takeId: string): boolean =>
  joins.some((j) => j.kind === 'path' && j.sourceId === sourceId && j.takeId === takeId);

function knownOf(
  known: ReturnType<typeof whatIsKnown>,
  sourceId: string,
  listenerId: string,
  players: Players,
  takes: readonly TakeRead[],
): TimeKnown {
  if (known.delay(sourceId, listenerId)) return 'alone';
  if (players.some((p) => p.sourceId !== sourceId && known.betweenSources(sourceId, p.sourceId)))
    return 'between-sources';
  return takes.some((t) => t.listenerId !== listenerId && known.betweenTakes(listenerId, t.listenerId))
    ? 'between-takes'
    : 'double';
}

const strongestOf = (take: TakeRead): (TuneHeard & { id: number }) | null =>
  take.tunes.reduce<(TuneHeard & { id: number }) | null>(
    (best, t) => (t.heard && (!best || t.heard.gainDb > best.gainDb) ? { ...t.heard, id: t.id } : best),
    null,
  );

/**
 * By how much a time may be off and agree all the same: the spread of figures that are not in every way to the take, nor
 * in every way of the source; what is in all of them goes into the starts.
 */
function toleranceOf(own: Expected, all: readonly Expected[]): number {
  const everywhere = (others: readonly Expected[]) => {
    const counts = new Map<string, number>();
    const there = others.filter((o) => o.ways.length > 0);
    for (const o of there)
      for (const t of new Set(o.ways[0]!.terms.map((x) => x.key))) counts.set(t, (counts.get(t) ?? 0) + 1);
    return (key: string) => counts.get(key) === there.length;
  };
  const atTake = everywhere(all.filter((o) => o.listenerId === own.listenerId));
  const ofSource = everywhere(all.filter((o) => o.sourceId === own.sourceId));
  return own.ways[0]!.terms.reduce(
    (ms, t) =>
      t.kind === 'typical' && !atTake(t.key) && !ofSource(t.key)
        ? ms + Math.max(t.ms.high - t.ms.nominal, t.ms.nominal - t.ms.low)
        : ms,
    SURE_TIME_MS,
  );
}

function toPlanOf({ want, read, expected }: Pick<TapCell, 'want' | 'read' | 'expected'>): TapCell['toPlan'] {
  if (!read) return 'open';
  const found = read.word === 'found';
  if (want === 'must')
    return found ? 'as-wanted' : read.word === 'perhaps' || expected.ways.some((w) => w.heldBack) ? 'open' : 'lacking';
  if (want === 'must-not') return found ? 'unwanted' : 'as-wanted';
  return 'as-wanted';
}
