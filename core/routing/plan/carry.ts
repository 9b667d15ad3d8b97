import {
  applyEdit,
  atMoment,
  type Device,
  drawSettings,
  type Edit,
  editInMoment,
  findDevice,
  findListener,
  findPort,
  findSource,
  findTypes,
  isProgram,
  type Moment,
  type PlanCell,
  type Rig,
} from '#core/model/rig/index.ts';
import { solveRouting } from '#core/routing/suggest/index.ts';
import { evaluate, rolesOf } from '#core/signal/index.ts';

type Source = Rig['sources'][number];
type Listener = Rig['listeners'][number];

/** Who of a desk is who in another way of building it. */
export interface Match {
  /** The user's source that each source of the alternative corresponds to, by id. */
  readonly sources: ReadonlyMap<string, string>;
  /** Those of one's own that listen where a listener of the way does: several at one jack, the first of them named. */
  readonly listeners: ReadonlyMap<string, readonly string[]>;
  /** Names of what one has and the way has no place for. */
  readonly leftOut: readonly string[];
}

/** Whether a source is the same however a desk is built: it begins in the computer, and is no voice. */
export function isInComputer(rig: Rig, source: Source): boolean {
  const device = findDevice(rig, source.sound.deviceId);
  return device !== undefined && isProgram(findTypes(rig).get(device.typeId)!);
}

/** Sources by what they are, the main voice first. */
function sourcesByKind(rig: Rig): Map<string, Source[]> {
  const roles = rolesOf(rig);
  const kinds = new Map<string, Source[]>();
  const kindOf = (s: Source) => (roles.source(s) === 'second-voice' ? 'voice' : roles.source(s));
  const first = (s: Source) => (s.id === roles.mainVoice ? 0 : 1);
  for (const source of [...rig.sources].sort((a, b) => first(a) - first(b)))
    if (!isInComputer(rig, source)) kinds.set(kindOf(source), [...(kinds.get(kindOf(source)) ?? []), source]);
  return kinds;
}

/** Destinations by what they are; single tracks are left to the builder. */
function listenersByKind(rig: Rig): Map<string, Listener[]> {
  const roles = rolesOf(rig);
  const types = findTypes(rig);
  const kinds = new Map<string, Listener[]>();
  for (const listener of rig.listeners) {
    const role = roles.listener(listener);
    if (role === 'track') continue;
    const kind = role === 'mix' ? `mix ${findPort(rig, types, listener.sound)?.does ?? ''}` : role;
    kinds.set(kind, [...(kinds.get(kind) ?? []), listener]);
  }
  return kinds;
}

/** Sources of a kind one for one, in their order; listeners of a kind that are more than the way has, where the last of it listens. */
export function matchOf(own: Rig, way: Rig): Match {
  const sources = new Map<string, string>();
  const listeners = new Map<string, string[]>();
  const leftOut: string[] = [];
  const inWay = { sources: sourcesByKind(way), listeners: listenersByKind(way) };
  for (const [kind, list] of sourcesByKind(own))
    for (const [i, source] of list.entries()) {
      const there = inWay.sources.get(kind)?.[i];
      if (there) sources.set(there.id, source.id);
      else leftOut.push(source.name);
    }
  for (const [kind, list] of listenersByKind(own))
    for (const [i, listener] of list.entries()) {
      const all = inWay.listeners.get(kind) ?? [];
      const there = all[Math.min(i, all.length - 1)];
      if (there) listeners.set(there.id, [...(listeners.get(there.id) ?? []), listener.id]);
      else leftOut.push(listener.name);
    }
  return { sources, listeners, leftOut };
}

/** The way with the names of one's own: of who speaks and listens, and of devices that one has. */
export function namedAsOwn(own: Rig, way: Rig, { sources, listeners }: Match): Rig {
  const types = findTypes(way);
  /** What each device of the way is among one's own; no own one twice. */
  const like = new Map<string, Device>();
  const takes = (deviceId: string, mine: Device | undefined) => {
    if (mine && !like.has(deviceId) && ![...like.values()].includes(mine)) like.set(deviceId, mine);
  };
  const sourceOf = (id: string | undefined) => findSource(own, id);
  const listenerOf = (id: string) => findListener(own, listeners.get(id)?.[0]);
  const mine = (ref: { sound: { deviceId: string } } | undefined) => ref && findDevice(own, ref.sound.deviceId);
  for (const s of way.sources) takes(s.sound.deviceId, mine(sourceOf(sources.get(s.id))));
  for (const l of way.listeners) takes(l.sound.deviceId, mine(listenerOf(l.id)));
  const rest = () => own.devices.filter((o) => ![...like.values()].includes(o));
  const takesAlike = (devices: readonly Device[]) => {
    for (const d of devices)
      takes(
        d.id,
        rest().find((o) => o.typeId === d.typeId),
      );
  };
  takesAlike(way.devices.filter((d) => isProgram(types.get(d.typeId)!)));
  // A computer is the one that the same programs run on.
  for (const d of way.devices.filter((w) => types.get(w.typeId)!.hosts)) {
    const runs = way.devices.flatMap((w) => (w.on === d.id ? (like.get(w.id)?.on ?? []) : []));
    takes(d.id, findDevice(own, runs[0] ?? ''));
  }
  takesAlike(way.devices);
  const names = new Map([...like].map(([id, { name }]) => [id, name]));
  const taken = new Set(names.values());
  const free = (name: string): string => {
    let called = name;
    for (let n = 2; taken.has(called); n++) called = `${name} ${n}`;
    taken.add(called);
    return called;
  };
  return {
    ...way,
    devices: way.devices.map((d) => ({ ...d, name: names.get(d.id) ?? free(d.name) })),
    sources: way.sources.map((s) => ({ ...s, name: sourceOf(sources.get(s.id))?.name ?? s.name })),
    listeners: way.listeners.map((l) => ({ ...l, name: listenerOf(l.id)?.name ?? l.name })),
  };
}

const STRICTEST: readonly PlanCell['want'][] = ['must', 'must-not', 'may'];

/** The cells of one's own plan for the pairs of a way: where several listen at one place, the strictest. */
function cellsFor(plan: readonly PlanCell[], way: Rig, { sources, listeners }: Match): PlanCell[] {
  return way.listeners.flatMap((listener) =>
    way.sources.flatMap((source): PlanCell[] => {
      const mine = plan.filter(
        (c) => c.sourceId === sources.get(source.id) && listeners.get(listener.id)?.includes(c.listenerId),
      );
      const [cell] = mine.sort((a, b) => STRICTEST.indexOf(a.want) - STRICTEST.indexOf(b.want));
      return cell
        ? [
            {
              sourceId: source.id,
              listenerId: listener.id,
              want: cell.want,
              ...(cell.underVoiceDb !== undefined && { underVoiceDb: cell.underVoiceDb }),
            },
          ]
        : [];
    }),
  );
}

const sameWant = (a: PlanCell, b: PlanCell | undefined): boolean =>
  b !== undefined && a.want === b.want && a.underVoiceDb === b.underVoiceDb;

/**
 * The way with one's own plan and moments, and the settings that make it so, in every moment.
 * @param evaluations  rigs that may be looked at for the settings of each
 */
export function plannedAsOwn(own: Rig, way: Rig, match: Match, evaluations: number): Rig {
  const plan = cellsFor(own.plan, way, match);
  const edits = plan.map(
    ({ sourceId, listenerId, ...cell }): Edit => ({
      kind: 'set-plan',
      sourceId,
      listenerId,
      cell: { sourceId, listenerId, ...cell },
    }),
  );
  let now = settled(taken(way, { kind: 'batch', edits }), evaluations);
  for (const moment of own.moments) {
    const there = cellsFor(atMoment(own, moment.id).plan, way, match).filter(
      (c) =>
        !sameWant(
          c,
          plan.find((p) => p.sourceId === c.sourceId && p.listenerId === c.listenerId),
        ),
    );
    const bare: Moment = { id: moment.id, name: moment.name, settings: [], plan: there };
    now = pressedFor(taken(now, { kind: 'add-moment', moment: bare }), moment.id, evaluations);
  }
  return now;
}

/** The rig with an edit; as it is where that does not fit. */
function taken(rig: Rig, edit: Edit): Rig {
  const done = applyEdit(rig, edit);
  return done.ok ? done.rig : rig;
}

const settled = (rig: Rig, evaluations: number): Rig =>
  taken(rig, drawSettings(solveRouting(rig, evaluate(rig), evaluations).changes));

/** What is pressed in a moment so that its wants come true; delays are the rig's, and stay. */
function pressedFor(rig: Rig, momentId: string, evaluations: number): Rig {
  const seen = atMoment(rig, momentId);
  const types = findTypes(rig);
  const pressed = solveRouting(seen, evaluate(seen), evaluations).changes.filter(({ deviceId, settingId }) => {
    const spec = types.get(findDevice(rig, deviceId)!.typeId)!.settings.find((s) => s.id === settingId);
    return spec?.kind !== 'delay';
  });
  return taken(rig, editInMoment(rig, momentId, drawSettings(pressed)));
}
