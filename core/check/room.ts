import { amplifiesInstrument, films, isPerson, settingFor, soundsIntoRoom } from '#core/rig/index.ts';
import { dbFromRatio } from '#core/units/index.ts';
import { type Context, type Draft, type Rule, rule, setFix } from './finding.ts';

/** Two microphones on one voice: the farther one at least so many times as far. */
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
const known = new WeakMap<Context, Voice[]>();

/** For every voice: the microphones in its air whose sound reaches a listener, the closest first. */
function earsOf(context: Context): readonly Voice[] {
  const before = known.get(context);
  if (before) return before;
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
  known.set(context, voices);
  return voices;
}

/** Whether one listener gets a voice by both microphones. */
const heardTogether = ({ evaluation }: Context, sourceId: string, a: string, b: string): boolean =>
  evaluation.pairs.some(
    (p) =>
      p.sourceId === sourceId &&
      p.ways.some((w) => w.deviceIds.includes(a)) &&
      p.ways.some((w) => w.deviceIds.includes(b)),
  );

/** The first box that a voice comes through. */
const microphoneOf = (
  { box }: Context,
  source: Context['rig']['sources'][number],
  deviceIds: readonly string[],
): string | undefined => deviceIds.find((id) => id !== source.sound.deviceId && !isPerson(box(id).type));

/** Several microphones in front of one instrument, and of nothing else: they stand there on purpose. */
const isMikedSo = ({ box, rig }: Context, instrumentId: string, microphoneIds: readonly string[]): boolean =>
  !isPerson(box(instrumentId).type) &&
  rig.cables.every(
    (c) => c.medium !== 'air' || !microphoneIds.includes(c.to.deviceId) || c.from.deviceId === instrumentId,
  );

const RULE_3_TO_1 = {
  says: 'at three times the distance the second is 9.5 dB down, and the comb is not heard',
  source: 'the 3:1 rule',
};

/** Microphones whose use the plan does not need: their voice comes by another one as well. */
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
    const names = [...new Set(pairs.map((p) => rig.sources.find((s) => s.id === p.sourceId)!.name))];
    const ears = [...new Set(pairs.map((p) => rig.listeners.find((l) => l.id === p.listenerId)!.name))];
    return [
      {
        at: box.device.id,
        severity: 'fix',
        where: { deviceIds: [box.device.id], setting: { deviceId: box.device.id, settingId: own!.id } },
        says: `The own microphone of ${box.device.name} is open: ${names.join(', ')} comes by it a second time to ${ears.join(', ')}, later and from farther off.`,
        asks: mute.known === 'assumed' ? `${box.device.name}: is its own microphone open?` : null,
        why: [{ says: 'another microphone brings the same voice from nearer', source: 'the ways of this rig' }],
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
          says: `${source.name} stands ${first.lengthM} m from ${names[0]} and ${second.lengthM} m from ${names[1]}: mixed, the two make it hollow. Move one to three times the distance, or mute it.`,
          why: [
            RULE_3_TO_1,
            { says: `${dbFromRatio(second.lengthM / first.lengthM).toFixed(1)} dB apart now`, source: 'distance' },
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
      const source = context.rig.sources.find((s) => s.id === pair.sourceId)!;
      const [poor, good] = [way, better?.ways[0]].map((w) => w && microphoneOf(context, source, w.deviceIds));
      if (!poor || !good || poor === good) return [];
      const name = (id: string) => context.box(id).device.name;
      return [
        {
          at: `${pair.sourceId}>${pair.listenerId}`,
          severity: 'watch',
          where: { deviceIds: way.deviceIds, sourceId: pair.sourceId, listenerId: pair.listenerId },
          says: `${context.rig.listeners.find((l) => l.id === pair.listenerId)?.name} hears ${source.name} by ${name(poor)}, which carries up to ${(way.band.highHz / 1000).toFixed(0)} kHz, although ${name(good)} has the same voice better. Choose that one there.`,
          why: [{ says: `up to ${Math.round(way.band.highHz)} Hz, ${way.band.kind}`, source: way.band.source }],
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
          says: `${from.device.name} stands ${cable.lengthM} m from ${to.device.name}: put it on the dead side of the microphone, further off, or use headphones.`,
          asks:
            cable.known === 'assumed'
              ? `How far is ${from.device.name} from ${to.device.name}? ${cable.lengthM} m is assumed.`
              : null,
          why: [{ says: '6 dB less for twice the distance', source: 'direct sound' }],
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
          says: `${source.name}: the closest microphone, ${box.device.name}, is ${first.lengthM} m away. The room is heard as loud as the voice; come nearer, or clip one on.`,
          why: [
            {
              says: `${dbFromRatio(first.lengthM / NEAR_M).toFixed(0)} dB less voice than at 15 cm`,
              source: 'direct sound, 6 dB for twice the distance',
            },
          ],
        },
      ];
    }),
  ),
];
