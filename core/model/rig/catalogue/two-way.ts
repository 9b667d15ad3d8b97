import type { DeviceType } from '#core/model/rig/schema-type.ts';
import {
  battery,
  gain,
  gainSetting,
  hears,
  input,
  latency,
  levelSetting,
  mains,
  mono,
  muteSetting,
  noise,
  output,
  sounds,
  switchSetting,
  toAnalogue,
  toDigital,
  typicalMs,
  unmuted,
  unpowered,
  way,
  when,
} from './parts.ts';

const KEYING = { receive: 'receive', send: 'send' };
const SPEECH = { do: 'band' as const, lowHz: 300, highHz: 3000 };
const LICENCE = 'a licence, and a dummy load for tests';

/** A radio that sends or receives, never both; its air is a digital scale that others of the kind read alike. */
function radio(
  id: string,
  name: string,
  summary: string,
  more: Pick<DeviceType, 'power' | 'priceEur'>,
  deskSockets: boolean,
): DeviceType {
  return {
    id,
    name,
    family: 'two-way',
    shows: { levels: 'in-programs' },
    summary,
    ...more,
    needs: [LICENCE],
    exclusive: [{ ports: ['air-in', 'air-out'], severity: 'watch', says: 'A radio that is sending does not receive.' }],
    ports: [
      input('microphone', 'microphone socket', deskSockets ? 'pins-8' : 'jack-25-trs', 'microphone', mono, {
        gives: { kind: 'plug-in', milliamps: 2 },
      }),
      ...(deskSockets ? [] : [hears('own', 'own microphone')]),
      input('air-in', 'received', 'radio', 'digital', mono),
      output('air-out', 'sent', 'radio', 'digital', mono, { does: 'on-air' }),
      output('speaker', 'speaker socket', deskSockets ? 'jack-35-ts' : 'jack-35-trs', 'speaker', mono),
      ...(deskSockets ? [output('line-out', 'line out', 'jack-35-trs', 'line' as const, mono)] : []),
      sounds('front', 'loudspeaker', mono, 0.5),
    ],
    settings: [
      switchSetting('key', 'Keying', KEYING, 'receive', 'keying'),
      gainSetting('microphone-gain', 'Microphone gain', [0, 20, 40]),
      levelSetting('volume', 'Volume', -20, 0),
      ...(deskSockets ? [muteSetting('voice-key', 'Voice keying off', true, 'no-voice-keying')] : []),
    ],
    figures: {
      receive: typicalMs('radio, air to its outputs', 5, 20, 80),
      send: typicalMs('radio, microphone to the air', 5, 20, 80),
    },
    inside: [
      way(
        'microphone.mono',
        'air-out.mono',
        when('key', 'send'),
        noise(-112),
        gain('microphone-gain'),
        SPEECH,
        toDigital([-20, -16, -12]),
        latency('send'),
      ),
      ...(deskSockets
        ? []
        : [
            way(
              'own.mono',
              'air-out.mono',
              when('key', 'send'),
              { do: 'hear', sensitivityDbvPerPa: [-48, -42, -36] },
              noise(-112),
              gain('microphone-gain'),
              SPEECH,
              toDigital([-20, -16, -12]),
              latency('send'),
            ),
          ]),
      ...(deskSockets
        ? [
            way(
              'microphone.mono',
              'air-out.mono',
              unmuted('voice-key'),
              noise(-112),
              gain('microphone-gain'),
              SPEECH,
              toDigital([-20, -16, -12]),
              latency('send'),
            ),
            way(
              'air-in.mono',
              'line-out.mono',
              when('key', 'receive'),
              latency('receive'),
              SPEECH,
              toAnalogue([-4, 0, 4]),
              noise(-75),
            ),
          ]
        : []),
      way(
        'air-in.mono',
        'speaker.mono',
        when('key', 'receive'),
        latency('receive'),
        SPEECH,
        toAnalogue([8, 12, 16]),
        gain('volume'),
        noise(-60),
      ),
      way(
        'air-in.mono',
        'front.mono',
        when('key', 'receive'),
        latency('receive'),
        SPEECH,
        toAnalogue([8, 12, 16]),
        gain('volume'),
        { do: 'radiate', splAt0Dbu: [70, 76, 82] },
      ),
    ],
  };
}

export const twoWay: DeviceType[] = [
  radio(
    'two-way-radio',
    'Two-way radio, at the desk',
    'Pin-wired microphone socket, speaker socket and line out, a keying line, keyed by voice if one needs.',
    { power: mains, priceEur: [150, 600] },
    true,
  ),
  radio(
    'two-way-handheld',
    'Two-way radio, handheld',
    'Press to talk; one small headset socket.',
    { power: battery(9), priceEur: [40, 250] },
    false,
  ),
  {
    id: 'keying-box',
    name: 'Keying box, one microphone to two radios',
    family: 'two-way',
    shows: { levels: 'in-programs' },
    summary: 'A pedal or a switch sends one microphone to radio A, to radio B, or to none, and keys the same one.',
    power: unpowered,
    priceEur: [60, 220],
    ports: [
      input('microphone', 'microphone', 'combo-xlr', 'microphone', mono),
      output('radio-a', 'to radio A', 'pins-8', 'microphone', mono),
      output('radio-b', 'to radio B', 'pins-8', 'microphone', mono),
      output('through', 'microphone, passed on', 'xlr-male', 'microphone', mono),
    ],
    settings: [switchSetting('key', 'Keying', { none: 'none', a: 'radio A', b: 'radio B' }, 'none', 'keying')],
    figures: {},
    inside: [
      way('microphone.mono', 'radio-a.mono', when('key', 'a')),
      way('microphone.mono', 'radio-b.mono', when('key', 'b')),
      way('microphone.mono', 'through.mono'),
    ],
  },
  {
    id: 'headset-two-radios',
    name: 'Headset for two radios, one on each ear',
    family: 'two-way',
    shows: { levels: 'in-programs' },
    summary: 'The left ear hears radio A, the right ear radio B; one boom microphone.',
    power: unpowered,
    priceEur: [60, 300],
    ports: [
      input('left', 'left ear', 'plug-635-trs', 'headphone', mono),
      input('right', 'right ear', 'plug-635-trs', 'headphone', mono),
      {
        ...sounds(
          'ears',
          'earphones',
          [
            { id: 'left', carries: 'sound' },
            { id: 'right', carries: 'sound' },
          ],
          0.01,
        ),
        does: 'ears',
      },
      hears('boom', 'boom microphone'),
      output('microphone', 'microphone', 'xlr-male', 'microphone', mono),
    ],
    settings: [],
    figures: {},
    inside: [
      way('left.mono', 'ears.left', { do: 'radiate', splAt0Dbu: [98, 104, 110] }),
      way('right.mono', 'ears.right', { do: 'radiate', splAt0Dbu: [98, 104, 110] }),
      way('boom.mono', 'microphone.mono', { do: 'hear', sensitivityDbvPerPa: [-58, -55, -52] }, noise(-131)),
    ],
  },
];
