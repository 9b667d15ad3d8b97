import './spoken.ts';
import { expose } from 'comlink';
import highsWasm from 'highs/runtime?url';
import { type Lineup, lineUp } from '#core/live/troubleshoot/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { layout } from '#core/output/layout/index.ts';
import { makeWhole, type Option, optionsFor } from '#core/routing/plan/index.ts';
import { type AlignOptions, type AllAligned, alignAll, programsOver } from '#core/routing/suggest/index.ts';
import { evaluate } from '#core/signal/index.ts';
import type { Progress } from './look.ts';

/** What is worked out of a rig beside the page. */
const api = {
  layout,
  makeWhole,
  optionsFor: (rig: Rig, onProgress: (progress: Progress) => void): Option[] =>
    optionsFor(rig, (done) => onProgress({ what: 'ways', done })),
  lineUp: (rig: Rig, onProgress: (progress: Progress) => void): Lineup =>
    lineUp(rig, (done) => onProgress({ what: 'faults', done })),
  async alignAll(rig: Rig, options: AlignOptions): Promise<AllAligned> {
    // The solver is large, and only this needs it.
    const { default: loadHighs } = await import('highs');
    const highs = await loadHighs({ locateFile: () => highsWasm });
    return alignAll(rig, evaluate(rig), programsOver(highs), options);
  },
};
export type RigApi = typeof api;
expose(api);
