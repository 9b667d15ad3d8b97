import { chakra } from '@chakra-ui/react';
import { useMemo } from 'react';
import { type Budget, budgetsOf, type Gauge, type Session } from '#core/live/run/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { Details, figures, formatNumber, Head, NumberInput, rich, StateMark, Table } from '#web/shared/parts/index.ts';
import { recordEvent, useAppDispatch } from '#web/shared/store/index.ts';
import { common, run as say, textOf } from '#words/index.ts';

const USUAL_HOURS = 3;

/** What may run out, against the session: bars, and when each ends. */
export function Budgets({ rig, session }: { rig: Rig; session: Session | null }) {
  const gauges = session?.gauges;
  const budgets = useMemo(() => budgetsOf(rig, gauges), [rig, gauges]);
  const hours = rig.session.hours ?? USUAL_HOURS;
  return (
    <section aria-label={say.resources()}>
      <p className="quiet">
        {rich(say.resourcesFor, {
          hours: formatNumber(hours, hours % 1 ? 1 : 0),
          lasts: rig.session.hours === undefined ? say.noLength() : '',
        })}
      </p>
      <Table>
        <Head columns={[say.resource(), say.usedByThisSession(), figures(say.runsOutAfter()), say.yourReading()]} />
        <tbody>
          {budgets.map((b) => (
            <Row key={b.id} budget={b} hours={hours} />
          ))}
        </tbody>
      </Table>
    </section>
  );
}

const WIDTH = 260;
const HEIGHT = 16;
/** The bar extends this far beyond what is available, so that an excess is visible. */
const MAX_SHARE = 1.5;

/** A bar of what is taken, with a line where it ends. */
function Bar({ budget: { share, state, name } }: { budget: Budget }) {
  const at = (s: number) => (Math.min(s, MAX_SHARE) / MAX_SHARE) * WIDTH;
  return (
    <svg
      width={WIDTH}
      height={HEIGHT}
      role="img"
      aria-label={
        share === null
          ? say.notKnown({ name: textOf(name) })
          : say.whatThereIs({ name: textOf(name), share: formatNumber(100 * share) })
      }
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
        <StateMark state={state} /> <span className="strong">{textOf(name)}</span>
        <div className="small quiet">{textOf(says)}</div>
      </td>
      <td>
        <Bar budget={budget} />
        <div className="small">
          {share === null ? say.notKnownWord() : `${formatNumber(100 * share)}%`}{' '}
          <Details summary={say.why()} className="run-why">
            {why.map((w) => (
              <p key={textOf(w.says)}>
                {textOf(w.says)} <span className="quiet">({textOf(w.source)})</span>
              </p>
            ))}
          </Details>
        </div>
      </td>
      <td className={`number ${state}`}>
        {lastsHours === null ? '' : `${formatNumber(lastsHours, 1)} h`}
        {lastsHours !== null && lastsHours < hours && <div className="small">{say.beforeEnd()}</div>}
      </td>
      <td>
        {gauges.map((g) => (
          <Told key={g.key} gauge={g} of={textOf(name)} />
        ))}
      </td>
    </tr>
  );
}

function Told({ gauge, of }: { gauge: Gauge; of: string }) {
  const dispatch = useAppDispatch();
  const { key, unit, told, usual, min, max } = gauge;
  const label = textOf(gauge.label);
  return (
    <chakra.div className="row small" justifyContent="space-between">
      <span>{label}</span>
      <span>
        <NumberInput
          label={`${of}: ${label}, ${unit}`}
          value={told ?? undefined}
          placeholder={usual === null ? '?' : String(usual)}
          min={min}
          max={max}
          onValue={(value) => value !== undefined && dispatch(recordEvent({ kind: 'gauge', key, value }))}
        />{' '}
        {unit}{' '}
        <span className="quiet">
          {told === null ? (usual === null ? say.notEntered() : common.typical()) : say.entered()}
        </span>
      </span>
    </chakra.div>
  );
}
