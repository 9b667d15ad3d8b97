export type { Region } from './cells.ts';
export { type DeskReader, openDeskReader } from './desk.ts';
export { type FixFinder, openFixFinder } from './fixes.ts';
export type { SmallFrame } from './frames.ts';
export {
  compareTakes,
  correctTake,
  diagnoseTake,
  drawWays,
  explainScanAt,
  explainTap,
  followTakes,
  framesBetween,
  hideFaultFor,
  type Job,
  joinAll,
  lineUpFaults,
  lookAtTake,
  makeSlate,
  matchMenu,
  planNext,
  readTapTake,
  searchAlignment,
  searchMakeItSo,
  setOut,
  tapStandIn,
} from './jobs.ts';
export { renderLoop } from './listen.ts';
export type { HeardLoop } from './listen.worker.ts';
export type { Progress, TakeLook } from './look.ts';
export type { JoinedTakes } from './measure.worker.ts';
export { canScan, openScanDesk, type ScanDesk } from './scan.ts';
export type { Container, MadeFile, SlateFilm } from './slate.worker.ts';
export { openSoundDesk, type SoundDesk } from './sound.ts';
export type { HeardSound, TakeFacts, TriedStretch, TriedTreatment } from './sound.worker.ts';
export type { TakeSource } from './take-source.ts';
export type { TrackTapped } from './tap.worker.ts';
export { openTripReader } from './trip.ts';
export { canWatchTracks, watchTrack } from './watch.ts';
