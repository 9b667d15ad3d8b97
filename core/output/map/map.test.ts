import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { applyEdit, type Edit, parseRig, type Rig } from '#core/model/rig/index.ts';
import { byLibrary, crossingsOf } from '#core/output/layout/layout.testkit.ts';
import { evaluate } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { breakName, lineMap, linesOf, stepTap } from './index.ts';

const rig = parseRig(JSON.parse(JSON.stringify(boathouse)));
const evaluation = evaluate(rig);
const edited = (edit: Edit): Rig => {
  const done = applyEdit(rig, edit);
  if (!done.ok) throw new Error(textOf(done.refusal.reason));
  return done.rig;
};
const line = (id: string, of = linesOf(rig, evaluation)) => of.find((l) => l.id === id)!;

describe('the lines of a rig', () => {
  it('carry the sources that arrive by them, the loudest first, picture or not', () => {
    expect(line('console-hdmi')).toMatchObject({ picture: true, silent: false, strands: [{ sourceId: 'couch-game' }] });
    expect(line('phone-line').strands.map((s) => s.sourceId)).toEqual(['jingles']);
    const strengths = line('mixer-usb-main').strands.map((s) => s.strength);
    expect(strengths.length).toBeGreaterThan(3);
    expect(strengths).toEqual([...strengths].sort((a, b) => b - a));
    expect(strengths[0]).toBeGreaterThan(strengths.at(-1)!);
  });
  it('go once for cables behind the same two sockets, each way by itself', () => {
    expect(line('mixer-usb-main').cableIds).toEqual(['mixer-usb-main', 'mixer-usb-send']);
    expect(line('mixer-usb-return').from.deviceId).toBe('desk-computer');
  });
  it('break where sound could pass and none arrives', () => {
    const muted = edited({
      kind: 'set-setting',
      deviceId: 'camera',
      settingId: 'microphone-mute',
      setting: { value: true, known: 'confirmed' },
    });
    expect(line('camera-usb').silent).toBe(false);
    expect(line('camera-usb', linesOf(muted, evaluate(muted)))).toMatchObject({ silent: true, strands: [] });
    expect(line('desk-game-grab').silent).toBe(false);
  });
  it('are shown by kind: sound, picture, USB, power', () => {
    const ids = (layer: Parameters<typeof linesOf>[2]) => linesOf(rig, evaluation, layer).map((l) => l.id);
    expect(ids('sound')).toContain('wren-xlr');
    expect(ids('sound')).not.toContain('desk-game-grab');
    expect(ids('picture')).toContain('splitter-capture');
    expect(ids('picture')).not.toContain('wren-xlr');
    expect(ids('usb').every((id) => /usb/.test(id))).toBe(true);
    expect(ids('usb').length).toBeGreaterThan(3);
    expect(ids('power')).toEqual(['feeds-camera', 'feeds-couch-charger', 'feeds-extractor']);
  });
});

describe('the map of the Boathouse relay', () => {
  const map = lineMap(rig, evaluation);
  it('has a box for every device that lines go to, with who hears and what begins there', () => {
    expect(map.boxes.find((b) => b.deviceId === 'capture-program')).toMatchObject({
      listenerIds: ['stream', 'track-1', 'track-2', 'track-3', 'track-4', 'track-5'],
      on: 'desk-computer',
    });
    expect(map.boxes.find((b) => b.deviceId === 'console')!.sourceIds).toEqual(['couch-game']);
    expect(map.boxes.some((b) => b.deviceId === 'couch-strip')).toBe(false);
    expect(map.drawing.wires.size).toBe(map.lines.length);
  });
  it('crosses no more than 1.15 times as often as a well-known library', async () => {
    const own = crossingsOf(map.drawing.wires, map.wires);
    const theirs = crossingsOf(await byLibrary(map.shapes, map.wires), map.wires);
    expect(own).toBeLessThanOrEqual(theirs * 1.15);
  });
  it('moves no other device when one lead is taken out or put in', () => {
    const without = edited({ kind: 'unplug', cableId: 'camera-usb' });
    const after = lineMap(without, evaluate(without), 'all', map);
    let moved = 0;
    for (const [id, seat] of map.drawing.boxes)
      if (Math.abs(after.drawing.boxes.get(id)!.rank - seat.rank) > 0) moved++;
    expect(moved).toBeLessThanOrEqual(2);
    const back = lineMap(rig, evaluation, 'all', after);
    expect(back.drawing.boxes.size).toBe(map.drawing.boxes.size);
  });
});

describe('a tap', () => {
  const map = lineMap(rig, evaluation);
  const at = (place: string) => {
    const [deviceId, portId] = place.split('/') as [string, string];
    return { deviceId, portId };
  };
  const go = (place: string, ...turns: Parameters<typeof stepTap>[4][]) => {
    const end = turns.reduce((ref, turn) => stepTap(rig, evaluation, map, ref, turn), at(place));
    return `${end.deviceId}/${end.portId}`;
  };
  it('walks on along the signal and back against it', () => {
    expect(go('console/hdmi', 'on')).toBe('splitter/in');
    expect(go('wren/voice', 'on', 'on', 'on')).toBe('mixer/strip-1');
    expect(go('mixer/strip-1', 'back', 'back', 'back')).toBe('wren/voice');
    expect(go('console/hdmi', 'back')).toBe('console/hdmi');
  });
  it('goes to the neighbour above and below, and stays at the edge', () => {
    expect(go('splitter/out-1', 'down')).toBe('splitter/out-2');
    expect(go('splitter/out-2', 'up')).toBe('splitter/out-1');
    const top = go('splitter/out-1', ...new Array(20).fill('up'));
    expect(go(top, 'up')).toBe(top);
  });
});

describe('names', () => {
  it.each([
    ['Mixer', ['Mixer']],
    ['Players’ headphones', ['Players’', 'headphones']],
    ['Recording on the club laptop', ['Recording on', 'the club laptop']],
    ['Unaufhaltsamkeitsregler', ['Unaufhaltsamke…']],
    ['a very long name of many words indeed', ['a very long', 'name of many', 'words indeed']],
    ['one two three four five six seven eight nine ten', ['one two three', 'four five six', 'seven eight…']],
  ])('%s are set on as few lines as fit', (name, lines) => {
    expect(breakName(name)).toHaveLength(lines.length);
    for (const l of breakName(name)) expect(l.length).toBeLessThanOrEqual(15);
    if (name.length < 30) expect(breakName(name)).toEqual(lines);
  });
});
