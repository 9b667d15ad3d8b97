import {
  endsThat,
  findDevice,
  findPort,
  findSetting,
  findTypes,
  hearsAir,
  listenerIn,
  placesOf,
  portOf,
  type Rig,
  type SettingChange,
  settingAt,
  settingsOf,
} from '#core/model/rig/index.ts';
import {
  type Evaluation,
  loopLimit,
  type Pair,
  type ReceivedPath,
  toleranceIdOf,
  toleranceOf,
} from '#core/signal/index.ts';

/**
 * What a change to the settings costs, in points: one is a knob that is turned. Typical of how one weighs such things;
 * they are listed with every suggestion, so that anyone who weighs them differently sees why.
 */
const POINTS = {
  /** A setting to be changed. */
  turn: 1,
  /** A level fully down loses its former value; a mute keeps it. */
  down: 0.5,
  /** A button on what someone wears or speaks into: pressed in passing. */
  worn: 1,
  /** Someone at the far side of a call has to do it. */
  farSide: 4,
  /** It is held or pressed while one speaks: it does not stay. */
  keying: 8,
  /** It stands otherwise in another moment: two places to keep. */
  moment: 2,
  /** Every setting between the one that is closed and where it was heard: near it, it touches least. */
  away: 0.02,
  /** Someone hears it no more, who may, or of whom nothing is said. */
  lostMay: 1.5,
  lost: 0.5,
  /** Someone hears it now who was to hear nothing of it; where it goes out to others, twice. */
  added: 1,
  /** A wanted source: each converter pair, dB of distance to the noise under 60, ms out of tolerance, dB of another level. */
  conversion: 1,
  noisePerDb: 0.2,
  syncPerMs: 0.02,
  levelPerDb: 0.3,
  /** Its level cannot be set without another one’s any more. */
  fader: 2,
  /** Its peaks clip. */
  clips: 3,
  /** A loop begins to ring. */
  rings: 4,
  /** It is much louder in someone’s ears. */
  louder: 3,
} as const;
/** No one aspect of one pair counts for more. */
const MAX_EACH = 5;
const CLEAN_DB = 60;
/** Less is not heard as another level, or as louder ears. */
const LEVEL_DB = 3;
const EARS_DB = 6;
const LOOP_DB = 1;

export type CostKind =
  | 'turn'
  | 'down'
  | 'worn'
  | 'far-side'
  | 'keying'
  | 'moment'
  | 'away'
  | 'lost'
  | 'added'
  | 'conversions'
  | 'noise'
  | 'sync'
  | 'level'
  | 'fader'
  | 'clips'
  | 'rings'
  | 'louder';

/** One reason why a set of settings costs what it costs. */
export interface Cost {
  readonly kind: CostKind;
  readonly points: number;
  /** The setting that it is about; or the pair, with by how much it is worse, in dB, ms or converter pairs. */
  readonly setting?: SettingChange;
  readonly pair?: { readonly sourceId: string; readonly listenerId: string };
  readonly by?: number;
}

export const totalOf = (costs: readonly Cost[]): number => costs.reduce((sum, c) => sum + c.points, 0);

/** Cost of settings by themselves, whatever their effect. */
export function turningPrices(rig: Rig): (change: SettingChange, away: number) => Cost[] {
  const placeOf = placesOf(rig);
  return (change, away) => priceOfTurning(rig, placeOf, change, away);
}

type PlaceOf = ReturnType<typeof placesOf>;

function priceOfTurning(rig: Rig, placeOf: PlaceOf, change: SettingChange, away: number): Cost[] {
  const types = findTypes(rig);
  const { deviceId, settingId, value } = change;
  const device = findDevice(rig, deviceId)!;
  const type = types.get(device.typeId)!;
  const spec = settingsOf(type).get(settingId)!;
  const costs: Cost[] = [{ kind: 'turn', points: POINTS.turn, setting: change }];
  const more = (kind: CostKind, points: number, is: boolean) => {
    if (is) costs.push({ kind, points, setting: change });
  };
  more('down', POINTS.down, spec.kind === 'gain' && spec.offAtMin && value === spec.min);
  more('worn', POINTS.worn, spec.kind === 'mute' && hearsAir(type));
  more('keying', POINTS.keying, spec.purpose === 'keying');
  const inMoments = rig.moments.some((m) =>
    m.settings.some((s) => s.deviceId === deviceId && s.settingId === settingId),
  );
  more('moment', POINTS.moment, inMoments);
  more('far-side', POINTS.farSide, actsFarAway(rig, placeOf, deviceId, settingId));
  more('away', POINTS.away * away, away > 0);
  return costs;
}

/** Whether a setting is made by the remote person: at the far end of a call, or on a device there. */
function actsFarAway(rig: Rig, placeOf: PlaceOf, deviceId: string, settingId: string): boolean {
  const type = findTypes(rig).get(findDevice(rig, deviceId)!.typeId)!;
  const far = new Set(endsThat(type, 'far-side').map((p) => p.id));
  if (far.size > 0)
    return type.inside.some(
      (w) => far.has(portOf(w.from)) && w.stages.some((s) => 'setting' in s && s.setting === settingId),
    );
  const place = placeOf({ deviceId, portId: type.ports[0]?.id ?? '' });
  return place !== null && place !== 'here';
}

/** How well one way serves a source: what counts against it. */
interface Quality {
  readonly conversions: number;
  readonly underCleanDb: number;
  readonly outMs: number;
}

function qualityOf(rig: Rig, pair: Pair, way: ReceivedPath): Quality {
  const listener = listenerIn(rig, pair.listenerId);
  const { earlyMs, lateMs } = toleranceOf(toleranceIdOf(rig, listener));
  const offMs = way.offset?.value.nominal ?? 0;
  return {
    conversions: way.conversions,
    underCleanDb: way.noiseDb === null ? 0 : Math.max(0, CLEAN_DB - (way.levelDb.nominal - way.noiseDb)),
    outMs: Math.max(0, offMs - lateMs, earlyMs - offMs),
  };
}

const BEST: Quality = { conversions: 0, underCleanDb: 0, outMs: 0 };

/** The best of every aspect that a pair had, over the ways that could have been kept. */
function bestOf(rig: Rig, pair: Pair): Quality {
  const all = pair.ways.filter((w) => w.levelDb.nominal > pair.ways[0]!.levelDb.nominal - KEPT_DB);
  if (all.length === 0) return BEST;
  // Of one way, not a bit of each: the one that costs least.
  return all.map((w) => qualityOf(rig, pair, w)).reduce((a, b) => (pointsOf(b) < pointsOf(a) ? b : a));
}
/** A way that is quieter than the loudest by more was no way to hear it. */
const KEPT_DB = 20;

const pointsOf = ({ conversions, underCleanDb, outMs }: Quality): number =>
  conversions * POINTS.conversion + underCleanDb * POINTS.noisePerDb + outMs * POINTS.syncPerMs;

/**
 * Side effects for anyone: pairs lost or arriving unasked, levels, noise, sync, conversions, faders of
 * their own, headroom, loops, loudness at ears. Pairs that were wrong are held against the best way that they had.
 */
export function priceOfOutcome(rig: Rig, before: Evaluation, after: Evaluation): Cost[] {
  const costs: Cost[] = [];
  before.pairs.forEach((was, i) => {
    const is = after.pairs[i]!;
    if (is !== was && is.ways !== was.ways) costs.push(...outcomeOf(rig, was, is));
  });
  costs.push(...fadersLost(rig, before, after));
  const rings = ringing(before);
  for (const [key, gainDb] of ringing(after))
    if (gainDb > (rings.get(key) ?? Number.NEGATIVE_INFINITY) + LOOP_DB)
      costs.push({ kind: 'rings', points: POINTS.rings });
  return costs;
}

function outcomeOf(rig: Rig, was: Pair, is: Pair): Cost[] {
  const pair = { sourceId: was.sourceId, listenerId: was.listenerId };
  const [old, now] = [was.ways[0], is.ways[0]];
  const wanted = was.want === 'must' || was.want === 'may';
  const costs: Cost[] = [];
  const put = (kind: CostKind, points: number, by?: number) => {
    if (points > 1e-9) costs.push({ kind, points: Math.min(MAX_EACH, points), pair, ...(by !== undefined && { by }) });
  };
  if (was.want === 'must-not') return costs;
  if (old && !now) put('lost', was.want === 'may' ? POINTS.lostMay : was.want === 'must' ? 0 : POINTS.lost);
  if (!old && now && !wanted) put('added', POINTS.added * (goesOut(rig, pair.listenerId) ? 2 : 1));
  if (now && old && now.scale === 'spl') {
    const upDb = now.levelDb.nominal - old.levelDb.nominal;
    if (upDb > EARS_DB) put('louder', POINTS.louder, upDb);
  }
  if (!now || !wanted) return costs;
  const had = bestOf(rig, was);
  const has = qualityOf(rig, is, now);
  put(
    'conversions',
    POINTS.conversion * Math.max(0, has.conversions - had.conversions),
    has.conversions - had.conversions,
  );
  put(
    'noise',
    POINTS.noisePerDb * Math.max(0, has.underCleanDb - had.underCleanDb),
    has.underCleanDb - had.underCleanDb,
  );
  put('sync', POINTS.syncPerMs * Math.max(0, has.outMs - had.outMs), has.outMs - had.outMs);
  if (old) {
    const byDb = Math.abs(now.levelDb.nominal - old.levelDb.nominal);
    put('level', POINTS.levelPerDb * Math.max(0, byDb - LEVEL_DB), now.levelDb.nominal - old.levelDb.nominal);
  }
  const clips = (way: ReceivedPath | undefined) => way !== undefined && way.headroomDb !== null && way.headroomDb < 0;
  if (clips(now) && !clips(old)) put('clips', POINTS.clips);
  return costs;
}

/** What is heard there is heard by others at once. */
function goesOut(rig: Rig, listenerId: string): boolean {
  const { sound } = listenerIn(rig, listenerId);
  const does = findPort(rig, findTypes(rig), sound)?.does;
  return does === 'stream' || does === 'on-air' || does === 'room-ears';
}

/** Wanted sources whose level could be set apart from all others where they are heard, and cannot any more. */
function fadersLost(rig: Rig, before: Evaluation, after: Evaluation): Cost[] {
  const rows = rowsOf(before);
  return [...rows].flatMap(([listenerId, at]): Cost[] => {
    if (at.every((i) => before.pairs[i]!.ways === after.pairs[i]!.ways)) return [];
    const had = fadersAt(rig, before, listenerId, at);
    const has = fadersAt(rig, after, listenerId, at);
    return at.flatMap((i): Cost[] => {
      const { sourceId, want, ways } = after.pairs[i]!;
      const lost = ways.length > 0 && (want === 'must' || want === 'may') && had.has(sourceId) && !has.has(sourceId);
      return lost ? [{ kind: 'fader', points: POINTS.fader, pair: { sourceId, listenerId } }] : [];
    });
  });
}

/** The pairs of each listener, by where they stand among all. */
function rowsOf({ pairs }: Evaluation): Map<string, number[]> {
  const rows = new Map<string, number[]>();
  pairs.forEach(({ listenerId }, i) => {
    const row = rows.get(listenerId);
    if (row) row.push(i);
    else rows.set(listenerId, [i]);
  });
  return rows;
}

const faders = new WeakMap<Evaluation, Map<string, ReadonlySet<string>>>();

/** Sources of a listener with a level on their way that no other one of them passes. */
function fadersAt(rig: Rig, evaluation: Evaluation, listenerId: string, at: readonly number[]): ReadonlySet<string> {
  const known = faders.get(evaluation) ?? new Map<string, ReadonlySet<string>>();
  faders.set(evaluation, known);
  let found = known.get(listenerId);
  if (!found) {
    const types = findTypes(rig);
    const isLevel = (key: string) => {
      const { deviceId, settingId } = settingAt(key);
      return findSetting(rig, types, deviceId, settingId)?.kind === 'gain';
    };
    const passed = new Map<string, number>();
    const row = at.map((i) => evaluation.pairs[i]!).filter((p) => p.ways.length > 0);
    for (const { ways } of row)
      for (const key of new Set(ways.flatMap((w) => w.settings))) passed.set(key, (passed.get(key) ?? 0) + 1);
    const own = row.filter(({ ways }) => ways[0]!.settings.some((key) => passed.get(key) === 1 && isLevel(key)));
    found = new Set(own.map((p) => p.sourceId));
    known.set(listenerId, found);
  }
  return found;
}

/** Loops over what rings, by the devices that they go through. */
const ringing = ({ loops }: Evaluation): Map<string, number> =>
  new Map(
    loops
      .filter((l) => l.together.gainDb >= loopLimit(l.together).ringsDb)
      .map((l) => [[...l.deviceIds].sort().join('+'), l.together.gainDb]),
  );
