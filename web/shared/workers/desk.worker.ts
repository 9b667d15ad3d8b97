import './spoken.ts';
import { expose } from 'comlink';
import { readDesk } from '#core/intake/index.ts';

/** Reads desks beside the page; what it has learnt of what fits what is kept from one reading to the next. */
const api = { readDesk };
export type DeskApi = typeof api;
expose(api);
