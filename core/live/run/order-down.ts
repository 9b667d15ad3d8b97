import { type Rig, records } from '#core/model/rig/index.ts';
import { say } from './sayings.ts';
import { type DayBox, dayScene, phantomOf } from './scene.ts';
import { type Draft, ids, inOrder, names, quietOf, type Step, socket } from './step.ts';

/** The way down: what is recorded is closed, silence, speakers first, phantom off, the rest from the end to the sources, plugs last. */
export function orderDown(rig: Rig): Step[] {
  const scene = dayScene(rig);
  const ends = scene.boxes
    .filter((b) => b.isProgram || records(b.type))
    .map(
      (b): Draft => ({
        id: `end:${b.device.id}`,
        kind: 'end',
        says: b.isCall
          ? say.sayGoodbyeAndEnd({ device: b.device.name })
          : say.stopAndWaitUntil({ device: b.device.name }),
        why: b.isCall ? say.anyoneStillOnCall() : say.fileThatIsOpen(),
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
      says: say.phantomOffWait({ device: box.device.name }),
      why: say.chargedCircuitsPopWhen(),
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
      says: say.unplugIfMoving({
        name: socket(lead.from, lead.fromPort.name),
        name2: socket(lead.to, lead.toPort.name),
      }),
      why: say.unplugOnlyWhenEverything(),
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
            says: say.charge({ batteries: names(batteries) }),
            why: say.nextSessionStartsWith(),
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
    says: say.switchOff({ device: b.device.name }),
    why: b.isLoud ? say.speakersFirstSoNothing() : say.fromEndToSources(),
    deviceIds: [b.device.id],
    after,
  };
}
