import type { PlanCell } from '#core/rig/index.ts';

/** What one may want of a pair: the key that says it, its mark in a table, and its words. */
export interface Want {
  readonly want: PlanCell['want'] | null;
  readonly key: string;
  readonly mark: string;
  readonly word: string;
  readonly says: string;
}

export const WANTS: readonly Want[] = [
  { want: 'must', key: 'm', mark: '●', word: 'must', says: 'must hear it' },
  { want: 'must-not', key: 'x', mark: '×', word: 'must not', says: 'must not hear it' },
  { want: 'may', key: 'o', mark: '○', word: 'may', says: 'may hear it' },
  { want: null, key: 'backspace', mark: '', word: '', says: 'nothing is said' },
];

export const wantOf = (want: PlanCell['want'] | null): Want => WANTS.find((w) => w.want === want)!;
