import { Button } from '@chakra-ui/react';
import { useMemo } from 'react';
import { alreadySo, type Rig, type SettingChange, toDoAtDesk } from '#core/rig/index.ts';
import { deviceName, type Evaluation, openChannels } from '#core/signal/index.ts';
import { formatNumber, Term } from '#web/parts/index.ts';
import { applyHere, useAppDispatch } from '#web/store/index.ts';
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
  const shut = (change: SettingChange, where: string, verb: 'to-do' | 'so') =>
    dispatch(
      applyHere(
        verb === 'so' ? alreadySo(rig, [change]) : toDoAtDesk(rig, [change], new Date().toISOString()),
        `${where}: shut`,
      ),
    );
  return (
    <section aria-label="Open and unused">
      <h2>
        <Term id="open-channel">Open and unused</Term>
      </h2>
      {open.length === 0 ? (
        <p className="quiet">No input is open that brings nothing: none costs a tenth of a decibel here.</p>
      ) : (
        <table className="table tight">
          <tbody>
            {open.map(({ deviceId, portId, costDb, shut: change }) => {
              const where = `${deviceName(rig, deviceId)}, ${portName(rig, deviceId, portId)}`;
              return (
                <tr key={where}>
                  <td>{where}</td>
                  <td className="number">
                    {formatNumber(costDb, 1)} dB <span className="small quiet">more noise</span>
                  </td>
                  <td className="number">
                    {change ? (
                      <span className="row" style={{ justifyContent: 'flex-end' }}>
                        <Button onClick={() => shut(change, where, 'to-do')}>To do: shut it</Button>
                        <Button onClick={() => shut(change, where, 'so')}>It is shut</Button>
                      </span>
                    ) : (
                      <span className="small quiet">nothing shuts it without taking what is wanted elsewhere</span>
                    )}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
    </section>
  );
}
