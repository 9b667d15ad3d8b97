import { useMemo } from 'react';
import type { Rig } from '#core/rig/index.ts';
import { type Budget, budgetsOf, type Gauge, type Session } from '#core/run/index.ts';
import { formatNumber, NumberInput, StateMark, Term } from '#web/parts/index.ts';
import { tellDay, useAppDispatch } from '#web/store/index.ts';

const USUAL_HOURS = 3;

/** What may run out, against the session: bars, and when each ends. */
export function Budgets({ rig, session }: { rig: Rig; session: Session | null }) {
  const gauges = session?.gauges;
  const budgets = useMemo(() => budgetsOf(rig, gauges), [rig, gauges]);
  const hours = rig.session.hours ?? USUAL_HOURS;
  return (
    <section aria-label="Budgets">
      <p className="quiet">
        <Term id="budget">Budgets</Term> for {formatNumber(hours, hours % 1 ? 1 : 0)} h
        {rig.session.hours === undefined && ', since Plan says nothing of how long it lasts'}. Tell what you read off: a
        battery’s charge, what a disk has free. What nobody has told is reckoned with as usual, or left open.
      </p>
      <table className="table">
        <thead>
          <tr>
            <th>What</th>
            <th>What the session takes of it</th>
            <th className="number">Ends after</th>
            <th>As read off</th>
          </tr>
        </thead>
        <tbody>
          {budgets.map((b) => (
            <Row key={b.id} budget={b} hours={hours} />
          ))}
        </tbody>
      </table>
    </section>
  );
}

const WIDTH = 260;
const HEIGHT = 16;
/** The bar ends at so much more than there is: what is over is seen. */
const MOST_SHARE = 1.5;

/** A bar of what is taken, with a line where it ends. */
function Bar({ budget: { share, state, name } }: { budget: Budget }) {
  const at = (s: number) => (Math.min(s, MOST_SHARE) / MOST_SHARE) * WIDTH;
  return (
    <svg
      width={WIDTH}
      height={HEIGHT}
      role="img"
      aria-label={share === null ? `${name}: not known` : `${name}: ${formatNumber(100 * share)} % of what there is`}
    >
      <rect className="budget-room" x={0} y={3} width={at(1)} height={HEIGHT - 6} />
      {share !== null && <rect className={`budget-use ${state}`} x={0} y={3} width={at(share)} height={HEIGHT - 6} />}
      <line className="axis" x1={at(1)} x2={at(1)} y1={0} y2={HEIGHT} />
    </svg>
  );
}

function Row({ budget, hours }: { budget: Budget; hours: number }) {
  const { name, share, lastsHours, state, says, why, gauges } = budget;
  return (
    <tr>
      <td>
        <StateMark state={state} /> <span className="strong">{name}</span>
        <div className="small quiet">{says}</div>
      </td>
      <td>
        <Bar budget={budget} />
        <div className="small">
          {share === null ? 'not known' : `${formatNumber(100 * share)} %`}{' '}
          <details className="run-why">
            <summary>why?</summary>
            {why.map((w) => (
              <p key={w.says}>
                {w.says} <span className="quiet">({w.source})</span>
              </p>
            ))}
          </details>
        </div>
      </td>
      <td className={`number ${state}`}>
        {lastsHours === null ? '' : `${formatNumber(lastsHours, 1)} h`}
        {lastsHours !== null && lastsHours < hours && <div className="small">before the end</div>}
      </td>
      <td>
        {gauges.map((g) => (
          <Told key={g.key} gauge={g} of={name} />
        ))}
      </td>
    </tr>
  );
}

function Told({ gauge, of }: { gauge: Gauge; of: string }) {
  const dispatch = useAppDispatch();
  const { key, label, unit, told, usual, min, max } = gauge;
  return (
    <div className="row small" style={{ justifyContent: 'space-between' }}>
      <span>{label}</span>
      <span>
        <NumberInput
          label={`${of}: ${label}, ${unit}`}
          value={told ?? undefined}
          placeholder={usual === null ? '?' : String(usual)}
          min={min}
          max={max}
          onValue={(value) => value !== undefined && dispatch(tellDay({ kind: 'gauge', key, value }))}
        />{' '}
        {unit} <span className="quiet">{told === null ? (usual === null ? 'not told' : 'usual') : 'told'}</span>
      </span>
    </div>
  );
}
