import { expose } from 'comlink';
import { layout } from '#core/layout/index.ts';
import { makeItSo } from '#core/solve/index.ts';

/** What is worked out of a rig beside the page. */
const api = { layout, makeItSo };
export type RigApi = typeof api;
expose(api);
