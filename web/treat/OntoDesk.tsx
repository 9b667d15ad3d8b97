import { Button } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import type { Treatment } from '#core/process/index.ts';
import { treatingPlaces, treatmentAt } from '#core/reconcile/index.ts';
import { alreadySo, type Rig, sayValue, toDoAtDesk } from '#core/rig/index.ts';
import { Choice, count } from '#web/parts/index.ts';
import { applyHere, useAppDispatch } from '#web/store/index.ts';

/** What was tried, set on a box or program of the rig that has it, in its own units and steps. */
export function OntoDesk({ rig, treatment }: { rig: Rig; treatment: Treatment }) {
  const dispatch = useAppDispatch();
  const places = useMemo(() => treatingPlaces(rig), [rig]);
  const [chosen, setChosen] = useState('');
  const place = places.find((p) => p.id === chosen) ?? places[0];
  if (!place)
    return (
      <p className="quiet">No box or program of this rig has such controls: what suits is set by hand elsewhere.</p>
    );
  const { settings, lacks } = treatmentAt(rig, place, treatment);
  const changes = settings.filter((s) => s.value !== s.now);
  const carryOut = (verb: 'to-do' | 'so') => {
    const plain = changes.map(({ deviceId, settingId, value }) => ({ deviceId, settingId, value }));
    const edit = verb === 'so' ? alreadySo(rig, plain) : toDoAtDesk(rig, plain, new Date().toISOString());
    dispatch(applyHere(edit, `${count(plain.length, 'setting')} of ${place.name}`));
  };
  return (
    <section aria-label="On the desk" data-testid="onto-desk">
      <div className="spread">
        <h2>On the desk</h2>
        <Choice
          label="Box that it is set on"
          value={place.id}
          onChange={setChosen}
          options={places.map((p) => [p.id, p.name])}
        />
      </div>
      <table className="table tight">
        <thead>
          <tr>
            <th>Setting</th>
            <th className="number">Now</th>
            <th className="number">Then</th>
            <th>Wanted</th>
          </tr>
        </thead>
        <tbody>
          {settings.map(({ spec, now, value, wanted }) => (
            <tr key={spec.id}>
              <td>{spec.name}</td>
              <td className="number quiet">{sayValue(spec, now)}</td>
              <td className={`number ${value === now ? 'quiet' : 'strong'}`}>{sayValue(spec, value)}</td>
              <td className="quiet">
                {wanted === null ? '' : `${wanted} ${spec.unit}: nearest that it can be set to`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {lacks.length > 0 && <p className="quiet">It has no {lacks.join(', no ')}.</p>}
      {changes.length === 0 ? (
        <p className="good">It stands so already.</p>
      ) : (
        <p className="row">
          <Button variant="solid" onClick={() => carryOut('to-do')}>
            To do at the desk: {count(changes.length, 'setting')}
          </Button>
          <Button onClick={() => carryOut('so')}>
            {changes.length === 1 ? 'It is so already' : 'They are so already'}
          </Button>
        </p>
      )}
    </section>
  );
}
