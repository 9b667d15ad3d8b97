import type { Arrival, Graph } from '#core/signal/index.ts';
import type { Effects } from './effects.ts';
import type { Mark } from './faults/index.ts';

/** What is wrong at the desk beside what an edit of the drawing shows. */
export interface Disturbed {
  readonly deadBoxes: ReadonlySet<string>;
  readonly effects: Effects;
  readonly marks: readonly Mark[];
}

/** Whether what the model has arrive does so at the desk. */
export interface Alive {
  sound(arrival: Arrival): boolean;
  /** Probability that video passes there: 1, 0.5 or 0. */
  picture(arrival: Arrival): number;
}

/** Whether what arrives in the model arrives at the desk: not through a device that is off, nor by a cable that is dead. */
export function aliveIn(graph: Graph, { deadBoxes, effects }: Pick<Disturbed, 'deadBoxes' | 'effects'>): Alive {
  const known = new Map<Arrival, number>();
  const walk = (arrival: Arrival, dead: ReadonlySet<string>, doubtful: ReadonlySet<string> | null): number => {
    const before = known.get(arrival);
    if (before !== undefined) return before;
    let sure = 1;
    if (!arrival.edge) sure = deadBoxes.has(graph.nodes[arrival.node]!.deviceId) ? 0 : 1;
    else {
      const { via } = arrival.edge;
      if ('deviceId' in via) sure = deadBoxes.has(via.deviceId) ? 0 : 1;
      else if (dead.has(via.cableId)) sure = 0;
      else if (doubtful?.has(via.cableId)) sure = 0.5;
    }
    if (sure > 0 && arrival.from) sure = Math.min(sure, walk(arrival.from, dead, doubtful));
    known.set(arrival, sure);
    return sure;
  };
  return {
    sound: (arrival) => walk(arrival, effects.silentCables, null) > 0,
    picture: (arrival) => walk(arrival, effects.blackCables, effects.doubtfulCables),
  };
}
