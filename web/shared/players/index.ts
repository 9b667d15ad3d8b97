export { paintSlate } from './paint.ts';
export { SlateCanvas } from './SlateCanvas.tsx';
export { playSlate, type SlateLatency, type SlatePlayer } from './slate-player.ts';
export { playTune, type TunePlayer, tryTune } from './tune-player.ts';
