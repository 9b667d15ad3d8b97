import { Button } from '@chakra-ui/react';
import { useState } from 'react';
import { reconcileDrift } from '#core/reconcile/index.ts';
import { findTypes, type Rig } from '#core/rig/index.ts';
import { Choice, formatNumber } from '#web/parts/index.ts';
import { applyStep, useAppDispatch } from '#web/store/index.ts';
import type { BenchTake } from './useTake.ts';

/** Two recorders' clocks against each other, taken into the rig. */
export function DriftIntoRig({
  bench,
  ppm,
  sd,
  count,
  rig,
}: {
  bench: readonly BenchTake[];
  ppm: number;
  sd: number;
  count: number;
  rig: Rig;
}) {
  const dispatch = useAppDispatch();
  const [deviceId, setDeviceId] = useState('');
  const [againstDeviceId, setAgainst] = useState('');
  const types = findTypes(rig);
  const clocks = rig.devices.filter((d) =>
    types.get(d.typeId)!.inside.some((w) => w.stages.some((s) => s.do === 'clock')),
  );
  const options: [string, string][] = [['', 'choose'], ...clocks.map((d): [string, string] => [d.id, d.name])];
  const known = rig.measurements.some((m) => m.kind === 'drift' && m.takeId === bench[1]!.id);
  const takeIn = () => {
    const label = bench[1]!.name.replace(/\.[a-z0-9]{2,4}$/i, '');
    const done = reconcileDrift(rig, {
      id: `m-${crypto.randomUUID()}`,
      label,
      takeId: bench[1]!.id,
      takenAt: new Date().toISOString(),
      deviceId,
      againstDeviceId,
      ppm,
      sdPpm: sd,
      count,
    });
    if (done.ok) dispatch(applyStep(done.edit, `Clock measured by ‘${label}’`));
  };
  return (
    <>
      <h2>Clocks</h2>
      <p className="quiet">
        Whose clocks were these? The second take runs {formatNumber(Math.abs(ppm), 1)} ppm{' '}
        {ppm < 0 ? 'shorter' : 'longer'}.
      </p>
      <p className="row" style={{ marginTop: 6 }}>
        <Choice label="Clock of the second take" value={deviceId} options={options} onChange={setDeviceId} />
        against
        <Choice label="Clock of the first take" value={againstDeviceId} options={options} onChange={setAgainst} />
      </p>
      <p style={{ marginTop: 8 }}>
        <Button disabled={!deviceId || !againstDeviceId || deviceId === againstDeviceId} onClick={takeIn}>
          Take the clocks into the rig
        </Button>
      </p>
      {known && <p className="good">The rig knows it.</p>}
    </>
  );
}
