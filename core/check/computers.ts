import {
  type Cable,
  choosing,
  chosenDevice,
  computerOf,
  defaultDevice,
  followingDefault,
  isProgram,
  onTwoComputers,
  relinked,
  sameEnd,
  soundDeviceName,
  usbRoleOf,
} from '#core/rig/index.ts';
import { type Context, type Fix, type Rule, rule } from './finding.ts';

/** 'the default output of Desk computer' */
const sayDefault = ({ box }: Context, use: 'play' | 'record', computerId: string): string =>
  `the default ${use === 'play' ? 'output' : 'input'} of ${box(computerId).device.name}`;

/** Every link of a program that follows the default of its computer, with what that is. */
function following(context: Context) {
  const { rig, types } = context;
  return rig.cables.flatMap((cable) => {
    const chosen = cable.follows ? chosenDevice(rig, types, cable) : null;
    if (!chosen) return [];
    const program = chosen.at === 'to' ? cable.from : cable.to;
    return [{ cable, chosen, program, now: defaultDevice(rig, chosen.computerId, chosen.use) }];
  });
}

const cableOf = ({ rig }: Context, id: string): Cable => rig.cables.find((c) => c.id === id)!;
const fix = (label: string, cable: Cable): Fix => ({
  label,
  changes: [{ cableId: cable.id, cable }],
  edit: relinked(cable),
});

/** Programs and the sound devices of the computers that they run on. */
export const computerRules: readonly Rule[] = [
  rule('wire', 'program-crosses-computers', ({ rig, box }) =>
    rig.cables.flatMap((cable) => {
      if (cable.medium !== 'software') return [];
      const home = (id: string) => computerOf(box(id).device, box(id).type);
      const [a, b] = [home(cable.from.deviceId), home(cable.to.deviceId)];
      if (a === null || b === null || !onTwoComputers(a, b)) return [];
      return [
        {
          at: cable.id,
          severity: 'stop' as const,
          where: { cableIds: [cable.id], deviceIds: [cable.from.deviceId, cable.to.deviceId] },
          says: `${box(cable.from.deviceId).device.name} hands its signal to ${box(cable.to.deviceId).device.name}, but they run on two computers, ${box(a).device.name} and ${box(b).device.name}. A lead, a capture device or a call has to go between.`,
          why: [{ says: 'programs pass each other sound on one computer only', source: 'this rig' }],
        },
      ];
    }),
  ),
  rule('wire', 'device-disabled', ({ rig, box }) =>
    rig.cables.flatMap((cable) => {
      if (cable.medium !== 'software') return [];
      return [cable.from, cable.to].flatMap(({ deviceId, portId }) => {
        const { device, port } = box(deviceId);
        if (!device.ends?.[portId]?.disabled) return [];
        const other = deviceId === cable.from.deviceId ? cable.to : cable.from;
        const name = device.ends[portId]?.name ?? port(portId)?.name;
        return [
          {
            at: cable.id,
            severity: 'fix' as const,
            where: { cableIds: [cable.id], deviceIds: [deviceId, other.deviceId] },
            says: `${box(other.deviceId).device.name} ${cable.follows ? 'follows the default' : 'has chosen'} ${name}, which is disabled in the system of ${device.name}: nothing passes. Enable it there, or choose another.`,
            why: [{ says: 'no program gets anything of a disabled device', source: 'sound settings of systems' }],
          },
        ];
      });
    }),
  ),
  rule('wire', 'program-without-computer', ({ boxes }) => {
    const computers = boxes.filter((b) => b.type.hosts && b.type.ports.some((p) => usbRoleOf(b.type, p) !== null));
    if (computers.length < 2) return [];
    return boxes
      .filter((b) => isProgram(b.type) && b.device.on === undefined)
      .map(({ device }) => ({
        at: device.id,
        severity: 'watch' as const,
        where: { deviceIds: [device.id] },
        says: `${device.name} runs on one of ${computers.length} computers, and it is not said on which.`,
        asks: `On which computer does ${device.name} run: ${computers.map((c) => c.device.name).join(' or ')}?`,
        why: [{ says: 'what it can open depends on it', source: 'this rig' }],
      }));
  }),
  rule(
    'wire',
    'default-elsewhere',
    (context) =>
      following(context).flatMap(({ cable, chosen, program, now }) => {
        if (!now || sameEnd(now, chosen.ref)) return [];
        const name = (ref: typeof now) => soundDeviceName(context.rig, context.types, ref);
        return [
          {
            at: cable.id,
            severity: 'fix' as const,
            where: { cableIds: [cable.id], deviceIds: [program.deviceId, now.deviceId] },
            says: `${context.box(program.deviceId).device.name} follows ${sayDefault(context, chosen.use, chosen.computerId)}, which is ${name(now)}; drawn is ${name(chosen.ref)}.`,
            why: [{ says: 'what has chosen nothing goes with the default', source: 'sound settings of systems' }],
          },
        ];
      }),
    (context, { where }) => {
      const { rig, types } = context;
      const cable = cableOf(context, where.cableIds[0]!);
      const drawn = chosenDevice(rig, types, cable)!;
      const now = defaultDevice(rig, drawn.computerId, drawn.use)!;
      return [
        fix(`Draw it at ${soundDeviceName(rig, types, now)}`, followingDefault(rig, cable)),
        fix(`Choose ${soundDeviceName(rig, types, drawn.ref)} in the program itself`, choosing(rig, cable, drawn.ref)),
      ];
    },
  ),
  rule(
    'wire',
    'default-moves',
    (context) =>
      following(context).flatMap(({ cable, chosen, program, now }) => {
        if (now && !sameEnd(now, chosen.ref)) return [];
        const what = sayDefault(context, chosen.use, chosen.computerId);
        const name = soundDeviceName(context.rig, context.types, chosen.ref);
        return [
          {
            at: cable.id,
            severity: 'watch' as const,
            where: { cableIds: [cable.id], deviceIds: [program.deviceId, chosen.computerId] },
            says: `${context.box(program.deviceId).device.name} follows ${what}, ${name} now: whatever is plugged in next may become it, and the sound goes with it. Choose ${name} in the program itself, or look before each session.`,
            ...((!now || cable.known === 'assumed') && { asks: `Is ${name} ${what}?` }),
            why: [
              {
                says: 'a system makes what was plugged in last its default, as a rule',
                source: 'sound settings of systems',
              },
            ],
          },
        ];
      }),
    (context, { where }) => {
      const { rig, types } = context;
      const cable = cableOf(context, where.cableIds[0]!);
      const { ref } = chosenDevice(rig, types, cable)!;
      return [fix(`Choose ${soundDeviceName(rig, types, ref)} in the program itself`, choosing(rig, cable, ref))];
    },
  ),
];
