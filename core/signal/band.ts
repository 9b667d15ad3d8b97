import { listOf, type Text } from '#core/base/said/index.ts';
import type { Measurement, PortRef, Rig } from '#core/model/rig/index.ts';
import { findListener } from '#core/model/rig/index.ts';
import type { Arrival } from './arrival.ts';
import { say } from './sayings.ts';

type BandMeasurement = Extract<Measurement, { kind: 'band' }>;

/** Between which frequencies a way passes sound, Hz: 0 and Infinity where nothing on it says anything. */
export interface Band {
  readonly lowHz: number;
  readonly highHz: number;
  readonly kind: 'typical' | 'measured';
  readonly source: Text;
}

/** What was measured of the bands of a source's ways to a place, the newest first. */
export type BandsMeasured = (at: PortRef, sourceId: string) => readonly BandMeasurement[];

const NONE: readonly BandMeasurement[] = [];
const placeOf = (at: PortRef, sourceId: string): string => `${at.deviceId}/${at.portId} ${sourceId}`;

/** What takes have said about bands, by place and source; the newest first. */
export function bandsMeasured(rig: Rig): BandsMeasured {
  const own = rig.measurements.filter((m): m is BandMeasurement => m.kind === 'band');
  const byPlace = new Map<string, BandMeasurement[]>();
  for (const m of own.sort((a, b) => (a.takenAt < b.takenAt ? 1 : -1))) {
    const listener = findListener(rig, m.listenerId);
    if (!listener) continue;
    const key = placeOf(listener.sound, m.sourceId);
    byPlace.set(key, [...(byPlace.get(key) ?? []), m]);
  }
  return (at, sourceId) => byPlace.get(placeOf(at, sourceId)) ?? NONE;
}

/** Within what the devices on the way pass by their types; or what was measured of a way through these very devices. */
export function bandOf(
  { lowHz, highHz }: Pick<Arrival, 'lowHz' | 'highHz'>,
  deviceIds: readonly string[],
  measured: readonly BandMeasurement[],
): Band {
  const m = measured.find((b) => b.deviceIds.join() === deviceIds.join());
  if (!m) return { lowHz, highHz, kind: 'typical', source: say.bandwidthDevicesOnThis() };
  return {
    lowHz: endOf(m.lowHz, lowHz, 0),
    highHz: endOf(m.highHz, highHz, Number.POSITIVE_INFINITY),
    kind: 'measured',
    source: listOf('and', [
      ...[m.lowHz, m.highHz].flatMap(sayEnd),
      say.take({ label: m.label, date: m.takenAt.slice(0, 10) }),
    ]),
  };
}

const sayEnd = (end: BandMeasurement['lowHz']): Text[] =>
  end === null || end === 'beyond' ? [] : [say.toHz({ low: end[0], high: end[2] })];

/** A tune goes from 80 Hz to 14 kHz: what ends beyond is left as it is drawn, where it is drawn so. */
const BEYOND = { lowHz: 80, highHz: 14_000 };

function endOf(end: BandMeasurement['lowHz'], drawnHz: number, open: number): number {
  if (end === null) return drawnHz;
  if (end !== 'beyond') return end[1];
  return drawnHz <= BEYOND.lowHz || drawnHz >= BEYOND.highHz ? drawnHz : open;
}
