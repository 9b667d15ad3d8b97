export { type LevelCause, type LevelReading, levelEdit, reconcileLevel } from './level.ts';
export {
  asMade,
  type MadeWith,
  type PictureReading,
  reconcileDrift,
  reconcilePicture,
  type SetDelay,
} from './reconcile.ts';
export { type Dependent, type MeasurementStatus, restsOn, type StandingFigure, standingsOf } from './standing.ts';
export { treatingPlaces, treatmentAt } from './treatment.ts';
