import { Button } from '@chakra-ui/react';
import { connectorOf } from '#core/plug/index.ts';
import type { DeviceType, PortSpec } from '#core/rig/index.ts';
import { count, saveAs } from '#web/parts/index.ts';
import { InsideMap } from './InsideMap.tsx';

interface Props {
  readonly type: DeviceType;
  readonly own: boolean;
  readonly onCopy: () => void;
  readonly onEdit: () => void;
  readonly onRemove: () => void;
  /** How many devices of the rig are of this type. */
  readonly used: number;
}

/** Everything that is known of a type. */
export function TypeSheet({ type, own, onCopy, onEdit, onRemove, used }: Props) {
  const { power, priceEur, needs } = type;
  return (
    <>
      <div className="spread">
        <h1>{type.name}</h1>
        <span className="row">
          <Button variant="solid" onClick={onCopy}>
            Make my own from it
          </Button>
          {own && <Button onClick={onEdit}>Edit</Button>}
          <Button onClick={() => saveAs(`${type.id}.json`, JSON.stringify(type, null, 2), 'application/json')}>
            Export JSON
          </Button>
          {own && (
            <Button
              onClick={onRemove}
              disabled={used > 0}
              title={used > 0 ? `${count(used, 'device')} of this rig use it` : ''}
            >
              Remove
            </Button>
          )}
        </span>
      </div>
      <p style={{ marginTop: 4 }}>{type.summary}</p>
      <p className="quiet">
        {own ? 'your own' : 'built in'}, {type.family}
        {priceEur && `; ${priceEur[0]} to ${priceEur[1]} euros (typical)`}
        {power && `; ${sayPower(power)}`}
        {needs && needs.length > 0 && `; needs ${needs.join(', ')}`}
      </p>
      {type.exclusive?.map((e) => (
        <p key={e.says} className="quiet" style={{ marginTop: 4 }}>
          {e.says}
        </p>
      ))}
      <h2>Sockets and ends</h2>
      <table className="table tight" aria-label="Sockets and ends">
        <thead>
          <tr>
            <th>Name</th>
            <th>Way</th>
            <th>Connector</th>
            <th>Level</th>
            <th>Channels</th>
            <th>What else</th>
          </tr>
        </thead>
        <tbody>
          {type.ports
            .filter((p) => p.direction !== 'inside')
            .map((p) => (
              <tr key={p.id}>
                <td>{p.name}</td>
                <td>{p.direction}</td>
                <td>{connectorOf(p.connector)?.name ?? p.connector}</td>
                <td>{p.level}</td>
                <td>{p.channels.map((c) => c.id).join(', ')}</td>
                <td className="quiet small">{sayMore(p)}</td>
              </tr>
            ))}
        </tbody>
      </table>
      <h2>Inside</h2>
      <InsideMap key={type.id} type={type} />
    </>
  );
}

function sayPower(power: NonNullable<DeviceType['power']>): string {
  const by = power.by.length === 0 ? 'needs no power' : `fed by ${power.by.join(' or ')}`;
  return [
    by,
    power.earthed && 'its plug has an earth',
    power.milliamps && `${power.milliamps} mA at 5 V`,
    power.hours && `${power.hours} h on its battery`,
    power.feeds && `feeds ${power.feeds.outlets} others with ${power.feeds.kind === 'usb' ? '5 V' : 'mains'}`,
  ]
    .filter(Boolean)
    .join(', ');
}

function sayMore({ gives, takes, harmedBy, picture, isolated, socket }: PortSpec): string {
  return [
    socket && `shares the socket ‘${socket}’`,
    gives && `gives ${gives.kind} power, ${gives.milliamps} mA${gives.setting ? ', by a switch' : ''}`,
    takes && `takes ${takes.kind} power, ${takes.milliamps} mA`,
    harmedBy && `must not get ${harmedBy.join(', ')} power`,
    isolated && 'no metal joins it to the chassis',
    picture?.link && `carries ${picture.link}`,
    picture?.most && `at most ${picture.most}`,
    picture?.protection && `copy protection ${picture.protection}`,
    picture?.stereoPcmOnly && 'two-channel PCM only',
  ]
    .filter(Boolean)
    .join('; ');
}
