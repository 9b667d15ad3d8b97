import { listOf, type Said, type Text } from '#core/base/said/index.ts';
import {
  type Cable,
  cableIn,
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
} from '#core/model/rig/index.ts';
import { type Context, type Fix, type Rule, rule } from './finding.ts';
import { say } from './sayings.ts';

/** 'the default output of Desk computer' */
const sayDefault = ({ box }: Context, use: 'play' | 'record', computerId: string): Said =>
  say.theDefault({ input: use === 'play' ? say.outputWord() : say.inputWord(), device: box(computerId).device.name });

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

const cableOf = ({ rig }: Context, id: string): Cable => cableIn(rig, id);
const fix = (label: Text, cable: Cable): Fix => ({
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
          says: say.twoComputers({
            device: box(cable.from.deviceId).device.name,
            device2: box(cable.to.deviceId).device.name,
            device3: box(a).device.name,
            device4: box(b).device.name,
          }),
          why: [{ says: say.appsPassAudioTo(), source: say.thisRig() }],
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
            says: say.deviceDisabled({
              device: box(other.deviceId).device.name,
              chosen: cable.follows ? say.followsDefault() : say.uses(),
              name: name ?? '',
              device2: device.name,
            }),
            why: [{ says: say.noAppGetsAnything(), source: say.audioSettingsOperating() }],
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
        says: say.whichComputer({ device: device.name, computers: computers.length }),
        asks: say.onWhichComputer({
          device: device.name,
          or: listOf(
            'or',
            computers.map((c) => c.device.name),
          ),
        }),
        why: [{ says: say.whatItCanOpen(), source: say.thisRig() }],
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
            says: say.defaultMoved({
              device: context.box(program.deviceId).device.name,
              computerId: sayDefault(context, chosen.use, chosen.computerId),
              now: name(now),
              ref: name(chosen.ref),
            }),
            why: [{ says: say.appWithNoDevice(), source: say.audioSettingsOperating() }],
          },
        ];
      }),
    (context, { where }) => {
      const { rig, types } = context;
      const cable = cableOf(context, where.cableIds[0]!);
      const drawn = chosenDevice(rig, types, cable)!;
      const now = defaultDevice(rig, drawn.computerId, drawn.use)!;
      return [
        fix(say.drawAtDefault({ now: soundDeviceName(rig, types, now) }), followingDefault(rig, cable)),
        fix(say.chooseInApp({ ref: soundDeviceName(rig, types, drawn.ref) }), choosing(rig, cable, drawn.ref)),
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
            says: say.followsNowWhatYou({ device: context.box(program.deviceId).device.name, what, name }),
            ...((!now || cable.known === 'assumed') && { asks: say.isTheDefault({ name, what }) }),
            why: [
              {
                says: say.mostSystemsMakeWhat(),
                source: say.audioSettingsOperating(),
              },
            ],
          },
        ];
      }),
    (context, { where }) => {
      const { rig, types } = context;
      const cable = cableOf(context, where.cableIds[0]!);
      const { ref } = chosenDevice(rig, types, cable)!;
      return [fix(say.chooseInApp({ ref: soundDeviceName(rig, types, ref) }), choosing(rig, cable, ref))];
    },
  ),
];
