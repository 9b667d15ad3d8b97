import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { applyEdit, type Edit, parseRig, type Rig } from '#core/model/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { box, rigOf, through } from '#core/signal/rigs.testkit.ts';
import { boathouse } from '#demo/boathouse.ts';
import { joined } from './check.testkit.ts';
import { check, fixesOf, RULES, tryFix, wireFindings } from './index.ts';

const found = (rig: Rig) => check(rig).map((f) => f.rule);
const jack = (level: 'line' | 'headphone' | 'microphone', channels = 2) =>
  ({ connector: 'jack-35-trs', level, channels }) as const;
const xlr = (level: 'line' | 'microphone', end: 'male' | 'female') => ({ connector: `xlr-${end}`, level }) as const;
const usb = (connector: string) => ({ connector, level: 'digital' }) as const;

describe('each rule of one lead finds what it is for, and not what lies close by', () => {
  it.each([
    // rule, what triggers it, what lies close to it and does not
    [
      'level-into-microphone',
      { from: jack('headphone'), to: jack('microphone') },
      { from: jack('headphone'), to: jack('line') },
    ],
    [
      'level-into-microphone',
      { from: jack('line'), to: jack('microphone') },
      { from: jack('microphone'), to: jack('microphone') },
    ],
    [
      'level-microphone-into-line',
      { from: xlr('microphone', 'male'), to: xlr('line', 'female') },
      { from: xlr('microphone', 'male'), to: xlr('microphone', 'female') },
    ],
    [
      'level-speaker-output',
      { from: { connector: 'terminals', level: 'speaker' }, to: jack('line') },
      { from: { connector: 'terminals', level: 'speaker' }, to: { connector: 'terminals', level: 'speaker' } },
    ],
    [
      'level-needs-amplifier',
      { from: jack('line'), to: { connector: 'terminals', level: 'speaker' } },
      { from: { connector: 'locking', level: 'speaker' }, to: { connector: 'terminals', level: 'speaker' } },
    ],
    [
      'level-headphones-on-line',
      { from: jack('line'), to: jack('headphone') },
      { from: jack('headphone'), to: jack('headphone') },
    ],
    [
      'level-digital-into-analogue',
      { from: { connector: 'phono', level: 'digital' }, to: { connector: 'phono', level: 'line' } },
      { from: { connector: 'phono', level: 'digital' }, to: { connector: 'phono', level: 'digital' } },
    ],
    [
      'level-analogue-into-digital',
      { from: { connector: 'phono', level: 'line' }, to: { connector: 'phono', level: 'digital' } },
      { from: { connector: 'phono', level: 'line' }, to: { connector: 'phono', level: 'line' } },
    ],
    ['plug-none-fits', { from: usb('hdmi'), to: usb('usb-a') }, { from: usb('hdmi'), to: usb('hdmi-mini') }],
    [
      'plug-needs-adapter',
      {
        from: { connector: 'jack-25-trs', level: 'line', channels: 2 },
        to: { connector: 'jack-635-pair', level: 'line', channels: 2 },
      },
      { from: jack('line'), to: { connector: 'jack-635-pair', level: 'line', channels: 2 } },
    ],
    [
      'length-too-long',
      { from: usb('usb-b'), to: usb('usb-a'), lengthM: 5.5 },
      { from: usb('usb-b'), to: usb('usb-a'), lengthM: 5 },
    ],
    [
      'length-too-long',
      { from: usb('usb-b3'), to: usb('usb-a'), lengthM: 3.5 },
      { from: usb('usb-b3'), to: usb('usb-a'), lengthM: 3 },
    ],
    [
      'length-too-long',
      { from: usb('hdmi'), to: usb('hdmi'), lengthM: 6 },
      { from: usb('hdmi'), to: usb('hdmi'), lengthM: 5 },
    ],
    [
      'length-too-long',
      { from: jack('line'), to: jack('line'), lengthM: 7 },
      { from: jack('line'), to: jack('line'), lengthM: 6 },
    ],
    [
      'length-too-long',
      { from: { connector: 'toslink', level: 'digital' }, to: { connector: 'toslink', level: 'digital' }, lengthM: 11 },
      { from: { connector: 'rj45', level: 'digital' }, to: { connector: 'rj45', level: 'digital' }, lengthM: 11 },
    ],
    [
      'length-not-careful',
      { from: usb('usb-b'), to: usb('usb-a'), lengthM: 3 },
      { from: usb('usb-b'), to: usb('usb-a'), lengthM: 1.5 },
    ],
    [
      'length-not-careful',
      { from: jack('line'), to: jack('line'), lengthM: 4 },
      { from: xlr('line', 'male'), to: xlr('line', 'female'), lengthM: 30 },
    ],
    [
      'length-not-careful',
      { from: xlr('line', 'male'), to: xlr('line', 'female'), lengthM: 31 },
      { from: jack('headphone'), to: jack('headphone'), lengthM: 12 },
    ],
  ] as const)('%s', (rule, trigger, near) => {
    expect(found(joined(trigger))).toContain(rule);
    expect(found(joined(near))).not.toContain(rule);
  });
  it('says nothing of what is no lead', () => {
    expect(found(joined({ from: usb('hdmi'), to: usb('usb-a'), lengthM: 20, medium: 'radio' }))).toEqual([]);
  });
  it('asks where a lead is assumed, and claims where somebody has looked', () => {
    const lead = { from: usb('usb-b'), to: usb('usb-a'), lengthM: 7 };
    expect(check(joined({ ...lead, known: 'assumed' }))[0]!.asks).toEqual({
      code: 'check.howLongIs',
      params: {
        lead: { code: 'check.cableName', params: { device: 'A', port: 'the socket', device2: 'B' } },
        lengthM: 7,
      },
    });
    expect(check(joined(lead))[0]!.asks).toBeNull();
  });
});

describe('loops', () => {
  const looping = (db: number) =>
    rigOf({
      types: [
        box('desk', 2, [
          through(1, 1),
          through(2, 1, { do: 'fixed-gain', db }),
          through(1, 2),
          through(2, 2, { do: 'fixed-gain', db }),
        ]),
        box('src', 1, []),
      ],
      devices: { d: 'desk', s: 'src' },
      cables: ['s.out-1 > d.in-1', 'd.out-2 > d.in-2'],
      source: 's.out-1',
      listener: 'd.out-1',
    });
  it.each([
    [3, 'stop'],
    [0, 'stop'],
    [-10, 'watch'],
  ] as const)('of %s dB is a %s', (db, severity) => {
    expect(check(looping(db)).find((f) => f.rule === 'loop-howls')).toMatchObject({
      severity,
      where: { deviceIds: ['d'] },
    });
  });
  it('that die away are nothing', () => {
    expect(found(looping(-16))).not.toContain('loop-howls');
  });
});

describe('the Boathouse relay', () => {
  const rig = parseRig(JSON.parse(JSON.stringify(boathouse)));
  const findings = check(rig);
  const byId = (id: string) => findings.find((f) => f.id === id);
  it('has its planted faults found', () => {
    expect(byId('plan-unwanted:ilse>ilse')?.says).toEqual({
      code: 'check.unwanted',
      params: { source: 'Ilse, on the call', listener: 'Ilse’s ears' },
    });
    expect(byId('plan-twice:couch-game>stream')?.says).toMatchObject({
      code: 'check.echoTwice',
      params: { ms: '31' },
    });
    expect(byId('length-not-careful:camera-usb')).toMatchObject({
      severity: 'watch',
      where: { cableIds: ['camera-usb'] },
    });
    expect(byId('length-not-careful:camera-usb')?.asks).not.toBeNull();
  });
  it('has them in order of weight, each with an id of its own', () => {
    const weights = findings.map((f) => ['stop', 'fix', 'watch'].indexOf(f.severity));
    expect(weights).toEqual([...weights].sort());
    expect(new Set(findings.map((f) => f.id)).size).toBe(findings.length);
  });
  it('is mended by the fixes that are offered: each does what it says, and nothing that was right breaks', () => {
    const bad = (r: Rig) =>
      new Set(
        evaluate(r)
          .pairs.filter((p) => ['missing', 'unwanted', 'twice'].includes(p.verdict.word))
          .map((p) => `${p.sourceId}>${p.listenerId}`),
      );
    let offered = 0;
    for (const finding of findings.filter((f) => /^plan-(unwanted|twice|missing)/.test(f.rule))) {
      for (const fix of fixesOf(rig, finding)) {
        offered++;
        const done = applyEdit(rig, fix.edit);
        if (!done.ok) throw new Error(textOf(done.refusal.reason));
        expect(
          [...bad(done.rig)].filter((p) => !bad(rig).has(p)),
          textOf(fix.label),
        ).toEqual([]);
        const still = check(done.rig).some((f) => f.id === finding.id);
        expect(still, textOf(fix.label)).toBe(fix.partly === true);
      }
    }
    expect(offered).toBeGreaterThanOrEqual(4);
  });
  it('is offered what touches least first', () => {
    const labels = fixesOf(rig, byId('plan-unwanted:ilse>ilse')!).map((f) => f.label);
    expect(textOf(labels[0]!)).toMatch(/Channels 9 and 10, send 2/);
    expect(textOf(labels[1]!)).toMatch(/Channels 9 and 10, fader/);
  });
  it('opens the door that shuts out what is wanted', () => {
    const muted = applyEdit(rig, {
      kind: 'set-setting',
      deviceId: 'mixer',
      settingId: 'strip-1-mute',
      setting: { value: true, known: 'confirmed' },
    } satisfies Edit);
    if (!muted.ok) throw new Error();
    const missing = check(muted.rig).find((f) => f.id === 'plan-missing:wren>stream')!;
    expect(missing.severity).toBe('stop');
    expect(fixesOf(muted.rig, missing).map((f) => f.label)).toContainEqual({
      code: 'check.off',
      params: { label: 'Mixer, Channel 1, mute' },
    });
  });
});

describe('a fix tried on the rig', () => {
  const rig = parseRig(JSON.parse(JSON.stringify(boathouse)));
  const findings = wireFindings(check(rig));
  const all = findings.flatMap((finding) => fixesOf(rig, finding).map((fix) => ({ finding, fix })));
  it('is told by what is gone from the list and what came, as the list is once it is made', () => {
    expect(all.length).toBeGreaterThan(3);
    for (const { fix } of all) {
      const tried = tryFix(rig, fix, findings)!;
      const made = applyEdit(rig, fix.edit);
      if (!made.ok) throw new Error('refused');
      const after = new Set(wireFindings(check(made.rig)).map((f) => f.id));
      expect(findings.length - tried.gone + tried.come.length).toBe(after.size);
      expect(tried.come.every((f) => after.has(f.id))).toBe(true);
    }
    const twice = all.find(({ finding }) => finding.rule === 'plan-twice')!;
    expect(tryFix(rig, twice.fix, findings)).toMatchObject({ gone: 3, come: [] });
  });
  it('is nothing where the rig has changed under it', () => {
    const [first] = all.filter(({ fix }) => fix.edit.kind === 'set-setting');
    const edit = { ...(first!.fix.edit as Extract<Edit, { kind: 'set-setting' }>), deviceId: 'not-there' };
    expect(tryFix(rig, { ...first!.fix, edit }, findings)).toBeNull();
  });
});

describe('rules', () => {
  it('have each id once', () => {
    expect(new Set(RULES.map((r) => r.id)).size).toBe(RULES.length);
  });
});
