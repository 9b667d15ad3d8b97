import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { cta, edid } from '#core/model/picture/edid.testkit.ts';
import { applyEdit, type Rig } from '#core/model/rig/index.ts';
import { desk } from './check.testkit.ts';
import { check, type Finding, fixesOf } from './index.ts';

const hex = (bytes: Uint8Array): string => Buffer.from(bytes).toString('hex');
const of = (rig: Rig, rule: string): Finding | undefined => check(rig).find((f) => f.rule === rule);
const rules = (rig: Rig): string[] => check(rig).map((f) => f.rule);
const mended = (rig: Rig, rule: string): Rig => {
  const [fix] = fixesOf(rig, of(rig, rule)!);
  const done = applyEdit(rig, fix!.edit);
  if (!done.ok) throw new Error(textOf(done.refusal.reason));
  return done.rig;
};
const OPEN = { 'a.copy-protection': 'off' };
const console_ = (more: Record<string, string>, boxes: Record<string, string>, cables: string[], device = {}) =>
  desk({ a: 'game-console', ...boxes }, cables, { set: { ...OPEN, ...more }, device });

describe('a picture on its way', () => {
  it('is followed through every box, and the one that cannot is named', () => {
    const rig = console_(
      { 'a.picture-mode': '3840x2160-60' },
      { w: 'hdmi-switch', s: 'hdmi-splitter', e: 'hdmi-extractor', t: 'television' },
      ['a.hdmi > w.in-a', 'w.out > s.in', 's.out-1 > e.in', 'e.out > t.hdmi'],
    );
    const found = check(rig).filter((f) => f.rule === 'picture-link-too-slow');
    expect(found.map((f) => f.where.deviceIds)).toEqual([['a', 's']]);
    expect(found[0]!.where.cableIds).toEqual(['c1']);
    expect(found[0]!.says).toMatchObject({
      code: 'check.linkTooSlow',
      params: { bits: 8, device2: 's', link: expect.stringContaining('10.2'), carries: expect.stringContaining('18') },
    });
  });
  it('ends at a switch that stands at another input', () => {
    const rig = (input: string) =>
      console_({ 'a.picture-mode': '3840x2160-60', 'w.input': input }, { w: 'hdmi-switch', s: 'hdmi-splitter' }, [
        'a.hdmi > w.in-a',
        'w.out > s.in',
      ]);
    expect(rules(rig('a'))).toContain('picture-link-too-slow');
    expect(rules(rig('b'))).not.toContain('picture-link-too-slow');
  });
  it.each([
    ['3840x2160-60', '8', 'television', false],
    ['3840x2160-60', '10', 'screen', true],
    ['3840x2160-120', '8', 'television', false],
    ['3840x2160-120', '10', 'television', false],
    ['3840x2160-120', '8', 'screen', true],
    ['1920x1080-120', '8', 'screen', false],
  ])('%s at %s bits to a %s is too much: %s', (mode, bits, screen, tooMuch) => {
    const rig = console_({ 'a.picture-mode': mode, 'a.bits': bits }, { t: screen }, ['a.hdmi > t.hdmi']);
    expect(rules(rig).includes('picture-link-too-slow')).toBe(tooMuch);
  });
  it('is mended by the largest smaller mode that passes', () => {
    const rig = console_({ 'a.picture-mode': '3840x2160-60' }, { s: 'hdmi-splitter' }, ['a.hdmi > s.in']);
    const fixes = fixesOf(rig, of(rig, 'picture-link-too-slow')!);
    expect(fixes.map((f) => textOf(f.label))).toEqual([
      'check.setIt(a, Video mode, 1080p, 120 Hz)',
      'check.setIt(a, Video mode, 1080p, 60 Hz)',
    ]);
    expect(rules(mended(rig, 'picture-link-too-slow'))).not.toContain('picture-link-too-slow');
  });
  it('that nobody has looked at is asked about, not claimed', () => {
    const rig = desk({ a: 'game-console', c: 'capture-stick' }, ['a.hdmi > c.hdmi']);
    expect(of(rig, 'picture-protected-capture')).toMatchObject({
      asks: { params: { device: 'a', spec: 'Copy protection of HDMI', value: 'on' } },
      where: { setting: { deviceId: 'a', settingId: 'copy-protection' } },
    });
    expect(rules(mended(rig, 'picture-protected-capture'))).not.toContain('picture-protected-capture');
  });
  it('from a computer is held against its screen too', () => {
    const rig = desk({ p: 'computer-desktop', t: 'projector' }, ['p.hdmi-1 > t.hdmi'], {
      set: { 'p.picture-mode': '2560x1440-60' },
    });
    expect(of(rig, 'picture-mode-too-large')?.says).toMatchObject({
      code: 'check.modeTooHigh',
      params: {
        device: 'p',
        mode: { params: { width: 2560 } },
        device2: 't',
        most: { params: { width: 1920 } },
      },
    });
    expect(rules(mended(rig, 'picture-mode-too-large'))).not.toContain('picture-mode-too-large');
  });
});

describe('what a screen says of itself', () => {
  const full = hex(
    edid({ extensions: [cta({ vics: [16, 97], hdmi: { mhz: 340, deep: 0 }, forum: { mhz: 600, frl: 0 } })] }),
  );
  const small = hex(edid({ extensions: [cta({ vics: [4], sound: [0x09, 0x07, 0x07], hdmi: { mhz: 165, deep: 0 } })] }));
  const to = (text: string, more: Record<string, string> = {}) =>
    console_(more, { t: 'television' }, ['a.hdmi > t.hdmi'], { t: { edid: text } });
  it('counts more than what is typical of its kind', () => {
    expect(rules(to(full, { 'a.picture-mode': '3840x2160-60' }))).not.toContain('picture-edid-lacks-mode');
    expect(of(to(small), 'picture-edid-lacks-mode')?.says).toMatchObject({
      code: 'check.modeNotTaken',
      params: { device: 't', device2: 'a' },
    });
    expect(rules(to(small, { 'a.picture-mode': '1280x720-60' }))).not.toContain('picture-edid-lacks-mode');
  });
  it('offers only modes that it states', () => {
    const rig = to(small);
    expect(fixesOf(rig, of(rig, 'picture-edid-lacks-mode')!).map((f) => textOf(f.label))).toEqual([
      'check.setIt(a, Video mode, 720p, 60 Hz)',
    ]);
  });
  it('tells that the picture passes and its sound does not', () => {
    const rig = to(small, { 'a.picture-mode': '1280x720-60', 'a.sound-format': 'surround' });
    expect(of(rig, 'picture-sound-format')?.says.code).toBe('check.codedAudio');
    expect(rules(mended(rig, 'picture-sound-format'))).not.toContain('picture-sound-format');
  });
  it('that is damaged is not believed, and breaks nothing', () => {
    const damaged = to(`${full.slice(0, 100)}ff${full.slice(102)}`);
    expect(rules(damaged)).toContain('picture-edid-broken');
    expect(rules(damaged)).not.toContain('picture-edid-lacks-mode');
  });
});

describe('a picture over USB', () => {
  const capture = (type: string, socket: string, mode: string) =>
    desk({ a: 'game-console', c: type, p: 'computer-desktop' }, ['a.hdmi > c.hdmi', `c.usb > p.${socket}`], {
      set: { ...OPEN, 'a.picture-mode': mode },
    });
  it.each([
    ['capture-usb-uncompressed', 'usb-3', '1920x1080-60', true],
    ['capture-usb-uncompressed', 'usb-1', '1920x1080-60', false],
    ['capture-usb-uncompressed', 'usb-1', '3840x2160-60', true],
    ['capture-usb-compressed', 'usb-3', '1920x1080-60', false],
  ])('%s at %s with %s is too much: %s', (type, socket, mode, tooMuch) => {
    expect(rules(capture(type, socket, mode)).includes('picture-usb-too-slow')).toBe(tooMuch);
  });
});
