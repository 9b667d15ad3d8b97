import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { desk } from '#core/rules/check.testkit.ts';
import {
  addTasks,
  applyEdit,
  asAtDesk,
  type Cable,
  dropTask,
  type Edit,
  leadIsSo,
  markDone,
  parseRig,
  type Rig,
  tickTask,
} from './index.ts';

const AT = '2026-11-25T10:00:00Z';
const applied = (rig: Rig, edit: Edit): Rig => {
  const done = applyEdit(rig, edit);
  if (!done.ok) throw new Error(textOf(done.refusal.reason));
  const back = applyEdit(done.rig, done.inverse);
  expect(back.ok && back.rig).toEqual(rig);
  return done.rig;
};
const rig = desk({ m: 'microphone-dynamic', x: 'interface-2', y: 'mixer-usb-10' }, ['m.xlr > x.in-1 3']);
const [lead] = rig.cables as [Cable];
const other: Cable = { ...lead, id: 'other', to: { deviceId: 'y', portId: 'strip-1' } };

describe('a lead to be done at the desk', () => {
  it('that is new is drawn as assumed, with a task that nothing was there before', () => {
    const drawn = applied(rig, addTasks(rig, [{ cableId: 'other', cable: other }], AT));
    expect(drawn.cables.find((c) => c.id === 'other')!.known).toBe('assumed');
    expect(drawn.tasks).toEqual([
      { id: 'lead:other', cableId: 'other', before: null, openedAt: '2026-11-25T10:00:00Z' },
    ]);
    expect(parseRig(JSON.parse(JSON.stringify(drawn)))).toEqual(drawn);
  });
  it('ticked counts as seen; dropped is gone again', () => {
    const drawn = applied(rig, addTasks(rig, [{ cableId: 'other', cable: other }], AT));
    const ticked = applied(drawn, tickTask(drawn, drawn.tasks[0]!));
    expect(ticked.cables.find((c) => c.id === 'other')!.known).toBe('confirmed');
    expect(ticked.tasks).toEqual([]);
    expect(applied(drawn, dropTask(drawn, drawn.tasks[0]!))).toEqual(rig);
  });
  it('that is to come out is out of the drawing, and stands at the desk until then', () => {
    const drawn = applied(rig, addTasks(rig, [{ cableId: 'c0', cable: null }], AT));
    expect(drawn.cables).toEqual([]);
    expect(drawn.tasks[0]).toMatchObject({ before: lead });
    expect(asAtDesk(drawn).cables).toEqual([lead]);
    const ticked = applied(drawn, tickTask(drawn, drawn.tasks[0]!));
    expect([ticked.cables, ticked.tasks]).toEqual([[], []]);
    expect(applied(drawn, dropTask(drawn, drawn.tasks[0]!)).cables).toEqual([lead]);
  });
  it('proposed twice has one task, and brought back to what stood it has none', () => {
    const longer = applied(rig, addTasks(rig, [{ cableId: 'c0', cable: { ...lead, lengthM: 5 } }], AT));
    const longest = applied(longer, addTasks(longer, [{ cableId: 'c0', cable: { ...lead, lengthM: 8 } }], AT));
    expect(longest.tasks).toHaveLength(1);
    expect(longest.tasks[0]).toMatchObject({ before: lead });
    const back = applied(longest, addTasks(longest, [{ cableId: 'c0', cable: lead }], AT));
    expect(back).toEqual(rig);
  });
  it('that is so already is seen at once, and closes what was open', () => {
    const longer = applied(rig, addTasks(rig, [{ cableId: 'c0', cable: { ...lead, lengthM: 5 } }], AT));
    const so = applied(longer, markDone(longer, [{ cableId: 'c0', cable: { ...lead, lengthM: 5 } }]));
    expect(so.tasks).toEqual([]);
    expect(so.cables[0]).toMatchObject({ lengthM: 5, known: 'confirmed' });
    expect(applied(rig, markDone(rig, [{ cableId: 'c0', cable: null }])).cables).toEqual([]);
  });
  it('goes with settings in one step', () => {
    const both = addTasks(
      rig,
      [
        { cableId: 'other', cable: other },
        { deviceId: 'x', settingId: 'phantom', value: 'on' },
      ],
      AT,
    );
    expect(
      applied(rig, both)
        .tasks.map((t) => t.id)
        .sort(),
    ).toEqual(['lead:other', 'x.phantom']);
  });
  it('is measured by looking, where it is there', () => {
    expect(applied(rig, leadIsSo(rig, 'c0', 7)!).cables[0]).toMatchObject({ lengthM: 7, known: 'confirmed' });
    expect(leadIsSo(rig, 'nowhere', 7)).toBeNull();
  });
});

describe('edits of what stands on the desk', () => {
  const [x] = rig.devices.filter((d) => d.id === 'x');
  it('change a device as a whole, and refuse one that is not there', () => {
    const moved = applied(rig, { kind: 'set-device', device: { ...x!, name: 'Interface', moves: true } });
    expect(moved.devices.find((d) => d.id === 'x')).toMatchObject({ name: 'Interface', moves: true });
    expect(applyEdit(rig, { kind: 'set-device', device: { ...x!, id: 'nobody' } })).toMatchObject({ ok: false });
  });
  it.each(['on', 'fedBy'] as const)('refuse %s of a device that is not there', (link) => {
    expect(applyEdit(rig, { kind: 'set-device', device: { ...x!, [link]: 'nobody' } })).toMatchObject({
      ok: false,
      refusal: { path: expect.stringMatching(new RegExp(`${link}$`)) },
    });
  });
  it('put sources and listeners at a place, and take them out and back to it', () => {
    const at = (deviceId: string, portId: string) => ({ deviceId, portId });
    const source = (id: string) => ({
      id,
      name: id,
      letter: 'S',
      hue: 1,
      sound: at('m', 'xlr'),
      level: [0, 0, 0] as [number, number, number],
    });
    let now = rig;
    for (const id of ['one', 'three']) now = applied(now, { kind: 'add-source', source: source(id) });
    now = applied(now, { kind: 'add-source', source: source('two'), at: 1 });
    expect(now.sources.map((s) => s.id)).toEqual(['one', 'two', 'three']);
    expect(applied(now, { kind: 'remove-source', sourceId: 'two' }).sources.map((s) => s.id)).toEqual(['one', 'three']);
    const listener = (id: string) => ({ id, name: id, sound: at('x', 'phones') });
    for (const id of ['left', 'right']) now = applied(now, { kind: 'add-listener', listener: listener(id) });
    expect(applied(now, { kind: 'remove-listener', listenerId: 'left' }).listeners.map((l) => l.id)).toEqual(['right']);
    expect(applyEdit(now, { kind: 'remove-source', sourceId: 'nobody' })).toMatchObject({ ok: false });
  });
  it('keep a type that devices use', () => {
    const type = {
      id: 'own',
      name: 'own',
      family: 'tests',
      summary: '',
      ports: [],
      settings: [],
      figures: {},
      inside: [],
    };
    const typed = applied(rig, { kind: 'add-type', type });
    const used = applied(typed, { kind: 'add-device', device: { id: 'o', typeId: 'own', name: 'O', settings: {} } });
    expect(applyEdit(used, { kind: 'remove-type', typeId: 'own' })).toMatchObject({ ok: false });
    expect(applied(typed, { kind: 'remove-type', typeId: 'own' })).toEqual(rig);
  });
  it('that bring a box take it along when the last of them is dropped', () => {
    const line = desk({ e: 'hdmi-extractor', y: 'mixer-usb-10' }, ['e.line > y.strip-5-6 3']);
    const [old] = line.cables as [Cable];
    const device = { id: 'isolator', typeId: 'isolator-line', name: 'Isolator', settings: {} };
    const halves: Cable[] = [
      { ...old, id: 'in', to: { deviceId: 'isolator', portId: 'in' } },
      { ...old, id: 'out', from: { deviceId: 'isolator', portId: 'out' } },
    ];
    const changes = [{ cableId: old.id, cable: null }, ...halves.map((cable) => ({ cableId: cable.id, cable }))];
    const todo = addTasks(line, changes, AT, 'isolator');
    let now = applied(line, { kind: 'batch', edits: [{ kind: 'add-device', device }, todo] });
    expect(now.tasks.filter((t) => 'brings' in t)).toHaveLength(2);
    for (const task of now.tasks) now = applied(now, dropTask(now, task));
    expect(now).toEqual(line);
  });
});
