import { describe, expect, it } from 'vitest';
import { findTypes, type Rig } from '#core/model/rig/index.ts';
import { desk } from './check.testkit.ts';
import { chainOf, check, isBalanced, leadsOf, limitFor, limitOf } from './index.ts';

const leads = (rig: Rig) => leadsOf(rig, findTypes(rig));
const only = (boxes: Record<string, string>, lead: string) => leads(desk(boxes, [lead]))[0]!;

describe('leads', () => {
  it('that share both sockets are one, whichever way they run', () => {
    const rig = desk({ x: 'mixer-usb-10', p: 'computer-desktop', h: 'headset-four-contact', l: 'computer-laptop' }, [
      'x.usb-main > p.usb-3',
      'x.usb-send-2 > p.usb-3 left=ch-3 right=ch-4',
      'p.usb-3-out > x.usb-return',
      'h.plug-microphone > l.jack-microphone',
      'l.jack > h.plug',
    ]);
    expect(leads(rig).map((l) => l.twin)).toEqual([false, true, true, false, true]);
  });
  it('of two plugs are two', () => {
    const rig = desk({ h: 'headset-two-plug', p: 'computer-desktop' }, [
      'h.plug-microphone > p.microphone',
      'p.line-out > h.plug',
    ]);
    expect(leads(rig).map((l) => l.twin)).toEqual([false, false]);
    expect(check(rig).filter((f) => f.rule.startsWith('plug'))).toEqual([]);
  });
  it('are none in the air, by radio or between programs', () => {
    const rig = desk(
      { v: 'person', m: 'microphone-dynamic', a: 'radio-pack', b: 'radio-base', q: 'call', r: 'virtual-cable' },
      ['v.voice > m.capsule 0.1 air', 'a.radio > b.radio 5 radio', 'r.out > q.near-microphone software'],
    );
    expect(leads(rig)).toEqual([]);
  });
  it.each([
    [{ m: 'microphone-dynamic', x: 'interface-2' }, 'm.xlr > x.in-1', true],
    [{ x: 'mixer-usb-10', l: 'loudspeakers-active' }, 'x.main-out > l.line', true],
    [{ x: 'mixer-usb-10', r: 'recorder-stereo' }, 'x.send-1-out > r.line', true],
    [{ p: 'phone', x: 'mixer-usb-10' }, 'p.jack > x.strip-5-6', false],
    [{ x: 'mixer-usb-10', h: 'headphones' }, 'x.send-3-out > h.plug', false],
    [{ b: 'radio-base', x: 'interface-2' }, 'b.out > x.in-1', true],
  ] as const)('%j by %s run balanced: %s', (boxes, lead, balanced) => {
    expect(isBalanced(only(boxes, lead))).toBe(balanced);
  });
  it.each([
    [{ m: 'microphone-dynamic', x: 'interface-2' }, 'm.xlr > x.in-1', [30, 100]],
    [{ p: 'phone', x: 'mixer-usb-10' }, 'p.jack > x.strip-5-6', [3, 6]],
    [{ a: 'game-console', t: 'television' }, 'a.hdmi > t.hdmi', [3, 5]],
    [{ c: 'capture-usb-compressed', p: 'computer-desktop' }, 'c.usb > p.usb-3', [1.5, 5]],
    [{ c: 'capture-usb-uncompressed', p: 'computer-desktop' }, 'c.usb > p.usb-1', [1.5, 3]],
    [{ x: 'mixer-usb-10', h: 'headphones' }, 'x.send-3-out > h.plug', null],
    [{ a: 'amplifier', l: 'loudspeakers-passive' }, 'a.terminals > l.terminals', null],
  ] as const)('%j by %s have the careful and the longest length %j', (boxes, lead, limits) => {
    const rig = desk(boxes, [lead]);
    const limit = limitOf(leads(rig)[0]!);
    expect(limit && [limit.carefulM, limit.mostM]).toEqual(limits);
    expect(limitFor(rig, rig.cables[0]!)).toEqual(limit);
  });
  it.each([
    [{ m: 'lapel-wired', l: 'computer-laptop' }, 'm.plug > l.jack-microphone', ['adapter-trs-35-trrs-35']],
    [{ m: 'lapel-phone', l: 'computer-laptop' }, 'm.plug > l.jack-microphone', []],
    [{ k: 'camera-hdmi-micro', c: 'capture-stick' }, 'k.hdmi > c.hdmi', ['lead-hdmi-micro-hdmi']],
    [{ k: 'keying-box', r: 'two-way-radio' }, 'k.radio-a > r.microphone', ['lead-pins-8-pins-8']],
    [{ p: 'phone', x: 'mixer-usb-10' }, 'p.jack > x.strip-5-6', ['lead-trs-35-ts-635-pair']],
    [{ w: 'webcam', p: 'computer-laptop' }, 'w.usb > p.usb-2', ['adapter-usb-a-usb-c']],
  ] as const)('%j by %s take %j', (boxes, lead, parts) => {
    const chain = chainOf(only(boxes, lead));
    expect(chain && chain !== 'nothing-to-plug' && chain.parts.map((p) => p.id)).toEqual(parts);
  });
});

describe('levels at a combined socket', () => {
  it('are line by its jack and microphone by its XLR', () => {
    const jack = desk({ b: 'mixer-analogue', x: 'interface-2' }, ['b.send-out > x.in-1']);
    expect(check(jack).map((f) => f.rule)).not.toContain('level-into-microphone');
    const xlr = desk({ b: 'mixer-matrix', x: 'interface-2' }, ['b.out-1 > x.in-1']);
    expect(check(xlr).map((f) => f.rule)).toContain('level-into-microphone');
    const phone = desk({ b: 'phone', x: 'radio-pack' }, ['b.jack > x.jack']);
    expect(check(phone).map((f) => f.rule)).toContain('level-into-microphone');
  });
});
