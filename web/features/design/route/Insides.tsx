import { Button, chakra, Input } from '@chakra-ui/react';
import { memo, useDeferredValue, useMemo, useState } from 'react';
import {
  addTasks,
  type Controls,
  controlsOf,
  type Device,
  endName,
  findDevice,
  findTypes,
  markDone,
  type PortSpec,
  type Rig,
  refuseValue,
  type SettingSpec,
  type SettingValue,
  sayValue,
  settingOf,
  unitOf,
  type Verb,
} from '#core/model/rig/index.ts';
import { deviceName, type Evaluation, type Passage, type ReceivedPath, throughBox } from '#core/signal/index.ts';
import { Choice, formatNumber, Table, Term, useSteady } from '#web/shared/parts/index.ts';
import { applyHere, useAppDispatch } from '#web/shared/store/index.ts';
import { common, route as say, textOf } from '#words/index.ts';
import { SoundDevices } from './SoundDevices.tsx';

interface Props {
  readonly rig: Rig;
  readonly evaluation: Evaluation;
  /** The ways of the pair that is looked at: their devices come first. */
  readonly ways: readonly ReceivedPath[];
}

/** Below the table: what each device does with its channels, and its controls, to be set right there. */
export function Insides({ rig, evaluation, ways }: Props) {
  const dispatch = useAppDispatch();
  const [chosen, setChosen] = useState<string | null>(null);
  const [verb, setVerb] = useState<Verb>('done');
  const boxes = useMemo(() => boxesWithInside(rig, ways), [rig, ways]);
  const device = boxes.find((d) => d.id === chosen) ?? boxes[0];
  const set = useSteady((deviceId: string, spec: SettingSpec, value: SettingValue) => {
    const changes = [{ deviceId, settingId: spec.id, value }];
    const edit = verb === 'done' ? markDone(rig, changes) : addTasks(rig, changes, new Date().toISOString());
    dispatch(applyHere(edit, `${deviceName(rig, deviceId)}, ${spec.name}: ${sayValue(spec, value)}`));
  });
  if (!device) return null;
  const isComputer = findTypes(rig).get(device.typeId)!.hosts === true;
  const onWay = new Set(ways.flatMap((w) => w.deviceIds));
  const named = boxes.map((d) => [d.id, onWay.has(d.id) ? say.onThisPath({ d: d.name }) : d.name] as const);
  return (
    <section aria-label={say.insideDevices()} className="insides">
      <div className="spread">
        <h2>
          <Term id="inside">{say.inside()}</Term> {device.name}
        </h2>
        <chakra.span className="row" flexWrap="nowrap">
          <Choice label={common.device()} value={device.id} options={named} onChange={setChosen} />
          <Choice
            label={say.myChangesAre()}
            value={verb}
            options={[
              ['done', say.alreadyDone()],
              ['to-do', say.stillToDo()],
            ]}
            onChange={(v) => setVerb(v as Verb)}
          />
        </chakra.span>
      </div>
      <Through rig={rig} device={device} />
      {isComputer && <SoundDevices key={device.id} evaluation={evaluation} deviceId={device.id} />}
      <ControlPanel device={device} controls={controlsOf(findTypes(rig).get(device.typeId)!)} onSet={set} />
    </section>
  );
}

/** Devices that do anything between an input and an output, or that can be set; those on the way first, as they come. */
function boxesWithInside(rig: Rig, ways: readonly ReceivedPath[]): Device[] {
  const types = findTypes(rig);
  const has = ({ typeId }: Device) => types.get(typeId)!.settings.length > 0;
  const first = [...new Set(ways.flatMap((w) => w.deviceIds))].flatMap((id) => findDevice(rig, id) ?? []);
  const rest = rig.devices.filter((d) => !first.includes(d)).sort((a, b) => a.name.localeCompare(b.name));
  return [...first, ...rest].filter(has);
}

/** Ends that something is at, in the rig. */
function usedPorts(rig: Rig, deviceId: string): Set<string> {
  const refs = [
    ...rig.cables.flatMap((c) => [c.from, c.to]),
    ...rig.sources.map((s) => s.sound),
    ...rig.listeners.map((l) => l.sound),
  ];
  return new Set(refs.filter((r) => r.deviceId === deviceId).map((r) => r.portId));
}

/** Inputs by outputs as it stands: what passes, how much louder, or which control shuts it. */
function Through({ rig: now, device: { id } }: { rig: Rig; device: Device }) {
  // It follows the table: what one typed is heard first.
  const settled = useDeferredValue(now);
  const rig = findDevice(settled, id) ? settled : now;
  const through = useMemo(() => throughBox(rig, id), [rig, id]);
  const used = useMemo(() => usedPorts(rig, id), [rig, id]);
  const type = findTypes(rig).get(findDevice(rig, id)!.typeId)!;
  const called = (p: PortSpec) => endName(rig, findTypes(rig), { deviceId: id, portId: p.id });
  const leads = (p: PortSpec) => used.has(p.id);
  const outputs = through.outputs.filter(leads);
  const inputs = through.inputs.filter((i) => leads(i) && outputs.some((o) => through.at(i.id, o.id)));
  if (inputs.length === 0 || outputs.length === 0) return <p className="quiet">{say.noConnectedSignalPasses()}</p>;
  return (
    <div className="hearing-scroll">
      <Table tight className="hearing" aria-label={say.signalsPassingThrough()}>
        <thead>
          <tr>
            <th>
              <span className="quiet small">{say.fromTo()}</span>
            </th>
            {outputs.map((o) => (
              <th key={o.id} scope="col">
                {called(o)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {inputs.map((i) => (
            <tr key={i.id}>
              <th scope="row">{called(i)}</th>
              {outputs.map((o) => (
                <td key={o.id}>{sayPassage(type.settings, through.at(i.id, o.id))}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </Table>
    </div>
  );
}

function sayPassage(settings: readonly SettingSpec[], passage: Passage | null) {
  if (!passage) return <span className="quiet">·</span>;
  if (!passage.passes) {
    const names = [
      ...new Set(passage.doors.map((d) => settings.find((s) => s.id === d.settingId)?.name ?? d.settingId)),
    ];
    return <span className="quiet small">{say.muted({ join: names.join('; ') })}</span>;
  }
  const { gainDb, delay, sameScale } = passage;
  const delayMs = delay.value.nominal;
  const level = !sameScale
    ? say.passesThrough()
    : Math.abs(gainDb) < 0.05
      ? say.unchanged()
      : `${formatNumber(gainDb, 1)} dB`;
  return (
    <>
      <span className="fact">{level}</span>
      {delayMs >= 0.5 && <span className="fact small quiet">{formatNumber(delayMs)} ms</span>}
    </>
  );
}

interface PanelProps {
  readonly device: Device;
  readonly controls: Controls;
  readonly onSet: (deviceId: string, spec: SettingSpec, value: SettingValue) => void;
}

/** The controls: in a table where several parts have the same ones, and one by one for the device as a whole. */
const ControlPanel = memo(function ControlPanel({ device, controls: { table, general }, onSet }: PanelProps) {
  const control = (spec: SettingSpec) => (
    <Control
      spec={spec}
      name={`${device.name}, ${spec.name}`}
      value={settingOf(device, spec).value}
      onValue={(value) => onSet(device.id, spec, value)}
    />
  );
  return (
    <>
      {table && (
        <div className="hearing-scroll">
          <Table tight className="hearing" aria-label={say.controls()}>
            <thead>
              <tr>
                <th>
                  <span className="visually-hidden">{say.part()}</span>
                </th>
                {table.columns.map((c, i) => (
                  <th key={c} scope="col">
                    {c} <span className="quiet small">{columnUnit(table, i)}</span>
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {table.rows.map((row, r) => (
                <tr key={row}>
                  <th scope="row">{row}</th>
                  {table.columns.map((column, c) => {
                    const spec = table.at(r, c);
                    return <td key={column}>{spec && control(spec)}</td>;
                  })}
                </tr>
              ))}
            </tbody>
          </Table>
        </div>
      )}
      <chakra.div className="row" marginTop="8px" gap="8px 24px">
        {general.map((spec) => (
          <span key={spec.id} className="row">
            <span className="small">{spec.name}</span> {control(spec)}
          </span>
        ))}
      </chakra.div>
    </>
  );
});

/** Unit of the numbers of a column; nothing for mutes and switches. */
function columnUnit({ rows, at }: NonNullable<Controls['table']>, column: number): string {
  return unitOf(rows.map((_, r) => at(r, column)).find((s) => s !== null) ?? undefined);
}

interface ControlProps {
  readonly spec: SettingSpec;
  readonly name: string;
  readonly value: SettingValue;
  readonly onValue: (value: SettingValue) => void;
}

function Control({ spec, name, value, onValue }: ControlProps) {
  if (spec.kind === 'mute')
    return (
      <Button
        size="xs"
        aria-label={name}
        aria-pressed={value === true}
        variant={value ? 'solid' : 'outline'}
        onClick={() => onValue(!value)}
      >
        {value ? say.mutedWord() : say.open()}
      </Button>
    );
  if (spec.kind === 'switch')
    return (
      <Choice
        label={name}
        value={String(value)}
        options={spec.options.map((o) => [o.value, o.label])}
        onChange={onValue}
      />
    );
  return <NumberControl key={String(value)} spec={spec} name={name} value={Number(value)} onValue={onValue} />;
}

type NumberSpec = Extract<SettingSpec, { kind: 'gain' | 'delay' | 'value' }>;

/** The number at which it lets nothing through, or does nothing; undefined where there is none. */
function offOf(spec: NumberSpec): number | undefined {
  if (spec.kind === 'gain') return spec.offAtMin ? spec.min : undefined;
  return spec.kind === 'value' ? spec.off : undefined;
}

/** A number, typed; 'off' turns a level all the way down, and a step of a treatment to where it does nothing. */
function NumberControl({
  spec,
  name,
  value,
  onValue,
}: {
  spec: NumberSpec;
  name: string;
  value: number;
  onValue: (value: number) => void;
}) {
  const off = offOf(spec);
  const now = value === off ? say.off() : formatNumber(value, Number.isInteger(value) ? 0 : 1);
  const [text, setText] = useState(now);
  const typed =
    off !== undefined && /^off$/i.test(text.trim()) ? off : Number(text.replace(',', '.').replace('−', '-'));
  const stepped = spec.min + Math.round((typed - spec.min) / spec.step) * spec.step;
  const why = text.trim() === '' || !Number.isFinite(typed) ? say.number() : refuseValue(spec, stepped);
  const settle = () => {
    if (why) setText(now);
    else if (stepped !== value) onValue(stepped);
  };
  return (
    <Input
      size="xs"
      width="58px"
      textAlign="right"
      aria-label={`${name}, ${unitOf(spec)}`}
      aria-invalid={why !== undefined}
      title={why && textOf(why)}
      value={text}
      onChange={(e) => setText(e.target.value)}
      onBlur={settle}
      onKeyDown={(e) => {
        if (e.key === 'Enter') settle();
        if (e.key === 'Escape') setText(now);
      }}
    />
  );
}
