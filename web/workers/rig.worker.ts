import { expose } from 'comlink';
import { layout } from '#core/layout/index.ts';
import { makeWhole } from '#core/plan/index.ts';

/** What is worked out of a rig beside the page. */
const api = { layout, makeWhole };
export type RigApi = typeof api;
expose(api);
