import { describe, expect, it } from 'vitest';
import { applyEdit, type Rig } from '#core/model/rig/index.ts';
import { desk } from './check.testkit.ts';
import { CASES, mic, RING } from './family-cases.testkit.ts';
import { check, fixesOf, RULES } from './index.ts';

const found = (rig: Rig) => check(rig).map((f) => f.rule);

describe('each rule finds what it is for, and not what lies close by', () => {
  it.each(CASES)('%s', (rule, trigger, near) => {
    expect(found(trigger), 'triggers').toContain(rule);
    expect(found(near), 'near').not.toContain(rule);
  });
});

describe('all rules together', () => {
  it('are at least sixty, and each has a rig that triggers it', async () => {
    expect(RULES.length).toBeGreaterThanOrEqual(60);
    const tried = new Set(CASES.map(([rule]) => rule));
    const elsewhere =
      /^(balance-|voice-|level-(speaker|into|microphone|needs|headphones|digital|analogue)|gain-|length-|loop-|cancels$|plan-(missing|unwanted|twice|late|early|time)|plug-(none|needs))/;
    expect(RULES.map((r) => r.id).filter((id) => !tried.has(id) && !elsewhere.test(id))).toEqual([]);
  });
  it('mend by their fixes what they find, wherever they offer one', () => {
    let offered = 0;
    for (const [rule, trigger] of CASES) {
      const finding = check(trigger).find((f) => f.rule === rule)!;
      for (const fix of fixesOf(trigger, finding)) {
        offered++;
        const done = applyEdit(trigger, fix.edit);
        if (!done.ok) throw new Error(`${rule}, ${fix.label}: ${done.refusal.reason}`);
        expect(
          check(done.rig).map((f) => f.id),
          `${rule}, ${fix.label}`,
        ).not.toContain(finding.id);
      }
    }
    expect(offered).toBeGreaterThanOrEqual(15);
  });
  it('ask where a lead or a setting is assumed, and claim where somebody has looked', () => {
    const assumed = desk({ m: 'microphone-condenser', x: 'interface-2' }, ['m.xlr > x.in-1']);
    expect(check(assumed)[0]).toMatchObject({
      rule: 'power-phantom-missing',
      asks: { code: 'check.isItValue', params: { device: 'x', spec: 'Phantom power', value: 'off' } },
    });
    expect(check(mic('microphone-condenser', { 'x.phantom': 'off' }))[0]!.asks).toBeNull();
    const lead = desk(RING, ['a.hdmi > t.hdmi', 't.jack > x.strip-5-6 ?']);
    expect(check(lead).find((f) => f.rule === 'ground-hum-loop')!.asks?.code).toBe('check.isThereCable');
  });
});
