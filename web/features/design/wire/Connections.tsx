import { Button, Editable } from '@chakra-ui/react';
import { memo, useMemo, useState } from 'react';
import {
  findDevice,
  findTypes,
  givenName,
  nameSocket,
  type PortRef,
  portsOf,
  type Rig,
} from '#core/model/rig/index.ts';
import { type Connection, connectionsOf, lostBy, removeConnection, sayEnd } from '#core/routing/wiring/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { rich } from '#web/shared/parts/index.ts';
import { applyStep, useAppDispatch } from '#web/shared/store/index.ts';
import { common, wire as say } from '#words/index.ts';

const MEDIA: Readonly<Record<Connection['medium'], string>> = {
  lead: 'lead',
  software: say.insideComputer(),
  radio: 'radio',
  air: 'air',
  light: 'sight',
};

/** Every connection of a device, those within a computer too: what it leads to, and taken out at once. */
export function Connections({ rig, deviceId }: { rig: Rig; deviceId: string }) {
  const list = useMemo(() => connectionsOf(rig, deviceId), [rig, deviceId]);
  return (
    <>
      <h2>{say.connections()}</h2>
      {list.length === 0 && <p className="quiet small">{rich(say.nothingIsConnectedTo, {})}</p>}
      <ul className="plain made" aria-label={say.connections()}>
        {list.map((c) => (
          <ConnectionRow key={c.id} rig={rig} connection={c} deviceId={deviceId} />
        ))}
      </ul>
    </>
  );
}

/** What apps capture from audio devices and from each other, as one list: from where, to where. */
export const LinksInside = memo(function LinksInside({ rig }: { rig: Rig }) {
  const links = useMemo(() => connectionsOf(rig).filter((c) => c.medium === 'software'), [rig]);
  if (links.length === 0) return null;
  return (
    <section aria-label={say.insideComputerTitle()}>
      <h2>{say.insideComputerTitle()}</h2>
      <ul className="plain made">
        {links.map((c) => (
          <ConnectionRow key={c.id} rig={rig} connection={c} deviceId={null} />
        ))}
      </ul>
    </section>
  );
});

/** The user's name for the socket of a cable, used in every list, label and sheet. */
function SocketName({ rig, end }: { rig: Rig; end: PortRef }) {
  const dispatch = useAppDispatch();
  const device = findDevice(rig, end.deviceId)!;
  const type = findTypes(rig).get(device.typeId)!;
  const port = portsOf(type).get(end.portId)!;
  const name = givenName(device, type, port) ?? port.name;
  const settle = (text: string) => {
    if (text.trim() === name) return;
    const edit = nameSocket(device, type, end.portId, text);
    dispatch(applyStep(edit, say.socketNamed({ device: device.name, port: text.trim() || port.name })));
  };
  return (
    <Editable.Root
      key={name}
      defaultValue={name}
      maxLength={120}
      activationMode="click"
      onValueCommit={(e) => settle(e.value)}
    >
      <Editable.Preview
        aria-label={say.nameSocket({ name })}
        title={say.nameThisSocket()}
        textDecoration="underline dotted"
      />
      <Editable.Input aria-label={say.socketName({ name })} />
    </Editable.Root>
  );
}

interface RowProps {
  readonly rig: Rig;
  readonly connection: Connection;
  /** The device that it is listed for; null: both ends are named. */
  readonly deviceId: string | null;
}

/** One connection. Losses are shown before it is removed. */
function ConnectionRow({ rig, connection, deviceId }: RowProps) {
  const dispatch = useAppDispatch();
  const [lost, setLost] = useState<string | null>(null);
  const { from, to, both, medium } = connection;
  const isOut = from.deviceId === deviceId;
  const says =
    deviceId === null
      ? `${sayEnd(rig, from)} ${both ? '↔' : '→'} ${sayEnd(rig, to)}`
      : `${both ? '↔' : isOut ? '→' : '←'} ${sayEnd(rig, isOut ? to : from)}`;
  const channels = connection.cables.some((c) => c.map) ? say.channelsSelected() : '';
  const remove = () => {
    const edit = removeConnection(rig, connection);
    const missed = lostBy(rig, evaluate(rig), edit);
    if (missed.length > 0 && lost === null) {
      const name = (list: readonly { id: string; name: string }[], id: string) =>
        list.find((x) => x.id === id)?.name ?? id;
      const told = missed.map((m) =>
        say.wouldNoLongerReach({
          source: name(rig.sources, m.sourceId),
          destination: name(rig.listeners, m.listenerId),
        }),
      );
      setLost(told.join('; '));
      return;
    }
    dispatch(applyStep(edit, say.removeTo({ from: sayEnd(rig, from), to: sayEnd(rig, to) })));
  };
  return (
    <li className="spread">
      <span className="made-says">
        {deviceId !== null && (medium === 'lead' || medium === 'radio') && (
          <SocketName rig={rig} end={isOut ? from : to} />
        )}
        {says} <span className="small quiet">{say.mediumAndChannels({ medium: MEDIA[medium], channels })}</span>
        {lost && <span className="small fix"> {lost}.</span>}
      </span>
      <span className="row">
        <Button size="sm" aria-label={say.removeOne({ says })} onClick={remove}>
          {lost ? say.removeAnyway() : common.remove()}
        </Button>
        {lost && (
          <Button size="sm" onClick={() => setLost(null)}>
            {common.cancel()}
          </Button>
        )}
      </span>
    </li>
  );
}
