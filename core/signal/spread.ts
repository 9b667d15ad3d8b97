import type { Rig } from '#core/model/rig/index.ts';
import { type Components, findComponents } from './components.ts';
import { expand, patch } from './expand.ts';
import type { Graph } from './graph.ts';
import { type LoopsRead, readEveryLoop } from './loops.ts';
import { withMeasuredNoise } from './noise.ts';
import { delayMeasurements, type Measurements } from './offset.ts';
import type { Places } from './place.ts';
import { readNoise, type Traced, trace } from './trace.ts';

/** What sounds where, whatever is wanted of it. */
export interface Spread {
  readonly devices: Rig['devices'];
  readonly parts: Parts;
  readonly graph: Graph;
  readonly loops: LoopsRead;
  readonly measurements: Measurements;
  /** Worked out when it is asked for: a search that sees a loop howl looks no further. */
  readonly sounds: Lazy<Sounds>;
}

interface Sounds {
  readonly traced: Traced;
  readonly noiseDb: Float64Array;
  /** What has been read of it, place by place; and how the others were, of which much may be as it was. */
  readonly places: Places;
  readonly before: Places;
}

/** Worked out once, when it is first asked for; what it was worked out from is let go then. */
class Lazy<T extends object> {
  private work: (() => T) | null;
  private done: T | null = null;

  constructor(work: () => T) {
    this.work = work;
  }

  get value(): T {
    this.done ??= this.work!();
    this.work = null;
    return this.done;
  }

  /** What is worked out already; null for nothing. */
  get known(): T | null {
    return this.done;
  }
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
/** The last one with these cables: most edits are a setting. */
const latest = new WeakMap<Rig['cables'], Spread>();

/**
 * An edit of the plan moves no sound, and a setting moves it only behind itself: what is known is taken over as long as
 * nothing that it rests on is another one.
 * @param near  the graph of a rig that differs by a few settings; where absent, the last one with the same cables
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
    loops: readEveryLoop(graph, components, measurements),
    measurements,
    sounds: new Lazy(() => soundsAnew(rig, graph, components)),
  };
}

const soundsAnew = (rig: Rig, graph: Graph, components: Components): Sounds => ({
  traced: trace(rig, graph, components),
  noiseDb: withMeasuredNoise(rig, graph, readNoise(graph, components)),
  places: new Map(),
  before: new Map(),
});

/** What a few settings change of it, and the rest as it is; null where it is another rig. */
function spreadNear(rig: Rig, before: Spread): Spread | null {
  if (!isSame(before.parts, rig)) return null;
  const patched = patch(before.graph, rig);
  if (!patched) return null;
  const { graph, touched, rewired } = patched;
  const components = findComponents(graph, rewired ? undefined : before.graph);
  const { measurements, loops } = before;
  const sounds = before.sounds.known;
  return {
    devices: rig.devices,
    parts: before.parts,
    graph,
    loops: readEveryLoop(graph, components, measurements, { read: loops, touched: new Set(touched) }),
    measurements,
    sounds: new Lazy(() =>
      sounds ? soundsNear(rig, graph, components, sounds, touched) : soundsAnew(rig, graph, components),
    ),
  };
}

function soundsNear(
  rig: Rig,
  graph: Graph,
  components: Components,
  before: Sounds,
  touched: readonly number[],
): Sounds {
  const traced = trace(rig, graph, components, { traced: before.traced, touched });
  const noiseDb = withMeasuredNoise(rig, graph, readNoise(graph, components));
  const isKept = (node: number): boolean =>
    traced.sound.lists[node] === before.traced.sound.lists[node] &&
    traced.picture.lists[node] === before.traced.picture.lists[node] &&
    noiseDb[node] === before.noiseDb[node];
  const [places, others]: [Places, Places] = [new Map(), new Map()];
  for (const [key, place] of before.places) (place.nodes.every(isKept) ? places : others).set(key, place);
  return { traced, noiseDb, places, before: others };
}
