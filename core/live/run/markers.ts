import { textOf } from '#core/base/said/index.ts';
import { csvOf, plainLine } from '#core/base/text/index.ts';
import { say } from './sayings.ts';
import type { Session } from './session.ts';

const MS_A_SECOND = 1000;
const MINUTE_S = 60;
const HOUR_S = 3600;

/** hh:mm:ss.mmm, as WebVTT has it. */
function timestamp(ms: number): string {
  const seconds = Math.floor(ms / MS_A_SECOND);
  const two = (n: number) => String(n).padStart(2, '0');
  return `${two(Math.floor(seconds / HOUR_S))}:${two(Math.floor((seconds % HOUR_S) / MINUTE_S))}:${two(seconds % MINUTE_S)}.${String(Math.floor(ms % MS_A_SECOND)).padStart(3, '0')}`;
}

/** Position of a time of day in a recording that began at `startedAt`, ms; 0 before its start. */
const within = (at: string, startedAt: string): number => Math.max(0, Date.parse(at) - Date.parse(startedAt));

/** Markers and breaks in the order of their time. */
function placesOf({ markers, breaks }: Session): { at: string; says: string }[] {
  return [
    ...markers.map(({ at, says }) => ({ at, says: says === '' ? textOf(say.marker()) : says })),
    ...breaks.flatMap(({ from, to }) => [
      { at: from, says: textOf(say.breakStarts()) },
      ...(to === null ? [] : [{ at: to, says: textOf(say.breakEnds()) }]),
    ]),
  ].sort((a, b) => (a.at < b.at ? -1 : 1));
}

/** Markers and breaks as positions in a recording that began at `startedAt`, ms; earlier ones are left out. */
export const markersIn = (session: Session, startedAt: string): { atMs: number; says: string }[] =>
  placesOf(session)
    .map(({ at, says }) => ({ atMs: Date.parse(at) - Date.parse(startedAt), says }))
    .filter(({ atMs }) => atMs >= 0);

/** A table of the markers, with their positions in a recording that began at `startedAt`. */
export function markersToCsv(session: Session, startedAt: string): string {
  return csvOf([
    ['at', 'inRecording', 'ms', 'says'],
    ...placesOf(session).map(({ at, says }) => {
      const ms = within(at, startedAt);
      return [at, timestamp(ms), String(ms), says];
    }),
  ]);
}

/** Text of a cue (W3C WebVTT): no tags, no letter's names, no arrow. */
const vttText = (text: string): string =>
  plainLine(text).replace(/-->/g, '→').replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');

/** The same as chapters (W3C WebVTT): each lasts until the next, the last until the end. */
export function markersToVtt(session: Session, startedAt: string, endedAt: string): string {
  const places = placesOf(session).map(({ at, says }) => ({ ms: within(at, startedAt), says }));
  const endMs = Math.max(within(endedAt, startedAt), (places.at(-1)?.ms ?? 0) + MS_A_SECOND);
  const first = places[0]?.ms === 0 ? [] : [{ ms: 0, says: session.name || textOf(say.start()) }];
  const all = [...first, ...places];
  const cues = all.map(({ ms, says }, i) => {
    // A chapter of no length is none: two in one moment share it by a thousandth.
    const to = Math.max(all[i + 1]?.ms ?? endMs, ms + 1);
    return `${i + 1}\n${timestamp(ms)} --> ${timestamp(to)}\n${vttText(says)}`;
  });
  return `WEBVTT\n\n${cues.join('\n\n')}\n`;
}
