import { Button, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { reconcileDrift } from '#core/desk-tests/reconcile/index.ts';
import { findTypes, type Rig } from '#core/model/rig/index.ts';
import type { Evaluation } from '#core/signal/index.ts';
import { Choice, formatDate, formatSigned, off, Table } from '#web/shared/parts/index.ts';
import { applyStep, useAppDispatch } from '#web/shared/store/index.ts';
import { takes as say } from '#words/index.ts';
import { guessClock } from './follows.ts';
import type { BenchTake } from './useTake.ts';

interface Props {
  readonly bench: readonly BenchTake[];
  readonly ppm: number;
  readonly sd: number;
  readonly count: number;
  readonly rig: Rig;
  readonly evaluation: Evaluation;
}

/** Two recorders' clocks against each other, taken into the rig. */
export function DriftIntoRig({ bench, ppm, sd, count, rig, evaluation }: Props) {
  const dispatch = useAppDispatch();
  const [first, second] = bench as readonly [BenchTake, BenchTake];
  const types = findTypes(rig);
  const clocks = rig.devices.filter((d) =>
    types.get(d.typeId)!.inside.some((w) => w.stages.some((s) => s.do === 'clock')),
  );
  const clockIds = clocks.map((d) => d.id);
  const [deviceId, setDeviceId] = useState(() => guessClock(second.name, rig, evaluation, clockIds));
  const [againstDeviceId, setAgainst] = useState(() => guessClock(first.name, rig, evaluation, clockIds));
  const options: [string, string][] = [['', 'choose'], ...clocks.map((d): [string, string] => [d.id, d.name])];
  const known = rig.measurements.find(
    (m) => m.kind === 'drift' && m.deviceId === deviceId && m.againstDeviceId === againstDeviceId,
  );
  const takeIn = () => {
    const label = second.name.replace(/\.[a-z0-9]{2,4}$/i, '');
    const done = reconcileDrift(rig, {
      id: `m-${crypto.randomUUID()}`,
      label,
      takeId: second.id,
      takenAt: new Date().toISOString(),
      deviceId,
      againstDeviceId,
      ppm,
      sdPpm: sd,
      count,
    });
    if (done.ok) dispatch(applyStep(done.edit, say.clockMeasuredBy({ label })));
  };
  return (
    <>
      <h2>{say.clocks()}</h2>
      <p className="quiet">{say.whoseClocksAreThese()}</p>
      <Table tight>
        <tbody>
          {(
            [
              [second, say.clockSecondTake(), deviceId, setDeviceId, say.ppm({ ppm: formatSigned(ppm, 1) })],
              [first, say.clockFirstTake(), againstDeviceId, setAgainst, 'reference'],
            ] as const
          ).map(([take, label, value, choose, said]) => (
            <tr key={label}>
              <td>
                <div className="small quiet">{take.name}</div>
                <Choice label={label} value={value} options={options} onChange={choose} />
              </td>
              <td className="number">{said}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      {known?.takeId === second.id ? (
        <chakra.p className="good" marginTop="8px">
          {say.alreadyInRigSince({ takenAt: formatDate(known.takenAt) })}
        </chakra.p>
      ) : (
        <chakra.p marginTop="10px">
          <Button
            {...off(!deviceId || !againstDeviceId || deviceId === againstDeviceId ? say.chooseTwoDevices() : null)}
            onClick={takeIn}
          >
            {known ? say.replaceEarlierMeasurement() : say.addClocksToRig()}
          </Button>
        </chakra.p>
      )}
    </>
  );
}
