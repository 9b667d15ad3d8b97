import { useMemo } from 'react';
import { type Dependent, restsOn } from '#core/desk-tests/reconcile/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import type { Interval } from '#core/model/units/index.ts';
import type { Evaluation, State } from '#core/signal/index.ts';
import { formatHz, formatNumber, StateMark } from '#web/shared/parts/index.ts';
import { common, measurements as say } from '#words/index.ts';

/** What would be known otherwise without one measurement: pair by pair, with it and without. */
export function RestsOn({
  rig,
  evaluation,
  measurementId,
}: {
  rig: Rig;
  evaluation: Evaluation;
  measurementId: string;
}) {
  const rests = useMemo(() => restsOn(rig, evaluation, measurementId), [rig, evaluation, measurementId]);
  if (rests.length === 0) return <p className="quiet">{say.nothingDependsOnIt()}</p>;
  const changed = rests.filter((r) => r.state !== null).length;
  const name = (list: readonly { readonly id: string; readonly name: string }[], id: string) =>
    list.find((e) => e.id === id)!.name;
  return (
    <>
      <p className="quiet">
        {say.pairsDepend({ count: rests.length })}
        {changed > 0 && ` ${say.wouldChange({ count: changed })}`}
      </p>
      <ul aria-label={say.whatDependsOnIt()}>
        {rests.map((r) => (
          <li key={`${r.sourceId}>${r.listenerId}`}>
            {say.withAndWithout({
              sourceId: name(rig.sources, r.sourceId),
              listenerId: name(rig.listeners, r.listenerId),
              what: NAMES[r.what],
              withIt: told(r, r.withIt),
              without: told(r, r.without),
            })}
            {r.state && (
              <>
                {' '}
                (<StateMark state={r.state.without} /> {say.stateThen({ without: STATES[r.state.without] })}
              </>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}

const NAMES: Record<Dependent['what'], string> = {
  offset: say.audioVsVideo(),
  delay: say.delay(),
  apart: say.secondPathAfterFirst(),
  band: say.bandwidth(),
  noise: say.noise(),
};
const STATES: Record<State, string> = {
  good: 'good',
  watch: common.warning(),
  fix: common.toFix(),
  stop: common.blocker(),
  none: common.notChecked(),
};

function told({ what, unit }: Dependent, { low, nominal, high }: Interval): string {
  if (what === 'band')
    return say.lowToHigh({ low: formatHz(low), above: Number.isFinite(high) ? formatHz(high) : say.everythingAbove() });
  if (low === high) return `${formatNumber(nominal, 1)} ${unit}`;
  return `${formatNumber(nominal, 1)} ${unit} (${formatNumber(low, 1)} to ${formatNumber(high, 1)})`;
}
