import { memoized } from '#core/base/memo/index.ts';
import { listOf } from '#core/base/said/index.ts';
import { portKey, settingAt, settingOf } from '#core/model/rig/index.ts';
import { dbFromPower, powerFromDb } from '#core/model/units/index.ts';
import {
  deviceName,
  type OpenChannel,
  openChannels,
  type Pair,
  type ReceivedPath,
  rolesOf,
  SCALE_UNITS,
} from '#core/signal/index.ts';
import { type Context, type Draft, type Finding, type Fix, type Rule, rule, setFix } from './finding.ts';
import { say } from './sayings.ts';

/** Speech this far below competing sound can't be followed, dB; this far above, it is followed without effort. */
const MASKED_DB = 0;
const EASY_DB = 8;
/** Where a fix puts it: in the middle of the usual 8 to 15 dB. */
const AIM_DB = 11;
/** The band that carries most of speech intelligibility, Hz. */
const SPEECH_HZ = [500, 4000] as const;
/** Signal-to-noise that a voice should have where it is recorded, streamed or heard, dB. */
const CLEAN_DB = 40;
/** A telephone or a two-way radio carries no more than this, and no one expects it (typical). */
const NARROW_HZ = 4500;
const CLEAN_NARROW_DB = 25;
/** What an unused input may take of that. */
const MAY_COST_DB = 6;
/** With this much signal-to-noise, what an open input adds is inaudible, dB. */
const SPOTLESS_DB = 55;

/** One listener who is to understand a voice: the voice, and what sounds with it. */
interface Speech {
  readonly pair: Pair;
  readonly way: ReceivedPath;
  readonly others: readonly { readonly pair: Pair; readonly way: ReceivedPath }[];
}

const isVoice = (role: string): boolean => role.endsWith('voice');

/** Whose voices a listener has to understand: those that are wanted; without a plan, in a mix or a room, all that come. */
const speechAt = memoized((context: Context): readonly Speech[] => findSpeech(context));

function findSpeech({ rig, evaluation }: Context): Speech[] {
  const roles = rolesOf(rig);
  const isVoiceAt = new Map(rig.sources.map((s) => [s.id, isVoice(roles.source(s))]));
  const sources = new Map(rig.sources.map((s) => [s.id, s]));
  const listeners = new Map(rig.listeners.map((l) => [l.id, l]));
  const wishes = new Set(
    rig.plan.filter((c) => c.underVoiceDb !== undefined).map((c) => `${c.sourceId}>${c.listenerId}`),
  );
  const planned = new Set(rig.plan.map((c) => c.listenerId));
  const heard = new Map<string, Pair[]>();
  for (const pair of evaluation.pairs) {
    if (pair.ways.length === 0) continue;
    const there = heard.get(pair.listenerId);
    if (there) there.push(pair);
    else heard.set(pair.listenerId, [pair]);
  }
  return [...heard].flatMap(([listenerId, pairs]) => {
    const listener = listeners.get(listenerId)!;
    const role = roles.listener(listener);
    // Tracks are balanced afterwards.
    if (role === 'track') return [];
    // A plan decides where there is one; without a plan, every voice is meant to be understood.
    const mixed = !planned.has(listenerId) && (role === 'mix' || role === 'room' || role === 'far-ears');
    // People take turns; and how far under a voice something is wanted is judged by that wish.
    const besides = pairs.filter((p) => !isVoiceAt.get(p.sourceId) && !wishes.has(`${p.sourceId}>${listenerId}`));
    return pairs.flatMap((pair): Speech[] => {
      const source = sources.get(pair.sourceId)!;
      const wanted = pair.want === 'must' || mixed;
      if (!wanted || !isVoiceAt.get(pair.sourceId) || roles.isOwn(source, listener)) return [];
      const way = pair.ways[0]!;
      const others = besides.map((p) => ({ pair: p, way: p.ways[0]! })).filter((o) => o.way.scale === way.scale);
      return [{ pair, way, others }];
    });
  });
}

/** Share of a source's sound in the speech band, after the path's bandwidth: octaves in the band over all octaves. */
function shareInSpeech({ band }: ReceivedPath): number {
  const [low, high] = SPEECH_HZ;
  const overlap = Math.log2(Math.min(high, band.highHz) / Math.max(low, band.lowHz));
  return Math.max(0, Math.min(1, overlap / Math.log2(high / low)));
}

/** The sum of what sounds with a voice where speech is, dB; minus infinity for nothing. */
const sumOf = (others: Speech['others'], end: 'low' | 'nominal' | 'high'): number =>
  dbFromPower(others.reduce((sum, { way }) => sum + shareInSpeech(way) * powerFromDb(way.levelDb[end]), 0));

function masked(
  context: Context,
): { speech: Speech; overDb: number; atMostDb: number; loudest: Speech['others'][number] }[] {
  return speechAt(context).flatMap((speech) => {
    const { way, others } = speech;
    if (others.length === 0) return [];
    const overDb = way.levelDb.nominal - sumOf(others, 'nominal');
    const atMostDb = way.levelDb.high - sumOf(others, 'low');
    if (overDb >= MASKED_DB && atMostDb >= EASY_DB) return [];
    const loudest = others.reduce((a, b) => (b.way.levelDb.nominal > a.way.levelDb.nominal ? b : a));
    return [{ speech, overDb, atMostDb, loudest }];
  });
}

const at = ({ sourceId, listenerId }: Pair): string => `${sourceId}>${listenerId}`;

/** Levels along a path, changed by this many dB as far as steps and stops of the controls allow. */
function turned(context: Context, keys: readonly string[], byDb: number): Fix[] {
  return keys.flatMap((key) => {
    const { deviceId, settingId } = settingAt(key);
    const box = context.box(deviceId);
    const spec = box.setting(settingId)?.spec;
    if (spec?.kind !== 'gain') return [];
    const now = settingOf(box.device, spec).value as number;
    const value = Number((Math.round((now + byDb - spec.min) / spec.step) * spec.step + spec.min).toFixed(6));
    // A level at its lowest mark is shut: that is no balance.
    const lowest = spec.offAtMin ? spec.min + spec.step : spec.min;
    return value < lowest || value > spec.max || value === now ? [] : setFix(box, spec.id, value);
  });
}

/** Several knobs at once, as one step. */
const together = (fixes: readonly Fix[]): Fix[] =>
  fixes.length === 0
    ? []
    : [
        {
          label: listOf(
            'and',
            fixes.map((f) => f.label),
          ),
          changes: fixes.flatMap((f) => f.changes),
          edit: { kind: 'batch', edits: fixes.map((f) => f.edit) },
        },
      ];

interface Lowered {
  readonly fixes: readonly Fix[];
  /** Whether every way of what masks the voice has a control of its own. */
  readonly all: boolean;
}

/**
 * Every way of what masks a voice brought under it, each by the control nearest to the listener that no voice there
 * passes; a control that lies on several of them serves all.
 */
function lowered(context: Context, { others }: Speech, voiceDb: number, held: ReadonlySet<string>): Lowered {
  const aimDb = voiceDb - AIM_DB - dbFromPower(Math.max(1, others.length));
  const by = new Map<string, number>();
  let all = true;
  for (const w of others.flatMap((o) => o.pair.ways)) {
    const overDb = w.levelDb.nominal - aimDb;
    const already = Math.max(0, ...w.settings.map((s) => by.get(s) ?? 0));
    if (overDb <= already) continue;
    const knobs = w.settings.filter((s) => !held.has(s)).reverse();
    const knob = knobs.find((s) => by.has(s) || turned(context, [s], -overDb).length > 0);
    if (knob) by.set(knob, Math.max(by.get(knob) ?? 0, overDb));
    else all = false;
  }
  return { fixes: [...by].flatMap(([key, db]) => turned(context, [key], -db)), all };
}

/** The rest down, the voice up, or the voice up to the others who speak there and the rest down. */
function balanced(context: Context, { where }: Pick<Finding, 'where'>): Fix[] {
  const found = masked(context)
    .filter(({ speech: { pair } }) => pair.listenerId === where.listenerId)
    .sort((a, b) => a.overDb - b.overDb)[0];
  if (!found) return [];
  const { speech, overDb } = found;
  const there = speechAt(context).filter((s) => s.pair.listenerId === where.listenerId);
  const voices = new Set(there.flatMap((s) => s.pair.ways.flatMap((w) => w.settings)));
  const voiceDb = speech.way.levelDb.nominal;
  // What leaks by the voice's own microphone, far under it, comes up with it and stays as far under.
  const loud = speech.others.flatMap((o) => o.pair.ways).filter((w) => w.levelDb.nominal > voiceDb - EASY_DB);
  const others = new Set(loud.flatMap((w) => w.settings));
  const beside = new Set(there.filter((s) => s !== speech).flatMap((s) => s.way.settings));
  const own = speech.way.settings.filter((s) => !others.has(s) && !beside.has(s));
  const loudestDb = Math.max(...there.map((s) => s.way.levelDb.nominal));
  const upDb = Math.max(loudestDb - voiceDb, (AIM_DB - overDb) / 2);
  const [raised] = turned(context, own, upDb);
  const down = lowered(context, speech, voiceDb, voices);
  const both = lowered(context, speech, voiceDb + upDb, voices);
  const partly = (fixes: Fix[], all: boolean): Fix[] =>
    all ? fixes : fixes.map((f) => ({ ...f, partly: true as const }));
  const offered = [
    ...partly(together(down.fixes), down.all),
    ...turned(context, own, AIM_DB - overDb),
    ...(raised && both.fixes.length > 0 ? partly(together([...both.fixes, raised]), both.all) : []),
  ];
  return offered.filter((fix, i) => offered.findIndex((f) => f.label === fix.label) === i);
}

interface Noisy {
  readonly speech: Speech;
  readonly snrDb: number;
  readonly open: OpenChannel | null;
}

/** Voices that are too close to the noise, with the unused input that costs most of it. */
const noisy = memoized((context: Context): readonly Noisy[] => findNoisy(context));

function findNoisy(context: Context): Noisy[] {
  const { rig, evaluation } = context;
  const opened = new Map<string, OpenChannel | null>();
  const costliest = (listenerId: string): OpenChannel | null => {
    if (!opened.has(listenerId)) opened.set(listenerId, openChannels(rig, evaluation, listenerId)[0] ?? null);
    return opened.get(listenerId)!;
  };
  return speechAt(context).flatMap((speech): Noisy[] => {
    const { way, pair } = speech;
    if (way.noiseDb === null) return [];
    const snrDb = way.levelDb.nominal - way.noiseDb;
    if (snrDb >= SPOTLESS_DB) return [];
    // Where the noise of the voice's own way is nearly all there is, no other input costs much.
    const restDb = way.noiseDb - noiseOnWay(way);
    const open = restDb > MAY_COST_DB ? costliest(pair.listenerId) : null;
    return snrDb < cleanOn(way) || (open && open.costDb > MAY_COST_DB) ? [{ speech, snrDb, open }] : [];
  });
}

const cleanOn = ({ band }: ReceivedPath): number => (band.highHz <= NARROW_HZ ? CLEAN_NARROW_DB : CLEAN_DB);

/** What the devices on a way bring to its end of their own noise, dB in the scale there. */
function noiseOnWay({ arrival }: ReceivedPath): number {
  let [power, gain] = [0, 1];
  for (let at: ReceivedPath['arrival'] | null = arrival; at?.edge; at = at.from) {
    power += at.edge.noisePower * gain;
    gain *= at.edge.powerGain;
  }
  return dbFromPower(power);
}

const nameOf = (list: readonly { readonly id: string; readonly name: string }[], id: string): string =>
  list.find((x) => x.id === id)?.name ?? id;

const CLEAN_WHY = { source: say.speechRecordingAndTwo() };

/** Of destinations with the same problem of the same voice, the first represents all: it is one control. */
function once<T>(items: readonly T[], keyOf: (item: T) => string): { first: T; all: T[] }[] {
  const groups = new Map<string, T[]>();
  for (const item of items) groups.set(keyOf(item), [...(groups.get(keyOf(item)) ?? []), item]);
  return [...groups.values()].map((all) => ({ first: all[0]!, all }));
}

const listenersOf = ({ rig }: Context, all: readonly { readonly speech: Speech }[]): string =>
  [...new Set(all.map((a) => nameOf(rig.listeners, a.speech.pair.listenerId)))].join(', ');

export const balanceRules: readonly Rule[] = [
  rule(
    'level',
    'balance-masked',
    (context) =>
      once(masked(context), (m) => m.speech.pair.listenerId).map(({ all }): Draft => {
        // One finding per mix: the voice that is worst off is reported.
        const worst = all.reduce((a, b) => (b.overDb < a.overDb ? b : a));
        const { speech, overDb, atMostDb, loudest } = worst;
        const names = all.map((m) => nameOf(context.rig.sources, m.speech.pair.sourceId));
        const voice = nameOf(context.rig.sources, speech.pair.sourceId);
        const beside = [...new Set(names)].filter((name) => name !== voice);
        const voices = beside.length > 0 ? say.voiceAndElsewhere({ voice, join: beside.join(', ') }) : voice;
        const other = nameOf(context.rig.sources, loudest.pair.sourceId);
        const where = nameOf(context.rig.listeners, speech.pair.listenerId);
        const unit = SCALE_UNITS[speech.way.scale];
        const surely = atMostDb < MASKED_DB;
        return {
          at: speech.pair.listenerId,
          severity: surely ? 'fix' : 'watch',
          where: {
            sourceId: speech.pair.sourceId,
            listenerId: speech.pair.listenerId,
            deviceIds: [...new Set([...speech.way.deviceIds, ...loudest.way.deviceIds])],
          },
          says: say.maskedTurnDown({
            under:
              overDb < MASKED_DB
                ? say.speechMasked({
                    possibly: surely ? '' : say.possiblyWord(),
                    where,
                    other,
                    n0: (-overDb).toFixed(0),
                  })
                : say.hardToFollow({ where, other, n0: overDb.toFixed(0) }),
            voices,
            other,
            EASY_DB,
          }),
          why: [
            {
              says: say.voiceAndRest({
                voice,
                n0: speech.way.levelDb.nominal.toFixed(0),
                unit,
                n02: sumOf(speech.others, 'nominal').toFixed(0),
              }),
              source: say.pathsThisRigTypical(),
            },
            { says: say.backgroundToDbBelow(), source: 'typical' },
          ],
        };
      }),
    balanced,
  ),
  rule(
    'level',
    'voice-noisy',
    (context) =>
      once(
        noisy(context).filter((n) => !n.open || n.open.costDb <= MAY_COST_DB),
        (n) => n.speech.pair.sourceId,
      ).map(({ first, all }): Draft => {
        const { pair, way } = first.speech;
        const voice = nameOf(context.rig.sources, pair.sourceId);
        return {
          at: at(pair),
          severity: 'watch',
          where: { sourceId: pair.sourceId, listenerId: pair.listenerId, deviceIds: way.deviceIds },
          says: say.noisyVoice({ voice, snrDb: Math.floor(first.snrDb), all: listenersOf(context, all) }),
          why: [
            {
              says: say.voiceAndNoise({
                n0: way.levelDb.nominal.toFixed(0),
                n02: way.noiseDb!.toFixed(0),
                scale: SCALE_UNITS[way.scale],
              }),
              source: say.pathsThisRigTypicalLevels(),
            },
            { ...CLEAN_WHY, says: say.speechNeedsSnrAt({ way: cleanOn(way) }) },
          ],
        };
      }),
    (context, { where }) => {
      const found = speechAt(context).find(
        (s) => s.pair.sourceId === where.sourceId && s.pair.listenerId === where.listenerId,
      );
      if (!found || found.way.noiseDb === null) return [];
      const missing = cleanOn(found.way) - (found.way.levelDb.nominal - found.way.noiseDb) + 1;
      return turned(context, found.way.settings, missing);
    },
  ),
  rule(
    'level',
    'voice-open-input',
    (context) =>
      once(
        noisy(context).filter((n) => n.open !== null && n.open.costDb > MAY_COST_DB),
        (n) => portKey(n.open!.deviceId, n.open!.portId),
      ).map(({ first, all }): Draft => {
        const open = first.open!;
        const box = context.box(open.deviceId);
        const voices = [...new Set(all.map((n) => nameOf(context.rig.sources, n.speech.pair.sourceId)))].join(', ');
        return {
          at: `${open.deviceId}/${open.portId}`,
          severity: 'fix',
          where: {
            deviceIds: [open.deviceId],
            sourceId: first.speech.pair.sourceId,
            listenerId: first.speech.pair.listenerId,
            ...(open.shut && { setting: { deviceId: open.shut.deviceId, settingId: open.shut.settingId } }),
          },
          says: say.openInputCosts({
            deviceId: deviceName(context.rig, open.deviceId),
            portId: box.port(open.portId)?.name ?? open.portId,
            voices,
            n0: open.costDb.toFixed(0),
            all: listenersOf(context, all),
          }),
          why: [
            {
              says: say.snrWithAndWithout({ n0: first.snrDb.toFixed(0), n02: (first.snrDb + open.costDb).toFixed(0) }),
              source: say.noiseThisRigTypical(),
            },
          ],
        };
      }),
    (context, { where }) => {
      const open = where.listenerId ? openChannels(context.rig, context.evaluation, where.listenerId) : [];
      const shut = open.find(
        (o) => o.shut?.settingId === where.setting?.settingId && o.deviceId === where.deviceIds[0],
      )?.shut;
      return shut ? setFix(context.box(shut.deviceId), shut.settingId, shut.value) : [];
    },
  ),
];
