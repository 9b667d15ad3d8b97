import { Button, chakra } from '@chakra-ui/react';
import { connectorOf } from '#core/model/plug/index.ts';
import type { DeviceType, PortSpec } from '#core/model/rig/index.ts';
import { Head, off, saveAs, Table } from '#web/shared/parts/index.ts';
import { common, gear as say, textOf } from '#words/index.ts';
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
            {say.copyAndEdit()}
          </Button>
          {own && <Button onClick={onEdit}>{say.edit()}</Button>}
          <Button onClick={() => saveAs(`${type.id}.json`, JSON.stringify(type, null, 2), 'application/json')}>
            {say.exportJson()}
          </Button>
          {own && (
            <Button onClick={onRemove} {...off(used > 0 ? say.usedByDeviceIn({ device: used }) : null)}>
              {common.remove()}
            </Button>
          )}
        </span>
      </div>
      <chakra.p marginTop="4px">{type.summary}</chakra.p>
      <p className="quiet">
        {own ? say.yourOwnWord() : say.builtIn()}, {type.family}
        {priceEur && say.toEurosTypical({ n0: priceEur[0], n1: priceEur[1] })}
        {power && `; ${sayPower(power)}`}
        {needs && needs.length > 0 && say.needs({ join: needs.join(', ') })}
      </p>
      {type.exclusive?.map((e) => (
        <chakra.p key={e.says} className="quiet" marginTop="4px">
          {e.says}
        </chakra.p>
      ))}
      <h2>{say.sockets()}</h2>
      <Table tight aria-label={say.sockets()}>
        <Head columns={[say.name(), say.direction(), say.connector(), common.level(), say.channels(), say.details()]} />
        <tbody>
          {type.ports
            .filter((p) => p.direction !== 'inside')
            .map((p) => (
              <tr key={p.id}>
                <td>{p.name}</td>
                <td>{say.directionOf({ direction: p.direction })}</td>
                <td>{textOf(connectorOf(p.connector)?.name ?? p.connector)}</td>
                <td>{say.levelOf({ level: p.level })}</td>
                <td>{p.channels.map((c) => say.channelOf({ channel: c.id })).join(', ')}</td>
                <td className="quiet small">{sayMore(p)}</td>
              </tr>
            ))}
        </tbody>
      </Table>
      <h2>{say.insideTitle()}</h2>
      <InsideMap key={type.id} type={type} />
    </>
  );
}

function sayPower(power: NonNullable<DeviceType['power']>): string {
  const by =
    power.by.length === 0
      ? say.needsNoPower()
      : say.poweredBy({ or: power.by.map((by) => say.powerOf({ by })).join(say.or()) });
  return [
    by,
    power.earthed && say.groundedPowerPlug(),
    power.milliamps && say.maAtV({ milliamps: power.milliamps }),
    power.hours && say.hOnBattery({ hours: power.hours }),
    power.feeds &&
      say.powersOthersWith({ outlets: power.feeds.outlets, mains: power.feeds.kind === 'usb' ? '5 V' : say.acPower() }),
  ]
    .filter(Boolean)
    .join(', ');
}

function sayMore({ gives, takes, harmedBy, picture, isolated, socket }: PortSpec): string {
  return [
    socket && say.sharesSocket({ socket }),
    gives &&
      say.suppliesPowerMa({
        kind: say.socketPower({ kind: gives.kind }),
        milliamps: gives.milliamps,
        switch: gives.setting ? say.switchable() : '',
      }),
    takes && say.needsPowerMa({ kind: say.socketPower({ kind: takes.kind }), milliamps: takes.milliamps }),
    harmedBy && say.mustNotGetPower({ join: harmedBy.map((kind) => say.socketPower({ kind })).join(say.or()) }),
    isolated && say.isolatedFromChassis(),
    picture?.link && say.carries({ link: picture.link }),
    picture?.most && say.max({ most: picture.most }),
    picture?.protection && say.copyProtection({ protection: picture.protection }),
    picture?.stereoPcmOnly && say.twoChannelPcmOnly(),
  ]
    .filter(Boolean)
    .join('; ');
}
