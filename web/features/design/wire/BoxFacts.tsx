import { Button, chakra, Input } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { connectorOf } from '#core/model/plug/index.ts';
import { type Device, findTypes, isHardware, isProgram, type Rig } from '#core/model/rig/index.ts';
import { removeDevice } from '#core/routing/wiring/index.ts';
import { Check, Choice } from '#web/shared/parts/index.ts';
import { applyStep, useAppDispatch } from '#web/shared/store/index.ts';
import { common, wire as say } from '#words/index.ts';
import { Connections } from './Connections.tsx';
import { ReplaceDialog } from './DeviceDialogs.tsx';
import { EdidFacts } from './EdidFacts.tsx';
import { Photos } from './Photos.tsx';

/** What is said of a device: its name, where it runs, what feeds it, whether it moves; and taken out or replaced. */
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
      <h2>{common.device()}</h2>
      <p className="quiet small">{type.name}</p>
      <NameInput
        key={device.id}
        name={device.name}
        onName={(name) => set({ ...device, name }, say.renamedTo({ name }))}
      />
      {isProgram(type) && computers.length > 0 && (
        <Choice
          label={say.runsOn()}
          value={device.on ?? ''}
          options={named(computers, say.hostNotSet())}
          onChange={(id) => set(link('on', id), say.hostChanged({ device: device.name }))}
        />
      )}
      {(type.power?.by.length ?? 0) > 0 && feeders.length > 0 && (
        <Choice
          label={say.poweredBy()}
          value={device.fedBy ?? ''}
          options={named(feeders, say.powerSourceNotSet())}
          onChange={(id) => set(link('fedBy', id), say.powerSourceChanged({ device: device.name }))}
        />
      )}
      {isHardware(type) && (
        <chakra.p marginTop="8px">
          <Check
            checked={device.moves ?? false}
            onCheck={(moves) => {
              const { moves: _old, ...rest } = device;
              set(
                moves ? { ...rest, moves } : rest,
                `${device.name}: ${moves ? say.movesDuringUse() : say.staysPut()}`,
              );
            }}
          >
            {say.movesDuringUse()}
          </Check>
        </chakra.p>
      )}
      {type.priceEur && (
        <chakra.p marginTop="4px">
          <Check
            checked={device.toGet ?? false}
            onCheck={(toGet) => {
              const { toGet: _old, ...rest } = device;
              set(toGet ? { ...rest, toGet } : rest, `${device.name}: ${toGet ? say.notOwnedYet() : say.owned()}`);
            }}
          >
            {say.notOwnedYetPrice({ n0: type.priceEur[0], n1: type.priceEur[1] })}
          </Check>
        </chakra.p>
      )}
      {type.ports.some((p) => p.direction === 'in' && connectorOf(p.connector)?.kind === 'hdmi') && (
        <EdidFacts device={device} onEdid={(next) => set(next, say.edid({ device: device.name }))} />
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
      <chakra.p className="row" marginTop="10px">
        <Button onClick={() => setReplacing(true)}>{say.replace()}</Button>
        <Button
          onClick={() => {
            if (dispatch(applyStep(removeDevice(rig, device.id), say.remove({ device: device.name })))) onGone();
          }}
        >
          {common.remove()}
        </Button>
      </chakra.p>
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
      aria-label={say.deviceName()}
      maxLength={120}
      value={text}
      onChange={(e) => setText(e.target.value)}
      onBlur={settle}
      onKeyDown={(e) => e.key === 'Enter' && settle()}
      margin="6px 0"
    />
  );
}
