import { memoized } from '#core/base/memo/index.ts';
import {
  amplifiesInstrument,
  films,
  isPerson,
  listenerIn,
  settingFor,
  soundsIntoRoom,
  sourceIn,
} from '#core/model/rig/index.ts';
import { dbFromRatio } from '#core/model/units/index.ts';
import { type Context, type Draft, type Rule, rule, setFix } from './finding.ts';
import { say } from './sayings.ts';

/** 3:1 rule: of two microphones on one voice, the farther one is at least this many times as far. */
const THREE_TO_ONE = 3;
const CLOSE_LOUDSPEAKER_M = 1;
const FAR_MOUTH_M = 0.6;
const NEAR_M = 0.15;
/** Tenfold the distance of the closest is not the same voice's microphone any more. */
const OF_NO_MATTER = 10;
/** A way that carries no more than this sounds like a telephone. */
const TELEPHONE_HZ = 9000;

interface Ear {
  readonly cableId: string;
  readonly deviceId: string;
  readonly lengthM: number;
}

interface Voice {
  readonly source: Context['rig']['sources'][number];
  readonly ears: readonly Ear[];
}
/** For every voice: the microphones in its air whose sound reaches a listener, the closest first. */
const earsOf = memoized((context: Context): readonly Voice[] => {
  const { rig, evaluation } = context;
  const through = new Map<string, Set<string>>();
  for (const { sourceId, ways } of evaluation.pairs) {
    if (ways.length === 0) continue;
    const boxes = through.get(sourceId) ?? new Set();
    through.set(sourceId, boxes);
    for (const way of ways) for (const id of way.deviceIds) boxes.add(id);
  }
  const air = rig.cables.filter((c) => c.medium === 'air');
  const voices = rig.sources.map((source) => ({
    source,
    ears: air
      .filter((c) => c.from.deviceId === source.sound.deviceId && c.from.portId === source.sound.portId)
      .filter((c) => through.get(source.id)?.has(c.to.deviceId))
      .map((c) => ({ cableId: c.id, deviceId: c.to.deviceId, lengthM: c.lengthM }))
      .sort((a, b) => a.lengthM - b.lengthM),
  }));
  return voices;
});

/** Whether one listener gets a voice by both microphones. */
const heardTogether = ({ evaluation }: Context, sourceId: string, a: string, b: string): boolean =>
  evaluation.pairs.some(
    (p) =>
      p.sourceId === sourceId &&
      p.ways.some((w) => w.deviceIds.includes(a)) &&
      p.ways.some((w) => w.deviceIds.includes(b)),
  );

/** The first device that a voice comes through. */
const microphoneOf = (
  { box }: Context,
  source: Context['rig']['sources'][number],
  deviceIds: readonly string[],
): string | undefined => deviceIds.find((id) => id !== source.sound.deviceId && !isPerson(box(id).type));

/** Several microphones in front of one instrument and nothing else: on purpose. */
const isMikedSo = ({ box, rig }: Context, instrumentId: string, microphoneIds: readonly string[]): boolean =>
  !isPerson(box(instrumentId).type) &&
  rig.cables.every(
    (c) => c.medium !== 'air' || !microphoneIds.includes(c.to.deviceId) || c.from.deviceId === instrumentId,
  );

const RULE_3_TO_1 = {
  says: say.atThreeTimesDistance(),
  source: say.rule(),
};

/** Microphones that the plan doesn't need: their voice arrives through another one as well. */
function openCameras(context: Context): Draft[] {
  const { rig, evaluation, boxes } = context;
  return boxes.flatMap((box): Draft[] => {
    const own = settingFor(box.type, 'own-microphone');
    const mute = own && box.setting(own.id);
    if (mute?.value !== false) return [];
    const pairs = evaluation.pairs.filter(
      (p) =>
        p.ways.some((w) => w.deviceIds.includes(box.device.id)) &&
        p.ways.some((w) => !w.deviceIds.includes(box.device.id)) &&
        rig.plan.some((c) => c.sourceId === p.sourceId && c.listenerId === p.listenerId),
    );
    // The only microphone of a voice is no mistake.
    const lone = evaluation.pairs.some(
      (p) => p.want === 'must' && p.ways.length > 0 && p.ways[0]!.deviceIds.includes(box.device.id),
    );
    if (pairs.length === 0 || lone) return [];
    const names = [...new Set(pairs.map((p) => sourceIn(rig, p.sourceId).name))];
    const ears = [...new Set(pairs.map((p) => listenerIn(rig, p.listenerId).name))];
    return [
      {
        at: box.device.id,
        severity: 'fix',
        where: { deviceIds: [box.device.id], setting: { deviceId: box.device.id, settingId: own!.id } },
        says: say.builtInMic({ device: box.device.name, join: names.join(', '), join2: ears.join(', ') }),
        asks: mute.known === 'assumed' ? say.isBuiltInOpen({ device: box.device.name }) : null,
        why: [{ says: say.anotherMicHasSame(), source: say.pathsThisRig() }],
      },
    ];
  });
}

export const roomRules: readonly Rule[] = [
  rule('wire', 'room-camera-microphone', openCameras, (context, { where }) =>
    where.setting ? setFix(context.box(where.setting.deviceId), where.setting.settingId, true) : [],
  ),
  rule('wire', 'room-two-microphones', (context) =>
    earsOf(context).flatMap(({ source, ears }): Draft[] => {
      const [first, second] = ears.filter((e) => !films(context.box(e.deviceId).type));
      if (
        !first ||
        !second ||
        !heardTogether(context, source.id, first.deviceId, second.deviceId) ||
        isMikedSo(context, source.sound.deviceId, [first.deviceId, second.deviceId]) ||
        second.lengthM >= first.lengthM * THREE_TO_ONE ||
        second.lengthM > first.lengthM * OF_NO_MATTER
      )
        return [];
      const names = [first, second].map((e) => context.box(e.deviceId).device.name);
      return [
        {
          at: `${source.id}/${first.deviceId}+${second.deviceId}`,
          severity: 'watch',
          where: {
            deviceIds: [first.deviceId, second.deviceId],
            cableIds: [first.cableId, second.cableId],
            sourceId: source.id,
          },
          says: say.combFilter({
            source: source.name,
            lengthM: first.lengthM,
            n0: names[0]!,
            lengthM2: second.lengthM,
            n1: names[1]!,
          }),
          why: [
            RULE_3_TO_1,
            {
              says: say.dbApartNow({ n1: dbFromRatio(second.lengthM / first.lengthM).toFixed(1) }),
              source: 'distance',
            },
          ],
        },
      ];
    }),
  ),
  rule('route', 'room-poorer-microphone', (context) =>
    context.evaluation.pairs.flatMap((pair): Draft[] => {
      const [way] = pair.ways;
      if (pair.want !== 'must' || !way || way.band.highHz > TELEPHONE_HZ) return [];
      const better = context.evaluation.pairs.find(
        (p) => p.sourceId === pair.sourceId && p.ways[0] && p.ways[0].band.highHz > 1.5 * Math.max(way.band.highHz, 1),
      );
      const source = sourceIn(context.rig, pair.sourceId);
      const [poor, good] = [way, better?.ways[0]].map((w) => w && microphoneOf(context, source, w.deviceIds));
      if (!poor || !good || poor === good) return [];
      const name = (id: string) => context.box(id).device.name;
      return [
        {
          at: `${pair.sourceId}>${pair.listenerId}`,
          severity: 'watch',
          where: { deviceIds: way.deviceIds, sourceId: pair.sourceId, listenerId: pair.listenerId },
          says: say.betterMic({
            name: listenerIn(context.rig, pair.listenerId).name,
            source: source.name,
            poor: name(poor),
            n0: (way.band.highHz / 1000).toFixed(0),
            good: name(good),
          }),
          why: [
            { says: say.upToHz({ highHz: Math.round(way.band.highHz), kind: way.band.kind }), source: way.band.source },
          ],
        },
      ];
    }),
  ),
  rule('wire', 'room-loudspeaker-close', ({ rig, box }) =>
    rig.cables.flatMap((cable): Draft[] => {
      if (cable.medium !== 'air' || cable.lengthM >= CLOSE_LOUDSPEAKER_M) return [];
      const [from, to] = [box(cable.from.deviceId), box(cable.to.deviceId)];
      // In front of a guitar amplifier a mic is meant to stand.
      if (!soundsIntoRoom(from.type) || amplifiesInstrument(from.type) || isPerson(to.type)) return [];
      return [
        {
          at: cable.id,
          severity: 'watch',
          where: { cableIds: [cable.id], deviceIds: [from.device.id, to.device.id] },
          says: say.speakerNear({ device: from.device.name, lengthM: cable.lengthM, device2: to.device.name }),
          asks:
            cable.known === 'assumed'
              ? say.howFar({ device: from.device.name, device2: to.device.name, lengthM: cable.lengthM })
              : null,
          why: [{ says: say.dbLessForTwice(), source: say.directSound() }],
        },
      ];
    }),
  ),
  rule('wire', 'room-microphone-far', (context) =>
    earsOf(context).flatMap(({ source, ears }): Draft[] => {
      const [first] = ears;
      const voice = isPerson(context.box(source.sound.deviceId).type);
      if (!voice || !first || first.lengthM <= FAR_MOUTH_M) return [];
      if (!context.rig.plan.some((c) => c.sourceId === source.id && c.want === 'must')) return [];
      const box = context.box(first.deviceId);
      return [
        {
          at: `${source.id}/${first.deviceId}`,
          severity: 'watch',
          where: { deviceIds: [first.deviceId], cableIds: [first.cableId], sourceId: source.id },
          says: say.micFar({ source: source.name, device: box.device.name, lengthM: first.lengthM }),
          why: [
            {
              says: say.dbLessVoiceThan({ n0: dbFromRatio(first.lengthM / NEAR_M).toFixed(0) }),
              source: say.directSoundDbFor(),
            },
          ],
        },
      ];
    }),
  ),
];
