import { range } from 'd3-array';
import { scaleLinear } from 'd3-scale';
import { area } from 'd3-shape';

export const TAKEN_HEIGHT = { wave: 84, gain: 70 } as const;
/** What is taken off is drawn down to here. */
const DEEPEST_DB = 20;
export const takenTicks = [6, 12, 18];

export const yOfTaken = scaleLinear()
  .domain([0, DEEPEST_DB])
  .range([0, TAKEN_HEIGHT.gain - 2])
  .clamp(true);

/** The outline of a wave, by pixels: all of it from left to right, about a middle line; `gain` turns it. */
export function outline(x: Float32Array, widthPx: number, gain: number): string {
  const y = scaleLinear()
    .domain([-1, 1])
    .range([TAKEN_HEIGHT.wave - 1, 1])
    .clamp(true);
  const columns = range(0, widthPx).map((px) => {
    const from = Math.floor((px * x.length) / widthPx);
    const to = Math.max(from + 1, Math.floor(((px + 1) * x.length) / widthPx));
    let [low, high] = [0, 0];
    for (let i = from; i < Math.min(x.length, to); i++) {
      if (x[i]! < low) low = x[i]!;
      else if (x[i]! > high) high = x[i]!;
    }
    return { px, top: y(high * gain), bottom: y(low * gain) };
  });
  return (
    area<(typeof columns)[number]>()
      .x((c) => c.px)
      .y0((c) => c.bottom)
      .y1((c) => c.top)
      .digits(1)(columns) ?? ''
  );
}

/** What a step takes off along time, hanging from the top; the most of each pixel. */
export function takenPath(curve: Float32Array, widthPx: number): string {
  const columns = range(0, widthPx).map((px) => {
    const from = Math.floor((px * curve.length) / widthPx);
    const to = Math.max(from + 1, Math.floor(((px + 1) * curve.length) / widthPx));
    let least = 0;
    for (let i = from; i < Math.min(curve.length, to); i++) if (curve[i]! < least) least = curve[i]!;
    return { px, y: yOfTaken(-least) };
  });
  return (
    area<(typeof columns)[number]>()
      .x((c) => c.px)
      .y0(0)
      .y1((c) => c.y)
      .digits(1)(columns) ?? ''
  );
}
