import type { LanePeaks } from './lane-layout.ts';

/** A take as a bar of a timeline. */
export interface TimelineTake {
  readonly key: string;
  readonly name: string;
  readonly startMs: number;
  readonly durationMs: number;
  readonly peaks: LanePeaks;
}

export interface TimelineBar {
  readonly key: string;
  readonly name: string;
  readonly row: number;
  readonly leftPx: number;
  readonly widthPx: number;
  /** The wave, about the middle of its row. */
  readonly path: string;
}

export const TIMELINE_ROW_PX = 40;
const WAVE_PX = 15;
/** A sound that never gets louder than this is drawn flat. */
const MIN_REACH = 0.003;

/** Takes in rows, each as wide as it is long, its waveform scaled to the height of its row. */
export function layoutTimeline(takes: readonly TimelineTake[], widthPx: number, wholeMs: number): TimelineBar[] {
  const pxPerMs = widthPx / Math.max(1, wholeMs);
  return takes.map((take, row) => {
    const leftPx = take.startMs * pxPerMs;
    const width = Math.max(2, take.durationMs * pxPerMs);
    return { key: take.key, name: take.name, row, leftPx, widthPx: width, path: wave(take.peaks, leftPx, width, row) };
  });
}

function wave({ low, high }: LanePeaks, leftPx: number, widthPx: number, row: number): string {
  const middle = (row + 0.5) * TIMELINE_ROW_PX + 5;
  const columns = Math.max(1, Math.floor(widthPx));
  let reach = MIN_REACH;
  for (let i = 0; i < low.length; i++) reach = Math.max(reach, high[i]!, -low[i]!);
  const up: string[] = [];
  const down: string[] = [];
  for (let c = 0; c < columns; c++) {
    const from = Math.floor((c * low.length) / columns);
    const to = Math.max(from + 1, Math.floor(((c + 1) * low.length) / columns));
    let [l, h] = [0, 0];
    for (let i = from; i < to && i < low.length; i++) {
      l = Math.min(l, low[i]!);
      h = Math.max(h, high[i]!);
    }
    const x = (leftPx + c).toFixed(1);
    up.push(`${x} ${(middle - (WAVE_PX * h) / reach).toFixed(1)}`);
    down.push(`${x} ${(middle - (WAVE_PX * l) / reach).toFixed(1)}`);
  }
  return `M${up.join('L')}L${down.reverse().join('L')}Z`;
}
