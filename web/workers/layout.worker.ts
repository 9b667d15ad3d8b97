import { expose } from 'comlink';
import { layout } from '#core/layout/index.ts';

const api = { layout };
export type LayoutApi = typeof api;
expose(api);
