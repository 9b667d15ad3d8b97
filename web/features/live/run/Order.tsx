import { useMemo } from 'react';
import { useSearchParams } from 'react-router';
import { orderDown, type Step, stepsUp, type Ticks, unchangedSince } from '#core/live/run/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { deviceName } from '#core/signal/index.ts';
import { Choice, Details, Term } from '#web/shared/parts/index.ts';
import { run as say } from '#words/index.ts';
import { WAYS, type Way } from './lists.ts';
import { TickList } from './TickList.tsx';

interface OrderProps {
  readonly rig: Rig;
  /** The rig at the end of the last good session. */
  readonly last: Rig | null;
  readonly way: Way;
  readonly ticks: (way: Way) => Ticks;
}

/** What to plug and switch on in which order; since the last good session only what has changed. */
export function Order({ rig, last, way, ticks }: OrderProps) {
  const [, setParams] = useSearchParams();
  const ways = last ? WAYS : WAYS.filter(([w]) => w !== 'since');
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
      {way === 'since' && last && <Unchanged rig={rig} last={last} />}
      <TickList key={way} list={way} items={steps} ticks={ticks(way)} allDone={say.allDone()} />
    </>
  );
}

/** What need not be done: it is as it was. */
function Unchanged({ rig, last }: { rig: Rig; last: Rig }) {
  const { cables, deviceIds } = useMemo(() => unchangedSince(rig, last), [rig, last]);
  return (
    <Details summary={say.asTheyWere({ cables, devices: deviceIds.length, of: rig.devices.length })}>
      <p className="small quiet">{deviceIds.map((id) => deviceName(rig, id)).join(', ')}</p>
    </Details>
  );
}

/** The steps of an order. */
export const stepsOf = (rig: Rig, way: Way, last: Rig | null): Step[] =>
  way === 'down' ? orderDown(rig) : stepsUp(rig, way, last);
