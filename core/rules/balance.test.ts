import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { OCCASIONS, rigFor } from '#core/intake/index.ts';
import { applyEdit, type Rig } from '#core/model/rig/index.ts';
import { readTyped } from '#core/routing/wiring/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { desk } from './check.testkit.ts';
import { check, type Finding, fixesOf } from './index.ts';

const RULES = ['balance-masked', 'voice-noisy', 'voice-open-input'];
const balance = (rig: Rig): Finding[] => check(rig).filter((f) => RULES.includes(f.rule));
const mended = (rig: Rig, finding: Finding, n = 0): Rig => {
  const done = applyEdit(rig, fixesOf(rig, finding)[n]!.edit);
  if (!done.ok) throw new Error(textOf(done.refusal.reason));
  return done.rig;
};
const levelAt = (rig: Rig, sourceId: string, listenerId: string): number =>
  evaluate(rig).pairs.find((p) => p.sourceId === sourceId && p.listenerId === listenerId)!.ways[0]!.levelDb.nominal;

/** People talk at 77 dB SPL, a hand from the mouth; a game plays at -20 dBFS. */
const asLoudAsUsual = (rig: Rig): Rig => ({
  ...rig,
  sources: rig.sources.map((s) => ({ ...s, level: s.id === 'voice' ? [74, 77, 80] : [-26, -20, -14] })),
});

/** A voice on an interface and a console through a capture device, both in one program. */
const desktop = (set: Record<string, number | boolean | string>, more: Partial<Parameters<typeof desk>[2]> = {}) =>
  asLoudAsUsual(
    desk(
      {
        v: 'person',
        m: 'microphone-dynamic',
        i: 'interface-2',
        g: 'game-console',
        k: 'capture-usb-compressed',
        c: 'computer-desktop',
        a: 'capture-program',
      },
      [
        'v.voice > m.capsule 0.1 air',
        'm.xlr > i.in-1',
        'i.usb > c.usb-1',
        'g.hdmi > k.hdmi',
        'k.usb > c.usb-2',
        'c.from-usb-1 > a.in-1 software',
        'c.from-usb-2 > a.in-2 software',
      ],
      { set, sources: ['voice: v.voice', 'game: g.hdmi'], listeners: ['stream: a.stream'], ...more },
    ),
  );

describe('balance, without any wish', () => {
  it('is a finding where the game covers the voice, as its whole range has it', () => {
    const rig = desktop({ 'i.gain-1': 20 });
    const [found, ...rest] = balance(rig).filter((f) => f.rule === 'balance-masked');
    expect(rest).toEqual([]);
    expect(found).toMatchObject({
      severity: 'fix',
      stage: 'level',
      where: { sourceId: 'voice', listenerId: 'stream' },
    });
    const over = levelAt(rig, 'game', 'stream') - levelAt(rig, 'voice', 'stream');
    expect(found!.says).toMatchObject({
      code: 'check.maskedTurnDown',
      params: { other: 'game', under: { code: 'check.speechMasked', params: { n0: over.toFixed(0) } } },
    });
  });
  it('is mended by every knob that is offered, to 8 dB and more', () => {
    const rig = desktop({ 'i.gain-1': 45 });
    const [found] = balance(rig).filter((f) => f.rule === 'balance-masked');
    const fixes = fixesOf(rig, found!);
    expect(fixes.length).toBeGreaterThanOrEqual(2);
    fixes.forEach((_, n) => {
      const after = mended(rig, found!, n);
      expect(levelAt(after, 'voice', 'stream') - levelAt(after, 'game', 'stream')).toBeGreaterThanOrEqual(8);
      expect(check(after).map((f) => f.id)).not.toContain(found!.id);
    });
  });
  it('is none where the voice stands over the game, and none for what has a wish of its own', () => {
    const good = desktop({ 'i.gain-1': 55, 'a.in-2-level': -12 });
    expect(balance(good)).toEqual([]);
    const wished: Rig = {
      ...desktop({ 'i.gain-1': 20 }),
      plan: [
        { sourceId: 'voice', listenerId: 'stream', want: 'must' },
        { sourceId: 'game', listenerId: 'stream', want: 'must', underVoiceDb: 10 },
      ],
    };
    expect(check(wished).map((f) => f.rule)).toContain('plan-too-loud');
    expect(check(wished).map((f) => f.rule)).not.toContain('balance-masked');
  });
  it('is no matter of single tracks, nor where the plan wants no voice', () => {
    const tracks = desktop({ 'i.gain-1': 20 }, { listeners: ['t: a.track-1'] });
    expect(balance(tracks).filter((f) => f.rule === 'balance-masked')).toEqual([]);
    const unwanted: Rig = {
      ...desktop({ 'i.gain-1': 20 }),
      plan: [{ sourceId: 'game', listenerId: 'stream', want: 'must' }],
    };
    expect(balance(unwanted)).toEqual([]);
  });
});

describe('a voice over its noise', () => {
  it('is told under 40 dB, and mended by gain', () => {
    const rig = asLoudAsUsual(
      desk(
        { v: 'person', m: 'microphone-dynamic', x: 'mixer-usb-10', r: 'recorder-stereo' },
        ['v.voice > m.capsule 0.1 air', 'm.xlr > x.strip-1', 'x.main-out > r.line'],
        { set: { 'x.strip-1-gain': 0 }, sources: ['voice: v.voice'], listeners: ['tape: r.file'] },
      ),
    );
    const found = balance(rig).find((f) => f.rule === 'voice-noisy')!;
    expect(found.severity).toBe('watch');
    expect(check(mended(rig, found)).map((f) => f.id)).not.toContain(found.id);
    expect(balance(desktop({ 'i.gain-1': 55, 'a.in-2-level': -12 })).map((f) => f.rule)).not.toContain('voice-noisy');
  });
  it('names the open input that costs it, at a stream as well, whose first channel is a picture', () => {
    const camera = (muted: boolean) =>
      asLoudAsUsual(
        desk(
          {
            v: 'person',
            m: 'microphone-dynamic',
            i: 'interface-2',
            k: 'camera-hdmi-full',
            s: 'capture-stick',
            c: 'computer-desktop',
            a: 'capture-program',
          },
          [
            'v.voice > m.capsule 0.1 air',
            'm.xlr > i.in-1',
            'i.usb > c.usb-1',
            'k.hdmi > s.hdmi',
            's.usb > c.usb-2',
            'c.from-usb-1 > a.in-1 software',
            'c.from-usb-2 > a.in-2 software',
          ],
          {
            set: { 'i.gain-1': 55, 'k.microphone-mute': muted },
            sources: ['voice: v.voice'],
            listeners: ['stream: a.stream'],
          },
        ),
      );
    const [found, ...rest] = balance(camera(false));
    expect(rest).toEqual([]);
    expect(found).toMatchObject({ rule: 'voice-open-input', severity: 'fix', where: { deviceIds: ['k'] } });
    expect(balance(mended(camera(false), found!))).toEqual([]);
    expect(balance(camera(true))).toEqual([]);
  });
});

describe('levels that a desk begins with', () => {
  it.each(OCCASIONS.map((o) => [o.name, o] as const))('%s: no voice is masked or noisy', (_, occasion) => {
    expect(balance(rigFor(occasion))).toEqual([]);
    expect(check(rigFor(occasion)).filter((f) => f.rule === 'gain-clips')).toEqual([]);
  });
  it('are set for what is typed, and leave alone what somebody has set', () => {
    const line = 'person > microphone dynamic > interface two > computer desktop > recording program';
    const typed = readTyped(
      { ...rigFor(OCCASIONS[0]!), devices: [], cables: [], sources: [], listeners: [], plan: [] },
      line,
    );
    const gains = typed.edit?.kind === 'batch' ? typed.edit.edits.filter((e) => e.kind === 'set-setting') : [];
    for (const e of gains) expect(e).toMatchObject({ setting: { known: 'assumed' } });
    const mixer = desktop({ 'i.gain-1': 20 });
    const more = readTyped(mixer, 'music player > capture program');
    const touched = more.edit?.kind === 'batch' ? more.edit.edits.filter((e) => e.kind === 'set-setting') : [];
    expect(touched.every((e) => !['i', 'a', 'c'].includes(e.deviceId))).toBe(true);
  });
});
