import { cta, edid } from '#core/model/picture/edid.testkit.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { desk } from './check.testkit.ts';

const SPLIT = { a: 'game-console', s: 'hdmi-splitter', t: 'screen', c: 'capture-usb-compressed' };
const SPLIT_LEADS = ['a.hdmi > s.in', 's.out-1 > t.hdmi', 's.out-2 > c.hdmi'];
const OPEN = { 'a.copy-protection': 'off' };
const TALL = { ...OPEN, 'a.picture-mode': '3840x2160-60' };
const EDID_1080 = Buffer.from(edid({ extensions: [cta({ vics: [16], hdmi: { mhz: 340, deep: 0 } })] })).toString('hex');

/** Rules about pictures: rule, a rig that triggers it, and one close by that does not. */
export const PICTURE_CASES: readonly [string, Rig, Rig][] = [
  [
    'picture-link-too-slow',
    desk(SPLIT, SPLIT_LEADS, { set: TALL }),
    desk({ ...SPLIT, s: 'hdmi-splitter-powered' }, SPLIT_LEADS, { set: TALL }),
  ],
  [
    'picture-link-too-slow',
    desk({ a: 'game-console', t: 'screen' }, ['a.hdmi > t.hdmi'], { set: { ...TALL, 'a.bits': '10' } }),
    desk({ a: 'game-console', t: 'screen' }, ['a.hdmi > t.hdmi'], { set: TALL }),
  ],
  [
    'picture-mode-too-large',
    desk({ a: 'game-console', t: 'projector' }, ['a.hdmi > t.hdmi'], {
      set: { ...OPEN, 'a.picture-mode': '1920x1080-120' },
    }),
    desk({ a: 'game-console', t: 'projector' }, ['a.hdmi > t.hdmi'], { set: OPEN }),
  ],
  [
    'picture-edid-lacks-mode',
    desk({ a: 'game-console', t: 'screen' }, ['a.hdmi > t.hdmi'], { set: TALL, device: { t: { edid: EDID_1080 } } }),
    desk({ a: 'game-console', t: 'screen' }, ['a.hdmi > t.hdmi'], { set: OPEN, device: { t: { edid: EDID_1080 } } }),
  ],
  [
    'picture-protected-capture',
    desk(SPLIT, SPLIT_LEADS, { set: { 'a.copy-protection': 'on' } }),
    desk(SPLIT, SPLIT_LEADS, { set: OPEN }),
  ],
  [
    'picture-protection-old',
    desk(SPLIT, SPLIT_LEADS, { set: { ...TALL, 'a.copy-protection': 'on' } }),
    desk(SPLIT, SPLIT_LEADS, { set: { 'a.copy-protection': 'on' } }),
  ],
  [
    'picture-sound-format',
    desk({ a: 'game-console', e: 'hdmi-extractor' }, ['a.hdmi > e.in'], { set: { 'a.sound-format': 'surround' } }),
    desk({ a: 'game-console', e: 'screen' }, ['a.hdmi > e.hdmi'], { set: { 'a.sound-format': 'surround' } }),
  ],
  [
    'picture-overlays',
    desk({ k: 'camera-hdmi', c: 'capture-stick' }, ['k.hdmi > c.hdmi'], { set: { 'k.overlays': 'on' } }),
    desk({ k: 'camera-hdmi', c: 'screen' }, ['k.hdmi > c.hdmi'], { set: { 'k.overlays': 'on' } }),
  ],
  [
    'picture-usb-too-slow',
    desk(
      { a: 'game-console', c: 'capture-usb-uncompressed', p: 'computer-desktop' },
      ['a.hdmi > c.hdmi', 'c.usb > p.usb-3'],
      { set: OPEN },
    ),
    desk(
      { a: 'game-console', c: 'capture-usb-uncompressed', p: 'computer-desktop' },
      ['a.hdmi > c.hdmi', 'c.usb > p.usb-1'],
      { set: OPEN },
    ),
  ],
  [
    'picture-lead-too-long',
    desk({ a: 'game-console', t: 'television' }, ['a.hdmi > t.hdmi 4'], {
      set: { ...OPEN, 'a.picture-mode': '3840x2160-120' },
    }),
    desk({ a: 'game-console', t: 'television' }, ['a.hdmi > t.hdmi 4'], { set: TALL }),
  ],
  [
    'picture-passive-split',
    desk({ a: 'game-console', s: 'hdmi-y-lead' }, ['a.hdmi > s.in']),
    desk({ a: 'game-console', s: 'hdmi-splitter' }, ['a.hdmi > s.in']),
  ],
  [
    'picture-weakest-screen',
    desk({ ...SPLIT, s: 'hdmi-splitter-powered', t: 'projector', c: 'television' }, SPLIT_LEADS, { set: TALL }),
    desk({ ...SPLIT, s: 'hdmi-splitter-powered', c: 'television' }, SPLIT_LEADS, { set: TALL }),
  ],
  [
    'picture-rate-not-session',
    desk({ k: 'camera-hdmi', c: 'capture-stick' }, ['k.hdmi > c.hdmi'], { rate: 50 }),
    desk({ k: 'camera-hdmi', c: 'capture-stick' }, ['k.hdmi > c.hdmi'], { rate: 30 }),
  ],
  [
    'picture-fed-by-5-volts',
    desk({ a: 'game-console', s: 'hdmi-splitter' }, ['a.hdmi > s.in 3']),
    desk({ a: 'game-console', s: 'hdmi-splitter' }, ['a.hdmi > s.in 1']),
  ],
  [
    'picture-edid-broken',
    desk({ t: 'screen' }, [], { device: { t: { edid: `ff${EDID_1080.slice(2)}` } } }),
    desk({ t: 'screen' }, [], { device: { t: { edid: EDID_1080 } } }),
  ],
];
