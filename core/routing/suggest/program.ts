import { SaidError } from '#core/base/said/index.ts';
import type { SolveProgram } from './align-all.ts';
import { say } from './sayings.ts';

/** The part of the HiGHS module that is used; the edges load it, each in its own way. */
export interface HighsModule {
  solve(
    lp: string,
    options: Readonly<Record<string, number | boolean | string>>,
  ): {
    readonly Status: string;
    readonly ObjectiveValue: number;
    readonly Columns: Readonly<Record<string, object>>;
  };
}

/** Time limit of an integer program, ms; after it the best solution so far is reported with its optimality gap. */
const MAX_SECONDS = 20;

/** Integer programs over HiGHS, solved to the very best unless time runs out. */
export const programsOver =
  (module: HighsModule): SolveProgram =>
  (lp) => {
    const { Status, ObjectiveValue, Columns } = module.solve(lp, {
      output_flag: false,
      mip_rel_gap: 0,
      mip_abs_gap: 1e-7,
      time_limit: MAX_SECONDS,
    });
    const proven = Status === 'Optimal';
    if (!proven && Status !== 'Time limit reached') throw new SaidError(say.couldNotSolve({ status: Status }));
    const values = Object.fromEntries(
      Object.entries(Columns).map(([name, c]) => [name, (c as { readonly Primal?: number }).Primal ?? 0]),
    );
    return { values, objective: ObjectiveValue, proven, gap: proven ? 0 : Number.POSITIVE_INFINITY };
  };
