import type { PlanCell } from '#core/model/rig/index.ts';
import { type Message, plan } from '#words/index.ts';

/** What one may want of a pair: the key that says it, its mark in a table, and its words. */
export interface Want {
  readonly want: PlanCell['want'] | null;
  readonly key: string;
  readonly mark: string;
  readonly word: string;
  readonly says: string;
}

type Plain = Message<Record<never, never>>;

/** In words when they are asked for: the language may be another one by then. */
const want = (of: Want['want'], key: string, mark: string, word: Plain | null, says: Plain): Want => ({
  want: of,
  key,
  mark,
  get word() {
    return word ? word() : '';
  },
  get says() {
    return says();
  },
});

export const WANTS: readonly Want[] = [
  want('must', 'm', '●', plan.must, plan.mustArrive),
  want('must-not', 'x', '×', plan.mustNot, plan.mustNotArrive),
  want('may', 'o', '○', plan.may, plan.mayArrive),
  want(null, 'backspace', '', null, plan.noRequirement),
];

export const wantOf = (want: PlanCell['want'] | null): Want => WANTS.find((w) => w.want === want)!;
