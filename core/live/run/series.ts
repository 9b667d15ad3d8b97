import { type Said, textOf } from '#core/base/said/index.ts';
import type { Measurement, Rig } from '#core/model/rig/index.ts';
import { deviceName } from '#core/signal/index.ts';
import { type ChartPoint, type ControlChart, controlChart } from './control-chart.ts';
import type { EventOf } from './journal.ts';
import { say } from './sayings.ts';
import type { Session } from './session.ts';

/** A measured figure as it goes into the journal. */
export type DayFigure = Omit<EventOf<'figure'>, 'id' | 'at' | 'by' | 'sessionId'>;

/** One figure day by day. */
export interface Series {
  readonly key: string;
  readonly label: string;
  readonly unit: string;
  /** Oldest first; each with the spread that it was measured with. */
  readonly points: readonly (ChartPoint & { readonly sd: number; readonly count: number })[];
  /** Null while there are too few to judge by. */
  readonly chart: ControlChart | null;
  /** Its last point has moved by more than chance. */
  readonly moved: 'up' | 'down' | null;
}

/** What was measured into the rig since a time, as figures of that day. */
export const figuresSince = (rig: Rig, since: string): DayFigure[] =>
  rig.measurements
    .filter((m) => m.takenAt >= since)
    .flatMap((m) => (m.kind === 'band' ? bandEnds(rig, m) : [figureOf(rig, m)]));

const nameIn = (list: readonly { readonly id: string; readonly name: string }[], id: string): string =>
  list.find((e) => e.id === id)?.name ?? id;

const pairName = (rig: Rig, m: { readonly sourceId: string; readonly listenerId: string }): Said =>
  say.at({ sourceId: nameIn(rig.sources, m.sourceId), listenerId: nameIn(rig.listeners, m.listenerId) });

type BandMeasurement = Extract<Measurement, { kind: 'band' }>;

/** Both edges of a band, where known: each may change by itself. */
function bandEnds(rig: Rig, m: BandMeasurement): DayFigure[] {
  const ends = [
    ['low', m.lowHz],
    ['high', m.highHz],
  ] as const;
  return ends.flatMap(([end, at]): DayFigure[] =>
    at === null || at === 'beyond'
      ? []
      : [
          {
            kind: 'figure',
            measurementId: `${m.id}-${end}`,
            key: `band:${m.sourceId}>${m.listenerId}:${end}`,
            label: textOf(say.bandEnd({ m: pairName(rig, m), end })),
            unit: 'Hz',
            value: at[1],
            sd: (at[2] - at[0]) / 4,
            count: 1,
          },
        ],
  );
}

function figureOf(rig: Rig, m: Exclude<Measurement, BandMeasurement>): DayFigure {
  const pair = 'sourceId' in m ? pairName(rig, m) : '';
  const base = { kind: 'figure' as const, measurementId: m.id };
  switch (m.kind) {
    case 'delay': {
      // The same sum of figures, whatever was set meanwhile: settings are listed beside it.
      const terms = m.terms.map((t) => `${t.sign > 0 ? '+' : '-'}${t.figure}`).sort();
      return {
        ...base,
        key: `delay:${m.sourceId}>${m.listenerId}:${terms.join()}`.slice(0, 2000),
        label: textOf(say.delayOf({ pair })),
        unit: 'ms',
        value: m.ms.mean,
        sd: m.ms.sd,
        count: m.ms.count,
      };
    }
    case 'offset': {
      const set = m.settings.map((s) => `${s.setting}=${s.value}`).sort();
      return {
        ...base,
        key: `offset:${m.sourceId}>${m.listenerId}:${set.join()}`.slice(0, 2000),
        label: `${pair}: sound against picture${set.length > 0 ? `, ${set.join(', ')}` : ''}`.slice(0, 400),
        unit: 'ms',
        value: m.ms.mean,
        sd: m.ms.sd,
        count: m.ms.count,
      };
    }
    case 'drift':
      return {
        ...base,
        key: `drift:${m.deviceId}>${m.againstDeviceId}`,
        label: textOf(
          say.driftOf({
            deviceId: deviceName(rig, m.deviceId),
            againstDeviceId: deviceName(rig, m.againstDeviceId),
          }),
        ),
        unit: 'ppm',
        value: m.ppm.mean,
        sd: m.ppm.sd,
        count: m.ppm.count,
      };
    case 'level':
      return {
        ...base,
        key: `level:${m.sourceId}>${m.listenerId}`,
        label: textOf(say.levelOf({ pair })),
        unit: 'dB',
        value: m.db.mean,
        sd: m.db.sd,
        count: m.db.count,
      };
    case 'noise':
      return {
        ...base,
        key: `noise:${m.listenerId}`,
        label: textOf(say.noiseOf({ listenerId: nameIn(rig.listeners, m.listenerId) })),
        unit: 'dB',
        value: m.db.mean,
        sd: m.db.sd,
        count: m.db.count,
      };
  }
}

/** Every figure of the sessions, session by session, those that have changed first; a measurement recorded twice counts once. */
export function seriesOf(sessions: readonly Session[]): Series[] {
  const all = new Map<string, { figure: EventOf<'figure'>; points: Map<string, EventOf<'figure'>> }>();
  for (const { figures } of sessions)
    for (const figure of figures) {
      const known = all.get(figure.key) ?? { figure, points: new Map() };
      known.points.set(figure.measurementId, figure);
      all.set(figure.key, known);
    }
  const series = [...all.values()].map(({ figure, points }): Series => {
    const sorted = [...points.values()]
      .sort((a, b) => (a.at < b.at ? -1 : 1))
      .map(({ at, value, sd, count }) => ({ at, value, sd, count }));
    const chart = controlChart(sorted);
    return {
      key: figure.key,
      label: figure.label,
      unit: figure.unit,
      points: sorted,
      chart,
      moved: chart?.points.at(-1)?.moved ?? null,
    };
  });
  const weight = (s: Series) => (s.moved ? 1e6 : 0) + s.points.length;
  return series.sort((a, b) => weight(b) - weight(a) || (a.label < b.label ? -1 : 1));
}
