import { Button } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import { type Standing, type StandingFigure, standingsOf } from '#core/reconcile/index.ts';
import type { Rig } from '#core/rig/index.ts';
import { evaluationAt } from '#core/signal/index.ts';
import { count, formatDate, formatNumber, formatSigned, StateMark, Term } from '#web/parts/index.ts';
import { applyStep, selectRig, selectScene, useAppDispatch, useAppSelector } from '#web/store/index.ts';
import { RestsOn } from './RestsOn.tsx';

/** What takes have put into the rig: each figure beside what is typical, what rests on it, and a way to drop it. */
export function MeasuredScreen() {
  const rig = useAppSelector(selectRig);
  const scene = useAppSelector(selectScene);
  const { rigId } = useParams();
  return rig && scene && rigId ? <Measured rigId={rigId} rig={rig} scene={scene} /> : null;
}

/** The rig in the moment that is looked at. */
type Scene = NonNullable<ReturnType<typeof selectScene>>;

function Measured({ rigId, rig, scene }: { rigId: string; rig: Rig; scene: Scene }) {
  const standings = useMemo(
    () =>
      standingsOf(
        rig,
        [null, ...rig.moments.map((m) => m.id)].map((id) => evaluationAt(rig, id)),
      ),
    [rig],
  );
  const [openId, setOpenId] = useState<string | null>(null);
  const inTest = rig.measurements.length - standings.length;
  const outside = standings.filter((s) => s.idle === null && s.figures.some((f) => f.isOutside)).length;
  const idle = standings.filter((s) => s.idle !== null).length;
  return (
    <main className="frame-page">
      <div className="page">
        <h1>
          <Term id="measured">Measured</Term> figures
        </h1>
        {standings.length === 0 ? (
          <p className="quiet">
            Nothing has been measured into this rig yet: all figures are typical ones with their ranges. Measure a take
            on the <Link to={`/rigs/${rigId}/bench`}>bench</Link>, or all ways at once by a{' '}
            <Link to={`/rigs/${rigId}/tap`}>tap test</Link>.
          </p>
        ) : (
          <>
            <p className="quiet">
              {count(standings.length, 'figure')} from takes, instead of typical ones
              {outside > 0 && `, ${outside} outside what is typical of such gear`}
              {idle > 0 && `, ${idle} of ways that are not there any more`}. A delay, a noise or a band that is dropped
              goes back to what is typical; a knob or a source that a level was taken for stays as it was set. Undo
              brings it again.
            </p>
            <table className="table" aria-label="Measured figures">
              <thead>
                <tr>
                  <th>What it speaks of</th>
                  <th className="number">Measured</th>
                  <th className="number">As drawn</th>
                  <th>Taken</th>
                  <th>
                    <span className="visually-hidden">What to do</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                {standings.map((s) => (
                  <Row
                    key={s.measurement.id}
                    rigId={rigId}
                    scene={scene}
                    standing={s}
                    isOpen={openId === s.measurement.id}
                    onOpen={(open) => setOpenId(open ? s.measurement.id : null)}
                  />
                ))}
              </tbody>
            </table>
          </>
        )}
        {inTest > 0 && (
          <p className="quiet">
            {count(inTest, 'take')} of the <Link to={`/rigs/${rigId}/sync/paths`}>path test</Link> besides, which say
            nothing of the rig until they are taken in there.
          </p>
        )}
      </div>
    </main>
  );
}

interface RowProps {
  readonly rigId: string;
  readonly scene: Scene;
  readonly standing: Standing;
  readonly isOpen: boolean;
  readonly onOpen: (open: boolean) => void;
}

function Row({ rigId, scene, standing, isOpen, onOpen }: RowProps) {
  const dispatch = useAppDispatch();
  const { measurement: m, speaksOf, figures, idle } = standing;
  const drop = () => dispatch(applyStep({ kind: 'remove-measurement', measurementId: m.id }, `Dropped: ${speaksOf}`));
  return (
    <>
      <tr style={{ verticalAlign: 'top' }}>
        <th scope="row">
          {speaksOf}
          {idle && <p className="small quiet">{idle} Nothing follows from it.</p>}
        </th>
        <td className="number">
          {figures.length === 0 && 'all of the tune’s band'}
          {figures.map((f) => (
            <p key={f.what}>
              {f.isOutside && idle === null && <StateMark state="watch" />} {sayFigure(f)}
            </p>
          ))}
        </td>
        <td className="number quiet">
          {figures.map((f) => (
            <p key={f.what}>{sayExpected(f)}</p>
          ))}
        </td>
        <td className="small">
          {m.takeId ? <Link to={`/rigs/${rigId}/bench?takes=${m.takeId}`}>{m.label}</Link> : m.label}
          <br />
          <span className="quiet">{formatDate(m.takenAt)}</span>
        </td>
        <td>
          <span className="row" style={{ flexWrap: 'nowrap' }}>
            <Button
              size="xs"
              aria-expanded={isOpen}
              aria-label={`What rests on ${speaksOf}`}
              onClick={() => onOpen(!isOpen)}
            >
              Rests on it
            </Button>
            <Button size="xs" aria-label={`Drop ${speaksOf}`} onClick={drop}>
              Drop
            </Button>
          </span>
        </td>
      </tr>
      {isOpen && (
        <tr>
          <td colSpan={5}>
            <RestsOn rig={scene.rig} evaluation={scene.evaluation} measurementId={m.id} />
          </td>
        </tr>
      )}
    </>
  );
}

const decimalsOf = (unit: string): number => (unit === 'Hz' ? 0 : unit === 'ms' || unit === 'ppm' ? 2 : 1);
const isSignedUnit = (unit: string): boolean => unit === 'ms' || unit === 'ppm';

function sayFigure({ what, unit, value, count: times }: StandingFigure): string {
  const number = isSignedUnit(unit)
    ? formatSigned(value.nominal, decimalsOf(unit))
    : formatNumber(value.nominal, decimalsOf(unit));
  const spread =
    unit === 'Hz'
      ? `${formatNumber(value.low)} to ${formatNumber(value.high)}`
      : `±${formatNumber(value.high - value.nominal, decimalsOf(unit))}`;
  return `${what} ${number} ${unit}, ${spread}${times > 1 ? ` (${times} readings)` : ''}`;
}

function sayExpected({ unit, expected }: StandingFigure): string {
  if (!expected) return 'not known';
  const number = (x: number) => formatNumber(x, unit === 'Hz' ? 0 : 1);
  return expected.low === expected.high
    ? `${number(expected.nominal)} ${unit}`
    : `${number(expected.low)} to ${number(expected.high)} ${unit}`;
}
