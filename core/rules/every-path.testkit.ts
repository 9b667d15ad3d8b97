import { connectorOf, endOf, leadOf, leadsFor } from '#core/model/plug/index.ts';
import {
  type DeviceType,
  findTypes,
  type PortRef,
  type Rig,
  type Stage,
  type Types,
  usbMeets,
  usbRoleOf,
} from '#core/model/rig/index.ts';

// An evaluation written a second time, off the document: every path, stage by stage, and what goes round by iteration.

/** So many places are walked at most: a desk with more ways than that proves nothing here. */
const MAX_STEPS = 200_000;

interface At {
  readonly deviceId: string;
  readonly portId: string;
  readonly channelId: string;
}
interface Path {
  readonly db: number;
  /** Low, nominal, high. */
  readonly ms: readonly [number, number, number];
  readonly sign: number;
}
interface Step {
  readonly to: At;
  readonly add: Path;
}

type Ms = Path['ms'];
const later = (a: Ms, b: readonly number[]): Ms => [a[0] + b[0]!, a[1] + b[1]!, a[2] + b[2]!];
const exactly = (ms: number): Ms => [ms, ms, ms];
const NOTHING: Path = { db: 0, ms: [0, 0, 0], sign: 1 };
const keyOf = ({ deviceId, portId, channelId }: At): string => `${deviceId}/${portId}/${channelId}`;
const half = (place: string): [string, string] => place.split('.') as [string, string];

/** One stage by its definition; null where it is shut. */
function passed(rig: Rig, type: DeviceType, device: Rig['devices'][number], stage: Stage, path: Path): Path | null {
  const spec = 'setting' in stage ? type.settings.find((s) => s.id === stage.setting)! : null;
  const value = spec && (device.settings[spec.id]?.value ?? spec.default);
  const frame = (1000 * rig.session.frameRate.den) / rig.session.frameRate.num;
  switch (stage.do) {
    case 'door':
      return value === stage.openWhen ? path : null;
    case 'gain':
      if (spec?.kind !== 'gain') throw new Error(stage.setting);
      return spec.offAtMin && Number(value) <= spec.min ? null : { ...path, db: path.db + Number(value) };
    case 'fixed-gain':
      return { ...path, db: path.db + stage.db };
    case 'delay':
      return {
        ...path,
        ms: later(path.ms, exactly(Number(value) * (spec?.kind === 'delay' && spec.unit === 'frames' ? frame : 1))),
      };
    case 'latency': {
      const figure = type.figures[stage.figure]!;
      const unit = figure.unit === 'frames' ? frame : 1;
      return {
        ...path,
        ms: later(
          path.ms,
          figure.range.map((ms) => ms * unit),
        ),
      };
    }
    case 'convert':
      return {
        ...path,
        db: path.db + (stage.to === 'digital' ? -stage.fullScaleDbu[1] : stage.fullScaleDbu[1]),
      };
    case 'hear':
      return { ...path, db: path.db + stage.sensitivityDbvPerPa[1] - 94 + 20 * Math.log10(1 / 0.7746) };
    case 'radiate':
      return { ...path, db: path.db + stage.splAt0Dbu[1] };
    case 'invert':
      return { ...path, sign: -path.sign };
    default:
      return path;
  }
}

/** Where a sound goes on from a channel: through its device, and by every cable. */
function stepsFrom(rig: Rig, types: Types, at: At): Step[] {
  const device = rig.devices.find((d) => d.id === at.deviceId)!;
  const type = types.get(device.typeId)!;
  const within = type.inside.flatMap(({ from, to, stages }): Step[] => {
    const [portId, channelId] = half(from);
    if (portId !== at.portId || channelId !== at.channelId) return [];
    const add = stages.reduce<Path | null>((p, s) => p && passed(rig, type, device, s, p), NOTHING);
    const [toPort, toChannel] = half(to);
    return add ? [{ to: { deviceId: at.deviceId, portId: toPort, channelId: toChannel }, add }] : [];
  });
  return [...within, ...rig.cables.flatMap((cable) => byCable(rig, types, cable, at))];
}

function byCable(rig: Rig, types: Types, cable: Rig['cables'][number], at: At): Step[] {
  if (cable.from.deviceId !== at.deviceId || cable.from.portId !== at.portId) return [];
  const typeOf = (ref: PortRef) => types.get(rig.devices.find((d) => d.id === ref.deviceId)!.typeId)!;
  const [from, to] = [cable.from, cable.to].map((ref) => typeOf(ref).ports.find((p) => p.id === ref.portId)!);
  const [outs, ins] = [from!, to!].map((p) => p.channels.filter((c) => c.carries === 'sound').map((c) => c.id));
  const own = outs!.indexOf(at.channelId);
  const step = (channelId: string, add: Partial<Path> = {}): Step => ({
    to: { ...cable.to, channelId },
    add: { ...NOTHING, ...add },
  });
  if (cable.medium === 'air') {
    const db = -20 * Math.log10(Math.max(cable.lengthM, 0.01) / (from!.referenceM ?? 1));
    const ms = exactly((cable.lengthM / 343) * 1000);
    return likeToLike(outs!, ins!, own).map((c) => step(c, { db, ms }));
  }
  if (!usbMeets(usbRoleOf(typeOf(cable.from), from!), usbRoleOf(typeOf(cable.to), to!))) return [];
  if (cable.map) return cable.map.filter((m) => m.from === at.channelId).map((m) => step(m.to));
  if (cable.medium === 'lead' && connectorOf(from!.connector) && connectorOf(to!.connector)) {
    const [a, b] = [endOf(from!), endOf(to!)];
    if ((a.level === 'digital') !== (b.level === 'digital') || from!.format !== to!.format) return [];
    const lead = cable.parts ? leadOf(a, b, cable.parts) : leadsFor(a, b).presumed;
    if (!lead || ('fits' in lead && !lead.fits)) return [];
    if (lead.wiring)
      return lead.wiring.carried
        .filter((c) => c.from === own)
        .map((c) => step(ins![c.to]!, { db: 20 * Math.log10(Math.abs(c.nominal)), sign: Math.sign(c.nominal) }));
  }
  return likeToLike(outs!, ins!, own).map((c) => step(c));
}

const likeToLike = (outs: readonly string[], ins: readonly string[], own: number): readonly string[] =>
  own < 0 ? [] : outs.length === 1 ? ins : ins.length === 1 ? [ins[0]!] : ins[own] === undefined ? [] : [ins[own]!];

/** Where a sound goes on from each channel, found once; and the channels of an end. */
function netOf(rig: Rig): { on: (at: At) => Step[]; channels: (ref: PortRef) => At[] } {
  const types = findTypes(rig);
  const known = new Map<string, Step[]>();
  return {
    on: (at) => {
      const key = keyOf(at);
      const steps = known.get(key) ?? stepsFrom(rig, types, at);
      known.set(key, steps);
      return steps;
    },
    channels: ({ deviceId, portId }) =>
      types
        .get(rig.devices.find((d) => d.id === deviceId)!.typeId)!
        .ports.find((p) => p.id === portId)!
        .channels.filter((c) => c.carries === 'sound')
        .map((c) => ({ deviceId, portId, channelId: c.id })),
  };
}

/** So faint beside the loudest that came to a place, what goes round is let go. */
const FAINT = 1e-5;
const MAX_ROUNDS = 4000;
const MAX_AT_ONCE = 4000;

/**
 * What comes to each channel of a listener when every step is taken again and again, so that loops go round until they
 * are faint: all walks, those of one length in time added as they swing. Null where there are too many.
 */
export function roundsTo(
  rig: Rig,
  source: Rig['sources'][number],
  listener: Rig['listeners'][number],
): Path[][] | null {
  const { on, channels } = netOf(rig);
  interface Swing {
    readonly at: At;
    readonly ms: Ms;
    swing: number;
  }
  const goals = new Map(channels(listener.sound).map((at) => [keyOf(at), new Map<string, Swing>()]));
  const most = new Map<string, number>();
  const put = (into: Map<string, Swing>, key: string, { at, ms, swing }: Swing) => {
    const known = into.get(key);
    if (known) known.swing += swing;
    else into.set(key, { at, ms, swing });
  };
  const timed = (at: At, ms: Ms): string => `${keyOf(at)} ${ms.map((t) => t.toFixed(6)).join()}`;
  let front = new Map<string, Swing>();
  for (const at of channels(source.sound))
    put(front, timed(at, NOTHING.ms), { at, ms: NOTHING.ms, swing: 10 ** (source.level[1] / 20) });
  for (let round = 0; front.size > 0; round++) {
    if (round > MAX_ROUNDS || front.size > MAX_AT_ONCE) return null;
    const next = new Map<string, Swing>();
    for (const [key, here] of front) {
      const place = keyOf(here.at);
      const loud = Math.max(most.get(place) ?? 0, Math.abs(here.swing));
      most.set(place, loud);
      if (Math.abs(here.swing) < FAINT * loud) continue;
      const goal = goals.get(place);
      if (goal) put(goal, key, here);
      for (const { to, add } of on(here.at)) {
        const ms = later(here.ms, add.ms);
        put(next, timed(to, ms), { at: to, ms, swing: here.swing * add.sign * 10 ** (add.db / 20) });
      }
    }
    front = next;
  }
  return [...goals.values()].map((goal) =>
    [...goal.values()].map(({ ms, swing }) => ({ ms, db: 20 * Math.log10(Math.abs(swing)), sign: Math.sign(swing) })),
  );
}

/** All paths from a source to each channel of a listener that pass no place twice; null where there are too many. */
export function pathsTo(rig: Rig, source: Rig['sources'][number], listener: Rig['listeners'][number]): Path[][] | null {
  const { on, channels } = netOf(rig);
  const goals = new Map(channels(listener.sound).map((at) => [keyOf(at), [] as Path[]]));
  const seen = new Set<string>();
  let steps = 0;
  const walk = (at: At, path: Path): void => {
    if (++steps > MAX_STEPS) return;
    const key = keyOf(at);
    if (seen.has(key)) return;
    seen.add(key);
    goals.get(key)?.push(path);
    for (const { to, add } of on(at))
      walk(to, {
        db: path.db + add.db,
        ms: later(path.ms, add.ms),
        sign: path.sign * add.sign,
      });
    seen.delete(key);
  };
  for (const at of channels(source.sound)) walk(at, { ...NOTHING, db: source.level[1] });
  return steps > MAX_STEPS ? null : [...goals.values()];
}

const isSame = (a: Ms, b: Ms): boolean => a.every((ms, i) => Math.abs(ms - b[i]!) < 0.02);

/** The loudest instant of all channels: copies within 0.02 ms, however uncertain both are, add as they swing. */
export function loudest(paths: readonly Path[][]): { readonly db: number; readonly ms: Ms } | null {
  let best: { db: number; ms: Ms } | null = null;
  for (const channel of paths) {
    const sorted = [...channel].sort((a, b) => b.db - a.db);
    const instants: { ms: Ms; swing: number }[] = [];
    for (const { ms, db, sign } of sorted) {
      const there = instants.find((i) => isSame(i.ms, ms));
      if (there) there.swing += sign * 10 ** (db / 20);
      else instants.push({ ms, swing: sign * 10 ** (db / 20) });
    }
    for (const { ms, swing } of instants) {
      const db = 20 * Math.log10(Math.abs(swing));
      if (Number.isFinite(db) && (!best || db > best.db + 1e-9)) best = { db, ms };
    }
  }
  return best;
}
