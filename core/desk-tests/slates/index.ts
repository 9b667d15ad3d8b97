export { type Chirp, findChirps } from './chirps.ts';
export { framesABeat, framesALoop, SLATE_IDS, SLATE_RATES, type Slate, secondsALoop } from './film.ts';
export { type Box, beatShare, type SlateLayout, slateLayout, whiteBoxes } from './layout.ts';
export { findPanels, type Luma } from './panel.ts';
export type { Phase } from './phase.ts';
export type { Quad } from './quad.ts';
export {
  type PanelSeen,
  type PictureRun,
  readSlates,
  type SlateBeat,
  type SlateReading,
  type SlateSights,
} from './reading.ts';
export {
  LONGEST_TRIP_S,
  type RoundTrip,
  readTrip,
  type SentChirp,
  summariseTrips,
  TRIP_EVERY_S,
  type Trip,
  tripChirp,
} from './round-trip.ts';
export { renderSlateSound } from './sound.ts';
export { type SlateWatch, slateWatch } from './watch.ts';
