import './spoken.ts';
import { expose } from 'comlink';
import highsWasm from 'highs/runtime?url';
import { type Ahead, firstStep, type NextStep, planAhead } from '#core/live/next/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { programsOver } from '#core/routing/suggest/index.ts';

/** The way to ready, beside the page: with the first edit after it the worker ends. */
const api = {
  async planAhead(rig: Rig, last: Rig | null, onFirst: (step: NextStep) => void): Promise<Ahead> {
    const first = firstStep(rig);
    if (first) onFirst(first);
    const { default: loadHighs } = await import('highs');
    const highs = await loadHighs({ locateFile: () => highsWasm });
    return planAhead(rig, { solve: programsOver(highs), last });
  },
};
export type NextApi = typeof api;
expose(api);
