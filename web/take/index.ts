export { fileOf, rememberFile, sourceOf } from './files.ts';
export { keep, readKept } from './kept.ts';
export { TakeFrame } from './TakeFrame.tsx';
export { TARGETS, type TargetId } from './targets.ts';
export { keepTreatment, readTreatment } from './treatment.ts';
export { type SoundAtHand, useSound } from './useSound.ts';
export { type KeptNotes, useTakeNotes } from './useTakeNotes.ts';
export { type TakeAtHand, useTakesInAddress } from './useTakesInAddress.ts';
export { Working } from './Working.tsx';
