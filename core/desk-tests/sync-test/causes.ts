import type { Text } from '#core/base/said/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { findListener, findSource, settingAt } from '#core/model/rig/index.ts';
import { deviceName, type Evaluation, type Pair, readPath } from '#core/signal/index.ts';
import { openFigures } from './figures.ts';
import { say } from './sayings.ts';

/** A path, and what its takes say of it together. */
interface Measured {
  readonly sourceId: string;
  readonly listenerId: string;
  readonly together: { readonly sumMs: number; readonly sdMs: number } | null;
}

/** What a path's offset follows from. */
export interface Cause {
  readonly follows: 'device' | 'lead' | 'nothing';
  readonly says: Text;
}

/** Sound and picture travel a meter of lead in about 5 ns. */
const NS_A_METRE = 5;
const SAME_SD = 2;
const SAME_MS = 3;

/**
 * What the figure follows from: the devices that hold sound or picture back; a cable never does so that it could be seen;
 * and where two paths through the very same devices differ, nothing in the rig.
 */
export function causesOf<Path extends Measured>(
  rig: Rig,
  evaluation: Evaluation,
  path: Path,
  all: readonly Path[],
): Cause {
  const pairOf = (p: Measured) =>
    evaluation.pairs.find((q) => q.sourceId === p.sourceId && q.listenerId === p.listenerId)!;
  const pair = pairOf(path);
  const figures = openFigures(pair);
  const twin = all.find(
    (other) => other !== path && other.together && path.together && sameFigures(figures, openFigures(pairOf(other))),
  );
  if (twin?.together && path.together) {
    const apart = Math.abs(twin.together.sumMs - path.together.sumMs);
    const doubt = Math.max(SAME_MS, SAME_SD * Math.hypot(twin.together.sdMs, path.together.sdMs));
    if (apart > doubt)
      return {
        follows: 'nothing',
        says: say.goesThroughSameDevices({ pair: nameOf(rig, twin), apart: apart.toFixed(0) }),
      };
  }
  const names = [...new Set([...figures.keys()].map((key) => settingAt(key).deviceId))].map((id) =>
    deviceName(rig, id),
  );
  const leads = leadsOf(rig, evaluation, pair);
  const metres = leads.reduce((sum, l) => sum + (l.lengthM ?? 0), 0);
  const lead = say.leadsAdd({ count: leads.length, us: ((metres * NS_A_METRE) / 1000).toFixed(2) });
  return names.length === 0
    ? { follows: 'nothing', says: say.nothingOnItTakes({ lead }) }
    : { follows: 'device', says: say.devices({ names: names.join(', '), leads: lead }) };
}

const nameOf = (rig: Rig, { sourceId, listenerId }: Measured): Text =>
  say.at2({
    source: findSource(rig, sourceId)?.name ?? '',
    listener: findListener(rig, listenerId)?.name ?? '',
  });

function sameFigures(a: ReturnType<typeof openFigures>, b: ReturnType<typeof openFigures>): boolean {
  return a.size > 0 && a.size === b.size && [...a].every(([key, { count }]) => b.get(key)?.count === count);
}

function leadsOf(rig: Rig, { graph }: Evaluation, pair: Pair): Rig['cables'] {
  const used = new Set(
    readPath(graph, pair.ways[0]!.arrival).edges.flatMap((e) => ('cableId' in e.via ? [e.via.cableId] : [])),
  );
  return rig.cables.filter((c) => used.has(c.id));
}
