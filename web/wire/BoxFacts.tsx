import { Button, Input } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { connectorOf } from '#core/plug/index.ts';
import { type Device, findTypes, isHardware, isProgram, type Rig } from '#core/rig/index.ts';
import { removeDevice } from '#core/wire/index.ts';
import { Choice } from '#web/parts/index.ts';
import { applyStep, useAppDispatch } from '#web/store/index.ts';
import { Connections } from './Connections.tsx';
import { ReplaceDialog } from './DeviceDialogs.tsx';
import { EdidFacts } from './EdidFacts.tsx';
import { Photos } from './Photos.tsx';

/** What is said of a box: its name, where it runs, what feeds it, whether it moves; and taken out or replaced. */
export function BoxFacts({ rig, device, onGone }: { rig: Rig; device: Device; onGone: () => void }) {
  const dispatch = useAppDispatch();
  const [replacing, setReplacing] = useState(false);
  const types = findTypes(rig);
  const type = types.get(device.typeId)!;
  const set = (next: Device, label: string) => dispatch(applyStep({ kind: 'set-device', device: next }, label));
  const others = rig.devices.filter((d) => d.id !== device.id);
  const computers = others.filter((d) => types.get(d.typeId)!.hosts);
  const feeders = others.filter((d) => types.get(d.typeId)!.power?.feeds);
  const link = (key: 'on' | 'fedBy', id: string): Device => {
    const { [key]: _old, ...rest } = device;
    return id ? { ...rest, [key]: id } : rest;
  };
  const named = (list: readonly Device[], none: string) =>
    [['', none], ...list.map((d) => [d.id, d.name] as const)] as const;
  return (
    <>
      <h2>The box</h2>
      <p className="quiet small">{type.name}</p>
      <NameInput key={device.id} name={device.name} onName={(name) => set({ ...device, name }, `Renamed to ${name}`)} />
      {isProgram(type) && computers.length > 0 && (
        <Choice
          label="Runs on"
          value={device.on ?? ''}
          options={named(computers, 'runs on: not said')}
          onChange={(id) => set(link('on', id), `${device.name} runs elsewhere`)}
        />
      )}
      {(type.power?.by.length ?? 0) > 0 && feeders.length > 0 && (
        <Choice
          label="Fed by"
          value={device.fedBy ?? ''}
          options={named(feeders, 'fed by: not said')}
          onChange={(id) => set(link('fedBy', id), `${device.name} is fed elsewhere`)}
        />
      )}
      {isHardware(type) && (
        <p style={{ marginTop: 8 }}>
          <label>
            <input
              type="checkbox"
              checked={device.moves ?? false}
              onChange={(e) => {
                const { moves: _old, ...rest } = device;
                set(
                  e.target.checked ? { ...rest, moves: true } : rest,
                  `${device.name}: ${e.target.checked ? 'is carried about' : 'stands'}`,
                );
              }}
            />{' '}
            is carried about
          </label>
        </p>
      )}
      {type.priceEur && (
        <p style={{ marginTop: 4 }}>
          <label>
            <input
              type="checkbox"
              checked={device.toGet ?? false}
              onChange={(e) => {
                const { toGet: _old, ...rest } = device;
                const says = e.target.checked ? 'is still to be got' : 'is there';
                set(e.target.checked ? { ...rest, toGet: true } : rest, `${device.name}: ${says}`);
              }}
            />{' '}
            is still to be got, {type.priceEur[0]} to {type.priceEur[1]} €
          </label>
        </p>
      )}
      {type.ports.some((p) => p.direction === 'in' && connectorOf(p.connector)?.kind === 'hdmi') && (
        <EdidFacts device={device} onEdid={(next) => set(next, `${device.name}: what it says of itself`)} />
      )}
      {!isProgram(type) && (
        <Photos
          device={device}
          onPhotos={(photos, label) => {
            const { photos: _old, ...rest } = device;
            set(photos.length > 0 ? { ...rest, photos: [...photos] } : rest, label);
          }}
        />
      )}
      <Connections key={device.id} rig={rig} deviceId={device.id} />
      <p className="row" style={{ marginTop: 10 }}>
        <Button onClick={() => setReplacing(true)}>Replace</Button>
        <Button
          onClick={() => {
            if (dispatch(applyStep(removeDevice(rig, device.id), `Take out ${device.name}`))) onGone();
          }}
        >
          Take out
        </Button>
      </p>
      {replacing && <ReplaceDialog rig={rig} deviceId={device.id} onClose={() => setReplacing(false)} />}
    </>
  );
}

function NameInput({ name, onName }: { name: string; onName: (name: string) => void }) {
  const [text, setText] = useState(name);
  useEffect(() => setText(name), [name]);
  const settle = () => (text.trim() !== '' && text.trim() !== name ? onName(text.trim()) : setText(name));
  return (
    <Input
      aria-label="Name of the box"
      maxLength={120}
      value={text}
      onChange={(e) => setText(e.target.value)}
      onBlur={settle}
      onKeyDown={(e) => e.key === 'Enter' && settle()}
      style={{ margin: '6px 0' }}
    />
  );
}
