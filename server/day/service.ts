import { Op } from 'sequelize';
import type { DayPage } from '#api/index.ts';
import { DayEvent, MOST_EVENTS } from '#core/run/index.ts';
import type { Database } from '../database.ts';
import type { Models } from '../models.ts';
import { HttpProblem, notFound } from '../problem.ts';

export interface DayService {
  /** What came after a place, oldest first; `more` while not all of it was given. */
  after(rigId: string, seq: number): Promise<DayPage>;
  /** Keeps what happened. Sent twice it is kept once: a lost answer may be asked for again. */
  tell(rigId: string, events: readonly DayEvent[]): Promise<void>;
}

export function dayService(database: Database, models: Models, now: () => Date): DayService {
  return {
    async after(rigId, seq) {
      if ((await models.rigs.count({ where: { id: rigId } })) === 0) throw notFound('The rig');
      const rows = await models.dayEvents.findAll({
        where: { rigId, seq: { [Op.gt]: seq } },
        order: [['seq', 'ASC']],
        limit: MOST_EVENTS,
      });
      return {
        events: rows.map((row) => DayEvent.parse(JSON.parse(row.body))),
        seq: rows.at(-1)?.seq ?? seq,
        more: rows.length === MOST_EVENTS,
      };
    },
    tell: (rigId, events) =>
      database.write(async (transaction) => {
        if ((await models.rigs.count({ where: { id: rigId }, transaction })) === 0) throw notFound('The rig');
        const known = await models.dayEvents.findAll({ where: { id: events.map((e) => e.id) }, transaction });
        if (known.some((row) => row.rigId !== rigId))
          throw new HttpProblem(409, 'Of another rig', 'This is kept of another rig already. Nothing was changed.');
        const ids = new Set(known.map((row) => row.id));
        const fresh = events.filter((e, i) => !ids.has(e.id) && events.findIndex((o) => o.id === e.id) === i);
        await models.dayEvents.bulkCreate(
          fresh.map((e) => ({
            id: e.id,
            rigId,
            sessionId: e.sessionId,
            at: e.at,
            body: JSON.stringify(e),
            receivedAt: now().toISOString(),
          })),
          { transaction },
        );
      }),
  };
}
