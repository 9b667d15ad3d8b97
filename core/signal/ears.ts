import type { Rig } from '#core/model/rig/index.ts';
import { dbFromPower, type Interval, interval, powerFromDb } from '#core/model/units/index.ts';
import type { Evaluation } from './evaluate.ts';

/** Exchange rate: this many dB more halve the allowed time (equal energy; NIOSH 1998 and ITU-T H.870 alike). */
const EXCHANGE_DB = 3;
const NIOSH = { db: 85, hoursADay: 8 } as const;
const WHO_ITU = { db: 80, hoursAWeek: 40 } as const;

/** How long one may listen at a level, by NIOSH a day and by WHO-ITU H.870 a week; the level taken for dB(A). */
export function listeningTime(splDb: number): { hoursADay: number; hoursAWeek: number } {
  const times = (from: number): number => 2 ** ((from - splDb) / EXCHANGE_DB);
  return {
    hoursADay: Math.min(24, NIOSH.hoursADay * times(NIOSH.db)),
    hoursAWeek: Math.min(168, WHO_ITU.hoursAWeek * times(WHO_ITU.db)),
  };
}

/** All that sounds at a listener's ears together, dB SPL; null where what arrives is no sound in air, or nothing does. */
export function levelAtEars(rig: Rig, { pairs }: Evaluation, listenerId: string): Interval | null {
  if (!rig.listeners.some((l) => l.id === listenerId)) return null;
  const ways = pairs.filter((p) => p.listenerId === listenerId).flatMap((p) => p.ways);
  const heard = ways.filter((w) => w.scale === 'spl');
  if (heard.length === 0) return null;
  const sum = (of: (level: Interval) => number): number =>
    dbFromPower(heard.reduce((power, w) => power + powerFromDb(of(w.levelDb)), 0));
  return interval(
    sum((l) => l.low),
    sum((l) => l.nominal),
    sum((l) => l.high),
  );
}
