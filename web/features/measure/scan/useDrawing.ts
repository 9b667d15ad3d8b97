import { useMemo, useState } from 'react';
import {
  type Bindings,
  bindingsOf,
  computerOfScan,
  computersIn,
  type Held,
  type HeldPath,
  holdAgainst,
} from '#core/desk-tests/drawn/index.ts';
import type { PortRef, Rig } from '#core/model/rig/index.ts';
import type { ScanMade } from './engine.ts';
import { type Chosen, keepChosen, readChosen } from './kept.ts';

/** A scan against the drawing, as someone said which device is which. */
export interface Drawing {
  /** Null where the drawing has none. */
  readonly computerId: string | null;
  readonly computers: readonly string[];
  readonly bindings: Bindings;
  readonly held: Held;
  /** Paths on which drawing and scan differ. */
  readonly differing: readonly HeldPath[];
  chooseComputer(id: string): void;
  bind(what: keyof Bindings, id: string, ref: PortRef | null): void;
}

interface Ends {
  readonly outputId: string;
  readonly inputId: string;
}
export const pathAt = (drawing: Drawing | null, at: Ends): HeldPath | undefined =>
  drawing?.held.paths.find((p) => p.outputId === at.outputId && p.inputId === at.inputId);

const NOTHING: Bindings = { outputs: {}, inputs: {} };

/** Holds a scan against the drawing; null without one, or where samples were lost and it may be wrong. */
export function useDrawing(rigId: string, rig: Rig, made: ScanMade | null): Drawing | null {
  const [chosen, setChosen] = useState(() => readChosen(rigId));
  const choose = (next: Chosen) => {
    setChosen(next);
    keepChosen(rigId, next);
  };
  const seen = useMemo(() => {
    if (!made || made.hasLost) return null;
    const computers = computersIn(rig);
    const computerId = computers.find((id) => id === chosen.computerId) ?? computerOfScan(rig, made);
    const bindings = computerId === null ? NOTHING : bindingsOf(rig, computerId, made, chosen);
    const held = holdAgainst(rig, made, bindings);
    return { computerId, computers, bindings, held, differing: held.paths.filter((p) => p.differences.length > 0) };
  }, [rig, made, chosen]);
  return (
    seen && {
      ...seen,
      chooseComputer: (id) => choose({ ...chosen, computerId: id }),
      bind: (what, id, ref) => choose({ ...chosen, [what]: { ...chosen[what], [id]: ref } }),
    }
  );
}
