export { type Chirp, findChirps } from './chirps.ts';
export { framesALoop, SLATE_IDS, SLATE_RATES, type Slate, secondsALoop } from './film.ts';
export { beatShare, slateLayout, whiteBoxes } from './layout.ts';
export { findPanels, type Luma } from './panel.ts';

export {
  readSlates,
  type SlateReading,
  type SlateSights,
} from './reading.ts';
export {
  LONGEST_TRIP_S,
  readTrip,
  type SentChirp,
  summariseTrips,
  TRIP_EVERY_S,
  type Trip,
  tripChirp,
} from './round-trip.ts';
export { renderSlateSound } from './sound.ts';
export { slateWatch } from './watch.ts';
