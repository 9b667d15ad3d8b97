import express, { type Request, Router } from 'express';
import { z } from 'zod';
import { CHANGES_HEADER, Changes, LARGEST_RIG_BYTES, NewRig } from '#api/index.ts';
import { parseRig } from '#core/model/rig/index.ts';
import { etag, ifMatch } from '../http/preconditions.ts';
import type { RigReader } from './reader.ts';
import type { RigService } from './service.ts';

const Params = z.strictObject({ id: z.uuid() });
const OfVersion = z.strictObject({ id: z.uuid(), revision: z.coerce.number().int().min(1) });
/** A rig of the largest size, and the id beside it. */
const BODY_LIMIT = LARGEST_RIG_BYTES + 1000;

/** @param reader  for saves, of which there are many */
export function rigRoutes(rigs: RigService, reader: RigReader): Router {
  const routes = Router();
  routes.get('/', async (_req, res) => {
    res.json(await rigs.list());
  });
  routes.post('/', express.json({ limit: BODY_LIMIT }), async (req, res) => {
    const { id, document } = NewRig.parse(req.body);
    const made = await rigs.create(id, parseRig(document));
    res.status(201).set('ETag', etag(made.revision)).location(`/api/rigs/${id}`).json(made);
  });
  routes.get('/:id', async (req, res) => {
    const found = await rigs.get(Params.parse(req.params).id);
    res.set('ETag', etag(found.revision)).json(found);
  });
  routes.get('/:id/document', async (req, res) => {
    const { name, text } = await rigs.text(Params.parse(req.params).id);
    res
      .set('Content-Disposition', `attachment; filename*=UTF-8''${encodeURIComponent(`${name}.json`)}`)
      .type('application/json')
      .send(text);
  });
  routes.put('/:id', express.raw({ type: 'application/json', limit: BODY_LIMIT }), async (req, res) => {
    const { id } = Params.parse(req.params);
    const revision = ifMatch(req);
    const made = await reader.read(Buffer.isBuffer(req.body) ? req.body : null);
    const saved = await rigs.replace(id, made, revision, changesOf(req));
    // The document is text already: it need not be made of the rig again.
    res
      .set('ETag', etag(saved.revision))
      .type('application/json')
      .send(`${JSON.stringify(saved).slice(0, -1)},"document":${made.text}}`);
  });
  routes.delete('/:id', async (req, res) => {
    await rigs.remove(Params.parse(req.params).id, ifMatch(req));
    res.status(204).end();
  });
  routes.post('/:id/restore', async (req, res) => {
    res.json(await rigs.restore(Params.parse(req.params).id));
  });
  routes.get('/:id/versions', async (req, res) => {
    res.json(await rigs.versions(Params.parse(req.params).id));
  });
  routes.get('/:id/versions/:revision', async (req, res) => {
    const { id, revision } = OfVersion.parse(req.params);
    res.json(await rigs.version(id, revision));
  });
  routes.post('/:id/versions/:revision/bring-back', async (req, res) => {
    const { id, revision } = OfVersion.parse(req.params);
    const back = await rigs.bringBack(id, revision);
    res.set('ETag', etag(back.revision)).json(back);
  });
  return routes;
}

/** What is said of a save is of use and no more: what cannot be read is left out. */
function changesOf(req: Request): string[] {
  try {
    return Changes.parse(JSON.parse(decodeURIComponent(req.get(CHANGES_HEADER) ?? '%5B%5D')));
  } catch {
    return [];
  }
}
