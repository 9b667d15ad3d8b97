import { csvFormatRows } from 'd3-dsv';
import { framesFromMs, type Rate, rateName, samplesFromMs } from '#core/units/index.ts';

/** One recording, and what has to be done to it so that it lies where it belongs. */
export interface SlipItem {
  readonly name: string;
  readonly fileName: string;
  readonly durationMs: number;
  /** How much later its beginning goes on the common timeline; below 0 earlier. */
  readonly moveMs: number;
  /** How much longer it runs than the one that the others follow: it is played faster by as much. */
  readonly longerPpm: number;
  readonly sampleRateHz: number;
}

export interface SlipList {
  readonly title: string;
  readonly frameRate: Rate;
  readonly items: readonly SlipItem[];
}

/** How much faster an item is played. */
export const speedOf = (item: SlipItem): number => 1 + item.longerPpm * 1e-6;

/** What all are moved by together, so that none begins before the timeline does. */
export const leadInMs = ({ items }: SlipList): number => Math.max(0, ...items.map((i) => -i.moveMs));

/** Where an item begins on the timeline, ms. */
export const startMs = (list: SlipList, item: SlipItem): number => item.moveMs + leadInMs(list);

/** As a table (RFC 4180): figures exact, in three units. */
export function slipListToCsv(list: SlipList): string {
  const rows = list.items.map((item) => [
    item.name,
    item.fileName,
    String(item.moveMs),
    String(framesFromMs(item.moveMs, list.frameRate)),
    String(samplesFromMs(item.moveMs, item.sampleRateHz)),
    String(item.longerPpm),
    String(speedOf(item)),
    String(item.durationMs),
  ]);
  const head = [
    'track',
    'file',
    'move by, ms',
    `move by, frames at ${rateName(list.frameRate)}`,
    'move by, samples',
    'runs longer, ppm',
    'speed',
    'length, ms',
  ];
  return `${csvFormatRows([head, ...rows])}\r\n`;
}
