import { catalogue, type DeviceType, type Rig } from '#core/model/rig/index.ts';
import { desk } from './check.testkit.ts';
import { PICTURE_CASES } from './picture-cases.testkit.ts';
import { BRIEF_CASES, ROUTE_CASES } from './route-cases.testkit.ts';

export const mic = (typeId: string, set = {}) =>
  desk({ m: typeId, x: 'interface-2' }, [`m.${typeId.startsWith('lapel') ? 'plug' : 'xlr'} > x.in-1`], { set });
const hub = (hubType: string, ...leads: string[]) =>
  desk(
    { a: 'capture-usb-uncompressed', b: 'capture-usb-compressed', c: 'interface-4', h: hubType, p: 'computer-desktop' },
    [...leads, 'h.up-1 > p.usb-1'],
  );
const strip = (count: number, type = 'screen') => ({
  boxes: { s: 'power-strip', ...Object.fromEntries(Array.from({ length: count }, (_, i) => [`d${i}`, type])) },
  device: Object.fromEntries(Array.from({ length: count }, (_, i) => [`d${i}`, { fedBy: 's' }])),
});
/** Console and mixer on the AC power, a screen between, and a line from the screen's jack: the classic ring. */
export const RING = { a: 'game-console', t: 'screen-with-jack', x: 'mixer-usb-10' };
const ring = (line: string, more: Parameters<typeof desk>[2] = {}) => desk(RING, ['a.hdmi > t.hdmi', line], more);
const voice = (a: number, b: number) =>
  desk(
    { v: 'person', m: 'microphone-dynamic', n: 'microphone-dynamic', x: 'mixer-usb-10', r: 'recorder-stereo' },
    [
      `v.voice > m.capsule ${a} air`,
      `v.voice > n.capsule ${b} air`,
      'm.xlr > x.strip-1',
      'n.xlr > x.strip-2',
      'x.main-out > r.line',
    ],
    { sources: ['v: v.voice'], listeners: ['r: r.file'], plan: ['v > r'] },
  );
const camera = (muted: boolean, other: boolean) =>
  desk(
    {
      v: 'person',
      m: 'microphone-dynamic',
      k: 'camera-hdmi',
      x: 'mixer-usb-10',
      q: 'monitor-recorder',
      r: 'recorder-stereo',
    },
    [
      ...(other ? ['v.voice > m.capsule 0.1 air', 'm.xlr > x.strip-1', 'x.main-out > r.line'] : []),
      'v.voice > k.microphone 2 air',
      'k.hdmi > q.hdmi',
      'q.jack > x.strip-5-6',
      'x.main-out > r.line',
    ].filter((c, i, all) => all.indexOf(c) === i),
    { set: { 'k.microphone-mute': muted }, sources: ['v: v.voice'], listeners: ['r: r.file'], plan: ['v > r'] },
  );
const radios = (key: boolean, from: string) =>
  desk(
    { m: from, r: 'two-way-radio', o: 'two-way-radio' },
    [`m.${from === 'microphone-dynamic' ? 'xlr' : 'send-out'} > r.microphone 2`, 'r.air-out > o.air-in 100 radio'],
    { set: { 'r.voice-key': key } },
  );
/** A USB mixer at a computer, by these parts. */
const mixerBy = (parts: string[]): Rig => {
  const rig = desk({ x: 'mixer-usb-10', c: 'computer-desktop' }, ['x.usb-main > c.usb-1']);
  return { ...rig, cables: rig.cables.map((c) => ({ ...c, parts })) };
};
/** A game that plays to the first USB device of a computer, by the default or not. */
const followed = (ends: Rig['devices'][number]['ends'], follows = true): Rig => {
  const rig = desk({ g: 'game-program', c: 'computer-laptop' }, ['g.sound > c.to-usb-1 software'], {
    device: { g: { on: 'c' }, c: { ends } },
  });
  return follows ? { ...rig, cables: rig.cables.map((c) => ({ ...c, follows: 'default' })) } : rig;
};
const own = (connector: string): DeviceType => ({
  id: 'own',
  name: 'own',
  family: 'tests',
  summary: '',
  ports: [
    { id: 'p', name: 'p', direction: 'out', connector, level: 'line', channels: [{ id: 'mono', carries: 'sound' }] },
  ],
  settings: [],
  figures: {},
  inside: [],
});
const ownIn = (connector: string): DeviceType => ({
  ...own(connector),
  id: 'own-in',
  ports: [{ ...own(connector).ports[0]!, direction: 'in' }],
});

const INTO_PROGRAM = ['m.usb > c.usb-2', 'c.from-usb-2 > a.in-1 software'];
const withParts = (rig: Rig, parts: string[]): Rig => ({ ...rig, cables: rig.cables.map((c) => ({ ...c, parts })) });

/** Rule, a rig that triggers it, and one close by that does not. */
export const CASES: [string, Rig, Rig][] = [
  ...PICTURE_CASES,
  [
    'power-phantom-missing',
    mic('microphone-condenser', { 'x.phantom': 'off' }),
    mic('microphone-condenser', { 'x.phantom': 'on' }),
  ],
  [
    'power-phantom-harms',
    mic('microphone-ribbon', { 'x.phantom': 'on' }),
    mic('microphone-dynamic', { 'x.phantom': 'on' }),
  ],
  [
    'power-phantom-into-output',
    desk({ m: 'mixer-matrix', x: 'interface-2' }, ['m.out-1 > x.in-1'], { set: { 'x.phantom': 'on' } }),
    desk({ m: 'mixer-matrix', x: 'interface-2' }, ['m.out-1 > x.in-1'], { set: { 'x.phantom': 'off' } }),
  ],
  ['power-plug-in-missing', mic('lapel-wired'), desk({ m: 'lapel-wired', x: 'radio-pack' }, ['m.plug > x.jack'])],
  ['power-usb-socket', hub('usb-hub', 'a.usb > h.down-1'), hub('usb-hub-powered', 'a.usb > h.down-1')],
  ['power-usb-hub-sum', hub('usb-hub', 'a.usb > h.down-1', 'b.usb > h.down-2'), hub('usb-hub', 'b.usb > h.down-1')],
  ['power-usb-hungry-pair', hub('usb-hub', 'a.usb > h.down-1', 'b.usb > h.down-2'), hub('usb-hub', 'a.usb > h.down-1')],
  [
    'power-outlets',
    desk(strip(7).boxes, [], { device: strip(7).device }),
    desk(strip(6).boxes, [], { device: strip(6).device }),
  ],
  [
    'power-strip-on-strip',
    desk(strip(1, 'power-strip').boxes, [], { device: strip(1).device }),
    desk(strip(1, 'usb-charger').boxes, [], { device: strip(1).device }),
  ],
  [
    'power-feed-kind',
    desk(strip(1, 'hdmi-extractor').boxes, [], { device: strip(1).device }),
    desk(strip(1).boxes, [], { device: strip(1).device }),
  ],
  [
    'power-supply-sum',
    desk({ s: 'power-bank', a: 'radio-base', b: 'interface-4' }, [], {
      types: [bank(1000)],
      device: { s: { typeId: 'bank' }, a: { fedBy: 's' }, b: { fedBy: 's' } },
    }),
    desk({ s: 'power-bank', a: 'radio-base' }, [], { device: { a: { fedBy: 's' } } }),
  ],
  ['power-battery-short', desk({ r: 'radio-pack' }, [], { hours: 5 }), desk({ r: 'radio-pack' }, [], { hours: 4.8 })],
  [
    'power-nothing-feeds',
    desk({ e: 'hdmi-extractor' }, []),
    desk({ e: 'hdmi-extractor', u: 'usb-charger' }, [], { device: { e: { fedBy: 'u' } } }),
  ],
  ['usb-picture-in-two-programs', twoPrograms('capture-program', 'call'), twoPrograms('capture-program')],
  [
    'usb-slow-socket',
    desk({ c: 'capture-stick', p: 'computer-desktop' }, ['c.usb > p.usb-3']),
    desk({ c: 'webcam', p: 'computer-desktop' }, ['c.usb > p.usb-3']),
  ],
  [
    'usb-hub-on-hub',
    desk({ h: 'usb-hub-powered', g: 'usb-hub' }, ['g.up-1 > h.down-1']),
    desk({ h: 'usb-hub', p: 'computer-laptop' }, ['h.up-1 > p.usb-1']),
  ],
  [
    'usb-shared-pictures',
    desk({ a: 'capture-stick', b: 'capture-usb-uncompressed', h: 'usb-hub-powered' }, [
      'a.usb > h.down-1',
      'b.usb > h.down-2',
    ]),
    desk({ a: 'webcam', b: 'capture-usb-uncompressed', h: 'usb-hub-powered' }, [
      'a.usb > h.down-1',
      'b.usb > h.down-2',
    ]),
  ],
  ['usb-nobody-listens', twoPrograms(), twoPrograms('capture-program')],
  [
    'program-crosses-computers',
    desk(
      { p: 'computer-laptop', q: 'computer-desktop', a: 'music-player', b: 'call' },
      ['a.sound > b.near-microphone software'],
      { device: { a: { on: 'p' }, b: { on: 'q' } } },
    ),
    desk(
      { p: 'computer-laptop', q: 'computer-desktop', a: 'music-player', b: 'call' },
      ['a.sound > b.near-microphone software'],
      { device: { a: { on: 'p' }, b: { on: 'p' } } },
    ),
  ],
  [
    'program-without-computer',
    desk({ p: 'computer-laptop', q: 'computer-desktop', a: 'music-player' }, []),
    desk({ p: 'computer-laptop', a: 'music-player' }, []),
  ],
  [
    'ground-hum-loop',
    ring('t.jack > x.strip-5-6'),
    desk({ ...RING, a: 'game-console-old', t: 'television' }, ['a.hdmi > t.hdmi', 't.jack > x.strip-5-6']),
  ],
  [
    'ground-isolator-misplaced',
    desk({ i: 'isolator-line', h: 'headphones' }, ['i.out > h.plug']),
    desk({ i: 'isolator-line', x: 'mixer-usb-10' }, ['i.out > x.strip-5-6']),
  ],
  [
    'ground-leakage',
    desk({ t: 'television', x: 'mixer-analogue' }, ['t.jack > x.strip-1']),
    desk({ t: 'television', x: 'mixer-analogue' }, ['t.jack > x.strip-3-4']),
  ],
  [
    'ground-two-strips',
    ring('t.jack > x.strip-5-6', { device: { t: { fedBy: 'a' }, x: { fedBy: 't' } } }),
    ring('t.jack > x.strip-5-6'),
  ],
  [
    'exclusive-ends',
    desk({ h: 'headset-bluetooth', p: 'phone-usb-c', r: 'line-to-bluetooth', z: 'bluetooth-to-line' }, [
      'p.bluetooth > h.bluetooth-in radio',
      'h.bluetooth-out > z.bluetooth radio',
    ]),
    desk({ h: 'headset-bluetooth', p: 'phone-usb-c' }, ['p.bluetooth > h.bluetooth-in radio']),
  ],
  [
    'exclusive-switched-off',
    desk({ a: 'phone', x: 'mixer-usb-10' }, ['a.jack > x.strip-9-10'], { set: { 'x.strip-9-10-input': 'usb' } }),
    desk({ a: 'phone', x: 'mixer-usb-10' }, ['a.jack > x.strip-9-10'], { set: { 'x.strip-9-10-input': 'jacks' } }),
  ],
  [
    'moving-lead',
    desk({ k: 'camera-hdmi', c: 'capture-stick' }, ['k.hdmi > c.hdmi'], { device: { k: { moves: true } } }),
    desk({ k: 'camera-hdmi', c: 'picture-link-sender' }, ['k.hdmi > c.hdmi'], {
      device: { k: { moves: true }, c: { moves: true } },
    }),
  ],
  [
    'moving-lead-heavy',
    desk({ k: 'camera-hdmi', c: 'picture-link-sender' }, ['k.hdmi > c.hdmi 2'], {
      device: { k: { moves: true }, c: { moves: true } },
    }),
    desk({ k: 'camera-hdmi', c: 'picture-link-sender' }, ['k.hdmi > c.hdmi 0.5'], {
      device: { k: { moves: true }, c: { moves: true } },
    }),
  ],
  [
    'radio-range',
    desk({ h: 'headset-bluetooth', p: 'phone-usb-c' }, ['p.bluetooth > h.bluetooth-in 9 radio']),
    desk({ a: 'radio-pack', b: 'radio-base' }, ['a.radio > b.radio 9 radio']),
  ],
  ['radio-crowded', packs(4), packs(3)],
  [
    'transmitter-near-lead',
    radios(true, 'mixer-analogue'),
    desk({ m: 'mixer-analogue', r: 'two-way-radio' }, ['m.send-out > r.microphone 1']),
  ],
  ['transmitter-voice-keyed', radios(false, 'mixer-analogue'), radios(false, 'microphone-dynamic')],
  ['room-camera-microphone', camera(false, true), camera(true, true)],
  ['room-camera-microphone', camera(false, true), camera(false, false)],
  ['room-two-microphones', voice(0.2, 0.5), voice(0.2, 0.7)],
  ['room-microphone-far', voice(1, 4), voice(0.3, 4)],
  [
    'room-loudspeaker-close',
    desk({ l: 'loudspeakers-active', m: 'microphone-dynamic' }, ['l.front > m.capsule 0.5 air']),
    desk({ l: 'loudspeakers-active', m: 'person' }, ['l.front > m.ears 0.5 air']),
  ],
  [
    'device-disabled',
    desk({ m: 'microphone-usb', c: 'computer-laptop', a: 'recording-program' }, [...INTO_PROGRAM], {
      device: { c: { ends: { 'from-usb-2': { disabled: true } } } },
    }),
    desk({ m: 'microphone-usb', c: 'computer-laptop', a: 'recording-program' }, [...INTO_PROGRAM], {
      device: { c: { ends: { 'from-usb-1': { disabled: true } } } },
    }),
  ],
  ['default-moves', followed({ 'to-usb-1': {} }), followed({ 'to-usb-1': {} }, false)],
  ['default-elsewhere', followed({ 'to-usb-2': { preferred: true } }), followed({ 'to-usb-1': { preferred: true } })],
  ['plug-charging-only', mixerBy(['lead-usb-a-usb-b-power']), mixerBy(['lead-usb-a-usb-b'])],
  [
    'usb-two-alike',
    desk({ m: 'microphone-usb', i: 'interface-2' }, ['m.usb > i.usb-in']),
    desk({ m: 'microphone-usb', c: 'computer-laptop' }, ['m.usb > c.usb-2']),
  ],
  [
    'plug-unknown-connector',
    desk({ d: 'own' }, [], { types: [own('teapot')] }),
    desk({ d: 'own' }, [], { types: [own('phono')] }),
  ],
  [
    'plug-insert-in',
    desk({ a: 'mixer-usb-10', d: 'own-in' }, ['a.send-3-out > d.p'], { types: [ownIn('jack-635-insert')] }),
    desk({ a: 'mixer-usb-10', d: 'own-in' }, ['a.send-3-out > d.p'], { types: [ownIn('jack-635-ts')] }),
  ],
  [
    'plug-three-in-four',
    desk({ m: 'lapel-wired', p: 'computer-laptop' }, ['m.plug > p.jack-microphone straight']),
    desk({ m: 'lapel-phone', p: 'computer-laptop' }, ['m.plug > p.jack-microphone straight']),
  ],
  [
    'plug-four-in-three',
    desk({ m: 'lapel-phone', p: 'radio-pack' }, ['m.plug > p.jack']),
    desk({ m: 'lapel-wired', p: 'radio-pack' }, ['m.plug > p.jack']),
  ],
  [
    'plug-stereo-into-balanced',
    desk({ a: 'phone', x: 'interface-2' }, ['a.jack > x.in-1']),
    desk({ a: 'phone', x: 'mixer-usb-10' }, ['a.jack > x.strip-5-6']),
  ],
  [
    'plug-balanced-into-stereo',
    desk({ m: 'radio-base', x: 'computer-desktop' }, ['m.out > x.line-in']),
    desk({ m: 'radio-base', x: 'interface-2' }, ['m.out > x.in-1']),
  ],
  [
    'plug-one-side',
    desk({ a: 'phone', x: 'di-box' }, ['a.jack > x.in']),
    desk({ a: 'radio-base', x: 'di-box' }, ['a.out > x.in']),
  ],
  [
    'plug-side-silent',
    desk({ d: 'own', p: 'computer-desktop' }, ['d.p > p.line-in'], { types: [own('jack-635-ts')] }),
    desk({ d: 'own', x: 'mixer-usb-10' }, ['d.p > x.strip-5-6'], { types: [own('jack-635-ts')] }),
  ],
  [
    'plug-nothing-over',
    withParts(desk({ m: 'lapel-wired', x: 'interface-2' }, ['m.plug > x.in-1']), ['adapter-trs-35-trs-635']),
    withParts(desk({ m: 'lapel-wired', x: 'interface-2' }, ['m.plug > x.in-1']), ['adapter-trs-35-xlr-m-joined']),
  ],
  [
    'plug-parts-do-not-fit',
    withParts(desk({ a: 'phone', x: 'mixer-usb-10' }, ['a.jack > x.strip-5-6']), ['lead-xlr-f-xlr-m']),
    withParts(desk({ a: 'phone', x: 'mixer-usb-10' }, ['a.jack > x.strip-5-6']), ['lead-trs-35-ts-635-pair']),
  ],
  [
    'plug-insert-out',
    desk({ a: 'mixer-analogue', x: 'interface-2' }, ['a.strip-1-insert > x.in-1']),
    desk({ a: 'mixer-analogue', x: 'interface-2' }, ['a.send-out > x.in-1']),
  ],
  [
    'plug-small-socket',
    desk({ k: 'camera-hdmi', c: 'capture-stick' }, ['k.hdmi > c.hdmi 2.5']),
    desk({ k: 'camera-hdmi-full', c: 'capture-stick' }, ['k.hdmi > c.hdmi 2.5']),
  ],
  [
    'plug-outputs-joined',
    desk({ a: 'phone', b: 'phone', x: 'mixer-usb-10' }, ['a.jack > x.strip-5-6', 'b.jack > x.strip-5-6']),
    desk({ a: 'phone', b: 'phone', x: 'mixer-usb-10' }, ['a.jack > x.strip-5-6', 'b.jack > x.strip-7-8']),
  ],
  [
    'plug-output-split',
    desk({ a: 'game-console', s: 'screen', t: 'screen' }, ['a.hdmi > s.hdmi', 'a.hdmi > t.hdmi']),
    desk({ p: 'computer-desktop', s: 'screen', t: 'screen' }, ['p.hdmi-1 > s.hdmi', 'p.hdmi-2 > t.hdmi']),
  ],
  [
    'plan-source-nowhere',
    desk({ a: 'phone', x: 'recorder-stereo' }, [], { sources: ['a: a.jack'], listeners: ['r: x.file'] }),
    desk({ a: 'phone', x: 'recorder-stereo' }, ['a.jack > x.line'], {
      sources: ['a: a.jack'],
      listeners: ['r: x.file'],
    }),
  ],
  [
    'plan-listener-silent',
    desk({ a: 'phone', x: 'recorder-stereo' }, [], { sources: ['a: a.jack'], listeners: ['r: x.file'] }),
    desk({ a: 'phone', x: 'recorder-stereo' }, ['a.jack > x.line'], {
      sources: ['a: a.jack'],
      listeners: ['r: x.file'],
    }),
  ],
  ['level-clips', hot(30), hot(0)],
  ['room-poorer-microphone', twoMicrophones('head-worn-display'), twoMicrophones('lapel-usb')],
];

function bank(milliamps: number): DeviceType {
  return {
    ...catalogue.find((t) => t.id === 'power-bank')!,
    id: 'bank',
    power: { by: ['battery'], feeds: { kind: 'usb', outlets: 2, milliamps } },
  };
}
function twoPrograms(...programs: string[]): Rig {
  const port = (t: string) => (t === 'call' ? 'far-camera' : 'in-1');
  return desk({ k: 'webcam', p: 'computer-desktop', ...Object.fromEntries(programs.map((t, i) => [`q${i}`, t])) }, [
    'k.usb > p.usb-4',
    ...programs.map((t, i) => `p.from-usb-4 > q${i}.${port(t)} software`),
  ]);
}
function packs(count: number): Rig {
  const n = Array.from({ length: count }, (_, i) => i);
  return desk(
    Object.fromEntries(
      n.flatMap((i) => [
        [`a${i}`, 'radio-pack'],
        [`b${i}`, 'radio-base'],
      ]),
    ),
    n.map((i) => `a${i}.radio > b${i}.radio 5 radio`),
  );
}
/** A voice by two microphones, the first into a recording of its own, the desk microphone into another. */
function twoMicrophones(first: string): Rig {
  const boom = first === 'head-worn-display' ? 'boom' : 'capsule';
  return desk(
    { v: 'person', m: first, n: 'microphone-usb', p: 'computer-desktop', q: 'recording-program' },
    [
      `v.voice > m.${boom} 0.1 air`,
      'v.voice > n.capsule 0.5 air',
      'm.usb > p.usb-1',
      'n.usb > p.usb-2',
      'p.from-usb-1 > q.in-1 software',
      'p.from-usb-2 > q.in-2 software',
    ],
    { sources: ['v: v.voice'], listeners: ['a: q.track-1', 'b: q.track-2'], plan: ['v > a', 'v > b'] },
  );
}
function hot(db: number): Rig {
  return desk(
    { a: 'phone', x: 'mixer-usb-10', r: 'recorder-stereo' },
    ['a.jack > x.strip-5-6', 'x.main-out > r.line'],
    {
      set: {
        'x.strip-5-6-gain': Math.min(20, db),
        'x.strip-5-6-fader': db > 0 ? 10 : 0,
        'x.main-level': db > 0 ? 10 : 0,
      },
      sources: ['a: a.jack'],
      listeners: ['r: r.file'],
      plan: ['a > r'],
    },
  );
}

/** The louder of two voices, wanted so far under the other, which is the main one. */
const balanced = (underVoiceDb: number): Rig => {
  const rig = desk(
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
    { sources: ['v: v.voice', 'w: w.voice'], listeners: ['r: r.file'], set: { 'x.strip-2-fader': -10 } },
  );
  return { ...rig, plan: [{ sourceId: 'w', listenerId: 'r', want: 'must', underVoiceDb }] };
};
CASES.push(['plan-too-loud', balanced(16), balanced(12)], ['plan-too-quiet', balanced(4), balanced(8)]);
CASES.push(...ROUTE_CASES, ...BRIEF_CASES);

/** Much that is wrong at once, nothing looked at. */
export const MUCH_WRONG: Rig = desk(
  {
    a: 'game-console',
    s: 'hdmi-y-lead',
    t: 'screen-with-jack',
    c: 'capture-usb-uncompressed',
    p: 'computer-desktop',
    x: 'mixer-analogue',
    m: 'microphone-ribbon',
    l: 'lapel-wired',
    k: 'camera-hdmi-micro',
    h: 'usb-hub',
    r: 'two-way-radio',
  },
  [
    'a.hdmi > s.in 9 ?',
    's.out-1 > t.hdmi 9 ?',
    's.out-2 > c.hdmi ?',
    'c.usb > p.usb-3 6 ?',
    't.jack > x.strip-1 8 ?',
    'm.xlr > x.strip-2 ?',
    'l.plug > x.strip-3-4 ?',
    'k.hdmi > c.hdmi 4 ?',
    'h.up-1 > p.usb-3 ?',
    'x.send-out > r.microphone 4 ?',
    'x.strip-1-insert > p.line-in ?',
  ],
  { hours: 9 },
);
