import { findTypes, type Rig, type SettingChange, settingsOf } from '#core/rig/index.ts';
import { type Evaluation, type Graph, loopLimit, type Pair } from '#core/signal/index.ts';

/** A pair that is not as the plan wants it. */
export interface Wrong {
  readonly sourceId: string;
  readonly listenerId: string;
  readonly word: 'missing' | 'unwanted' | 'twice';
}

export const keyOf = ({ sourceId, listenerId, word }: Wrong): string => `${sourceId}>${listenerId}:${word}`;

/** What the plan speaks of and is not so: what must arrive does not, or twice; what must not, does. */
export function wrongsOf({ pairs }: Evaluation): Wrong[] {
  return pairs.flatMap(({ sourceId, listenerId, want, verdict: { word } }): Wrong[] => {
    const is = word === 'missing' || word === 'unwanted' || (word === 'twice' && want === 'must');
    return is ? [{ sourceId, listenerId, word: word as Wrong['word'] }] : [];
  });
}

/** Loops that howl, by the boxes that they go through. */
export const howlsOf = ({ loops }: Evaluation): Set<string> =>
  new Set(
    loops
      .filter((l) => l.together.gainDb >= loopLimit(l.together).howlsDb)
      .map((l) => [...l.deviceIds].sort().join('+')),
  );

/** The rig with settings changed; as a search needs it: they are known to be such as the devices have. */
export function withSettings(rig: Rig, changes: readonly SettingChange[]): Rig {
  if (changes.length === 0) return rig;
  return {
    ...rig,
    devices: rig.devices.map((device) => {
      const own = changes.filter((c) => c.deviceId === device.id);
      if (own.length === 0) return device;
      const settings = own.map((c) => [c.settingId, { value: c.value, known: 'assumed' as const }] as const);
      return { ...device, settings: { ...device.settings, ...Object.fromEntries(settings) } };
    }),
  };
}

/**
 * Settings one of which has to change for a pair to be right: any set of switched doors that mends it holds one of these
 * groups. For what is missing, the shut ways at the edge of what the sound reaches; for what is not wanted, everything
 * that can shut its loudest way; for what comes twice, everything that can shut one of the two.
 */
export function flipsFor(rig: Rig, evaluation: Evaluation, wrong: Wrong): SettingChange[][] {
  const pair = evaluation.pairs.find((p) => p.sourceId === wrong.sourceId && p.listenerId === wrong.listenerId)!;
  if (wrong.word === 'missing') return openings(rig, evaluation.graph, pair);
  const ways = wrong.word === 'unwanted' ? pair.ways.slice(0, 1) : pair.ways.slice(0, 2);
  const settings = [...new Set(ways.flatMap((w) => w.settings))];
  return settings.flatMap((key) => closings(rig, key)).map((change) => [change]);
}

/** Ways to shut by one setting: a mute, a level all the way down, another position of a switch. */
function closings(rig: Rig, key: string): SettingChange[] {
  const [deviceId, settingId] = key.split('.') as [string, string];
  const device = rig.devices.find((d) => d.id === deviceId)!;
  const spec = settingsOf(findTypes(rig).get(device.typeId)!).get(settingId)!;
  const to = (value: SettingChange['value']): SettingChange => ({ deviceId, settingId, value });
  if (spec.kind === 'mute') return [to(!(device.settings[settingId]?.value ?? spec.default))];
  if (spec.kind === 'gain') return spec.offAtMin ? [to(spec.min)] : [];
  if (spec.kind !== 'switch') return [];
  const now = device.settings[settingId]?.value ?? spec.default;
  return spec.options.filter((o) => o.value !== now).map((o) => to(o.value));
}

function openings(rig: Rig, graph: Graph, pair: Pair): SettingChange[][] {
  const source = rig.sources.find((s) => s.id === pair.sourceId)!;
  const listener = rig.listeners.find((l) => l.id === pair.listenerId)!;
  const reached = reach(graph, graph.nodesOf(source.sound), 'on', false);
  const leads = reach(graph, graph.nodesOf(listener.sound), 'back', true);
  const groups = new Map<string, SettingChange[]>();
  for (const { from, to, deviceId, doors } of graph.shut) {
    if (!reached[from] || reached[to] || !leads[to]) continue;
    const group = doors.map(({ settingId, opensAt }) => ({ deviceId, settingId, value: opensAt }));
    groups.set(group.map((g) => `${g.deviceId}.${g.settingId}=${g.value}`).join(), group);
  }
  return [...groups.values()];
}

/** Sound at every node that is reached from some, or from which they are reached; through shut ways where that is asked. */
function reach(graph: Graph, start: readonly number[], way: 'on' | 'back', throughShut: boolean): Uint8Array {
  const { nodes, edges, from, to, shut } = graph;
  const near = new Map<number, number[]>();
  const note = (a: number, b: number) => {
    const [at, next] = way === 'on' ? [a, b] : [b, a];
    const list = near.get(at);
    if (list) list.push(next);
    else near.set(at, [next]);
  };
  for (let e = 0; e < edges.length; e++) note(from[e]!, to[e]!);
  if (throughShut) for (const s of shut) note(s.from, s.to);
  const met = new Uint8Array(nodes.length);
  const open = start.filter((n) => nodes[n]!.carries === 'sound');
  for (const n of open) met[n] = 1;
  for (let node = open.pop(); node !== undefined; node = open.pop())
    for (const next of near.get(node) ?? [])
      if (!met[next]) {
        met[next] = 1;
        open.push(next);
      }
  return met;
}
