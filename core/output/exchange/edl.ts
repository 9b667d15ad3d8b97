import { SaidError, type Text } from '#core/base/said/index.ts';
import { plainLine } from '#core/base/text/index.ts';
import { type Counting, countingOf, framesFromMs, rateName, timecode } from '#core/model/units/index.ts';
import { say } from './sayings.ts';
import { leadInMs, type SlipItem, type SlipList, speedOf, startMs, tracksOf } from './slip-list.ts';

/** What keeps a list from being written as an EDL, in a sentence. */
export class EdlError extends SaidError {
  constructor(what: Text) {
    super(what);
    this.name = 'EdlError';
  }
}

/** Events are numbered with three digits. */
const MAX_EVENTS = 999;
const CHANNELS = ['A', 'A2', 'A3', 'A4'] as const;
/** Reels are named by eight letters or digits. */
const REEL = 8;
const COUNTED_MS = 0.005;

/**
 * The list as a CMX 3600 edit decision list: whole frames; what lies between frames, and the stretch, as comments. Rates
 * over 30 are counted in pairs of frames; 29.97 and 59.94 drop-frame. Of more than four recordings at once the later ones
 * are on channel 4, which is noted in a comment. Markers are comments too, in the usual form (LOC).
 * @throws EdlError where no timecode counts the rate, or there are too many recordings
 */
export function slipListToEdl(list: SlipList): string {
  const counting = countingOf(list.frameRate);
  if (!counting) throw new EdlError(say.edlCountsOrFrames({ rate: rateName(list.frameRate) }));
  if (list.items.length > MAX_EVENTS) throw new EdlError(say.edlHasRoomFor({ most: MAX_EVENTS }));
  const lines = [
    `TITLE: ${plainLine(list.title)}`,
    `FCM: ${counting.drop ? 'DROP FRAME' : 'NON-DROP FRAME'}`,
    ...(counting.frames === 2
      ? [`* COUNTED AT HALF RATE: ${rateName(list.frameRate)} FRAMES A SECOND, TWO IN EACH OF THESE`]
      : []),
  ];
  let n = 0;
  tracksOf(list).forEach((items, track) => {
    for (const item of items) lines.push('', ...eventOf(list, item, n++, track, counting));
  });
  for (const { atMs, says } of list.markers ?? []) {
    const frame = Math.round(framesFromMs(atMs + leadInMs(list), list.frameRate) / counting.frames);
    lines.push('', `* LOC: ${timecode(Math.max(0, frame), counting)} GREEN ${plainLine(says)}`);
  }
  return `${lines.join('\r\n')}\r\n`;
}

function eventOf(list: SlipList, item: SlipItem, n: number, track: number, counting: Counting): string[] {
  const frameOf = (ms: number) => framesFromMs(ms, list.frameRate) / counting.frames;
  const exact = frameOf(startMs(list, item));
  const record = Math.round(exact);
  const length = Math.max(1, Math.round(frameOf(item.durationMs)));
  const at = (frame: number) => timecode(frame, counting);
  const from = Math.round(frameOf(item.fromMs ?? 0));
  const channel = CHANNELS[Math.min(track, CHANNELS.length - 1)]!;
  const restMs = ((exact - record) * counting.frames * 1000 * list.frameRate.den) / list.frameRate.num;
  const number = String(n + 1).padStart(3, '0');
  return [
    `${number}  ${reelOf(item.fileName, track).padEnd(REEL)} ${channel.padEnd(5)} C        ${at(from)} ${at(from + length)} ${at(record)} ${at(record + length)}`,
    `* FROM CLIP NAME: ${plainLine(item.fileName)}`,
    ...(track >= CHANNELS.length ? [`* RECORDING ${track + 1}: AN EDL HAS FOUR CHANNELS OF SOUND`] : []),
    ...(Math.abs(restMs) > COUNTED_MS ? [`* MOVE ON BY ${restMs.toFixed(3)} MS, WHAT LIES BETWEEN FRAMES`] : []),
    ...(item.longerPpm === 0 ? [] : [`* PLAY AT ${speedOf(item).toFixed(9)} OF ITS SPEED: IT DRIFTS`]),
  ];
}

const reelOf = (fileName: string, n: number): string =>
  fileName
    .replace(/\.[a-z0-9]+$/i, '')
    .replace(/[^A-Za-z0-9]/g, '')
    .toUpperCase()
    .slice(0, REEL) || `TAKE${n + 1}`;
