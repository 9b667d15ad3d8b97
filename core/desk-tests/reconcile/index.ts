export { type LevelCause, type LevelReading, type LevelReconciled, levelEdit, reconcileLevel } from './level.ts';
export {
  asMade,
  type MadeWith,
  type PictureReading,
  type Reconciled,
  reconcileDrift,
  reconcilePicture,
  type SetDelay,
} from './reconcile.ts';
export { type Dependent, type MeasurementStatus, restsOn, type StandingFigure, standingsOf } from './standing.ts';
export { type TreatingPlace, type TreatmentAtPlace, treatingPlaces, treatmentAt } from './treatment.ts';
