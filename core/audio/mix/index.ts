export {
  type Aim,
  judged,
  NEARER_LU,
  type Part,
  type Place,
  solveBalance,
  type TrackReading,
} from './balance.ts';
export { type Balanced, balanceTake, mixDown, mixStretch } from './mixdown.ts';
export { pairSounds, pairTakes, type SoundPair, stretchOf } from './pair.ts';
export type { MixPlan, Ride } from './plan.ts';
export { pieceOfTalk, type Stretch, type Talk, talkOf } from './talk.ts';
export { type MixTrack, measureTracks, type TrackMeasured } from './tracks.ts';
export {
  measureVoice,
  startingTreatment,
  type TreatmentFigures,
  treatmentFigures,
  type VoiceMeasured,
} from './voice.ts';
