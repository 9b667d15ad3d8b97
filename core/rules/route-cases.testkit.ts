import type { DeviceType, Rig } from '#core/model/rig/index.ts';
import { desk } from './check.testkit.ts';

/** A rule, a rig that it is for, and one that lies close by and is right. */
type Case = [rule: string, trigger: Rig, near: Rig];

const planned = (rig: Rig, plan: Rig['plan']): Rig => ({ ...rig, plan });

/** Someone at home on a headset; with `back`, the call takes what it plays for its microphone. */
const caller = (back: boolean) =>
  desk(
    { i: 'person', h: 'headset-usb', c: 'call', v: 'virtual-cable' },
    [
      'i.voice > h.boom 0.03 air',
      'h.usb-out > c.far-microphone 0 software',
      'c.far-loudspeaker > h.usb-in 0 software',
      'c.near-loudspeaker > v.in 0 software',
      ...(back ? ['v.out > c.near-microphone 0 software'] : []),
    ],
    { sources: ['i: i.voice'], listeners: ['ears: h.ears'] },
  );

/** A device that gives back what it is sent, so much quieter, after 100 ms. */
const parrot = (db: number): DeviceType => ({
  id: 'parrot',
  name: 'parrot',
  family: 'tests',
  summary: '',
  ports: [
    {
      id: 'in',
      name: 'in',
      direction: 'in',
      connector: 'plug',
      level: 'line',
      channels: [{ id: 'm', carries: 'sound' }],
    },
    {
      id: 'out',
      name: 'out',
      direction: 'out',
      connector: 'plug',
      level: 'line',
      channels: [{ id: 'm', carries: 'sound' }],
    },
  ],
  settings: [],
  figures: { wait: { label: 'wait', unit: 'ms', range: [50, 50, 50], kind: 'typical', source: '' } },
  inside: [
    {
      from: 'in.m',
      to: 'out.m',
      stages: [
        { do: 'latency', figure: 'wait' },
        { do: 'fixed-gain', db },
      ],
    },
  ],
});
const parrots = (db: number) =>
  desk({ a: 'parrot', b: 'parrot' }, ['a.out > b.in', 'b.out > a.in'], { types: [parrot(db)] });

const onInput = (n: number) =>
  desk(
    { v: 'person', m: 'microphone-dynamic', x: 'interface-4', p: 'computer-desktop', c: 'capture-program' },
    ['v.voice > m.capsule 0.1 air', `m.xlr > x.in-${n}`, 'x.usb > p.usb-1', 'p.from-usb-1 > c.in-1 0 software'],
    { sources: ['v: v.voice'], listeners: ['s: c.stream'] },
  );

/** A class: a voice and music into a call, by its microphone or shared. */
const lesson = (music: string, processing = 'on') =>
  planned(
    desk(
      { v: 'person', m: 'microphone-usb', p: 'computer-laptop', n: 'music-player', c: 'call' },
      [
        'v.voice > m.capsule 0.1 air',
        'm.usb > p.usb-1',
        'p.from-usb-1 > c.near-microphone 0 software',
        `n.sound > c.${music} 0 software`,
      ],
      {
        sources: ['v: v.voice', 'n: n.sound'],
        listeners: ['far: c.far-loudspeaker'],
        set: { 'c.processing': processing },
      },
    ),
    [
      { sourceId: 'v', listenerId: 'far', want: 'must' },
      { sourceId: 'n', listenerId: 'far', want: 'must', inTimeWith: 'v' },
    ],
  );

/** Another program takes the microphone of the second device: that is not the call's. */
const callOn = (out: string) =>
  desk({ p: 'computer-laptop', c: 'call', s: 'capture-program' }, [
    'p.from-usb-1 > c.near-microphone 0 software',
    'p.from-usb-2 > s.in-1 0 software',
    `c.near-loudspeaker > p.${out} 0 software`,
  ]);

const sided = (...map: string[]) =>
  desk(
    { v: 'person', m: 'microphone-usb', p: 'computer-laptop', c: 'capture-program' },
    ['v.voice > m.capsule 0.1 air', 'm.usb > p.usb-1', `p.from-usb-1 > c.in-1 0 software ${map.join(' ')}`],
    { sources: ['v: v.voice'], listeners: ['s: c.stream'], plan: ['v > s'] },
  );

const joined = (correction: string) =>
  desk(
    { p: 'computer-laptop', g: 'aggregate-device' },
    ['p.from-usb-1 > g.a 0 software', 'p.from-usb-2 > g.b 0 software'],
    { set: { 'g.drift-correction': correction } },
  );

const counting = (rate: string) =>
  desk({ x: 'interface-2', p: 'computer-laptop' }, ['x.usb > p.usb-1'], { set: { 'x.sample-rate': rate } });

/** Two voices into one recorder; the second so far down. */
const together = (fader: number) =>
  planned(
    desk(
      {
        v: 'person',
        w: 'person',
        m: 'microphone-dynamic',
        n: 'microphone-dynamic',
        x: 'mixer-usb-10',
        r: 'recorder-stereo',
      },
      [
        'v.voice > m.capsule 0.15 air',
        'w.voice > n.capsule 0.15 air',
        'm.xlr > x.strip-1',
        'n.xlr > x.strip-2',
        'x.main-out > r.line',
      ],
      { sources: ['v: v.voice', 'w: w.voice'], listeners: ['r: r.file'], set: { 'x.strip-2-fader': fader } },
    ),
    [{ sourceId: 'v', listenerId: 'r', want: 'must', ownTrack: true }],
  );

export const ROUTE_CASES: Case[] = [
  ['self-return', caller(true), caller(false)],
  ['loop-echo', parrots(-12), parrots(-30)],
  ['route-first-pair', onInput(3), onInput(1)],
  ['route-keep-time', lesson('near-share'), lesson('near-microphone')],
  ['call-processes-music', lesson('near-microphone'), lesson('near-microphone', 'off')],
  ['call-split-devices', callOn('to-usb-2'), callOn('to-usb-1')],
  ['route-one-side', sided('left=left'), sided('left=left', 'left=right')],
  ['clock-not-corrected', joined('off'), joined('on')],
  ['rate-differs', counting('44100'), counting('48000')],
  ['plan-not-alone', together(-10), together(-24)],
];

const session = (rig: Rig, more: Partial<Rig['session']>): Rig => ({ ...rig, session: { ...rig.session, ...more } });
const played = (mode: string) =>
  session(
    {
      ...desk({ g: 'game-console', s: 'screen' }, ['g.hdmi > s.hdmi'], {
        sources: ['g: g.hdmi'],
        set: { 'g.picture-mode': mode },
      }),
    },
    { pictureMode: '3840x2160@60' },
  );
const shown = (rig: Rig): Rig => ({ ...rig, sources: rig.sources.map((s) => ({ ...s, picture: s.sound })) });
const bought = (budgetEur: number) =>
  session(desk({ x: 'mixer-usb-10' }, [], { device: { x: { toGet: true } } }), { budgetEur });
const seated = (lengthM: number) =>
  session(
    desk({ v: 'person', m: 'microphone-dynamic', x: 'interface-2' }, [
      'v.voice > m.capsule 0.1 air',
      `m.xlr > x.in-1 ${lengthM}`,
    ]),
    { distanceM: 4 },
  );
const walking = (moves: boolean) =>
  session(
    desk(
      { v: 'person', m: 'microphone-dynamic', x: 'interface-2' },
      ['v.voice > m.capsule 0.1 air', 'm.xlr > x.in-1'],
      { device: { m: { moves } }, sources: ['v: v.voice'], listeners: ['x: x.usb'] },
    ),
    { movesAbout: true },
  );
const answered = (heard: boolean) =>
  session(
    desk(
      { i: 'person', h: 'headset-usb', c: 'call', p: 'computer-laptop' },
      [
        'i.voice > h.boom 0.03 air',
        'h.usb-out > c.far-microphone 0 software',
        ...(heard ? ['c.near-loudspeaker > p.to-usb-1 0 software'] : []),
      ],
      { sources: ['i: i.voice'], listeners: ['here: p.usb-1-out'] },
    ),
    { twoWay: true },
  );

export const BRIEF_CASES: Case[] = [
  ['brief-picture', shown(played('1920x1080-60')), shown(played('3840x2160-60'))],
  ['brief-budget', bought(100), bought(10_000)],
  ['brief-distance', seated(3), seated(5)],
  ['brief-moves', walking(false), walking(true)],
  ['brief-two-way', answered(false), answered(true)],
];
