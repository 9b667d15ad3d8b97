export { CorrectedWav } from './CorrectedWav.tsx';
export { fileOf, forgetFile, rememberFile, sourceOf } from './files.ts';
export { guessPair, wordsIn } from './guess.ts';
export { keepForTakes, readForTakes } from './kept.ts';
export {
  keepSkew,
  MAX_FLASHES,
  notesFrom,
  offsetOf,
  offsetOfNotes,
  offsetOfSlate,
  skewOf,
  type TakeOffset,
  UNKNOWN_SKEW_MS,
} from './reading.ts';
export { SlipExports } from './SlipExports.tsx';
export { TakeFrame } from './TakeFrame.tsx';
export { TakeGate, TakePage } from './TakePage.tsx';
export { TARGETS, type TargetId } from './targets.ts';
export { keepTreatment, readTreatment } from './treatment.ts';
export { useSendTake } from './useSendTake.ts';
export { type SoundAtHand, useSound } from './useSound.ts';
export { type KeptNotes, useTakeNotes } from './useTakeNotes.ts';
export type { TakeAtHand } from './useTakesInAddress.ts';
