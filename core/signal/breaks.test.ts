import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { desk } from '#core/rules/check.testkit.ts';
import { evaluate, sayBreak, whereItStops } from './index.ts';

const breaks = (rig: Rig) => {
  const stop = whereItStops(evaluate(rig).graph, rig.sources[0]!.sound, rig.listeners[0]!.sound);
  return stop?.kind === 'no-way' ? stop.breaks : null;
};
const says = (rig: Rig): string[] => breaks(rig)!.map((b) => textOf(sayBreak(rig, b)));

describe('why nothing arrives', () => {
  it('is a lead whose contacts do not meet', () => {
    const rig = desk(
      { v: 'person', m: 'lapel-wired', l: 'computer-laptop', a: 'recording-program' },
      ['v.voice > m.capsule 0.2 air', 'm.plug > l.jack-microphone', 'l.from-jack > a.in-1 software'],
      { sources: ['voice: v.voice'], listeners: ['t: a.track-1'] },
    );
    expect(breaks(rig)).toEqual([{ kind: 'lead', cableId: rig.cables[1]!.id }]);
    expect(says(rig)[0]).toContain('signal.cablePassesNothingSince(');
  });
  it('is a sound device that is disabled in the system, and nothing once it is enabled', () => {
    const at = (disabled: boolean) =>
      desk(
        { v: 'person', m: 'microphone-usb', c: 'computer-laptop', a: 'recording-program' },
        ['v.voice > m.capsule 0.2 air', 'm.usb > c.usb-2', 'c.from-usb-2 > a.in-1 software'],
        {
          sources: ['voice: v.voice'],
          listeners: ['t: a.track-1'],
          device: { c: { ends: { 'from-usb-2': { name: 'Desk microphone', ...(disabled && { disabled: true }) } } } },
        },
      );
    expect(breaks(at(true))).toEqual([{ kind: 'disabled', end: { deviceId: 'c', portId: 'from-usb-2' } }]);
    expect(says(at(true))).toEqual(['signal.isDisabledInIts(c, Desk microphone)']);
    expect(breaks(at(false))).toBeNull();
    expect(evaluate(at(false)).pairs[0]!.ways).toHaveLength(1);
  });
  it('is a link that takes other channels', () => {
    const rig = desk(
      { v: 'person', m: 'microphone-dynamic', i: 'interface-4', c: 'computer-desktop', a: 'recording-program' },
      [
        'v.voice > m.capsule 0.1 air',
        'm.xlr > i.in-3',
        'i.usb > c.usb-1',
        'c.from-usb-1 > a.in-1 software left=left right=right',
      ],
      { set: { 'i.gain-3': 50 }, sources: ['voice: v.voice'], listeners: ['t: a.track-1'] },
    );
    expect(breaks(rig)).toEqual([{ kind: 'channels', cableId: rig.cables[3]!.id }]);
    expect(says(rig)[0]).toContain('signal.itsChannelsArentUsed(');
  });
  it('is a box that leads nothing on, whatever is set', () => {
    const rig = desk(
      { g: 'phone', u: 'line-to-usb', c: 'computer-desktop', a: 'music-player', s: 'recorder-stereo' },
      ['g.jack > u.line', 'u.usb > c.usb-1', 'c.line-out > s.line'],
      { sources: ['music: g.jack'], listeners: ['t: s.file'] },
    );
    const found = breaks(rig)!;
    expect(found.map((b) => b.kind)).toEqual(['within']);
    expect(says(rig)[0]).toContain('signal.nothingInsideItLeads(c, ');
  });
  it('is nothing that could be named where no lead comes near, and a shut door is no break', () => {
    const apart = desk({ g: 'phone', s: 'recorder-stereo' }, [], {
      sources: ['music: g.jack'],
      listeners: ['t: s.file'],
    });
    expect(breaks(apart)).toEqual([]);
    const shut = desk(
      { g: 'phone', x: 'mixer-usb-10', s: 'recorder-stereo' },
      ['g.jack > x.strip-5-6', 'x.main-out > s.line'],
      {
        set: { 'x.strip-5-6-mute': true },
        sources: ['music: g.jack'],
        listeners: ['t: s.file'],
      },
    );
    expect(breaks(shut)).toBeNull();
  });
});
