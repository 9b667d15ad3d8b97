import type { Text } from '#core/base/said/index.ts';
import { walk } from '#core/base/search/index.ts';
import { say } from '#core/live/troubleshoot/sayings.ts';
import {
  type Device,
  type DeviceType,
  films,
  findTypes,
  hearsAir,
  isPerson,
  isProgram,
  isSupply,
  isWorn,
  type Rig,
  records,
} from '#core/model/rig/index.ts';
import { type DirectLook, type Fault, type FaultKind, WEIGHTS } from './fault.ts';

const LIGHT_S = 5;
const PROGRAM_S = 8;
const SWAP_BOX_S = 90;
/** A computer or a person is noticed at once when off. */
const isSeenAtOnce = (type: DeviceType): boolean => isPerson(type) || type.hosts === true;
/** It is there to hear, and nothing else. */
const isMicrophone = (type: DeviceType): boolean => hearsAir(type) && !films(type) && !isWorn(type) && !records(type);

/** Every device that may have no power, not run, or be broken; with it all that it feeds. */
export function boxFaults(rig: Rig): Fault[] {
  const types = findTypes(rig);
  return rig.devices.flatMap((device): Fault[] => {
    const type = types.get(device.typeId)!;
    if (isSeenAtOnce(type)) return [];
    if (isProgram(type)) return [gone(device, 'not-running', [device.id], program(rig, device))];
    const by = type.power?.by ?? [];
    const fed = fedFrom(rig, device.id);
    if (isSupply(type)) return fed.length === 0 ? [] : [gone(device, 'no-power', fed, light(rig, device))];
    const powered = by.some((b) => b !== 'phantom' && b !== 'plug-in');
    return [
      ...(powered ? [gone(device, 'no-power', [device.id, ...fed], light(rig, device))] : []),
      ...(isMicrophone(type) ? [gone(device, 'broken', [device.id], another(device))] : []),
    ];
  });

  /** All devices that hang on one for their power, one behind the other. */
  function fedFrom({ devices }: Rig, deviceId: string): string[] {
    const fed = (by: string) => devices.filter((d) => d.fedBy === by).map((d) => d.id);
    return [...walk([deviceId], fed)].slice(1);
  }
}

interface Gone {
  readonly looks: readonly DirectLook[];
  readonly says: Text;
  readonly mend: Text;
  readonly shows: Text;
}

const gone = (device: Device, kind: FaultKind, dead: readonly string[], rest: Gone): Fault => ({
  id: `${kind}:${device.id}`,
  kind,
  edit: null,
  dead,
  marks: [],
  weight: WEIGHTS[kind],
  ...rest,
});

const lookAt = (device: Device, what: string, asks: Text, well: Text, seconds: number): DirectLook => ({
  id: `${what}:${device.id}`,
  asks,
  well,
  deviceIds: [device.id],
  seconds,
});

/** All lights are seen in one walk along the desk. */
const WALK_S = 25;

const light = ({ devices }: Rig, device: Device): Gone => ({
  looks: [
    lookAt(device, 'power', say.isOnCheckIts({ device: device.name }), say.itIsOn(), LIGHT_S),
    {
      id: 'power',
      asks: say.checkEveryDeviceIs(),
      well: say.allAreOn(),
      deviceIds: devices.map((d) => d.id),
      seconds: WALK_S,
    },
  ],
  says: say.hasNoPowerSwitched({ device: device.name }),
  mend: say.powerTurnVolumesDown({ device: device.name }),
  shows: say.isOff({ device: device.name }),
});

const program = ({ devices }: Rig, device: Device): Gone => {
  const beside = devices.filter((d) => d.on !== undefined && d.on === device.on);
  const computer = devices.find((d) => d.id === device.on);
  return {
    looks: [
      lookAt(device, 'runs', say.isRunningAndDoes({ device: device.name }), say.itsRunning(), PROGRAM_S),
      ...(computer && beside.length > 1
        ? [lookAt(computer, 'runs', say.isEveryAppOn({ computer: computer.name }), say.allAreRunning(), 2 * PROGRAM_S)]
        : []),
    ],
    says: say.isntRunningOrHas({ device: device.name }),
    mend: say.restart({ device: device.name }),
    shows: say.isntRunningOrHasFrozen({ device: device.name }),
  };
};

const another = (device: Device): Gone => ({
  looks: [lookAt(device, 'another', say.turnVolumesDownThen({ device: device.name }), say.noChange(), SWAP_BOX_S)],
  says: say.isBroken({ device: device.name }),
  mend: say.swapForAnother({ device: device.name }),
  shows: say.betterItWasBroken(),
});
