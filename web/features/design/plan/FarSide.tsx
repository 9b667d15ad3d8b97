import { Button, chakra, Input } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { findDevice, type Rig, sourceIn } from '#core/model/rig/index.ts';
import { guestSheet } from '#core/output/sheets/index.ts';
import { ownVoiceAt, returnWays } from '#core/routing/plan/index.ts';
import {
  addFarSeat,
  addSpareSeat,
  callsOf,
  FAR_GEAR,
  type FarSeat,
  farSeats,
  setFarGear,
} from '#core/routing/wiring/index.ts';
import {
  Choice,
  Details,
  figures,
  formatNumber,
  Head,
  hidden,
  off,
  StateMark,
  saveAs,
  Table,
  Term,
} from '#web/shared/parts/index.ts';
import { applyStep, selectScene, useAppDispatch, useAppSelector } from '#web/shared/store/index.ts';
import { common, plan, textOf } from '#words/index.ts';

/** Those who are not here: what they listen by, a sheet to send them, someone more, and a spare seat among them. */
export function FarSide({ rig }: { rig: Rig }) {
  const dispatch = useAppDispatch();
  const calls = callsOf(rig);
  const [name, setName] = useState('');
  const [call] = calls;
  if (!call) return null;
  const seats = farSeats(rig);
  const spare = rig.listeners.some((l) => l.id.startsWith('spare-seat'));
  return (
    <section aria-label={plan.remoteGuests()}>
      <h2>
        <Term id="far-side">{plan.remoteGuests()}</Term>
      </h2>
      {seats.length > 0 && (
        <Table tight>
          <Head columns={[plan.who(), plan.listensBy(), hidden(plan.infoSheet())]} />
          <tbody>
            {seats.map((seat) => (
              <Seat key={seat.gearId} rig={rig} seat={seat} />
            ))}
          </tbody>
        </Table>
      )}
      {seats.length > 0 && <Returns rig={rig} seats={seats} />}
      <chakra.form
        className="row"
        marginTop="8px"
        onSubmit={(e) => {
          e.preventDefault();
          const text = name.trim();
          if (text !== '' && dispatch(applyStep(addFarSeat(rig, call.id, text), plan.guestJoins({ name: text }))))
            setName('');
        }}
      >
        <Input
          aria-label={plan.guestName()}
          placeholder={plan.guestHint()}
          width="250px"
          maxLength={60}
          value={name}
          onChange={(e) => setName(e.target.value)}
        />
        <Button type="submit" {...off(name.trim() === '' ? common.typeNameFirst() : null)}>
          {plan.addGuest()}
        </Button>
        <Button
          {...off(spare ? plan.hasTestDevice() : null)}
          title={spare ? plan.testDeviceThere() : plan.testDeviceSays()}
          onClick={() => dispatch(applyStep(addSpareSeat(rig, call.id), plan.testDeviceStep()))}
        >
          {plan.testDevice()}
        </Button>
      </chakra.form>
    </section>
  );
}

function Seat({ rig, seat }: { rig: Rig; seat: FarSeat }) {
  const dispatch = useAppDispatch();
  const name = sourceIn(rig, seat.sourceId).name;
  const own = findDevice(rig, seat.gearId)!.name;
  const options = FAR_GEAR.map((g) => [g.typeId, textOf(g.says)] as const);
  return (
    <tr>
      <td>{name}</td>
      <td>
        <Choice
          label={plan.whatTheyListenBy({ name })}
          value={seat.gear?.typeId ?? ''}
          options={seat.gear ? options : [['', own], ...options]}
          onChange={(typeId) => {
            const gear = FAR_GEAR.find((g) => g.typeId === typeId);
            if (gear)
              dispatch(applyStep(setFarGear(rig, seat, gear), plan.listensByStep({ name, gear: textOf(gear.says) })));
          }}
        />
      </td>
      <td>
        <Button onClick={() => saveAs(plan.sheetName({ rig: rig.name, name }), guestSheet(rig, seat), 'text/markdown')}>
          {plan.downloadSheet()}
        </Button>
      </td>
    </tr>
  );
}

/** Whether they hear themselves, and the known ways to keep them from it, with what each costs. */
function Returns({ rig, seats }: { rig: Rig; seats: readonly FarSeat[] }) {
  const ways = useMemo(() => returnWays(rig), [rig]);
  // Of the moment that is looked at: a return may be open in one alone.
  const scene = useAppSelector(selectScene);
  return (
    <>
      {seats.map(({ sourceId, listenerId, gearId }) => {
        const own = scene && ownVoiceAt(rig, scene.evaluation, sourceId, listenerId);
        const name = sourceIn(rig, sourceId).name;
        const bad = own !== null && own.downDb < own.wantedDb;
        return (
          <chakra.p key={gearId} marginTop="8px">
            <StateMark state={bad ? 'fix' : 'good'} />{' '}
            {own === null
              ? plan.noEcho({ name })
              : plan.echo({ name, delayMs: own.afterMs, downDb: own.downDb, neededDb: own.wantedDb })}{' '}
            {bad && plan.sendMixMinus()}
          </chakra.p>
        );
      })}
      <Details summary={plan.mixMinusWays()}>
        <p className="small quiet">
          <Term id="guest-return">{plan.mixMinus()}</Term>: {plan.mixMinusNote()}
        </p>
        <Table tight aria-label={plan.mixMinusTable()}>
          <Head
            columns={[
              plan.way(),
              plan.here(),
              figures(plan.adds()),
              figures(plan.conversions()),
              figures(plan.costs()),
              plan.tradeOff(),
            ]}
          />
          <tbody>
            {ways.map((way) => (
              <tr key={way.id}>
                <td>
                  {textOf(way.name)} <span className="small quiet">{textOf(way.says)}</span>
                </td>
                <td>{way.boxes.join(', ') || <span className="quiet">{common.none()}</span>}</td>
                <td className="number">
                  {plan.range({ low: formatNumber(way.addsMs[0], 1), high: formatNumber(way.addsMs[1]) })}
                </td>
                <td className="number">{way.conversions}</td>
                <td className="number">
                  {way.priceEur[1] === 0 ? '0' : plan.range({ low: `${way.priceEur[0]}`, high: `${way.priceEur[1]}` })}
                </td>
                <td className="small">{textOf(way.cannot)}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      </Details>
    </>
  );
}
