export { type MadeWith, type PictureReading, type Reconciled, reconcileDrift, reconcilePicture } from './reconcile.ts';
