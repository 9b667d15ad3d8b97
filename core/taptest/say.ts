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
  'Not found doesn’t mean not connected. It may be more than 30 dB below the loudest (play it alone), or blocked by voice processing (switch the call app to music mode).';

/** How far a time may be trusted, in words. */
export const TIME_KNOWN: Readonly<Record<TimeKnown, string>> = {
  alone: 'known on its own',
  'between-sources': 'only known relative to other sources in this take',
  'between-takes': 'only known relative to this source in other takes',
  double: 'only known as one source relative to another, here and there',
};

const sayUnder = (underDb: number | null): string =>
  underDb === null || Math.round(underDb) < 1 ? '' : `, ${whole(underDb)} dB below the loudest`;

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
      return `“${source}” should reach “${listener}”, but was not found there.`;
    case 'hardly':
      return `“${source}” should be loud at “${listener}”, but is hardly there, if at all.`;
    case 'extra':
      return `“${source}” should not reach “${listener}”, but does${sayUnder(cell.underDb)}.`;
    case 'twice':
      return `“${source}” reaches “${listener}” twice: again ${ms(d.afterMs)} ms ${d.afterMs > 0 ? 'later' : 'earlier'}, ${whole(d.underDb)} dB quieter. ${d.underDb > FAINT_DB ? 'That faint, it may be chance.' : 'That path isn’t drawn.'}`;
    case 'once':
      return `“${source}” should reach “${listener}” twice, ${ms(d.afterMs)} ms apart, but arrives once.`;
    case 'upside-down':
      return `“${source}” has inverted polarity at “${listener}”, relative to the loudest source there.`;
    case 'level':
      return `“${source}” is ${whole(d.db)} dB ${d.db > 0 ? 'louder' : 'quieter'} at “${listener}” than the other readings suggest.`;
    case 'late':
      return `“${source}” arrives ${ms(d.ms)} ms ${d.ms > 0 ? 'later' : 'earlier'} at “${listener}” than the other readings suggest (${cell.time ? TIME_KNOWN[cell.time.known] : 'unknown'}).`;
    case 'band':
      return `“${source}” arrives at “${listener}” up to ${sayHz(d.highHz)}; the drawing has another bandwidth.`;
    case 'clock':
      return `“${source}” runs ${whole(d.ppm)} ppm ${d.ppm > 0 ? 'long' : 'short'} at “${listener}” compared with the other readings: something in between resamples, or runs on its own clock.`;
    case 'jump':
      return `“${source}” jumps by ${ms(d.ms)} ms at “${listener}”: a buffer was lost or doubled.`;
    case 'wanders':
      return sayWander([source], listener, d);
  }
}

export const sayHz = (hz: number): string => (hz >= 1000 ? `${tenths(hz / 1000)} kHz` : `${whole(hz)} Hz`);
const isTold = (end: BandEdge): end is Interval => end !== null && end !== 'beyond';

/** Between which frequencies it comes, as far as that could be told. */
export function sayBand(low: BandEdge, high: BandEdge): string {
  const [from, to] = [isTold(low) && `from ${sayHz(low.nominal)}`, isTold(high) && `up to ${sayHz(high.nominal)}`];
  return [from, to].filter(Boolean).join(' ') || 'with the whole band of the test tune';
}

/** Sources whose delay moves at one listener, and how far at most. */
export const sayWander = (
  sources: readonly string[],
  listener: string,
  { earliestMs, latestMs }: { readonly earliestMs: number; readonly latestMs: number },
): string =>
  `${listed(sources.map((s) => `“${s}”`))} → “${listener}”: the delay keeps changing, up to ${ms(earliestMs)} ms earlier and ${ms(latestMs)} ms later than in the middle. The receiver stretches the audio, as a call does where packets are lost.`;

const listed = (names: readonly string[]): string =>
  names.length < 2 ? names.join() : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;

/** The way that a source takes, as the drawing has it. */
export const sayWay = (rig: Rig, deviceIds: readonly string[]): string =>
  deviceIds.map((id) => deviceName(rig, id)).join(' → ');

/** Against what the plan wants. */
export function sayPlan(rig: Rig, { sourceId, listenerId, toPlan, expected, underDb }: TapCell): string | null {
  const source = nameOf(rig.sources, sourceId);
  const listener = nameOf(rig.listeners, listenerId);
  if (toPlan === 'lacking') return `“${source}” should arrive at “${listener}”, but doesn’t.`;
  if (toPlan !== 'unwanted') return null;
  const way = expected.ways[0];
  return `“${source}” must not arrive at “${listener}”, but does${sayUnder(underDb)}${way ? `, as drawn: ${sayWay(rig, way.deviceIds)}` : ''}.`;
}

/** What would make more of time known. */
export const SAY_JOINS = [
  'Put the phone that plays next to the mic: then it’s known how long its audio takes to that take.',
  'Use one player for two sources, plugged in one after the other, or both from one computer: then the difference of their starts drops out.',
  'Record two destinations as tracks of one file: they start at the same moment, on one clock.',
] as const;
