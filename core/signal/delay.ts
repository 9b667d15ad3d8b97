import type { Text } from '#core/base/said/index.ts';
import type { Figure } from '#core/model/units/index.ts';
import type { Arrival } from './arrival.ts';
import type { Graph } from './graph.ts';
import { type Measurements, settleDelay } from './offset.ts';
import { readPath } from './path.ts';
import { say } from './sayings.ts';

/** How long an arrival has taken, with what takes have said about it: the one figure that every screen, command and export reads. */
export const delayOf = (
  { graph, measurements }: { readonly graph: Graph; readonly measurements: Measurements },
  arrival: Arrival,
  label: Text = say.onThisPath(),
): Figure => settleDelay(measurements, label, readPath(graph, arrival).terms);
