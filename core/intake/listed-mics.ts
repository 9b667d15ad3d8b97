import { connectorOf } from '#core/model/plug/index.ts';
import { type DeviceType, isHardware } from '#core/model/rig/index.ts';
import { addDevice, fitsAmong, nameFor } from '#core/routing/wiring/index.ts';
import { hostsOf, isComputer, isMicrophone } from './around.ts';
import { PLAIN, plug } from './between.ts';
import { type Builder, listed } from './builder.ts';
import { type Answers, type Decision, decide } from './questions.ts';
import { say } from './sayings.ts';

const NONE = 'none';
const MAX_OFFERED = 4;
const MAX_NAMED = 2;

/** Inputs that a studio mic works at. */
const micInputs = ({ ports }: DeviceType): number =>
  ports.filter((p) => p.direction === 'in' && p.level === 'microphone' && p.gives?.kind === 'phantom').length;
const goesByUsb = ({ ports }: DeviceType): boolean =>
  ports.some((p) => p.direction === 'out' && connectorOf(p.connector)?.kind === 'usb');

/**
 * Mics that were only listed, beside a computer that takes none of them as they are, and nothing else that would: an
 * interface is between, with an input for each; asked.
 */
export function interfaceForMics(b: Builder, waiting: ReadonlySet<string>, answers: Answers): Decision[] {
  const host = hostsOf(b.rig).find((id) => isComputer(b.typeOf(id)));
  const isOther = (type: DeviceType) => isHardware(type) && !type.hosts && !isMicrophone(type) && micInputs(type) > 0;
  if (!host || b.rig.devices.some((d) => isOther(b.typeOf(d.id)))) return [];
  const fits = fitsAmong(b.types);
  const isPlain = (from: DeviceType, to: DeviceType) => (fits(from, to) ?? PLAIN) < PLAIN;
  const mics = b.rig.devices.filter(({ id }) => {
    const type = b.typeOf(id);
    const outputs = type.ports.filter((p) => p.direction === 'out');
    const isPlugged = b.rig.cables.some((c) => c.from.deviceId === id && c.medium !== 'air');
    return (
      isMicrophone(type) &&
      outputs.length > 0 &&
      outputs.every((p) => p.level === 'microphone') &&
      !isPlugged &&
      !waiting.has(id) &&
      !isPlain(type, b.typeOf(host))
    );
  });
  const [first] = mics;
  if (!first) return [];
  const types = [...b.types.values()]
    .filter(
      (t) =>
        isOther(t) &&
        goesByUsb(t) &&
        micInputs(t) >= mics.length &&
        mics.every((m) => isPlain(b.typeOf(m.id), t)) &&
        isPlain(t, b.typeOf(host)),
    )
    .sort((x, y) => micInputs(x) - micInputs(y) || x.ports.length - y.ports.length)
    .slice(0, MAX_OFFERED);
  if (types.length === 0) return [];
  const names = mics.length > MAX_NAMED ? say.mics({ mics: mics.length }) : listed(mics.map((m) => m.name));
  const asked = decide(answers, {
    id: `into:${first.id}:${host}`,
    asks: say.noCableStraight({ from: names, to: b.device(host).name }),
    options: [...types.map((t) => ({ id: t.id, label: t.name })), { id: NONE, label: say.nothingLeaveIt() }],
  });
  const type = types.find((t) => t.id === asked.taken);
  if (!type) return [asked];
  const { edit, device } = addDevice(b.rig, type, nameFor(b.rig, type));
  const says = say.between({ device: device.name, from: names, to: b.device(host).name });
  if (b.make(`into:${first.id}`, says, () => [edit])) {
    plug(b, device.id, host);
    for (const mic of mics) plug(b, mic.id, device.id);
  }
  return [asked];
}
