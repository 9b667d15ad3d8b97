import type { Treatment } from '#core/audio/process/index.ts';
import { process as say } from '#words/index.ts';

export type StepId = 'lowCut' | 'gate' | 'presence' | 'deEss' | 'compressor' | 'limiter';

/** A figure of a step: what stands before and after it in its sentence, and what it may be. */
interface Field {
  readonly key: string;
  readonly before: string;
  readonly unit: string;
  readonly label: string;
  readonly min: number;
  readonly max: number;
}

export interface StepWords {
  readonly id: StepId;
  readonly name: string;
  readonly fields: readonly Field[];
}

const field = (key: string, before: string, unit: string, label: string, min: number, max: number): Field => ({
  key,
  before,
  unit,
  label,
  min,
  max,
});
const release = field('releaseMs', say.release(), 'ms', say.release(), 0, 5000);
const attack = field('attackMs', say.attack(), 'ms', say.attack(), 0, 5000);

/** The steps in their order, each as a sentence with figures. */
export const STEPS: readonly StepWords[] = [
  { id: 'lowCut', name: say.lowCut(), fields: [field('hz', say.below(), say.hzDbOctave(), say.corner(), 10, 2000)] },
  {
    id: 'gate',
    name: say.gate(),
    fields: [
      field('thresholdDbfs', say.below(), 'dBFS', say.threshold(), -90, 0),
      field('rangeDb', say.range(), 'dB', say.range(), 0, 90),
      { ...attack, before: say.attack() },
      field('holdMs', say.hold(), 'ms', say.hold(), 0, 5000),
      { ...release, before: say.release() },
    ],
  },
  {
    id: 'presence',
    name: say.presence(),
    fields: [
      field('gainDb', '', 'dB', say.gain(), -18, 18),
      field('hz', say.about(), say.hz(), say.middle(), 10, 20_000),
      field('q', say.q(), '', 'Q', 0.1, 12),
    ],
  },
  {
    id: 'deEss',
    name: say.deEsser(),
    fields: [
      field('hz', say.above(), say.hz(), say.corner(), 1000, 16_000),
      field('thresholdDbfs', say.threshold(), 'dBFS', say.threshold(), -90, 0),
      field('rangeDb', say.range(), say.dbAtMost(), say.range(), 0, 30),
    ],
  },
  {
    id: 'compressor',
    name: say.compressor(),
    fields: [
      field('thresholdDbfs', say.threshold(), 'dBFS', say.threshold(), -90, 0),
      field('ratio', say.ratio(), say.to(), say.ratio(), 1, 50),
      field('kneeDb', say.knee(), 'dB', say.knee(), 0, 30),
      attack,
      release,
    ],
  },
  {
    id: 'limiter',
    name: say.limiter(),
    fields: [field('ceilingDbtp', say.ceiling(), 'dBTP', say.ceiling(), -24, 0), release],
  },
];

/** What a step begins with where the take asks for none of it. */
export const DEFAULTS: { readonly [K in StepId]: NonNullable<Treatment[K]> } = {
  lowCut: { hz: 80 },
  gate: { thresholdDbfs: -50, rangeDb: 10, attackMs: 2, holdMs: 250, releaseMs: 200 },
  presence: { hz: 2500, gainDb: 2.5, q: 0.9 },
  deEss: { hz: 5000, thresholdDbfs: -36, rangeDb: 6 },
  compressor: { thresholdDbfs: -24, ratio: 3, kneeDb: 6, attackMs: 8, releaseMs: 150 },
  limiter: { ceilingDbtp: -1, releaseMs: 80 },
};

/** One figure of a step changed. */
export const withField = (treatment: Treatment, id: StepId, key: string, value: number): Treatment => ({
  ...treatment,
  [id]: { ...treatment[id], [key]: value },
});

/** Switches a step on or off; its former settings come back. */
export const withStep = (treatment: Treatment, id: StepId, on: boolean, last: Treatment): Treatment => ({
  ...treatment,
  [id]: on ? (last[id] ?? DEFAULTS[id]) : null,
});
