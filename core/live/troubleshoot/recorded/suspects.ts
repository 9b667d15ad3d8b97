import type { FaultId } from '#core/audio/measure/index.ts';
import { listOf } from '#core/base/said/index.ts';
import { findDevice, findTypes, hasUnity, isCall, type PortRef, portKey, sourceIn } from '#core/model/rig/index.ts';
import { deviceName, noiseParts, sayBreak, whereItStops } from '#core/signal/index.ts';
import { say } from '../sayings.ts';
import { cablesTo, findingsOnWays, onRungs, type Place, type Suspects, sayLead, tapOf } from './scene.ts';

const ANALOGUE = new Set(['microphone', 'line', 'headphone']);

const hum: Suspects = (scene) => [
  ...findingsOnWays(scene, (f) => f.rule.startsWith('ground-') || f.rule === 'hum-loop'),
  ...cablesTo(scene).flatMap((cable): Place[] => {
    const port = scene.portOf(cable.from);
    if (cable.medium !== 'lead' || !port || !ANALOGUE.has(port.level) || port.balanced === true) return [];
    if (/xlr/.test(port.connector)) return [];
    const microphone = port.level === 'microphone';
    return [
      {
        where: sayLead(scene, cable),
        why: say.mUnbalancedItsShield({ lengthM: cable.lengthM, microphone: microphone ? 'yes' : 'no' }),
        tap: cable.to,
        weight: Math.min(0.4, 0.05 * cable.lengthM) + (microphone ? 0.2 : 0),
      },
    ];
  }),
];

const hiss: Suspects = ({ rig, evaluation, listener, portOf }) => {
  const node = evaluation.graph.nodesOf(listener.sound).find((n) => evaluation.graph.nodes[n]!.carries === 'sound');
  if (node === undefined) return [];
  const parts = noiseParts(evaluation.graph, node);
  const total = parts.reduce((sum, p) => sum + p.power, 0);
  const byPort = new Map<string, { tap: PortRef; share: number }>();
  for (const { edge, power } of parts) {
    const { deviceId, portId } = evaluation.graph.nodes[evaluation.graph.from[edge]!]!;
    const key = portKey(deviceId, portId);
    const known = byPort.get(key);
    byPort.set(key, { tap: { deviceId, portId }, share: (known?.share ?? 0) + power / total });
  }
  return [...byPort.values()].map(({ tap, share }) => ({
    where: `${deviceName(rig, tap.deviceId)}, ${portOf(tap)?.name ?? tap.portId}`,
    why: say.itMakesNoiseThere({ share: Math.round(100 * share) }),
    tap,
    weight: share,
  }));
};

const ROOM_DB = 18;
const clipping: Suspects = (scene) =>
  onRungs(scene, ({ headroomDb }) =>
    headroomDb === null
      ? null
      : {
          why:
            headroomDb < 0
              ? say.typicalPeaksAreDb({ headroomDb: (-headroomDb).toFixed(0) })
              : say.anythingDbLouderThan({ headroomDb: headroomDb.toFixed(0) }),
          weight: Math.max(0, 1 - Math.max(0, headroomDb) / ROOM_DB),
        },
  );

const tooQuiet: Suspects = (scene) =>
  onRungs(scene, ({ setting, gainDb }) => {
    if (!setting) return null;
    const { spec } = setting;
    const low = hasUnity(spec) ? -gainDb : spec.max - gainDb;
    const reach = hasUnity(spec) ? 40 : spec.max - spec.min;
    return low < 3
      ? null
      : {
          why: say.dbBelowUnity({ low: low.toFixed(0), maximum: hasUnity(spec) ? 'unity' : 'maximum' }),
          weight: Math.min(0.95, low / reach),
        };
  });

const tooHot: Suspects = (scene) =>
  onRungs(scene, ({ setting, gainDb, headroomDb, levelDb, scale }) => {
    if (setting && hasUnity(setting.spec) && gainDb > 0)
      return { why: say.dbAboveUnity({ gainDb: gainDb.toFixed(0) }), weight: Math.min(0.9, 0.3 + gainDb / 12) };
    if (setting && !hasUnity(setting.spec) && gainDb > setting.spec.min)
      return {
        why: say.turnedUpByDb({
          rise: (gainDb - setting.spec.min).toFixed(0),
          level: levelDb.nominal.toFixed(0),
          dB: scale === 'dbfs' ? 'dBFS' : 'dB',
        }),
        weight: 0.35,
      };
    return headroomDb !== null && headroomDb < 6
      ? { why: say.onlyDbHeadroomThere({ headroomDb: headroomDb.toFixed(0) }), weight: 0.3 }
      : null;
  });

const oneSided: Suspects = (scene) => [
  ...findingsOnWays(scene, (f) => f.rule === 'route-one-side' || f.rule.startsWith('plug-')),
  ...scene.pairs.flatMap((pair): Place[] => {
    const [way] = pair.ways;
    const source = sourceIn(scene.rig, pair.sourceId);
    if (way?.sides.length !== 1) return [];
    return [
      {
        where: source.name,
        why: say.asDrawnItArrives({ side: way.sides[0]! }),
        tap: source.sound,
        weight: 0.8,
      },
    ];
  }),
  ...cablesTo(scene).flatMap((cable): Place[] => {
    const port = scene.portOf(cable.to);
    return cable.medium === 'lead' && port && port.channels.length === 2 && ANALOGUE.has(port.level)
      ? [
          {
            where: sayLead(scene, cable),
            why: say.twoSidesInOne(),
            tap: cable.to,
            weight: 0.25,
          },
        ]
      : [];
  }),
];

const inverted: Suspects = (scene) => [
  ...scene.pairs.flatMap((pair): Place[] => {
    const steps = pair.ways.filter((w) => w.polarity < 0);
    const source = sourceIn(scene.rig, pair.sourceId);
    return steps.length > 0
      ? [{ where: source.name, why: say.asDrawnSomethingOn(), tap: source.sound, weight: 0.8 }]
      : [];
  }),
  ...cablesTo(scene).flatMap((cable): Place[] => {
    const [from, to] = [scene.portOf(cable.from), scene.portOf(cable.to)];
    const intoStereo =
      from && to && ANALOGUE.has(to.level) && from.balanced !== false && /xlr|635/.test(from.connector);
    return intoStereo && /35|pair|phono/.test(to.connector)
      ? [
          {
            where: sayLead(scene, cable),
            why: say.balancedOutputInStereo(),
            tap: cable.to,
            weight: 0.6,
          },
        ]
      : [];
  }),
];

const echo: Suspects = (scene, { delayMs }) => {
  const { rig, evaluation, listener } = scene;
  const twice = scene.pairs.flatMap((pair): Place[] => {
    const source = sourceIn(rig, pair.sourceId);
    const [first, ...others] = pair.ways;
    return others.map((way) => {
      const apart = Math.abs(way.delay.value.nominal - first!.delay.value.nominal);
      const spread =
        (way.delay.value.high - way.delay.value.low + first!.delay.value.high - first!.delay.value.low) / 2;
      const off = delayMs === undefined ? 0 : Math.abs(apart - delayMs) / (10 + spread);
      return {
        where: say.alsoThrough({
          source: source.name,
          device: deviceName(rig, way.deviceIds.find((id) => !first!.deviceIds.includes(id)) ?? way.deviceIds[0]!),
        }),
        why: say.itReachesOverSecond({ listener: listener.name, apart: apart.toFixed(0) }),
        tap: source.sound,
        weight: 0.9 / (1 + off),
      };
    });
  });
  const loops = evaluation.loops.map(
    (loop): Place => ({
      where: say.backThrough({
        names: listOf(
          'and',
          loop.deviceIds.map((id) => deviceName(rig, id)),
        ),
      }),
      why: say.itComesBackMs({ nominal: loop.delay.value.nominal.toFixed(0), gainDb: (-loop.gainDb).toFixed(0) }),
      tap: tapOf(scene, loop.deviceIds[0]!) ?? listener.sound,
      weight: loop.gainDb > -30 ? 0.7 : 0.2,
    }),
  );
  const air = rig.cables
    .filter((c) => c.medium === 'air')
    .map(
      (cable): Place => ({
        where: say.into({ from: deviceName(rig, cable.from.deviceId), to: deviceName(rig, cable.to.deviceId) }),
        why: say.openMicMAway({ lengthM: cable.lengthM }),
        tap: cable.to,
        weight: scene.portOf(cable.from)?.level === 'air' ? 0.15 : 0,
      }),
    );
  return [...twice, ...loops, ...air];
};

const dropouts: Suspects = (scene) => [
  ...findingsOnWays(scene, (f) => f.rule.startsWith('usb-') || f.rule.startsWith('clock-')),
  ...cablesTo(scene).flatMap((cable): Place[] => {
    if (cable.medium === 'radio')
      return [
        {
          where: say.wirelessLinkTo({ device: deviceName(scene.rig, cable.to.deviceId) }),
          why: say.wirelessLosesPiecesWith(),
          tap: cable.to,
          weight: 0.6,
        },
      ];
    return /usb/.test(scene.portOf(cable.to)?.connector ?? '') && cable.medium === 'lead'
      ? [
          {
            where: sayLead(scene, cable),
            why: say.usbOverMLoose({ lengthM: cable.lengthM }),
            tap: cable.to,
            weight: Math.min(0.5, 0.15 + cable.lengthM / 15),
          },
        ]
      : [];
  }),
  ...[...new Set(scene.pairs.flatMap((p) => p.ways.flatMap((w) => w.deviceIds)))].flatMap((id): Place[] => {
    const type = findTypes(scene.rig).get(findDevice(scene.rig, id)!.typeId);
    const name = deviceName(scene.rig, id);
    const tap = tapOf(scene, id);
    return tap && type && isCall(type) ? [{ where: name, why: say.callDropsWhatNetwork(), tap, weight: 0.5 }] : [];
  }),
];

const constant: Suspects = (scene) =>
  onRungs(scene, ({ stage, scale }) =>
    stage === 'converter' && scale === 'dbfs' ? { why: say.dcOffsetComesFrom(), weight: 0.4 } : null,
  );

const silent: Suspects = ({ rig, evaluation, listener }) =>
  rig.plan
    .filter((c) => c.listenerId === listener.id && c.want === 'must')
    .flatMap((cell): Place[] => {
      const source = sourceIn(rig, cell.sourceId);
      const stop = whereItStops(evaluation.graph, source.sound, listener.sound);
      if (!stop) return [];
      if (stop.kind === 'shut') {
        const door = stop.doors[0]!;
        const spec = findTypes(rig)
          .get(findDevice(rig, door.deviceId)!.typeId)!
          .settings.find((s) => s.id === door.settingId)!;
        return [
          {
            where: `${deviceName(rig, door.deviceId)}, ${spec.name}`,
            why: say.stopsThereAsDrawn({ source: source.name }),
            tap: source.sound,
            weight: 0.9,
          },
        ];
      }
      const [first] = stop.breaks;
      if (first) return [{ where: source.name, why: sayBreak(rig, first), tap: source.sound, weight: 0.9 }];
      const last = stop.reaches.at(-1);
      return [
        {
          where: last ? deviceName(rig, last) : source.name,
          why: say.getsNoFurtherNothing({ source: source.name }),
          tap: source.sound,
          weight: 0.8,
        },
      ];
    });

const none: Suspects = () => [];

/** One rule a fault: what of a rig could have made it. */
export const SUSPECTS: Record<FaultId, Suspects> = {
  'hum-50': hum,
  'hum-60': hum,
  hiss,
  clipping,
  'one-sided': oneSided,
  'polarity-inverted': inverted,
  echo,
  dropouts,
  'dc-offset': constant,
  silent: (scene, fault) => [...silent(scene, fault), ...tooQuiet(scene, fault)],
  'too-quiet': tooQuiet,
  'too-hot': tooHot,
  'dual-mono': none,
};
