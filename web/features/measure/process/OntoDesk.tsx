import { useMemo, useState } from 'react';
import type { Treatment } from '#core/audio/process/index.ts';
import { treatingPlaces, treatmentAt } from '#core/desk-tests/reconcile/index.ts';
import { addTasks, markDone, type Rig, sayValue, type Verb } from '#core/model/rig/index.ts';
import { Choice, figures, Head, Table, TwoVerbs } from '#web/shared/parts/index.ts';
import { applyHere, useAppDispatch } from '#web/shared/store/index.ts';
import { common, process as say, textOf } from '#words/index.ts';

/** What was tried, set on a device or program of the rig that has it, in its own units and steps. */
export function OntoDesk({ rig, treatment }: { rig: Rig; treatment: Treatment }) {
  const dispatch = useAppDispatch();
  const places = useMemo(() => treatingPlaces(rig), [rig]);
  const [chosen, setChosen] = useState('');
  const place = places.find((p) => p.id === chosen) ?? places[0];
  if (!place) return <p className="quiet">{say.noDeviceOrApp()}</p>;
  const { settings, lacks } = treatmentAt(rig, place, treatment);
  const changes = settings.filter((s) => s.value !== s.now);
  const carryOut = (verb: Verb) => {
    const plain = changes.map(({ deviceId, settingId, value }) => ({ deviceId, settingId, value }));
    const edit = verb === 'done' ? markDone(rig, plain) : addTasks(rig, plain, new Date().toISOString());
    dispatch(applyHere(edit, say.settingsOf({ count: plain.length, device: place.name })));
  };
  return (
    <section aria-label={say.setOnDevice()} data-testid="onto-desk">
      <div className="spread">
        <h2>{say.setOnDevice()}</h2>
        <Choice
          label={common.device()}
          value={place.id}
          onChange={setChosen}
          options={places.map((p) => [p.id, p.name])}
        />
      </div>
      <Table tight>
        <Head columns={[say.setting(), figures(say.nowHead()), figures(say.result()), say.target()]} />
        <tbody>
          {settings.map(({ spec, now, value, wanted }) => (
            <tr key={spec.id}>
              <td>{spec.name}</td>
              <td className="number quiet">{textOf(sayValue(spec, now))}</td>
              <td className={`number ${value === now ? 'quiet' : 'strong'}`}>{textOf(sayValue(spec, value))}</td>
              <td className="quiet">{wanted === null ? '' : say.nearestPossibleValue({ wanted, unit: spec.unit })}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      {lacks.length > 0 && <p className="quiet">{say.itHasNo({ no: lacks.join(say.noMore()) })}</p>}
      {changes.length === 0 ? (
        <p className="good">{say.alreadySetThisWay()}</p>
      ) : (
        <p className="row">
          <TwoVerbs isKeyed onVerb={carryOut} />
        </p>
      )}
    </section>
  );
}
