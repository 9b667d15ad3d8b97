import { startTransition, useEffect, useMemo, useRef, useState } from 'react';
import type { Rig } from '#core/model/rig/index.ts';
import { drawingOf, isSetOut, type Layer, type LineMap, type MapPlan, planMap } from '#core/output/map/index.ts';
import type { Evaluation } from '#core/signal/index.ts';
import { setOut } from '#web/shared/workers/index.ts';

/** Devices and lines up to which a map is set out at once; larger ones beside the page. */
const AT_ONCE = 160;

/** A plan in an older drawing: what has a place there. */
function inDrawing(plan: MapPlan, { drawing }: LineMap): LineMap {
  return {
    ...plan,
    boxes: plan.boxes.filter((b) => drawing.boxes.has(b.deviceId)),
    lines: plan.lines.filter((l) => drawing.wires.has(l.id)),
    drawing,
  };
}

/** The line map of a rig as it stands; null while a large one is set out for the first time. */
export function useLineMap(
  rig: Rig,
  evaluation: Evaluation,
  layer: Layer,
  folded: ReadonlySet<string>,
): { map: LineMap | null; busy: boolean } {
  const kept = useRef(new Map<Layer, LineMap>());
  const [came, setCame] = useState(0);
  const plan = useMemo(
    () => planMap(rig, evaluation, layer, kept.current.get(layer), folded),
    [rig, evaluation, layer, folded],
  );
  // biome-ignore lint/correctness/useExhaustiveDependencies: the result is read from the cache
  const { map, busy } = useMemo(() => {
    const last = kept.current.get(layer);
    const atOnce = plan.shapes.length + plan.wires.length <= AT_ONCE || (last && isSetOut(plan, last));
    if (!atOnce) return { map: last ? inDrawing(plan, last) : null, busy: true };
    const map = { ...plan, drawing: drawingOf(plan, last) };
    kept.current.set(layer, map);
    return { map, busy: false };
  }, [plan, layer, came]);
  useEffect(() => {
    if (!busy) return undefined;
    const job = setOut(plan.shapes, plan.wires, kept.current.get(layer)?.drawing.seats);
    job.result.then(
      (drawing) => {
        kept.current.set(layer, { ...plan, drawing });
        // A thousand devices are drawn bit by bit, between what one types.
        startTransition(() => setCame((n) => n + 1));
      },
      () => undefined,
    );
    return job.stop;
  }, [busy, plan, layer]);
  return { map, busy };
}
