import type { Rig } from '#core/model/rig/index.ts';
import type { Evaluation } from '#core/signal/index.ts';
import { boxFaults } from './boxes.ts';
import { choiceFaults } from './choices.ts';
import type { Fault } from './fault.ts';
import { leadFaults } from './leads.ts';
import { settingFaults } from './settings.ts';

export type { DirectLook, Fault, Flag, Mark } from './fault.ts';
export { answerOf, WEIGHTS } from './fault.ts';

/** Everything that can be wrong at the desk of this rig, one fault at a time; what it does is for the model to say. */
export const faultsOf = (rig: Rig, evaluation: Evaluation): Fault[] => [
  ...settingFaults(rig, evaluation),
  ...leadFaults(rig),
  ...choiceFaults(rig),
  ...boxFaults(rig),
];
