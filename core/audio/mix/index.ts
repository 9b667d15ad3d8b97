export {
  type Aim,
  judged,
  NEARER_LU,
  type Part,
  solveBalance,
  type TrackReading,
} from './balance.ts';
export { type Balanced, balanceTake, mixDown, mixStretch } from './mixdown.ts';
export { pairSounds, pairTakes, type SoundPair, stretchOf } from './pair.ts';
export type { MixPlan } from './plan.ts';
export { pieceOfTalk, type Stretch, talkOf } from './talk.ts';
export { type MixTrack, measureTracks, type TrackMeasured } from './tracks.ts';
export {
  measureVoice,
  startingTreatment,
  type TreatmentFigures,
  treatmentFigures,
  type VoiceMeasured,
} from './voice.ts';
