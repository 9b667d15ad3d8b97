export { type LevelCause, type LevelReading, type LevelReconciled, levelEdit, reconcileLevel } from './level.ts';
export { type MadeWith, type PictureReading, type Reconciled, reconcileDrift, reconcilePicture } from './reconcile.ts';
export { type TreatingPlace, type TreatmentAtPlace, treatingPlaces, treatmentAt } from './treatment.ts';
