import { Button, chakra } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import { type MeasurementStatus, type StandingFigure, standingsOf } from '#core/desk-tests/reconcile/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { evaluationAt } from '#core/signal/index.ts';
import {
  figures,
  formatDate,
  formatNumber,
  formatSigned,
  Head,
  hidden,
  Page,
  rich,
  StateMark,
  Table,
} from '#web/shared/parts/index.ts';
import { applyStep, selectRig, selectScene, useAppDispatch, useAppSelector } from '#web/shared/store/index.ts';
import { common, measurements as say, textOf } from '#words/index.ts';
import { RestsOn } from './RestsOn.tsx';

/** What takes have put into the rig: each figure beside what is typical, what rests on it, and a way to drop it. */
export function MeasurementsScreen() {
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
    <Page title={rich(say.measuredFigures, {})}>
      {standings.length === 0 ? (
        <p className="quiet">
          {rich(say.nothingMeasured, {}, `/rigs/${rigId}/bench`)} {rich(say.orAllAtOnce, {}, `/rigs/${rigId}/tap`)}
        </p>
      ) : (
        <>
          <p className="quiet">
            {say.figuresFromTakes({ count: standings.length })}
            {outside > 0 && ` ${say.outsideTypical({ count: outside })}`}
            {idle > 0 && ` ${say.ofRemovedPaths({ count: idle })}`} {say.whatRemovingDoes()}
          </p>
          <Table aria-label={say.measuredTable()}>
            <Head
              columns={[
                say.figure(),
                figures(say.measured()),
                figures(say.asDrawn()),
                say.takenHead(),
                hidden(say.whatToDo()),
              ]}
            />
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
          </Table>
        </>
      )}
      {inTest > 0 && <p className="quiet">{rich(say.takeSyncTestAs, { take: inTest }, `/rigs/${rigId}/sync/paths`)}</p>}
    </Page>
  );
}

interface RowProps {
  readonly rigId: string;
  readonly scene: Scene;
  readonly standing: MeasurementStatus;
  readonly isOpen: boolean;
  readonly onOpen: (open: boolean) => void;
}

function Row({ rigId, scene, standing, isOpen, onOpen }: RowProps) {
  const dispatch = useAppDispatch();
  const { measurement: m, speaksOf, figures, idle } = standing;
  const drop = () =>
    dispatch(
      applyStep({ kind: 'remove-measurement', measurementId: m.id }, say.removed({ speaksOf: textOf(speaksOf) })),
    );
  return (
    <>
      <chakra.tr verticalAlign="top">
        <th scope="row">
          {textOf(speaksOf)}
          {idle && <p className="small quiet">{say.itChangesNothing({ idle: textOf(idle) })}</p>}
        </th>
        <td className="number">
          {figures.length === 0 && say.wholeBandTestTune()}
          {figures.map((f) => (
            <p key={textOf(f.what)}>
              {f.isOutside && idle === null && <StateMark state="watch" />} {sayFigure(f)}
            </p>
          ))}
        </td>
        <td className="number quiet">
          {figures.map((f) => (
            <p key={textOf(f.what)}>{sayExpected(f)}</p>
          ))}
        </td>
        <td className="small">
          {m.takeId ? <Link to={`/rigs/${rigId}/bench?takes=${m.takeId}`}>{m.label}</Link> : m.label}
          <br />
          <span className="quiet">{formatDate(m.takenAt)}</span>
        </td>
        <td>
          <chakra.span className="row" flexWrap="nowrap">
            <Button
              size="xs"
              aria-expanded={isOpen}
              aria-label={say.whatDependsOn({ speaksOf: textOf(speaksOf) })}
              onClick={() => onOpen(!isOpen)}
            >
              {say.whatDependsOnIt()}
            </Button>
            <Button size="xs" aria-label={say.remove({ speaksOf: textOf(speaksOf) })} onClick={drop}>
              {common.remove()}
            </Button>
          </chakra.span>
        </td>
      </chakra.tr>
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
  return `${what} ${number} ${unit}, ${spread}${times > 1 ? say.reading({ times }) : ''}`;
}

function sayExpected({ unit, expected }: StandingFigure): string {
  if (!expected) return say.notKnown();
  const number = (x: number) => formatNumber(x, unit === 'Hz' ? 0 : 1);
  return expected.low === expected.high
    ? `${number(expected.nominal)} ${unit}`
    : `${number(expected.low)} to ${number(expected.high)} ${unit}`;
}
