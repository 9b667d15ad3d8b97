import { Router } from 'express';
import { z } from 'zod';
import type { DoorState } from '#api/index.ts';
import { server as say } from '#words/index.ts';
import { notFound } from '../http/problem.ts';
import type { DoorNotes } from './notes.ts';
import { type Door, sayCode } from './pairing.ts';

const Params = z.strictObject({ id: z.uuid() });

/** The door of the phones as the desk sees it. @param urls  where phones find it; none where it is shut */
export function doorRoutes(door: Door, notes: DoorNotes, urls: () => readonly string[]): Router {
  const routes = Router();
  const state = async (): Promise<DoorState> => {
    const { code, untilMs } = door.code();
    return {
      urls: [...urls()],
      code: sayCode(code),
      codeUntil: new Date(untilMs).toISOString(),
      phones: door.phones().map(({ id, device, address, pairedAtMs, seenAtMs }) => ({
        id,
        device,
        address,
        pairedAt: new Date(pairedAtMs).toISOString(),
        seenAt: new Date(seenAtMs).toISOString(),
      })),
      notes: await notes.latest(),
    };
  };
  routes.get('/', async (_req, res) => {
    res.json(await state());
  });
  routes.post('/renew', async (_req, res) => {
    door.renew('desk');
    res.json(await state());
  });
  routes.delete('/phones/:id', async (req, res) => {
    if (!door.remove(Params.parse(req.params).id, 'desk')) throw notFound(say.thisPhone());
    res.json(await state());
  });
  return routes;
}
