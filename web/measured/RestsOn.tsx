import { useMemo } from 'react';
import { type Resting, restsOn } from '#core/reconcile/index.ts';
import type { Rig } from '#core/rig/index.ts';
import type { Evaluation, State } from '#core/signal/index.ts';
import type { Interval } from '#core/units/index.ts';
import { count, formatHz, formatNumber, StateMark } from '#web/parts/index.ts';

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
  if (rests.length === 0)
    return <p className="quiet">Nobody’s delay, band or noise would be known otherwise without it.</p>;
  const changed = rests.filter((r) => r.state !== null).length;
  const name = (list: readonly { readonly id: string; readonly name: string }[], id: string) =>
    list.find((e) => e.id === id)!.name;
  return (
    <>
      <p className="quiet">
        {count(rests.length, 'pair')} {rests.length === 1 ? 'rests' : 'rest'} on it
        {changed > 0 && `; ${changed} would stand otherwise`}.
      </p>
      <ul aria-label="Rests on it">
        {rests.map((r) => (
          <li key={`${r.sourceId}>${r.listenerId}`}>
            {`${name(rig.sources, r.sourceId)} at ${name(rig.listeners, r.listenerId)}: ${NAMES[r.what]} ${say(r, r.withIt)}, without it ${say(r, r.without)}`}
            {r.state && (
              <>
                {' '}
                (<StateMark state={r.state.without} /> {STATES[r.state.without]} then)
              </>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}

const NAMES: Record<Resting['what'], string> = {
  offset: 'sound against picture',
  delay: 'delay',
  apart: 'the second way after the first',
  band: 'band',
  noise: 'noise',
};
const STATES: Record<State, string> = {
  good: 'good',
  watch: 'to watch',
  fix: 'to fix',
  stop: 'stops it',
  none: 'not looked at',
};

function say({ what, unit }: Resting, { low, nominal, high }: Interval): string {
  if (what === 'band') return `${formatHz(low)} to ${Number.isFinite(high) ? formatHz(high) : 'all above'}`;
  if (low === high) return `${formatNumber(nominal, 1)} ${unit}`;
  return `${formatNumber(nominal, 1)} ${unit} (${formatNumber(low, 1)} to ${formatNumber(high, 1)})`;
}
