import type { Rig } from '#core/rig/index.ts';
import { deviceName } from '#core/signal/index.ts';
import type { BandEdge } from '#core/tap/index.ts';
import type { Interval } from '#core/units/index.ts';
import { type Disagreement, FAINT_DB } from './disagree.ts';
import type { TapCell, TimeKnown } from './judge.ts';

const tenths = (x: number): string => (Math.round(10 * Math.abs(x)) / 10).toString();
const whole = (x: number): string => Math.abs(Math.round(x)).toString();
const ms = (x: number): string => (Math.abs(x) < 10 ? tenths(x) : whole(x));

/** What is not found may be there all the same. */
export const NOT_UNCONNECTED =
  'Not found is not unconnected: it may be more than 30 dB under the loudest (play it alone), or held back by a program that lets voices pass only (set the call to music, if it can be).';

/** How far a time may be trusted, in words. */
export const TIME_KNOWN: Readonly<Record<TimeKnown, string>> = {
  alone: 'known by itself',
  'between-sources': 'known against other sources in this take only',
  'between-takes': 'known against this source in other takes only',
  double: 'known only as one source against another, here against there',
};

const sayUnder = (underDb: number | null): string =>
  underDb === null || Math.round(underDb) < 1 ? '' : `, ${whole(underDb)} dB under the loudest`;

const nameOf = (list: readonly { readonly id: string; readonly name: string }[], id: string): string =>
  list.find((e) => e.id === id)?.name ?? id;

/** What a disagreement is, as one would say it. */
export function sayDisagreement(
  rig: Rig,
  cell: Pick<TapCell, 'sourceId' | 'listenerId' | 'underDb' | 'time' | 'read'>,
  d: Disagreement,
): string {
  const source = nameOf(rig.sources, cell.sourceId);
  const listener = nameOf(rig.listeners, cell.listenerId);
  switch (d.kind) {
    case 'missing':
      return `${source} should reach ${listener} and was not found there.`;
    case 'hardly':
      return `${source} should be loud at ${listener}, and is hardly there, if at all.`;
    case 'extra':
      return `${source} should not reach ${listener} and does${sayUnder(cell.underDb)}.`;
    case 'twice':
      return `${source} comes to ${listener} twice: once more ${ms(d.afterMs)} ms ${d.afterMs > 0 ? 'later' : 'earlier'}, ${whole(d.underDb)} dB lower. ${d.underDb > FAINT_DB ? 'So faint a one may be chance.' : 'That way is not drawn.'}`;
    case 'once':
      return `${source} should come to ${listener} twice, ${ms(d.afterMs)} ms apart, and comes once.`;
    case 'upside-down':
      return `${source} stands upside down at ${listener}, against the loudest there.`;
    case 'level':
      return `${source} is ${whole(d.db)} dB ${d.db > 0 ? 'louder' : 'quieter'} at ${listener} than the other readings would have it.`;
    case 'late':
      return `${source} comes ${ms(d.ms)} ms ${d.ms > 0 ? 'later' : 'earlier'} to ${listener} than the other readings would have it (${cell.time ? TIME_KNOWN[cell.time.known] : 'open'}).`;
    case 'band':
      return `${source} is heard at ${listener} up to ${sayHz(d.highHz)}; the drawing has another band.`;
    case 'clock':
      return `${source} runs ${whole(d.ppm)} ppm ${d.ppm > 0 ? 'long' : 'short'} at ${listener} against the other readings: something between resamples, or runs on a clock of its own.`;
    case 'jump':
      return `${source} jumps by ${ms(d.ms)} ms at ${listener}: a buffer was lost or doubled.`;
    case 'wanders':
      return sayWander([source], listener, d);
  }
}

export const sayHz = (hz: number): string => (hz >= 1000 ? `${tenths(hz / 1000)} kHz` : `${whole(hz)} Hz`);
const isTold = (end: BandEdge): end is Interval => end !== null && end !== 'beyond';

/** Between which frequencies it comes, as far as that could be told. */
export function sayBand(low: BandEdge, high: BandEdge): string {
  const [from, to] = [isTold(low) && `from ${sayHz(low.nominal)}`, isTold(high) && `up to ${sayHz(high.nominal)}`];
  return [from, to].filter(Boolean).join(' ') || 'with all of the tune’s band';
}

/** Sources whose delay moves at one listener, and how far at most. */
export const sayWander = (
  sources: readonly string[],
  listener: string,
  { earliestMs, latestMs }: { readonly earliestMs: number; readonly latestMs: number },
): string =>
  `${listed(sources)} ${sources.length === 1 ? 'comes' : 'come'} to ${listener} by a delay that moves all the while, up to ${ms(earliestMs)} ms earlier and ${ms(latestMs)} ms later than in the middle: what receives it stretches the sound, as a call does where packets are lost.`;

const listed = (names: readonly string[]): string =>
  names.length < 2 ? names.join() : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;

/** The way that a source takes, as the drawing has it. */
export const sayWay = (rig: Rig, deviceIds: readonly string[]): string =>
  deviceIds.map((id) => deviceName(rig, id)).join(' → ');

/** Against what the plan wants. */
export function sayPlan(rig: Rig, { sourceId, listenerId, toPlan, expected, underDb }: TapCell): string | null {
  const source = nameOf(rig.sources, sourceId);
  const listener = nameOf(rig.listeners, listenerId);
  if (toPlan === 'lacking') return `${listener} is to hear ${source}, and does not.`;
  if (toPlan !== 'unwanted') return null;
  const way = expected.ways[0];
  return `${listener} is not to hear ${source}, and does${sayUnder(underDb)}${way ? `, as drawn: ${sayWay(rig, way.deviceIds)}` : ''}.`;
}

/** What would make more of time known. */
export const SAY_JOINS = [
  'Lay the phone that plays by the microphone: how long its sound takes to that take is then known.',
  'Let one player play two sources, one after the other plugged in, or both from one computer: what their starts differ by falls away.',
  'Record two listeners as tracks of one file: they began at one moment, on one clock.',
] as const;
