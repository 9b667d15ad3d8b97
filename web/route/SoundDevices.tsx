import { Button, Input } from '@chakra-ui/react';
import { useState } from 'react';
import { type Device, findDevice, findTypes, type PortSpec, type Rig } from '#core/rig/index.ts';
import { type Evaluation, SCALE_UNITS } from '#core/signal/index.ts';
import { formatNumber, SourceLetter, Term } from '#web/parts/index.ts';
import { applyStep, selectRig, useAppDispatch, useAppSelector } from '#web/store/index.ts';

type End = NonNullable<Device['ends']>[string];

/**
 * The sound devices of a computer, as programs see them: names worth reading, what is hidden, preferred or disabled, and what
 * arrives at each now, by which the right one is found.
 */
export function SoundDevices({ rig, evaluation, deviceId }: { rig: Rig; evaluation: Evaluation; deviceId: string }) {
  const dispatch = useAppDispatch();
  // What is said of a computer is said of the rig, whichever moment is looked at.
  const plain = useAppSelector(selectRig);
  const device = plain && findDevice(plain, deviceId);
  const type = findTypes(rig).get(findDevice(rig, deviceId)?.typeId ?? '');
  if (!device || !type) return null;
  const ends = type.ports.filter((p) => p.connector === 'software' && p.channels.some((c) => c.carries === 'sound'));
  if (ends.length === 0) return null;
  const set = (port: PortSpec, next: End, says: string) => {
    const { [port.id]: _before, ...others } = device.ends ?? {};
    const all = Object.keys(next).length > 0 ? { ...others, [port.id]: next } : others;
    const { ends: _ends, ...rest } = device;
    const changed = Object.keys(all).length > 0 ? { ...rest, ends: all } : rest;
    dispatch(applyStep({ kind: 'set-device', device: changed }, `${device.name}, ${port.name}: ${says}`));
  };
  return (
    <>
      <h2>
        <Term id="sound-device">Its sound devices</Term>
      </h2>
      <table className="table tight" aria-label="Sound devices">
        <thead>
          <tr>
            <th>Called</th>
            <th>Is</th>
            <th>Comes there now</th>
            <th>
              <span className="visually-hidden">Shown, preferred, enabled</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {ends.map((port) => (
            <EndRow
              key={port.id}
              rig={rig}
              evaluation={evaluation}
              device={device}
              port={port}
              onEnd={(next, says) => set(port, next, says)}
            />
          ))}
        </tbody>
      </table>
    </>
  );
}

interface EndProps {
  readonly rig: Rig;
  readonly evaluation: Evaluation;
  readonly device: Device;
  readonly port: PortSpec;
  readonly onEnd: (next: End, says: string) => void;
}

function EndRow({ rig, evaluation, device, port, onEnd }: EndProps) {
  const end: End = device.ends?.[port.id] ?? {};
  const name = end.name ?? port.name;
  const [text, setText] = useState(name);
  const settle = () => {
    const next = text.trim();
    const { name: _before, ...rest } = end;
    if (next === '' || next === port.name) {
      setText(port.name);
      if (end.name) onEnd(rest, 'its own name again');
    } else if (next !== name) onEnd({ ...rest, name: next.slice(0, 120) }, `called ${next}`);
  };
  const flag = (key: 'hidden' | 'preferred' | 'disabled', says: readonly [string, string]) => {
    const { [key]: now, ...rest } = end;
    onEnd(now ? rest : { ...rest, [key]: true }, now ? says[1] : says[0]);
  };
  const { graph, arrivals } = evaluation;
  const nodes = graph.nodesOf({ deviceId: device.id, portId: port.id });
  const here = nodes.flatMap((n) => arrivals[n]!);
  const loudest = Math.max(...here.map((a) => a.levelDb));
  const scale = nodes[0] === undefined ? 'dbfs' : graph.nodes[nodes[0]]!.scale;
  const sources = rig.sources.filter((_, i) => here.some((a) => a.sourceIndex === i));
  return (
    <tr className={end.hidden ? 'quiet' : ''}>
      <td>
        <Input
          size="xs"
          width="210px"
          aria-label={`Name of ${port.name}`}
          maxLength={120}
          value={text}
          onChange={(e) => setText(e.target.value)}
          onBlur={settle}
          onKeyDown={(e) => {
            if (e.key === 'Enter') e.currentTarget.blur();
          }}
        />
      </td>
      <td className="quiet small">{port.direction === 'out' ? 'an input' : 'an output'}</td>
      <td>
        {sources.length === 0 ? (
          <span className="quiet small">nothing</span>
        ) : (
          <span className="row" style={{ gap: 4 }}>
            {sources.map((s) => (
              <SourceLetter key={s.id} source={s} />
            ))}
            <span className="small">
              {formatNumber(loudest)} {SCALE_UNITS[scale]}
            </span>
          </span>
        )}
      </td>
      <td>
        <span className="row" style={{ flexWrap: 'nowrap' }}>
          <Button size="xs" aria-pressed={end.hidden ?? false} onClick={() => flag('hidden', ['hidden', 'shown'])}>
            {end.hidden ? 'hidden' : 'shown'}
          </Button>
          <Button
            size="xs"
            aria-pressed={end.preferred ?? false}
            variant={end.preferred ? 'solid' : 'outline'}
            onClick={() => flag('preferred', ['preferred', 'as any other'])}
          >
            {end.preferred ? 'default' : 'not the default'}
          </Button>
          <Button
            size="xs"
            aria-pressed={end.disabled ?? false}
            variant={end.disabled ? 'solid' : 'outline'}
            onClick={() => flag('disabled', ['disabled', 'enabled'])}
          >
            {end.disabled ? 'disabled' : 'enabled'}
          </Button>
        </span>
      </td>
    </tr>
  );
}
