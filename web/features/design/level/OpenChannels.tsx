import { chakra } from '@chakra-ui/react';
import { useMemo } from 'react';
import { addTasks, markDone, type Rig, type SettingChange, type Verb } from '#core/model/rig/index.ts';
import { deviceName, type Evaluation, openChannels } from '#core/signal/index.ts';
import { formatNumber, Table, Term, TwoVerbs } from '#web/shared/parts/index.ts';
import { applyHere, useAppDispatch } from '#web/shared/store/index.ts';
import { level as say } from '#words/index.ts';
import { portName } from './names.ts';

interface Props {
  readonly rig: Rig;
  readonly evaluation: Evaluation;
  readonly listenerId: string;
}

/** Inputs that bring this listener nothing but noise, and what it costs to leave them open. */
export function OpenChannels({ rig, evaluation, listenerId }: Props) {
  const dispatch = useAppDispatch();
  const open = useMemo(() => openChannels(rig, evaluation, listenerId), [rig, evaluation, listenerId]);
  const shut = (change: SettingChange, where: string, verb: Verb) =>
    dispatch(
      applyHere(
        verb === 'done' ? markDone(rig, [change]) : addTasks(rig, [change], new Date().toISOString()),
        say.muted({ where }),
      ),
    );
  return (
    <section aria-label={say.openButUnusedInputs()}>
      <h2>
        <Term id="open-channel">{say.openButUnusedInputs()}</Term>
      </h2>
      {open.length === 0 ? (
        <p className="quiet">{say.noUnusedInputsAre()}</p>
      ) : (
        <Table tight>
          <tbody>
            {open.map(({ deviceId, portId, costDb, shut: change }) => {
              const where = `${deviceName(rig, deviceId)}, ${portName(rig, deviceId, portId)}`;
              return (
                <tr key={where}>
                  <td>{where}</td>
                  <td className="number">
                    {say.noiseMore({ costDb: formatNumber(costDb, 1) })}{' '}
                    <span className="small quiet">{say.moreNoise()}</span>
                  </td>
                  <td className="number">
                    {change ? (
                      <chakra.span className="row" justifyContent="flex-end">
                        <TwoVerbs of={where} onVerb={(verb) => shut(change, where, verb)} />
                      </chakra.span>
                    ) : (
                      <span className="small quiet">{say.cantBeMutedWithout()}</span>
                    )}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </Table>
      )}
    </section>
  );
}
