import { chakra } from '@chakra-ui/react';
import { type Bindings, drawnDevices } from '#core/desk-tests/drawn/index.ts';
import { deviceIn, type Rig } from '#core/model/rig/index.ts';
import { Choice, Details, Table } from '#web/shared/parts/index.ts';
import { scan as say } from '#words/index.ts';
import type { ScanMade } from './engine.ts';
import type { Drawing } from './useDrawing.ts';

interface Props {
  readonly rig: Rig;
  readonly made: ScanMade;
  readonly drawing: Drawing;
}

const keyOf = (ref: { deviceId: string; portId: string }): string => `${ref.deviceId}/${ref.portId}`;

/** Which device of the drawing each device of the browser is: by its name, or as someone says. */
export function DeviceTable({ rig, made, drawing }: Props) {
  const { computerId, computers, bindings } = drawing;
  if (computerId === null) return null;
  const open = [
    ...made.outputs.filter((o) => !bindings.outputs[o.id]),
    ...made.inputs.filter((i) => !bindings.inputs[i.id]),
  ].length;
  const rows = (what: keyof Bindings, devices: ScanMade['outputs'] | ScanMade['inputs'], use: 'play' | 'record') => {
    const drawn = drawnDevices(rig, computerId, use);
    const options = [['', say.noneOfThem()], ...drawn.map((d) => [keyOf(d.ref), d.name] as const)] as const;
    return devices.map(({ id, name }) => {
      const ref = bindings[what][id];
      return (
        <tr key={`${what} ${id}`}>
          <th scope="row">
            {name}
            <div className="small quiet">{what === 'outputs' ? say.anOutput() : say.anInput()}</div>
          </th>
          <td>
            <Choice
              label={what === 'outputs' ? say.whichOutputIs({ name }) : say.whichInputIs({ name })}
              value={ref ? keyOf(ref) : ''}
              options={options}
              onChange={(key) => drawing.bind(what, id, drawn.find((d) => keyOf(d.ref) === key)?.ref ?? null)}
            />
          </td>
        </tr>
      );
    });
  };
  return (
    <chakra.div marginTop="12px">
      <Details summary={open > 0 ? say.whichDevicesOpen({ open }) : say.whichDevices()}>
        {computers.length > 1 && (
          <Choice
            label={say.thisComputerIs()}
            value={computerId}
            options={computers.map((id) => [id, say.onComputer({ name: deviceIn(rig, id).name })] as const)}
            onChange={drawing.chooseComputer}
          />
        )}
        <Table tight aria-label={say.whichDevices()}>
          <thead>
            <tr>
              <th scope="col">{say.inBrowser()}</th>
              <th scope="col">{say.inDrawing()}</th>
            </tr>
          </thead>
          <tbody>
            {rows('outputs', made.outputs, 'play')}
            {rows('inputs', made.inputs, 'record')}
          </tbody>
        </Table>
      </Details>
    </chakra.div>
  );
}
