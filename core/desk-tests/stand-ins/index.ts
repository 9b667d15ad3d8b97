export { type Listening, type ListenOptions, renderListening } from './listen.ts';
export { type ClapScene, renderFrame } from './picture.ts';
export { renderTrack, type Truth, trueDelayMs } from './render.ts';
export { convolve, roomResponse } from './room.ts';
export { renderShotSound, renderSlateShot, type SlateShot } from './slate-shot.ts';
export { clapsAt, game, hum, jingle, noise, type SourceMaker, voice } from './sources.ts';
export {
  hiddenTruth,
  renderTapTake,
  standInPlayers,
  TAP_TAKE_S,
  tuneFrom,
} from './tap.ts';
