import type { Said } from '#core/base/said/index.ts';
import { reachedFrom } from '#core/base/search/index.ts';
import {
  endName,
  endsBehind,
  endsThat,
  isCall,
  isProgram,
  type PortRef,
  portKey,
  portOf,
  settingFor,
  soundDeviceOf,
} from '#core/model/rig/index.ts';
import { deviceName, loopLimit, type Pair, type ReceivedPath, rolesOf, talkerEchoLossDb } from '#core/signal/index.ts';
import { type Context, type Draft, type Rule, rule, setFix } from './finding.ts';
import { say } from './sayings.ts';

type Source = Context['rig']['sources'][number];
type Listener = Context['rig']['listeners'][number];

const nameOf = (list: readonly { id: string; name: string }[], id: string): string =>
  list.find((e) => e.id === id)?.name ?? id;
/** The two ends of a pair, by their ids. */
function endsOf({ rig }: Context): (pair: Pair) => { source: Source; listener: Listener } {
  const sources = new Map(rig.sources.map((s) => [s.id, s]));
  const listeners = new Map(rig.listeners.map((l) => [l.id, l]));
  return ({ sourceId, listenerId }) => ({
    source: sources.get(sourceId)!,
    listener: listeners.get(listenerId)!,
  });
}

/** The own voice in headphones, ms: from where it is hollow, and from where it disturbs (as practiced). */
const HOLLOW_MS = 3;
const DISTURBS_MS = 15;
/** Later than this it is an echo, and judged as one. */
const ECHO_MS = 30;
/** An early return this far below one's own voice as conducted in the head is masked, dB (typical). */
const MASKED_DB = 20;

/** Talkers who hear themselves: how late, how loud, and how much of that is acceptable. */
function selfReturns(context: Context): Draft[] {
  const roles = rolesOf(context.rig);
  const ends = endsOf(context);
  return context.evaluation.pairs.flatMap((pair): Draft[] => {
    const [way] = pair.ways;
    if (way?.scale !== 'spl' || pair.verdict.word === 'unwanted') return [];
    const { source, listener } = ends(pair);
    if (!roles.isOwn(source, listener)) return [];
    const ms = way.delay.value.nominal;
    const downDb = source.level[1] - way.levelDb.nominal;
    const said = judgeReturn(ms, downDb);
    if (!said) return [];
    return [
      {
        at: `${source.id}>${listener.id}`,
        severity: said.severity,
        where: { sourceId: source.id, listenerId: listener.id, deviceIds: way.deviceIds },
        says: say.hearsThemselves({ source: source.name, n0: ms.toFixed(0), n02: downDb.toFixed(0), says: said.says }),
        why: [
          {
            says: say.throughPath({ join: way.deviceIds.map((id) => deviceName(context.rig, id)).join(', ') }),
            source: say.pathsThisRig(),
          },
          said.why,
        ],
      },
    ];
  });
}

function judgeReturn(ms: number, downDb: number) {
  if (ms >= ECHO_MS) {
    const wantedDb = talkerEchoLossDb(ms);
    if (downDb >= wantedDb) return null;
    return {
      severity: 'fix' as const,
      says: say.echoStopsTalk({ n0: wantedDb.toFixed(0) }),
      why: {
        says: say.dbThereAndBack({ n0: wantedDb.toFixed(0), n02: ms.toFixed(0) }),
        source: say.ituTGCurve(),
      },
    };
  }
  if (ms < HOLLOW_MS || downDb >= MASKED_DB) return null;
  return {
    severity: ms > DISTURBS_MS ? ('fix' as const) : ('watch' as const),
    says: ms > DISTURBS_MS ? say.distractingUseDirect() : say.itSoundsHollowUse(),
    why: {
      says: say.hollowOver({ HOLLOW_MS, DISTURBS_MS }),
      source: say.ownVoiceInHeadphones(),
    },
  };
}

/** Loops that do not ring but repeat: long ones, judged as a talker hears them. */
const longLoops = ({ rig, evaluation }: Context): Draft[] =>
  evaluation.loops.flatMap((loop): Draft[] => {
    const delayMs = loop.delay.value.nominal;
    if (delayMs < ECHO_MS) return [];
    const wantedDb = talkerEchoLossDb(delayMs);
    const { ringsDb } = loopLimit(loop);
    if (-loop.gainDb >= wantedDb || loop.gainDb >= ringsDb) return [];
    const names = loop.deviceIds.map((id) => deviceName(rig, id));
    return [
      {
        at: [...loop.deviceIds].sort().join('+'),
        severity: 'watch',
        where: { deviceIds: loop.deviceIds },
        says: say.loopEcho({
          n0: names[0]!,
          join: names.slice(1).join(', '),
          n02: delayMs.toFixed(0),
          n03: (-loop.gainDb).toFixed(0),
          n04: wantedDb.toFixed(0),
        }),
        why: [{ says: say.dbAtMs({ n0: wantedDb.toFixed(0), n02: delayMs.toFixed(0) }), source: say.ituTGCurve() }],
      },
    ];
  });

/** Programs that are handed many channels and take two. */
function firstPairOnly(context: Context): Draft[] {
  const { rig, evaluation, box } = context;
  const { graph, arrivals } = evaluation;
  return rig.cables.flatMap((cable): Draft[] => {
    if (cable.medium !== 'software' || cable.map) return [];
    const [from, to] = [box(cable.from.deviceId), box(cable.to.deviceId)];
    const isSound = (c: { carries: string }) => c.carries === 'sound';
    const takes = to.port(cable.to.portId)!.channels.filter(isSound).length;
    const has = from.port(cable.from.portId)!.channels.filter(isSound).length;
    if (takes === 0 || takes >= has) return [];
    const nodes = graph.nodesOf(cable.from).filter((n) => graph.nodes[n]!.carries === 'sound');
    const on = (some: readonly number[]) => new Set(some.flatMap((n) => arrivals[n]!.map((a) => a.sourceIndex)));
    const taken = on(nodes.slice(0, takes));
    const left = [...on(nodes.slice(takes))].filter((i) => !taken.has(i)).map((i) => rig.sources[i]!);
    // Another link takes those channels there.
    const elsewhere = rig.cables.some(
      (c) => c !== cable && c.map && c.from.deviceId === cable.from.deviceId && c.from.portId === cable.from.portId,
    );
    if (left.length === 0 || elsewhere) return [];
    return [
      {
        at: cable.id,
        severity: 'fix',
        where: { cableIds: [cable.id], deviceIds: [from.device.id, to.device.id] },
        says: say.laterChannels({
          device: to.device.name,
          channel: takes === 2 ? say.pair() : say.channel(),
          device2: from.device.name,
          name: from.port(cable.from.portId)?.name ?? '',
          join: left.map((s) => s.name).join(', '),
        }),
        why: [
          {
            says: say.channelsAreThereAre({ has, takes }),
            source: say.appsUseFirstChannels(),
          },
        ],
      },
    ];
  });
}

/** Two sources that have to keep time where there is no picture: further apart than this one hears it (playing together). */
const TOGETHER_MS = 25;

function outOfStep(context: Context): Draft[] {
  const { rig, evaluation } = context;
  const byPlace = new Map(evaluation.pairs.map((p) => [`${p.sourceId}>${p.listenerId}`, p]));
  return rig.plan.flatMap((cell): Draft[] => {
    if (!cell.inTimeWith || cell.want === 'must-not') return [];
    const [own, other] = [cell.sourceId, cell.inTimeWith].map((id) => byPlace.get(`${id}>${cell.listenerId}`));
    const [a, b] = [own?.ways[0], other?.ways[0]];
    if (!a || !b || own!.picture) return [];
    const apartMs = a.delay.value.nominal - b.delay.value.nominal;
    if (Math.abs(apartMs) <= TOGETHER_MS) return [];
    const [first, second] = [cell.sourceId, cell.inTimeWith].map((id) => nameOf(rig.sources, id));
    const share = a.deviceIds.find((id) => b.deviceIds.includes(id));
    return [
      {
        at: `${cell.sourceId}>${cell.listenerId}`,
        severity: 'fix',
        where: { sourceId: cell.sourceId, listenerId: cell.listenerId, deviceIds: a.deviceIds },
        says: say.outOfStep({
          first: first!,
          n0: Math.abs(apartMs).toFixed(0),
          before: apartMs > 0 ? say.after() : say.before(),
          second: second!,
          listenerId: nameOf(rig.listeners, cell.listenerId),
          call: share ? deviceName(rig, share) : say.call(),
        }),
        why: [{ says: say.moreThanMsApart({ TOGETHER_MS }), source: say.playingTogetherRuleThumb() }],
      },
    ];
  });
}

/** Music through a call app that filters everything that isn't voice. */
const processedMusic = (context: Context): Draft[] =>
  context.boxes.flatMap((box): Draft[] => {
    const processing = settingFor(box.type, 'voice-processing');
    const seen = processing && box.setting(processing.id);
    if (seen?.value !== 'on') return [];
    const microphones = endsThat(box.type, 'call-microphone');
    const roles = rolesOf(context.rig);
    const takes = (way: ReceivedPath) => microphones.some((p) => passes(context, way, box.device.id, p.id));
    const music = context.rig.sources.filter(
      (s) =>
        ['music', 'game'].includes(roles.source(s)) &&
        context.evaluation.pairs.some((p) => p.sourceId === s.id && p.ways.some(takes)),
    );
    if (music.length === 0) return [];
    return [
      {
        at: box.device.id,
        severity: 'watch',
        where: { deviceIds: [box.device.id] },
        rests: { box, seen },
        says: say.callFilters({ device: box.device.name, join: music.map((s) => s.name).join(', ') }),
        why: [{ says: say.noiseSuppressionKeepsWhat(), source: say.callAppsTypical() }],
      },
    ];
  });

function passes({ evaluation: { graph } }: Context, way: ReceivedPath, deviceId: string, portId: string): boolean {
  for (let at: ReceivedPath['arrival'] | null = way.arrival; at; at = at.from) {
    const node = graph.nodes[at.node]!;
    if (node.deviceId === deviceId && node.portId === portId) return true;
  }
  return false;
}

interface SoundDevices {
  /** What counts their samples: sockets of a computer by what is plugged there, and all that is built into it. */
  readonly clocks: ReadonlySet<string>;
  readonly names: ReadonlySet<string>;
}
/** The sound devices of a computer, back or forth through its programs, that a call's microphone or speaker hangs on. */
function devicesOf({ rig, types, box }: Context, from: PortRef, way: 'back' | 'forth'): SoundDevices {
  const clocks = new Set<string>();
  const names = new Set<string>();
  const key = (ref: PortRef) => portKey(ref.deviceId, ref.portId);
  function* beyond(at: string): Generator<string> {
    for (const cable of rig.cables) {
      const [near, far] = way === 'back' ? [cable.to, cable.from] : [cable.from, cable.to];
      if (key(near) !== at) continue;
      const { type } = box(far.deviceId);
      for (const p of type.hosts ? endsBehind(type, far.portId) : []) {
        names.add(`${box(far.deviceId).device.name}, ${endName(rig, types, far)}`);
        clocks.add(`${far.deviceId} ${soundDeviceOf(p)}`);
        // One converter does for the mic and the speakers that are built in.
        if (p.level === 'air') clocks.add(`${far.deviceId} built in`);
      }
      if (!isProgram(type) || isCall(type)) continue;
      for (const { from: start, to: end } of type.inside) {
        const [here, there] = (way === 'back' ? [end, start] : [start, end]).map(portOf);
        if (here === far.portId) yield portKey(far.deviceId, there!);
      }
    }
  }
  reachedFrom([key(from)], beyond);
  return { clocks, names };
}

const splitDevices = (context: Context): Draft[] =>
  context.boxes.flatMap((box): Draft[] => {
    const { id, name } = box.device;
    const hangOn = (does: 'call-microphone' | 'call-loudspeaker', way: 'back' | 'forth'): SoundDevices => {
      const all = endsThat(box.type, does).map((p) => devicesOf(context, { deviceId: id, portId: p.id }, way));
      const joined = (of: 'clocks' | 'names') => new Set(all.flatMap((d) => [...d[of]]));
      return { clocks: joined('clocks'), names: joined('names') };
    };
    const mics = hangOn('call-microphone', 'back');
    const speakers = hangOn('call-loudspeaker', 'forth');
    if (mics.clocks.size === 0 || speakers.clocks.size === 0) return [];
    if ([...mics.clocks].some((m) => speakers.clocks.has(m))) return [];
    return [
      {
        at: id,
        severity: 'watch',
        where: { deviceIds: [id] },
        says: say.twoDevices({ name }),
        why: [
          {
            says: say.micAndSpeaker({ join: [...mics.names].join(', '), join2: [...speakers.names].join(', ') }),
            source: say.linksThisRig(),
          },
        ],
      },
    ];
  });

/** Whole programs that have a voice on one side only. */
const oneSided = (context: Context): Draft[] => {
  const roles = rolesOf(context.rig);
  const ends = endsOf(context);
  return context.evaluation.pairs.flatMap((pair): Draft[] => {
    const [way] = pair.ways;
    if (pair.want !== 'must' || !way || way.sides.length !== 1) return [];
    const { source, listener } = ends(pair);
    if (!['mix', 'room', 'far-ears'].includes(roles.listener(listener))) return [];
    const sides = new Set(pair.ways.flatMap((w) => w.sides));
    const stereo = context.evaluation.graph
      .nodesOf(listener.sound)
      .filter((n) => context.evaluation.graph.nodes[n]!.carries === 'sound');
    if (stereo.length !== 2 || sides.size !== 1) return [];
    const [side] = sides;
    return [
      {
        at: `${source.id}>${listener.id}`,
        severity: 'watch',
        where: { sourceId: source.id, listenerId: listener.id, deviceIds: way.deviceIds },
        says: say.oneEar({ listener: listener.name, source: source.name, side: side! }),
        why: [{ says: say.only({ side: side! }), source: say.pathsThisRig() }],
      },
    ];
  });
};

const kiloHertz = (rate: string): Said => say.kiloHertz({ n1000: Number(rate) / 1000 });

export const routingRules: readonly Rule[] = [
  rule('route', 'self-return', selfReturns),
  rule('route', 'loop-echo', longLoops),
  rule('route', 'route-first-pair', firstPairOnly),
  rule('route', 'route-keep-time', outOfStep),
  rule('route', 'call-processes-music', processedMusic, (context, { where }) =>
    where.setting ? setFix(context.box(where.setting.deviceId), where.setting.settingId, 'off') : [],
  ),
  rule('route', 'call-split-devices', splitDevices),
  rule('route', 'route-one-side', oneSided),
  rule(
    'route',
    'clock-not-corrected',
    (context) =>
      context.boxes.flatMap((box): Draft[] => {
        const spec = settingFor(box.type, 'drift-correction');
        const seen = spec ? box.setting(spec.id) : null;
        if (seen?.value !== 'off') return [];
        const members = box.type.ports.filter((p) => p.direction === 'in');
        const fed = members.map((p) =>
          context.rig.cables.find((c) => c.to.deviceId === box.device.id && c.to.portId === p.id),
        );
        if (
          !fed[0] ||
          !fed[1] ||
          (fed[0].from.deviceId === fed[1].from.deviceId && fed[0].from.portId === fed[1].from.portId)
        )
          return [];
        return [
          {
            at: box.device.id,
            severity: 'fix',
            where: { deviceIds: [box.device.id] },
            rests: { box, seen },
            says: say.combinedDrift({ device: box.device.name, DRIFT_MS_AN_HOUR }),
            why: [{ says: say.commonCrystalsToPpm(), source: 'typical' }],
          },
        ];
      }),
    (context, { where }) =>
      where.setting ? setFix(context.box(where.setting.deviceId), where.setting.settingId, 'on') : [],
  ),
  rule(
    'route',
    'rate-differs',
    (context) => {
      const session = String(context.rig.session.sampleRateHz);
      return context.boxes.flatMap((box): Draft[] => {
        const rate = settingFor(box.type, 'sample-rate');
        const seen = rate && box.setting(rate.id);
        if (!seen || seen.value === session || !inUse(context, box.device.id)) return [];
        return [
          {
            at: box.device.id,
            severity: 'watch',
            where: { deviceIds: [box.device.id] },
            rests: { box, seen },
            says: say.ratesDiffer({
              device: box.device.name,
              value: kiloHertz(String(seen.value)),
              session: kiloHertz(session),
            }),
            why: [{ says: say.session({ session: kiloHertz(session) }), source: say.sessionInPlan() }],
          },
        ];
      });
    },
    (context, { where }) => {
      const box = where.setting && context.box(where.setting.deviceId);
      const session = String(context.rig.session.sampleRateHz);
      const spec = box && settingFor(box.type, 'sample-rate');
      const can = spec?.kind === 'switch' && spec.options.some((o) => o.value === session);
      return box && can ? setFix(box, spec.id, session) : [];
    },
  ),
];

const DRIFT_MS_AN_HOUR = 360;

const inUse = ({ rig }: Context, deviceId: string): boolean =>
  rig.cables.some((c) => c.from.deviceId === deviceId || c.to.deviceId === deviceId);
