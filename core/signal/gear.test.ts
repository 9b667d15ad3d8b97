import { describe, expect, it } from 'vitest';
import type { Rig } from '#core/model/rig/index.ts';
import { desk } from '#core/rules/check.testkit.ts';
import { evaluate, type Pair } from './index.ts';

/** What a listener gets of a source, by the devices of the library. */
const heard = (rig: Rig, source = 'a', listener = 'l'): Pair =>
  evaluate(rig).pairs.find((p) => p.sourceId === source && p.listenerId === listener)!;
const reaches = (rig: Rig, source?: string, listener?: string): boolean => heard(rig, source, listener).ways.length > 0;
const levelOf = (rig: Rig, source?: string, listener?: string): number =>
  heard(rig, source, listener).ways[0]!.levelDb.nominal;

type Set = Record<string, string | number | boolean>;
const phoneInto = (mixer: string, input: string, out: string, into: string, set: Set = {}) =>
  desk({ p: 'phone', x: mixer, r: into }, [`p.jack > x.${input}`, `x.${out} > r.line`], {
    set,
    sources: ['a: p.jack'],
    listeners: ['l: r.file'],
  });

describe('mixers', () => {
  it('pass a strip to the main output, louder by its fader, and not at all with the fader down', () => {
    const at = (fader: number) =>
      phoneInto('mixer-usb-10', 'strip-5-6', 'main-out', 'recorder-stereo', { 'x.strip-5-6-fader': fader });
    expect(levelOf(at(0)) - levelOf(at(-10))).toBeCloseTo(10, 6);
    expect(reaches(at(-90))).toBe(false);
  });
  it('feed send 1 before the fader, and send 2 after it', () => {
    const send = (n: number, fader: number) =>
      desk(
        { p: 'phone', x: 'mixer-usb-10', c: 'computer-desktop', q: 'recording-program', r: 'recorder-stereo' },
        ['p.jack > x.strip-5-6', 'x.send-1-out > r.line', 'x.usb-send-2 > c.usb-3', 'c.from-usb-3 > q.in-1 software'],
        {
          set: { 'x.strip-5-6-send-1': 0, 'x.strip-5-6-send-2': 0, 'x.strip-5-6-fader': fader },
          sources: ['a: p.jack'],
          listeners: [n === 1 ? 'l: r.file' : 'l: q.track-1'],
        },
      );
    expect(reaches(send(1, 0))).toBe(true);
    expect(reaches(send(1, -90))).toBe(true);
    expect(reaches(send(2, 0))).toBe(true);
    expect(reaches(send(2, -90))).toBe(false);
  });
  it('take the USB return on the last strips only when the switch says so', () => {
    const at = (input: string) =>
      desk(
        { m: 'music-player', c: 'computer-desktop', x: 'mixer-usb-10', r: 'recorder-stereo' },
        ['m.sound > c.to-usb-3 software', 'c.usb-3-out > x.usb-return', 'x.main-out > r.line'],
        { set: { 'x.strip-9-10-input': input }, sources: ['a: m.sound'], listeners: ['l: r.file'] },
      );
    expect(reaches(at('usb'))).toBe(true);
    expect(reaches(at('jacks'))).toBe(false);
  });
  it('record over USB what the switch chooses: main or send', () => {
    const at = (source: string, send: number) =>
      desk(
        { p: 'phone', x: 'mixer-usb-send', c: 'computer-desktop', q: 'recording-program' },
        ['p.jack > x.strip-3-4', 'x.usb > c.usb-2', 'c.from-usb-2 > q.in-1 software'],
        {
          set: { 'x.usb-source': source, 'x.strip-3-4-send': send },
          sources: ['a: p.jack'],
          listeners: ['l: q.track-1'],
        },
      );
    expect(reaches(at('main', -90))).toBe(true);
    expect(reaches(at('send', -90))).toBe(false);
    expect(reaches(at('send', 0))).toBe(true);
  });
  it('make a guest return without the guest when one level of the matrix is left down', () => {
    const rig = desk(
      { g: 'phone', h: 'phone', x: 'mixer-matrix', r: 'recorder-multitrack' },
      ['g.jack > x.in-5', 'h.jack > x.in-6', 'x.out-1 > r.in-1', 'x.out-2 > r.in-2'],
      {
        set: { 'x.in-6-to-1': 0, 'x.in-5-to-2': 0, 'x.in-6-to-2': 0 },
        sources: ['guest: g.jack', 'host: h.jack'],
        listeners: ['return: r.track-1', 'mix: r.track-2'],
      },
    );
    expect(reaches(rig, 'host', 'return')).toBe(true);
    expect(reaches(rig, 'guest', 'return')).toBe(false);
    expect(reaches(rig, 'guest', 'mix')).toBe(true);
  });
  it('sum by hand through resistors, at least 6 dB down', () => {
    const plain = desk({ p: 'phone', r: 'computer-desktop' }, ['p.jack > r.line-in'], {
      sources: ['a: p.jack'],
      listeners: ['l: r.from-line-in'],
    });
    const summed = desk(
      { p: 'phone', x: 'guest-return', r: 'computer-desktop' },
      ['p.jack > x.in-1', 'x.out > r.line-in'],
      {
        set: { 'x.level-1': -6 },
        sources: ['a: p.jack'],
        listeners: ['l: r.from-line-in'],
      },
    );
    expect(levelOf(plain) - levelOf(summed)).toBeCloseTo(6, 6);
  });
});

describe('boxes with switches', () => {
  it.each([
    ['hdmi-switch', 'in-a', 'a', true],
    ['hdmi-switch', 'in-a', 'b', false],
    ['hdmi-switch', 'in-b', 'b', true],
    ['hdmi-switch-splitter', 'in-b', 'a', false],
  ])('%s passes %s while it stands at %s: %s', (type, input, position, passes) => {
    const out = type === 'hdmi-switch' ? 'out' : 'out-1';
    const rig = desk(
      { g: 'game-console', s: type, m: 'monitor-recorder' },
      [`g.hdmi > s.${input}`, `s.${out} > m.hdmi`],
      {
        set: { 's.input': position },
        sources: ['a: g.hdmi'],
        listeners: ['l: m.file'],
      },
    );
    expect(reaches(rig)).toBe(passes);
  });
  it('matrix gives each output the input chosen for it', () => {
    const rig = desk(
      { g: 'game-console', h: 'game-console', s: 'hdmi-matrix', m: 'monitor-recorder', n: 'monitor-recorder' },
      ['g.hdmi > s.in-a', 'h.hdmi > s.in-b', 's.out-1 > m.hdmi', 's.out-2 > n.hdmi'],
      {
        set: { 's.out-1-input': 'b', 's.out-2-input': 'a' },
        sources: ['a: g.hdmi', 'b: h.hdmi'],
        listeners: ['one: m.file', 'two: n.file'],
      },
    );
    expect([reaches(rig, 'a', 'one'), reaches(rig, 'b', 'one')]).toEqual([false, true]);
    expect([reaches(rig, 'a', 'two'), reaches(rig, 'b', 'two')]).toEqual([true, false]);
  });
  it('monitor-recorder takes HDMI, its jack, or one on each side', () => {
    const at = (from: string) =>
      desk(
        { v: 'person', w: 'person', k: 'camera-hdmi', m: 'monitor-recorder', i: 'lapel-wired' },
        ['v.voice > k.microphone 1 air', 'k.hdmi > m.hdmi', 'w.voice > i.capsule 0.2 air', 'i.plug > m.microphone'],
        { set: { 'm.sound-from': from }, sources: ['cam: v.voice', 'lapel: w.voice'], listeners: ['l: m.file'] },
      );
    expect([reaches(at('hdmi'), 'cam'), reaches(at('hdmi'), 'lapel')]).toEqual([true, false]);
    expect([reaches(at('microphone'), 'cam'), reaches(at('microphone'), 'lapel')]).toEqual([false, true]);
    expect(heard(at('both'), 'cam').ways[0]!.sides).toEqual(['left']);
    expect(heard(at('both'), 'lapel').ways[0]!.sides).toEqual(['right']);
  });
  it('recorder in the hand records or is an interface, not both', () => {
    const at = (use: string) =>
      desk({ v: 'person', h: 'recorder-handheld' }, ['v.voice > h.own 0.5 air'], {
        set: { 'h.use': use },
        sources: ['a: v.voice'],
        listeners: ['card: h.file', 'usb: h.usb'],
      });
    expect([reaches(at('record'), 'a', 'card'), reaches(at('record'), 'a', 'usb')]).toEqual([true, false]);
    expect([reaches(at('interface'), 'a', 'card'), reaches(at('interface'), 'a', 'usb')]).toEqual([false, true]);
  });
  it('radio that sends does not receive', () => {
    const at = (key: string) =>
      desk(
        { v: 'person', h: 'two-way-handheld', r: 'two-way-radio', x: 'recorder-multitrack' },
        ['v.voice > h.own 0.1 air', 'h.air-out > r.air-in 20 radio', 'r.line-out > x.in-1'],
        { set: { 'h.key': 'send', 'r.key': key }, sources: ['a: v.voice'], listeners: ['l: x.track-1'] },
      );
    expect(reaches(at('receive'))).toBe(true);
    expect(reaches(at('send'))).toBe(false);
    expect(heard(at('receive')).ways[0]!.arrival.highHz).toBe(3000);
  });
  it('pedal keys one radio, the other, or none', () => {
    const at = (key: string) =>
      desk(
        { v: 'person', m: 'microphone-dynamic', k: 'keying-box', a: 'two-way-radio', b: 'two-way-radio' },
        ['v.voice > m.capsule 0.1 air', 'm.xlr > k.microphone', 'k.radio-a > a.microphone', 'k.radio-b > b.microphone'],
        {
          set: { 'k.key': key, 'a.key': 'send', 'b.key': 'send' },
          sources: ['v: v.voice'],
          listeners: ['a: a.air-out', 'b: b.air-out'],
        },
      );
    expect(['a', 'b', 'none'].map((k) => [reaches(at(k), 'v', 'a'), reaches(at(k), 'v', 'b')])).toEqual([
      [true, false],
      [false, true],
      [false, false],
    ]);
  });
});

describe('computers and what is plugged into them', () => {
  it('hand on by each socket what it brings, in pairs by their channels', () => {
    const rig = desk(
      { p: 'phone', q: 'phone', x: 'mixer-usb-10', c: 'computer-desktop', r: 'recording-program' },
      [
        'p.jack > x.strip-5-6',
        'q.jack > x.strip-7-8',
        'x.usb-main > c.usb-3',
        'x.usb-send-2 > c.usb-3 left=ch-3 right=ch-4',
        'c.from-usb-3 > r.in-1 software',
        'c.from-usb-3 > r.in-2 software ch-3=left ch-4=right',
      ],
      {
        set: { 'x.strip-7-8-fader': -90, 'x.strip-5-6-send-2': -90, 'x.strip-7-8-send-2': 0 },
        sources: ['a: p.jack', 'b: q.jack'],
        listeners: ['main: r.track-1', 'send: r.track-2'],
      },
    );
    expect([reaches(rig, 'a', 'main'), reaches(rig, 'a', 'send')]).toEqual([true, false]);
    expect(reaches(rig, 'b', 'main')).toBe(false);
  });
  it('keep the devices of a hub apart', () => {
    const rig = desk(
      {
        v: 'person',
        w: 'person',
        m: 'lapel-usb',
        n: 'lapel-usb',
        h: 'usb-hub-powered',
        c: 'computer-desktop',
        r: 'recording-program',
      },
      [
        'v.voice > m.capsule 0.2 air',
        'w.voice > n.capsule 0.2 air',
        'm.usb > h.down-1',
        'n.usb > h.down-2',
        'h.up-1 > c.usb-1',
        'h.up-2 > c.usb-1-hub-2',
        'c.from-usb-1 > r.in-1 software',
        'c.from-usb-1-hub-2 > r.in-2 software',
      ],
      { sources: ['a: v.voice', 'b: w.voice'], listeners: ['one: r.track-1', 'two: r.track-2'] },
    );
    expect([reaches(rig, 'a', 'one'), reaches(rig, 'b', 'one')]).toEqual([true, false]);
    expect([reaches(rig, 'a', 'two'), reaches(rig, 'b', 'two')]).toEqual([false, true]);
  });
  it('hear a headset by its jack, and play to it', () => {
    const rig = desk(
      { v: 'person', m: 'music-player', h: 'headset-four-contact', c: 'computer-laptop', r: 'recording-program' },
      [
        'v.voice > h.boom 0.03 air',
        'h.plug-microphone > c.jack-microphone',
        'c.jack > h.plug',
        'm.sound > c.to-jack software',
        'c.from-jack > r.in-1 software',
      ],
      { sources: ['a: v.voice', 'b: m.sound'], listeners: ['track: r.track-1', 'ears: h.ears'] },
    );
    expect(reaches(rig, 'a', 'track')).toBe(true);
    expect(reaches(rig, 'b', 'ears')).toBe(true);
    expect(reaches(rig, 'a', 'ears')).toBe(false);
  });
  it('count an aggregate’s second member by the first one’s clock only when it is corrected', () => {
    const at = (correction: string) =>
      desk(
        { v: 'person', m: 'lapel-usb', c: 'computer-desktop', a: 'aggregate-device', r: 'recording-program' },
        ['v.voice > m.capsule 0.2 air', 'm.usb > c.usb-2', 'c.from-usb-2 > a.b software', 'a.b-out > r.in-1 software'],
        { set: { 'a.drift-correction': correction }, sources: ['a: v.voice'], listeners: ['l: r.track-1'] },
      );
    expect(heard(at('on')).ways[0]!.clock).toBe('a');
    expect(heard(at('off')).ways[0]!.clock).toBe('m');
  });
  it('let an interface be heard directly, without the computer’s delay', () => {
    const rig = desk(
      { v: 'person', m: 'microphone-dynamic', i: 'interface-2', h: 'headphones' },
      ['v.voice > m.capsule 0.1 air', 'm.xlr > i.in-1', 'i.phones > h.plug'],
      { set: { 'i.direct': 0, 'i.volume': -10 }, sources: ['a: v.voice'], listeners: ['l: h.ears'] },
    );
    expect(heard(rig).ways[0]!.delay.value.nominal).toBeLessThan(1);
    expect(heard(rig).ways[0]!.conversions).toBe(0);
  });
});

describe('converters', () => {
  it.each([
    ['bluetooth-to-line', 'bluetooth', 'line', 'radio', 180],
    ['usb-to-line', 'usb', 'line', 'lead', 8],
  ])('%s is late by its link', (type, input, output, medium, ms) => {
    const rig = desk(
      { p: 'phone-usb-c', c: type, r: 'recorder-stereo' },
      [`p.${input === 'bluetooth' ? 'bluetooth' : 'usb'} > c.${input} 1 ${medium}`, `c.${output} > r.line`],
      { sources: [`a: p.${input === 'bluetooth' ? 'bluetooth' : 'usb'}`], listeners: ['l: r.file'] },
    );
    expect(heard(rig).ways[0]!.delay.value.nominal).toBeCloseTo(ms + 1, 6);
  });
  it('isolator costs a decibel, and the pad takes forty off', () => {
    const through = (type: string, into: string) =>
      desk(
        { p: 'phone', c: type, r: into },
        ['p.jack > c.in', `c.out > r.${into === 'recorder-stereo' ? 'line' : 'in-1'}`],
        {
          sources: ['a: p.jack'],
          listeners: [`l: r.${into === 'recorder-stereo' ? 'file' : 'track-1'}`],
        },
      );
    const plain = desk({ p: 'phone', r: 'recorder-stereo' }, ['p.jack > r.line'], {
      sources: ['a: p.jack'],
      listeners: ['l: r.file'],
    });
    expect(levelOf(plain) - levelOf(through('isolator-line', 'recorder-stereo'))).toBeCloseTo(1, 6);
    expect(reaches(through('pad', 'recorder-multitrack'))).toBe(true);
  });
});
