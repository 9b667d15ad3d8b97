import { textOf } from '#core/base/said/index.ts';
import { csvOf } from '#core/base/text/index.ts';
import { framesFromMs, type Rate, rateName, samplesFromMs } from '#core/model/units/index.ts';
import { say } from './sayings.ts';

/** One recording, and how to move and stretch it so that it is aligned. */
export interface SlipItem {
  readonly name: string;
  readonly fileName: string;
  readonly durationMs: number;
  /** Where in the file it begins, ms: a recording that lost a buffer is cut there, and is several items. Its beginning, where absent. */
  readonly fromMs?: number;
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
  /** Moments that were marked on the day: where in the recording that the others follow, ms. */
  readonly markers?: readonly SlipMarker[];
}

export interface SlipMarker {
  readonly atMs: number;
  readonly says: string;
}

/** How much faster an item is played. */
export const speedOf = (item: SlipItem): number => 1 + item.longerPpm * 1e-6;

/** What all are moved by together, so that none begins before the timeline does. */
export const leadInMs = ({ items }: SlipList): number => Math.max(0, ...items.map((i) => -i.moveMs));

/** Where an item begins on the timeline, ms. */
export const startMs = (list: SlipList, item: SlipItem): number => item.moveMs + leadInMs(list);

/** Items by recording, in order: the parts of a recording that was cut are on one track. */
export function tracksOf({ items }: SlipList): SlipItem[][] {
  const tracks: SlipItem[][] = [];
  for (const item of items) {
    const last = tracks.at(-1);
    if (last && last[0]!.fileName === item.fileName && item.fromMs !== undefined) last.push(item);
    else tracks.push([item]);
  }
  return tracks;
}

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
    String(item.fromMs ?? 0),
  ]);
  // A marker is no track: what it is moved by is where it stands.
  const marked = (list.markers ?? []).map(({ atMs, says }) => [
    textOf(say.marker({ says })),
    '',
    String(atMs),
    String(framesFromMs(atMs, list.frameRate)),
    String(samplesFromMs(atMs, list.items[0]?.sampleRateHz ?? 48_000)),
    '',
    '',
    '',
    '',
  ]);
  const head = [
    say.track(),
    say.file(),
    say.moveByMs(),
    say.moveByFramesAt({ rate: rateName(list.frameRate) }),
    say.moveBySamples(),
    say.runsLongerPpm(),
    say.speed(),
    say.lengthMs(),
    say.startsInFileMs(),
  ];
  return csvOf([head.map(textOf), ...rows, ...marked]);
}
