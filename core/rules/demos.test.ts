import { describe, expect, it } from 'vitest';
import { parseRig, type Rig } from '#core/model/rig/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { clayHour } from '#demo/clay-hour.ts';
import { gliderCorner } from '#demo/glider-corner.ts';
import { mothNight } from '#demo/moth-night.ts';
import { quayDeskMixer, quayDeskStraight } from '#demo/quay-desk.ts';
import { quayTalk } from '#demo/quay-talk.ts';
import { skerryNet } from '#demo/skerry-net.ts';
import { check } from './index.ts';

/** What each demo has planted: all of it, and nothing that is not there. Times and levels have stages of their own. */
const PLANTED: readonly (readonly [Rig, readonly string[]])[] = [
  [
    boathouse,
    [
      'picture-link-too-slow:console>splitter/in',
      // Its microphone is shorted, so nothing of the couch comes to its own track.
      'plan-missing:couch>couch-safety',
      'plug-three-in-four:couch-lapel-lead',
      'ground-hum-loop:extractor-line',
      'room-camera-microphone:desk-webcam',
      'plan-unwanted:ilse>ilse',
      'plan-twice:couch-game>stream',
      'plan-twice:couch-game>track-1',
      'room-microphone-far:couch/camera',
      'plan-listener-silent:couch-safety',
      'length-not-careful:camera-usb',
    ],
  ],
  [quayDeskStraight, []],
  [quayDeskMixer, ['ground-hum-loop:microphone-line', 'usb-nobody-listens:microphone-usb']],
  [quayTalk, ['route-one-side:host>recording', 'route-one-side:guest>recording']],
  [
    gliderCorner,
    [
      'moving-lead:display-picture',
      'moving-lead:display-usb',
      'room-poorer-microphone:pilot>ground',
      'call-split-devices:chat',
      'length-not-careful:display-usb',
    ],
  ],
  [clayHour, ['plan-unwanted:pupil>pupil', 'moving-lead:mixer-phones']],
  [
    mothNight,
    [
      'plan-missing:member>hall@questions',
      'plan-missing:member>recorder@questions',
      'exclusive-switched-off:mixer/usb-return',
      'brief-two-way:all',
      // Two hall speakers, in step 6 dB over one of them: 15 dB down, and nearer than it aims at.
      'loop-howls:loudspeakers+mixer+table-1',
      'plan-source-nowhere:member',
    ],
  ],
  [
    skerryNet,
    [
      // Keying and log lead of each radio are one ring: either of them breaks it.
      'ground-hum-loop:radio-a-log',
      'ground-hum-loop:radio-b-log',
    ],
  ],
];

describe.each(PLANTED.map(([rig, ids]) => [rig.name, rig, ids] as const))('%s', (_, demo, ids) => {
  const rig = parseRig(JSON.parse(JSON.stringify(demo)));
  it('has every planted fault found, and no other', () => {
    expect(
      check(rig)
        .filter((f) => f.stage !== 'sync' && f.stage !== 'level')
        .map((f) => f.id),
    ).toEqual(ids);
  });
  it('reaches every listener with all that its plan wants', () => {
    const missing = check(rig).filter((f) => f.rule === 'plan-missing');
    expect(missing.filter((f) => !ids.includes(f.id))).toEqual([]);
  });
});
