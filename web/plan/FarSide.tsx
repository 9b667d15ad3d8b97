import { Button, Input } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { ownVoiceAt, returnWays } from '#core/plan/index.ts';
import { guestSheet } from '#core/report/index.ts';
import { findDevice, type Rig } from '#core/rig/index.ts';
import { addFarSeat, addSpareSeat, callsOf, FAR_GEAR, type FarSeat, farSeats, setFarGear } from '#core/wire/index.ts';
import { Choice, formatNumber, StateMark, saveAs, Term } from '#web/parts/index.ts';
import { applyStep, selectScene, useAppDispatch, useAppSelector } from '#web/store/index.ts';

/** Those who are not here: what they listen by, a sheet to send them, somebody more, and a spare seat among them. */
export function FarSide({ rig }: { rig: Rig }) {
  const dispatch = useAppDispatch();
  const calls = callsOf(rig);
  const [name, setName] = useState('');
  const [call] = calls;
  if (!call) return null;
  const seats = farSeats(rig);
  const spare = rig.listeners.some((l) => l.id.startsWith('spare-seat'));
  return (
    <section aria-label="The far side">
      <h2>
        <Term id="far-side">The far side</Term>
      </h2>
      {seats.length > 0 && (
        <table className="table tight">
          <thead>
            <tr>
              <th>Who</th>
              <th>Listens and talks by</th>
              <th>
                <span className="visually-hidden">To send</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {seats.map((seat) => (
              <Seat key={seat.gearId} rig={rig} seat={seat} />
            ))}
          </tbody>
        </table>
      )}
      {seats.length > 0 && <Returns rig={rig} seats={seats} />}
      <form
        className="row"
        style={{ marginTop: 8 }}
        onSubmit={(e) => {
          e.preventDefault();
          const text = name.trim();
          if (text !== '' && dispatch(applyStep(addFarSeat(rig, call.id, text), `${text} joins the call`))) setName('');
        }}
      >
        <Input
          aria-label="Name of somebody at the far side"
          placeholder="Somebody more on the call…"
          width="250px"
          maxLength={60}
          value={name}
          onChange={(e) => setName(e.target.value)}
        />
        <Button type="submit" disabled={name.trim() === ''}>
          Add them
        </Button>
        <Button
          disabled={spare}
          title={spare ? 'There is one already' : 'A second device that joins muted and records what they hear'}
          onClick={() => dispatch(applyStep(addSpareSeat(rig, call.id), 'A spare seat on the call'))}
        >
          Add a spare seat
        </Button>
      </form>
    </section>
  );
}

function Seat({ rig, seat }: { rig: Rig; seat: FarSeat }) {
  const dispatch = useAppDispatch();
  const name = rig.sources.find((s) => s.id === seat.sourceId)!.name;
  const own = findDevice(rig, seat.gearId)!.name;
  const options = FAR_GEAR.map((g) => [g.typeId, g.says] as const);
  return (
    <tr>
      <td>{name}</td>
      <td>
        <Choice
          label={`What ${name} listens by`}
          value={seat.gear?.typeId ?? ''}
          options={seat.gear ? options : [['', own], ...options]}
          onChange={(typeId) => {
            const gear = FAR_GEAR.find((g) => g.typeId === typeId);
            if (gear) dispatch(applyStep(setFarGear(rig, seat, gear), `${name} listens by ${gear.says}`));
          }}
        />
      </td>
      <td>
        <Button onClick={() => saveAs(`${rig.name}, for ${name}.md`, guestSheet(rig, seat), 'text/markdown')}>
          Sheet to send
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
        const name = rig.sources.find((s) => s.id === sourceId)!.name;
        const bad = own !== null && own.downDb < own.wantedDb;
        return (
          <p key={gearId} style={{ marginTop: 8 }}>
            <StateMark state={bad ? 'fix' : 'good'} />{' '}
            {own === null
              ? `${name} does not hear the own voice back.`
              : `${name} hears the own voice back ${formatNumber(own.afterMs)} ms later, ${formatNumber(own.downDb)} dB down; ${formatNumber(own.wantedDb)} dB down is borne (ITU-T G.131).`}
          </p>
        );
      })}
      <details style={{ marginTop: 8 }}>
        <summary>Known ways to keep a guest from hearing themselves, and what each costs</summary>
        <p className="small quiet">
          What is sent back without them is a <Term id="guest-return">guest return</Term>.
        </p>
        <table className="table tight" aria-label="Ways to a guest return">
          <thead>
            <tr>
              <th>Way</th>
              <th>Here</th>
              <th className="number">Adds, ms</th>
              <th className="number">Conversions</th>
              <th className="number">Costs, €</th>
              <th>Its price otherwise</th>
            </tr>
          </thead>
          <tbody>
            {ways.map((way) => (
              <tr key={way.id}>
                <td>
                  {way.name} <span className="small quiet">{way.says}</span>
                </td>
                <td>{way.boxes.join(', ') || <span className="quiet">none</span>}</td>
                <td className="number">
                  {formatNumber(way.addsMs[0], 1)} to {formatNumber(way.addsMs[1])}
                </td>
                <td className="number">{way.conversions}</td>
                <td className="number">{way.priceEur[1] === 0 ? '0' : `${way.priceEur[0]} to ${way.priceEur[1]}`}</td>
                <td className="small">{way.cannot}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </details>
    </>
  );
}
