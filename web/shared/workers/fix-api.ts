import type { Rig } from '#core/model/rig/index.ts';
import { check, type Finding, type Fix, fixesOf, type TriedFix, tryFix, wireFindings } from '#core/rules/index.ts';
import { type Evaluation, evaluate } from '#core/signal/index.ts';

/** The rig whose fixes are asked for, with what has been read of it so far. */
interface Desk {
  readonly rig: Rig;
  read?: { readonly evaluation: Evaluation; readonly findings: readonly Finding[] };
  readonly fixes: Map<string, readonly TriedFix[]>;
}

let desk: Desk | null = null;
let asked = 0;

/** Until whatever was posted meanwhile has been received. */
const nextTurn = (): Promise<void> => new Promise((resolve) => setTimeout(resolve));

/** Fixes of findings, tried beside the page: what is asked last counts, and a rig is read once for all of its findings. */
export const fixesApi = {
  /** Takes the place of the rig before. */
  open(rig: Rig): void {
    desk = { rig, fixes: new Map() };
    asked++;
  },
  /** @returns what would mend a finding of Wire, each fix tried; null where another was asked for meanwhile */
  async fixesOf(findingId: string): Promise<readonly TriedFix[] | null> {
    const mine = ++asked;
    const of = desk;
    await nextTurn();
    if (mine !== asked || of === null) return null;
    const known = of.fixes.get(findingId);
    if (known) return known;
    of.read ??= readRig(of.rig);
    const { evaluation, findings } = of.read;
    const finding = findings.find((f) => f.id === findingId);
    if (!finding) return [];
    const fixes: TriedFix[] = [];
    for (const fix of fixesOf(of.rig, finding, evaluation)) {
      await nextTurn();
      if (mine !== asked) return null;
      fixes.push(...tryOne(of.rig, fix, findings));
    }
    of.fixes.set(findingId, fixes);
    return fixes;
  },
};

function readRig(rig: Rig): NonNullable<Desk['read']> {
  const evaluation = evaluate(rig);
  return { evaluation, findings: wireFindings(check(rig, evaluation)) };
}

function tryOne(rig: Rig, fix: Fix, findings: readonly Finding[]): TriedFix[] {
  const tried = tryFix(rig, fix, findings);
  return tried ? [tried] : [];
}

export type FixesApi = typeof fixesApi;
