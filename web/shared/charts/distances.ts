import { scaleLinear } from 'd3-scale';

/** A track over the time of a take: bars where it speaks, or a step in every piece of talk. */
export interface DistanceTrack {
  readonly key: string;
  readonly name: string;
  readonly hue: string;
  /** LU under the main voice that are wanted. */
  readonly wantedLu: number;
  /** Stretches of a track, distance of each from the main voice, and before any change, dB; Infinity where silent. */
  readonly steps: readonly {
    readonly fromS: number;
    readonly toS: number;
    readonly underLu: number;
    readonly wasLu: number | null;
    /** Nearer than may be. */
    readonly near: boolean;
  }[];
}

interface DistanceStep {
  readonly fromPx: number;
  readonly toPx: number;
  readonly px: number;
  readonly wasPx: number | null;
  readonly near: boolean;
  readonly fromS: number;
  readonly toS: number;
  readonly underLu: number;
}

export interface DistanceLayout {
  readonly voicePx: number;
  readonly ticks: readonly { readonly lu: number; readonly px: number }[];
  readonly clock: readonly { readonly s: number; readonly px: number }[];
  readonly pxAt: (s: number) => number;
  readonly secondsAt: (px: number) => number;
  readonly tracks: readonly {
    readonly track: DistanceTrack;
    readonly wantedPx: number;
    readonly steps: DistanceStep[];
  }[];
}

export const DISTANCE_HEIGHT = 230;
const SPAN_LU = { over: 12, under: 30 } as const;
/** Distances beyond this are inaudible and not drawn, dB. */
const SILENT_LU = 36;
const TICKS_LU = [-10, 0, 10, 20, 30];
const AXIS_PX = 20;
export const LEFT_PX = 42;
const RIGHT_PX = 4;

/** Time horizontally, distance from the main voice vertically, louder tracks above its line. Clamped to the span. */
export function layoutDistances(tracks: readonly DistanceTrack[], seconds: number, widthPx: number): DistanceLayout {
  const y = scaleLinear()
    .domain([-SPAN_LU.over, SPAN_LU.under])
    .range([4, DISTANCE_HEIGHT - AXIS_PX - 4])
    .clamp(true);
  const x = scaleLinear()
    .domain([0, Math.max(1, seconds)])
    .range([LEFT_PX, widthPx - RIGHT_PX]);
  return {
    voicePx: y(0),
    ticks: TICKS_LU.map((lu) => ({ lu, px: y(lu) })),
    pxAt: x,
    secondsAt: (px) => Math.max(0, Math.min(seconds, x.invert(px))),
    clock: x.ticks(8).map((s) => ({ s, px: x(s) })),
    tracks: tracks.map((track) => ({
      track,
      wantedPx: y(track.wantedLu),
      steps: track.steps
        .filter((s) => Number.isFinite(s.underLu) && s.underLu < SILENT_LU)
        .map((s) => ({
          fromPx: x(s.fromS),
          toPx: Math.max(x(s.fromS) + 2, x(s.toS)),
          px: y(s.underLu),
          wasPx: s.wasLu === null || !Number.isFinite(s.wasLu) ? null : y(s.wasLu),
          near: s.near,
          fromS: s.fromS,
          toS: s.toS,
          underLu: s.underLu,
        })),
    })),
  };
}

/** The middle of the phrase before or after an instant, by an arrow key; null for another key, or where there is none. */
export function phraseFrom(tracks: readonly DistanceTrack[], atS: number, key: string): number | null {
  if (key !== 'ArrowLeft' && key !== 'ArrowRight') return null;
  const middles = tracks.flatMap((t) => t.steps.map((s) => (s.fromS + s.toS) / 2)).sort((a, b) => a - b);
  const beyond = 0.2;
  return key === 'ArrowRight'
    ? (middles.find((m) => m > atS + beyond) ?? null)
    : (middles.findLast((m) => m < atS - beyond) ?? null);
}
