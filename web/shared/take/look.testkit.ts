import { rate } from '#core/model/units/index.ts';
import type { TakeLook } from '#web/shared/workers/index.ts';

/** A take of two flashes and three claps, 65 ms apart; the clap between is weak. */
export const look = (): TakeLook => ({
  durationMs: 5000,
  sound: {
    sampleRateHz: 48000,
    channels: 2,
    layout: ['front-left', 'front-right'],
    peaks: { framesPerBin: 48, sampleRateHz: 48000, low: new Float32Array(5000), high: new Float32Array(5000) },
    claps: [
      { atMs: 1064, strength: 25, confidence: 0.98, kind: 'hands' },
      { atMs: 2000, strength: 9, confidence: 0.62, kind: 'hands' },
      { atMs: 3066, strength: 22, confidence: 0.95, kind: 'hands' },
    ],
    chirps: [],
  },
  picture: {
    width: 640,
    height: 360,
    frameRate: rate(50),
    uneven: null,
    pieces: [],
    flashes: [
      { atMs: 1000, frame: 50, strength: 90, cell: 3 },
      { atMs: 3000, frame: 150, strength: 90, cell: 3 },
    ],
    slates: [],
  },
  notices: [],
});
