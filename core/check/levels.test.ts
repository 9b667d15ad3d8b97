import { describe, expect, it } from 'vitest';
import { evaluate } from '#core/signal/index.ts';
import { desk } from './check.testkit.ts';
import { check } from './index.ts';

const rulesOf = (...args: Parameters<typeof desk>) => check(desk(...args)).map((f) => f.rule);

describe('levels where a lead ends', () => {
  it('are right for an instrument or a line in a DI box, which takes either down to a mic', () => {
    for (const player of ['guitar-electric', 'keyboard']) {
      const rules = rulesOf({ p: player, d: 'di-box', m: 'mixer-usb-send' }, ['p.out > d.in', 'd.out > m.strip-1']);
      expect(rules.filter((r) => r.startsWith('level-'))).toEqual([]);
    }
    expect(rulesOf({ g: 'guitar-electric', l: 'loudspeakers-active' }, ['g.out > l.line'])).toContain(
      'level-microphone-into-line',
    );
  });
  it('go by the format of the bits, not by the plug that carries them', () => {
    const types = { p: 'preamp-8-optical', d: 'optical-to-line', i: 'interface-digital' };
    expect(rulesOf(types, ['p.optical-8 > d.optical'])).toContain('level-digital-format');
    expect(rulesOf(types, ['p.optical-8 > i.optical-8'])).not.toContain('level-digital-format');
  });
  it('leave what several microphones in front of one instrument are there for', () => {
    const mics = { d: 'instrument-acoustic', a: 'microphone-dynamic', b: 'microphone-dynamic', m: 'mixer-usb-10' };
    const leads = ['a.xlr > m.strip-1', 'b.xlr > m.strip-2'];
    const near = ['d.front > a.capsule 0.5 air', 'd.front > b.capsule 0.5 air'];
    expect(rulesOf(mics, [...leads, ...near])).not.toContain('room-two-microphones');
  });
  it('reach a room by an amplifier without clipping at what amplifiers give', () => {
    const rig = desk({ c: 'music-box', a: 'amplifier', l: 'loudspeakers-passive', p: 'person' }, [
      'c.out > a.line',
      'a.terminals > l.terminals',
      'l.front > p.ears 2 air',
    ]);
    expect(check(rig, evaluate(rig)).filter((f) => f.rule.endsWith('clips'))).toEqual([]);
  });
});
