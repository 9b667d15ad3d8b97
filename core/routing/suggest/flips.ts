import { group } from 'd3-array';
import { walk } from '#core/base/search/index.ts';
import {
  findDevice,
  findTypes,
  heldTo,
  listenerIn,
  type Rig,
  type SettingChange,
  settingAt,
  settingOf,
  settingsOf,
  sourceIn,
} from '#core/model/rig/index.ts';
import {
  type Evaluation,
  type Graph,
  overLostDb,
  overMaskDb,
  type Pair,
  type ReceivedPath,
  repeatOf,
} from '#core/signal/index.ts';
import type { Wrong } from './wrongs.ts';

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

/** Changes one of which has to be made; with how far from where it is heard, in settings on the way. */
export interface Flip {
  readonly changes: readonly SettingChange[];
  readonly away: number;
}

/**
 * Settings one of which has to change for a pair to be right: any set of switched doors that mends it holds one of these
 * groups. For what is missing, the shut ways at the edge of what the sound reaches; for what is not wanted, everything
 * that can shut its loudest way; for what comes twice, everything that can shut one of the two.
 * @param levels  levels just low enough, too, beside those that are all the way down
 */
export function flipsFor(rig: Rig, evaluation: Evaluation, wrong: Wrong, levels = false): Flip[] {
  const at = (sourceId: string) =>
    evaluation.pairs.find((p) => p.sourceId === sourceId && p.listenerId === wrong.listenerId)!;
  const pair = at(wrong.sourceId);
  switch (wrong.word) {
    case 'missing':
      return openings(rig, evaluation.graph, pair);
    case 'unwanted':
      return closings(rig, pair.ways.slice(0, 1), levels ? [overLostDb(pair.ways[0]!)] : []);
    case 'twice': {
      const [first, second] = [pair.ways[0]!, repeatOf(pair.ways)!];
      return closings(rig, [first, second], levels ? [overMaskDb(first, second), overMaskDb(second, first)] : []);
    }
    case 'not-alone':
      return closings(rig, at(pair.besides[0]!).ways.slice(0, 1));
    default:
      return levelled(rig, pair);
  }
}

/** Every single setting that blocks one of the paths: a mute, a level fully or partly down, another position of a switch. */
function closings(rig: Rig, ways: readonly ReceivedPath[], downDb: readonly number[] = []): Flip[] {
  const flips = new Map<string, Flip>();
  ways.forEach(({ settings }, w) => {
    settings.forEach((key, i) => {
      const away = settings.length - i;
      for (const change of closing(rig, key, downDb[w])) {
        const id = `${key}=${change.value}`;
        const known = flips.get(id);
        if (!known || away < known.away) flips.set(id, { changes: [change], away });
      }
    });
  });
  return [...flips.values()];
}

function closing(rig: Rig, key: string, downDb: number | undefined): SettingChange[] {
  const { deviceId, settingId } = settingAt(key);
  const device = findDevice(rig, deviceId)!;
  const spec = settingsOf(findTypes(rig).get(device.typeId)!).get(settingId)!;
  const to = (value: SettingChange['value']): SettingChange => ({ deviceId, settingId, value });
  const { value: now } = settingOf(device, spec);
  if (spec.kind === 'mute') return [to(!now)];
  if (spec.kind === 'switch') return spec.options.filter((o) => o.value !== now).map((o) => to(o.value));
  if (spec.kind !== 'gain') return [];
  const off = spec.offAtMin ? [to(spec.min)] : [];
  if (downDb === undefined) return off;
  const lower = spec.min + Math.floor(((now as number) - downDb - spec.min) / spec.step) * spec.step;
  return lower > spec.min || (lower === spec.min && !spec.offAtMin) ? [...off, to(Number(lower.toFixed(6)))] : off;
}

/** Levels on the way that bring it to where it is wanted under the voice, as near as their steps come. */
function levelled(rig: Rig, pair: Pair): Flip[] {
  const wantedDb = rig.plan.find((c) => c.sourceId === pair.sourceId && c.listenerId === pair.listenerId)?.underVoiceDb;
  if (pair.underVoiceDb === null || wantedDb === undefined) return [];
  const upDb = pair.underVoiceDb - wantedDb;
  const settings = pair.ways[0]?.settings ?? [];
  return settings.flatMap((key, i): Flip[] => {
    const { deviceId, settingId } = settingAt(key);
    const device = findDevice(rig, deviceId)!;
    const spec = settingsOf(findTypes(rig).get(device.typeId)!).get(settingId)!;
    if (spec.kind !== 'gain') return [];
    const now = settingOf(device, spec).value as number;
    const value = heldTo(spec, now + upDb);
    if (value === now || (spec.offAtMin && value === spec.min)) return [];
    return [{ changes: [{ deviceId, settingId, value }], away: settings.length - i }];
  });
}

function openings(rig: Rig, graph: Graph, pair: Pair): Flip[] {
  const source = sourceIn(rig, pair.sourceId);
  const listener = listenerIn(rig, pair.listenerId);
  const reached = reachFrom(graph, graph.nodesOf(source.sound));
  const leads = leadingTo(graph, graph.nodesOf(listener.sound));
  const flips = new Map<string, Flip>();
  for (const { from, to, deviceId, doors } of graph.shut) {
    if (!reached[from] || reached[to] || !leads[to]) continue;
    const changes = doors.map(({ settingId, opensAt }) => ({ deviceId, settingId, value: opensAt }));
    const key = changes.map((g) => `${g.deviceId}.${g.settingId}=${g.value}`).join();
    if (!flips.has(key)) flips.set(key, { changes, away: 0 });
  }
  return [...flips.values()];
}

/** Marks every node that is reached from some where sound is. */
function flood({ nodes }: Graph, start: readonly number[], next: (node: number) => Iterable<number>): Uint8Array {
  const met = new Uint8Array(nodes.length);
  for (const node of walk(
    start.filter((n) => nodes[n]!.carries === 'sound'),
    next,
  ))
    met[node] = 1;
  return met;
}

/** Sound at every node that is reached from some by open ways. */
export const reachFrom = (graph: Graph, start: readonly number[]): Uint8Array =>
  flood(graph, start, (n) => graph.to.subarray(graph.firstEdge[n]!, graph.firstEdge[n + 1]!));

/** Every node from which some are reached by ways that are open or shut. */
function leadingTo(graph: Graph, ends: readonly number[]): Uint8Array {
  const { from, into, firstInto, shut } = graph;
  const before = group(shut, (s) => s.to);
  return flood(graph, ends, (node) => [
    ...Array.from(into.subarray(firstInto[node]!, firstInto[node + 1]!), (e) => from[e]!),
    ...(before.get(node) ?? []).map((s) => s.from),
  ]);
}
