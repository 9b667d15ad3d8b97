import { Button, chakra } from '@chakra-ui/react';
import { Fragment } from 'react';
import { Link } from 'react-router';
import { pathIntoRig, type TestedPath, type TestedTake } from '#core/desk-tests/sync-test/index.ts';
import { type Edit, findSetting, findTypes, listenerIn, type Rig, settingAt, sourceIn } from '#core/model/rig/index.ts';
import { contains, type Interval } from '#core/model/units/index.ts';
import { deviceName } from '#core/signal/index.ts';
import {
  Details,
  decimalsFor,
  figures,
  formatNumber,
  formatOffset,
  formatSigned,
  Head,
  hidden,
  rich,
  SourceLetter,
  StateMark,
  Table,
  Term,
} from '#web/shared/parts/index.ts';
import { applyStep, useAppDispatch } from '#web/shared/store/index.ts';
import { common, syncTest as say, textOf } from '#words/index.ts';

interface Props {
  readonly rigId: string;
  readonly rig: Rig;
  readonly table: readonly TestedPath[];
}

const range = ({ low, high }: Interval): string =>
  Math.round(low) === Math.round(high)
    ? formatSigned(low)
    : say.to({ low: formatSigned(low), high: formatSigned(high) });

/** Paths by settings: each take with what it should be, all of a path together, and what follows from it. */
export function TestTable({ rigId, rig, table }: Props) {
  const tested = table.filter((p) => p.takes.length > 0);
  const untested = table.filter((p) => p.takes.length === 0);
  return (
    <section aria-label={say.pathsBySettings()}>
      <h2>{say.pathsBySettings()}</h2>
      {tested.length === 0 ? (
        <p className="quiet">{say.noTakesYetDrop()}</p>
      ) : (
        <Table data-testid="path-test">
          <Head
            columns={[
              say.pathAndDelaySettings(),
              figures(rich(say.byModel, {})),
              figures(<Term id="measured">{say.measured()}</Term>),
              figures(say.beatsOrClaps()),
              say.take(),
              hidden(common.actions()),
            ]}
          />
          <tbody>
            {tested.map((path) => (
              <PathRows key={`${path.sourceId} ${path.listenerId}`} rigId={rigId} rig={rig} path={path} />
            ))}
          </tbody>
        </Table>
      )}
      {untested.length > 0 && (
        <Details summary={say.pathWithoutTake({ untested: untested.length })}>
          <Table tight>
            <tbody>
              {untested.map((p) => (
                <tr key={`${p.sourceId} ${p.listenerId}`}>
                  <td>
                    <PathName rig={rig} path={p} />
                  </td>
                  <td className="number">{say.ms({ now: range(p.now) })}</td>
                  <td className="quiet">{p.nowIsMeasured ? say.measuredByAnotherTake() : say.typicalFigures()}</td>
                  <td className="quiet small">{textOf(p.cause.says)}</td>
                </tr>
              ))}
            </tbody>
          </Table>
        </Details>
      )}
    </section>
  );
}

function PathName({ rig, path }: { rig: Rig; path: TestedPath }) {
  const source = sourceIn(rig, path.sourceId);
  return (
    <>
      <SourceLetter source={source} /> {say.atOf({ source: source.name, name: listenerIn(rig, path.listenerId).name })}
    </>
  );
}

function PathRows({ rigId, rig, path }: { rigId: string; rig: Rig; path: TestedPath }) {
  const dispatch = useAppDispatch();
  const { together, cause } = path;
  const edit = pathIntoRig(rig, path, `m-${path.sourceId}-${path.listenerId}`.slice(0, 40), NOT_YET);
  const takeIn = () => {
    const done = pathIntoRig(rig, path, `m-${crypto.randomUUID()}`, new Date().toISOString());
    if (done) dispatch(applyStep(done, say.pathMeasuredByIts()));
  };
  const known = together && isKnown(rig, path);
  return (
    <Fragment>
      <tr className="group">
        <td className="strong">
          <PathName rig={rig} path={path} />
          <div className="quiet small">
            <Term id="follows-from">{common.basedOn()}</Term>{' '}
            <span className={cause.follows === 'nothing' ? 'watch' : ''}>{textOf(cause.says)}</span>
          </div>
        </td>
        <td className="number quiet">{range(path.now)}</td>
        <td className="number strong">
          {together && (
            <>
              {formatOffset(together.sumMs, decimalsFor(together.sdMs))}
              <div className="quiet small">
                {say.fromDevicesAlone({ sdMs: formatNumber(2 * together.sdMs, decimalsFor(together.sdMs)) })}
              </div>
            </>
          )}
        </td>
        <td className="number">{together?.count}</td>
        <td colSpan={2}>
          {known ? (
            <span className="good">
              <StateMark state="good" /> {rich(say.inRigSync, {}, `/rigs/${rigId}/sync?listener=${path.listenerId}`)}
            </span>
          ) : (
            <Button disabled={!edit} onClick={takeIn}>
              {say.addToRig()}
            </Button>
          )}
        </td>
      </tr>
      {path.takes.map((tested) => (
        <TakeRow key={tested.take.id} rigId={rigId} rig={rig} tested={tested} />
      ))}
    </Fragment>
  );
}

const NOT_YET = '2000-01-01T00:00:00Z';
const SAME_MS = 0.01;

/** Whether the rig has this very figure already. */
const isKnown = (rig: Rig, path: TestedPath): boolean =>
  rig.measurements.some(
    (m) =>
      m.kind === 'delay' &&
      m.sourceId === path.sourceId &&
      m.listenerId === path.listenerId &&
      Math.abs(m.ms.mean - path.together!.sumMs) < SAME_MS &&
      Math.abs(m.ms.sd - path.together!.sdMs) < SAME_MS,
  );

/** The delays that were set; those without effect are left out. */
function sayDelays(rig: Rig, settings: TestedTake['take']['settings']): string {
  const types = findTypes(rig);
  const said = settings.flatMap(({ setting, value }) => {
    const { deviceId, settingId } = settingAt(setting);
    const spec = findSetting(rig, types, deviceId, settingId);
    if (value === 0 || spec?.kind !== 'delay') return [];
    return [`${deviceName(rig, deviceId)}, ${spec.name}: ${value} ${spec.unit}`];
  });
  return said.length > 0 ? said.join('; ') : say.noDelaySet();
}

function TakeRow({ rigId, rig, tested }: { rigId: string; rig: Rig; tested: TestedTake }) {
  const dispatch = useAppDispatch();
  const { take, expected, odd, counts } = tested;
  const remove: Edit = { kind: 'remove-measurement', measurementId: take.id };
  const toggle = () =>
    dispatch(
      applyStep(
        {
          kind: 'batch',
          edits: [remove, { kind: 'add-measurement', measurement: { ...take, leftOut: !take.leftOut } }],
        },
        take.leftOut ? say.included({ take: take.label }) : say.excluded({ take: take.label }),
      ),
    );
  const within = contains(expected, take.ms.mean);
  return (
    <tr className={counts ? '' : 'quiet'}>
      <chakra.td paddingLeft="24px">{sayDelays(rig, take.settings)}</chakra.td>
      <td className="number">{range(expected)}</td>
      <td className="number">
        <span className={counts ? 'strong' : ''}>{formatOffset(take.ms.mean, decimalsFor(take.ms.sd))}</span>
        <div className="quiet small">±{formatNumber(take.ms.sd, decimalsFor(take.ms.sd))}</div>
      </td>
      <td className="number">{take.ms.count}</td>
      <td>
        {take.takeId ? <Link to={`/rigs/${rigId}/bench?takes=${take.takeId}`}>{take.label}</Link> : take.label}
        {odd && (
          <div className="watch small">
            <StateMark state="watch" /> {textOf(odd)}
          </div>
        )}
        {!odd && !within && counts && <div className="quiet small">{say.outsideUsualRangeFor()}</div>}
        {take.leftOut && <div className="small">{say.excludedWord()}</div>}
      </td>
      <td>
        <Button variant="plain" onClick={toggle}>
          {take.leftOut ? common.include() : common.exclude()}
        </Button>
        <Button
          variant="plain"
          onClick={() => dispatch(applyStep(remove, say.removedFromSyncTest({ take: take.label })))}
        >
          {common.remove()}
        </Button>
      </td>
    </tr>
  );
}
