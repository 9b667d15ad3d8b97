import { describe, expect, it } from 'vitest';
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
});
