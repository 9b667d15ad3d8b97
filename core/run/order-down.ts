import { type Rig, records } from '#core/rig/index.ts';
import { type DayBox, dayScene, phantomOf } from './scene.ts';
import { type Draft, ids, inOrder, names, quietOf, type Step, socket } from './step.ts';

/** The way down: what is recorded is closed, silence, loudspeakers first, phantom off, the rest from the end to the sources, plugs last. */
export function orderDown(rig: Rig): Step[] {
  const scene = dayScene(rig);
  const ends = scene.boxes
    .filter((b) => b.isProgram || records(b.type))
    .map(
      (b): Draft => ({
        id: `end:${b.device.id}`,
        kind: 'end',
        says: b.isCall
          ? `${b.device.name}: say goodbye and end the call.`
          : `${b.device.name}: stop, and wait until its file is closed.`,
        why: b.isCall ? 'Who is still there hears every plug.' : 'A file that is open when the power goes may be lost.',
        deviceIds: [b.device.id],
        after: [],
        rank: b.isCall ? 1 : 0,
      }),
    );
  const quiet = scene.boxes.flatMap((b) => quietOf(b)).map((q) => ({ ...q, after: ids(ends) }));
  const loud = scene.boxes.filter((b) => b.isLoud).map((b) => powerOff(b, ids(quiet)));
  const phantom = phantomOf(scene).map(
    ({ box, settingId }): Draft => ({
      id: `phantom-off:${box.device.id}.${settingId}`,
      kind: 'phantom-off',
      says: `${box.device.name}: phantom power off. Wait half a minute.`,
      why: 'What is charged cracks when its plug is pulled.',
      cautions: ['phantom'],
      deviceIds: [box.device.id],
      after: [...ids(quiet), ...ids(loud)],
    }),
  );
  const calm = [...ids(quiet), ...ids(loud), ...ids(phantom)];
  const others = scene.boxes.filter((b) => b.switched && !b.isLoud);
  const rest = others.map((b): Draft => {
    const behind = others.filter((o) => o.rank > b.rank && scene.leads.some((l) => l.from === b && l.to === o));
    return { ...powerOff(b, [...calm, ...behind.map((o) => `power-off:${o.device.id}`)]), rank: -b.rank };
  });
  const off = [...calm, ...ids(rest)];
  const unplug = scene.leads.map(
    (lead): Draft => ({
      id: `unplug:${lead.cable.id}`,
      kind: 'unplug',
      says: `Pull the lead from ${socket(lead.from, lead.fromPort.name)} to ${socket(lead.to, lead.toPort.name)}, if it does not stay.`,
      why: 'Plugs are pulled when nothing is on any more.',
      deviceIds: [lead.from.device.id, lead.to.device.id],
      cableId: lead.cable.id,
      after: off,
    }),
  );
  const batteries = scene.boxes.filter((b) => b.type.power?.by.includes('battery'));
  const recharge: Draft[] =
    batteries.length === 0
      ? []
      : [
          {
            id: 'recharge:all',
            kind: 'recharge',
            says: `Put on charge: ${names(batteries)}.`,
            why: 'The next session begins with what this one leaves.',
            cautions: ['batteries'],
            deviceIds: batteries.map((b) => b.device.id),
            after: off,
          },
        ];
  return inOrder(scene, [...ends, ...quiet, ...loud, ...phantom, ...rest, ...unplug, ...recharge]);
}

function powerOff(b: DayBox, after: readonly string[]): Draft {
  return {
    id: `power-off:${b.device.id}`,
    kind: 'power-off',
    says: `Switch ${b.device.name} off.`,
    why: b.isLoud ? 'Loudspeakers first: what follows is not heard.' : 'From the end to the sources.',
    deviceIds: [b.device.id],
    after,
  };
}
