export { type Clap, findClaps } from './claps/index.ts';
export { bestLag } from './correlate.ts';
export { type Diagnosis, diagnose } from './diagnose.ts';
export { FAULT_IDS, type Fault, type FaultId, type Spectrum } from './faults/index.ts';
export {
  type Brightness,
  type Flash,
  findFlashes,
  frameRateOf,
  GRID_CELLS,
  GRID_COLUMNS,
  GRID_ROWS,
  meanBrightness,
  type UnevenFrames,
  unevenFrames,
} from './flash.ts';
export { type Joined, joinTakes, stretchOfJoined } from './join.ts';
export { type Apart, type Jump, measureJumps } from './jumps.ts';
export {
  type FrameRange,
  type Levels,
  type LevelsPart,
  levelsOf,
  levelsRanges,
  measureLevels,
  measurePart,
} from './levels.ts';
export { type LiveMeter, type LiveReading, liveMeter } from './live.ts';
export { HOP_S, integratedOf, type Loudness, loudnessMeter, lufsOf } from './loudness.ts';
export { MeasureError } from './measure-error.ts';
export { changesOf, clicksFor, type MenuClick, type RegionTrace } from './menu-clicks.ts';
export { measureOffset, type Offset } from './offset.ts';
export { type PictureOffset, pairMarks } from './picture-offset.ts';
export { type SoundPrint, soundPrint } from './sound-print.ts';
export {
  type Spectrogram,
  type SpectrogramView,
  spectrogramOf,
  type ThirdOctave,
  thirdOctaves,
} from './spectrogram.ts';
export { offsetAtMs, piecesOf, type Stretch, stretchesOf } from './stretches.ts';
export { peakMeter } from './true-peak.ts';
export { type InputWatch, inputWatch, type WatchAlarm, type WatchAlarmId, type WatchState } from './watch.ts';
export { readWindow } from './windows.ts';
