import { useMemo } from 'react';
import { useSearchParams } from 'react-router';
import { type Occasion, orderDown, orderUp, type Session, type Step, type Ticks } from '#core/live/run/index.ts';
import { parseRig, type Rig } from '#core/model/rig/index.ts';
import { Choice, Term } from '#web/shared/parts/index.ts';
import { run as say } from '#words/index.ts';
import { WAYS, type Way } from './lists.ts';
import { TickList } from './TickList.tsx';

/** What to plug and switch on in which order; since the last good session only what has changed. */
export function Order({ rig, good, ticks }: { rig: Rig; good: Session | null; ticks: (way: Way) => Ticks }) {
  const [params, setParams] = useSearchParams();
  const last = useMemo(() => rigOf(good), [good]);
  const ways = last ? WAYS : WAYS.filter(([w]) => w !== 'since');
  const way = ways.find(([w]) => w === params.get('way'))?.[0] ?? 'first';
  const steps = useMemo(() => stepsOf(rig, way, last), [rig, way, last]);
  return (
    <>
      <div className="row">
        <Term id="run-order">{say.steps()}</Term>
        <Choice
          label={say.whichList()}
          value={way}
          onChange={(next) =>
            setParams(
              (all) => {
                all.set('way', next);
                return all;
              },
              { replace: true },
            )
          }
          options={ways}
        />
      </div>
      <TickList key={way} list={way} items={steps} ticks={ticks(way)} allDone={say.allDone()} />
    </>
  );
}

/** The steps of an order. */
export function stepsOf(rig: Rig, way: Way, last: Rig | null): Step[] {
  if (way === 'down') return orderDown(rig);
  const occasion: Occasion = way === 'since' ? (last ? { kind: 'since', last } : { kind: 'standing' }) : { kind: way };
  return orderUp(rig, occasion);
}

/** The rig as it was when a session ended; null where it was not kept or can't be read. */
export function rigOf(session: Session | null): Rig | null {
  try {
    return session?.rig ? parseRig(session.rig) : null;
  } catch {
    return null;
  }
}
