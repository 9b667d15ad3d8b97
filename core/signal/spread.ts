import type { Rig } from '#core/rig/index.ts';
import { findComponents } from './components.ts';
import { expand, patch } from './expand.ts';
import type { Graph } from './graph.ts';
import { type LoopsRead, readEveryLoop } from './loops.ts';
import { withMeasuredNoise } from './noise.ts';
import { delayMeasurements, type Measurements } from './offset.ts';
import type { Places } from './places.ts';
import { readNoise, type Traced, trace } from './trace.ts';

/** What sounds where, whatever is wanted of it. */
export interface Spread {
  readonly devices: Rig['devices'];
  readonly parts: Parts;
  readonly graph: Graph;
  readonly traced: Traced;
  readonly noiseDb: Float64Array;
  readonly measurements: Measurements;
  readonly loops: LoopsRead;
  /** What has been read of it, place by place. */
  readonly places: Places;
}

type Parts = Pick<Rig, 'types' | 'cables' | 'sources' | 'listeners' | 'session' | 'measurements'>;
const isSame = (a: Parts, b: Parts): boolean =>
  a.types === b.types &&
  a.cables === b.cables &&
  a.sources === b.sources &&
  a.listeners === b.listeners &&
  a.session === b.session &&
  a.measurements === b.measurements;

const known = new WeakMap<Rig['devices'], Spread>();
const byGraph = new WeakMap<Graph, Spread>();
/** The last one with these leads: most edits are a setting. */
const latest = new WeakMap<Rig['cables'], Spread>();

/**
 * An edit of the plan moves no sound, and a setting moves it only behind itself: what is known is taken over as long as
 * nothing that it rests on is another one.
 * @param near  the graph of a rig that differs by a few settings; where absent, the last one with the same leads
 */
export function spreadOf(rig: Rig, near?: Graph): Spread {
  const before = known.get(rig.devices);
  if (before && isSame(before.parts, rig)) return before;
  const other = near ? byGraph.get(near) : latest.get(rig.cables);
  const spread = (other && spreadNear(rig, other)) ?? spreadAnew(rig);
  known.set(rig.devices, spread);
  byGraph.set(spread.graph, spread);
  if (!near) latest.set(rig.cables, spread);
  return spread;
}

function spreadAnew(rig: Rig): Spread {
  const graph = expand(rig);
  const components = findComponents(graph);
  const measurements = delayMeasurements(rig.measurements);
  return {
    devices: rig.devices,
    parts: rig,
    graph,
    traced: trace(rig, graph, components),
    noiseDb: withMeasuredNoise(rig, graph, readNoise(graph, components)),
    measurements,
    loops: readEveryLoop(graph, components, measurements),
    places: new Map(),
  };
}

/** What a few settings change of it, and the rest as it is; null where it is another rig. */
function spreadNear(rig: Rig, before: Spread): Spread | null {
  if (!isSame(before.parts, rig)) return null;
  const patched = patch(before.graph, rig);
  if (!patched) return null;
  const { graph, touched, rewired } = patched;
  const components = findComponents(graph, rewired ? undefined : before.graph);
  const traced = trace(rig, graph, components, { traced: before.traced, touched });
  const noiseDb = withMeasuredNoise(rig, graph, readNoise(graph, components));
  const isKept = (node: number): boolean =>
    traced.sound.lists[node] === before.traced.sound.lists[node] &&
    traced.picture.lists[node] === before.traced.picture.lists[node] &&
    noiseDb[node] === before.noiseDb[node];
  return {
    devices: rig.devices,
    parts: before.parts,
    graph,
    traced,
    noiseDb,
    measurements: before.measurements,
    loops: readEveryLoop(graph, components, before.measurements, {
      read: before.loops,
      touched: new Set(touched),
    }),
    places: new Map([...before.places].filter(([, place]) => place.nodes.every(isKept))),
  };
}
