import { useRef } from 'react';
import type { NextStep } from '#core/live/next/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { selectRig, selectSession, useAppSelector } from '#web/shared/store/index.ts';
import { StepButtons } from './StepButtons.tsx';
import { Told } from './Told.tsx';
import type { Acts } from './useAct.ts';

/** Errands are ticked and questions answered where one stands; all else is done at the computer. */
export const isInHand = ({ act }: NextStep): boolean => act.do === 'task' || act.do === 'answer';

/** A step in the hand: what can be told about it, and that it was. */
export function InHand({ step, acts }: { step: NextStep; acts: Acts }) {
  const rig = useAppSelector(selectRig);
  const session = useAppSelector(selectSession);
  const { act } = step;
  const ids = new Set<string>(act.do === 'task' ? act.taskIds : act.do === 'answer' ? [act.questionId] : []);
  const isUntaken = session?.untaken.some((e) => ids.has(e.kind === 'task' ? e.taskId : e.questionId)) ?? false;
  // Taken by the desk, it is told still until the rig comes as it is then.
  const toldOf = useRef<Rig | null>(null);
  if (isUntaken) toldOf.current = rig;
  return isUntaken || (toldOf.current !== null && toldOf.current === rig) ? (
    <Told />
  ) : (
    <StepButtons step={step} acts={acts} isKeyed={false} hand />
  );
}
