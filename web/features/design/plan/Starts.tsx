import { Button } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import type { Rig } from '#core/model/rig/index.ts';
import { planEdit, STARTS, startPlan } from '#core/routing/plan/index.ts';
import { Choice, off, rich, useKey } from '#web/shared/parts/index.ts';
import { applyHere, useAppDispatch } from '#web/shared/store/index.ts';
import { plan, textOf } from '#words/index.ts';

/** A plan to start from, by purpose: replaces the present plan, and can be edited afterwards. */
export function Starts({ there }: { there: Rig }) {
  const dispatch = useAppDispatch();
  const [id, setId] = useState(STARTS[0]!.id);
  const start = STARTS.find((s) => s.id === id)!;
  const proposed = useMemo(() => startPlan(there, start), [there, start]);
  const take = () =>
    dispatch(applyHere(planEdit(proposed, there), plan.usedPlan({ plan: textOf(start.name), count: proposed.length })));
  useKey('p', plan.thisPlanKey(), take, proposed.length > 0);
  return (
    <span className="row starts" title={textOf(start.says)}>
      <Choice
        label={plan.planToStartFrom()}
        value={id}
        options={STARTS.map((s) => [s.id, textOf(s.name)])}
        onChange={setId}
      />
      <Button {...off(proposed.length === 0 ? plan.nothingProposed() : null)} onClick={take}>
        {rich(plan.thisPlan, { count: proposed.length })}
      </Button>
    </span>
  );
}
