import { csvOf } from '#core/base/text/index.ts';
import type { Series, Session } from '#core/live/run/index.ts';

const HOUR_MS = 3_600_000;

/** Sessions as a table: one row each, the newest first. */
export const sessionsToCsv = (sessions: readonly Session[]): string =>
  csvOf([
    ['began', 'ended', 'hours', 'name', 'good', 'says', 'ticked', 'skipped', 'failed', 'troubles', 'markers', 'notes'],
    ...sessions.map((s) => {
      const ticks = Object.values(s.ticks).flatMap((list) => Object.values(list));
      const hours = s.endedAt === null ? '' : ((Date.parse(s.endedAt) - Date.parse(s.beganAt)) / HOUR_MS).toFixed(2);
      return [
        s.beganAt,
        s.endedAt ?? '',
        hours,
        s.name,
        s.good === null ? '' : s.good ? 'yes' : 'no',
        s.says,
        String(ticks.length),
        String(ticks.filter((t) => t.leftOut !== undefined).length),
        String(ticks.filter((t) => t.amiss).length),
        s.troubles.map((t) => `${t.complaint} ${t.was}`).join(' | '),
        s.markers.map((m) => m.says).join(' | '),
        s.notes.map((n) => n.says).join(' | '),
      ];
    }),
  ]);

/** Figures over time as a table: one row a measurement. */
export const seriesToCsv = (series: readonly Series[]): string =>
  csvOf([
    ['figure', 'unit', 'at', 'value', 'sd', 'count', 'moved'],
    ...series.flatMap((s) =>
      s.points.map((p, i) => [
        s.label,
        s.unit,
        p.at,
        String(p.value),
        String(p.sd),
        String(p.count),
        s.chart?.points[i]?.moved ?? '',
      ]),
    ),
  ]);
