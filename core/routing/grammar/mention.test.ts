import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { findTypes } from '#core/model/rig/index.ts';
import { readMention } from './index.ts';
import { oneApart, singular, tokensOf } from './tokens.ts';

const TYPES = findTypes({ types: [] });

/** As people on both sides of the ocean say it: what it is, and how many. */
const SAID: [said: string, typeId: string, count?: number][] = [
  ['me', 'person'],
  ['my co-host', 'person'],
  ['two guests', 'person', 2],
  ['the singer', 'person'],
  ['4 players', 'person', 4],
  ['both hosts', 'person', 2],
  ['the audience', 'audience'],
  ['game console', 'game-console'],
  ['2 games consoles', 'game-console', 2],
  ['handheld console', 'game-console-portable'],
  ['my old console', 'game-console-old'],
  ['hdmi splitter', 'hdmi-splitter'],
  ['powered hdmi splitter', 'hdmi-splitter-powered'],
  ['hdmi switch', 'hdmi-switch'],
  ['2 in hdmi switch', 'hdmi-switch'],
  ['hdmi y lead', 'hdmi-y-lead'],
  ['hdmi audio extractor', 'hdmi-extractor'],
  ['audio de-embedder', 'hdmi-extractor'],
  ['capture card', 'capture-usb-compressed'],
  ['usb capture card', 'capture-usb-compressed'],
  ['internal capture card', 'capture-card'],
  ['cheap hdmi dongle', 'capture-stick'],
  ['gaming monitor', 'screen-with-jack'],
  ['monitor with speakers', 'screen-loudspeakers'],
  ['the telly', 'television'],
  ['big tv', 'television'],
  ['beamer', 'projector'],
  ['mirrorless camera', 'camera-hdmi'],
  ['DSLR', 'camera-hdmi'],
  ['camcorder', 'camera-hdmi'],
  ['action cam', 'camera-action'],
  ['web cam', 'webcam'],
  ['usb webcam', 'webcam'],
  ['pc', 'computer-desktop'],
  ['gaming PC', 'computer-desktop'],
  ['streaming pc', 'computer-desktop'],
  ['my laptop', 'computer-laptop'],
  ['notebook', 'computer-laptop'],
  ['cell phone', 'phone'],
  ['mobile', 'phone'],
  ['phone without headphone jack', 'phone-usb-c'],
  ['tablet', 'tablet'],
  ['mic', 'microphone-dynamic'],
  ['kick mic', 'microphone-dynamic'],
  ['overheads', 'microphone-condenser', 2],
  ['turntables x2', 'turntable', 2],
  ['record player', 'turntable'],
  ['bass di', 'di-box'],
  ['camera full', 'camera-hdmi-full'],
  ['mixer digital ten', 'mixer-usb-10'],
  ['recorder hand', 'recorder-handheld'],
  ['guitar amp', 'guitar-amp'],
  ['pedalboard', 'effects-pedal'],
  ['upscaler', 'video-scaler'],
  ['preamp', 'preamp-microphone'],
  ['sd card recorder', 'recorder-stereo'],
  ['stage wedge', 'loudspeakers-active'],
  ['16 channel mixer', 'mixer-usb-multitrack-12'],
  ['XLR mic', 'microphone-dynamic'],
  ['two xlr mics', 'microphone-dynamic', 2],
  ['dynamic microphone', 'microphone-dynamic'],
  ['moving coil mic', 'microphone-dynamic'],
  ['3 vocal mics', 'microphone-dynamic', 3],
  ['condenser mic', 'microphone-condenser'],
  ['large-diaphragm condenser', 'microphone-condenser'],
  ['shotgun mic', 'microphone-condenser'],
  ['ribbon mic', 'microphone-ribbon'],
  ['lav mic', 'lapel-wired'],
  ['lapel mic', 'lapel-wired'],
  ['clip-on mic', 'lapel-wired'],
  ['on-camera mic', 'microphone-camera-top'],
  ['usb mic', 'microphone-usb'],
  ['USB condenser mic', 'microphone-usb'],
  ['wireless mic', 'radio-handheld'],
  ['radio microphone', 'radio-handheld'],
  ['two handheld wireless mics', 'radio-handheld', 2],
  ['bodypack', 'radio-pack'],
  ['wireless receiver', 'radio-base'],
  ['dual wireless lav set', 'radio-set-camera'],
  ['audio interface', 'interface-2'],
  ['usb audio interface', 'interface-2'],
  ['external sound card', 'interface-2'],
  ['4 channel interface', 'interface-4'],
  ['eight input interface', 'interface-8'],
  ['mixer', 'mixer-usb-send'],
  ['small usb mixer', 'mixer-usb-send'],
  ['mixing desk', 'mixer-usb-send'],
  ['sound board', 'mixer-usb-send'],
  ['analogue mixer', 'mixer-analogue'],
  ['digital mixer', 'mixer-usb-10'],
  ['matrix mixer', 'mixer-matrix'],
  ['field recorder', 'recorder-handheld'],
  ['8 track recorder', 'recorder-multitrack'],
  ['multitrack recorder', 'recorder-multitrack'],
  ['usb dac', 'usb-to-line'],
  ['bluetooth receiver', 'bluetooth-to-line'],
  ['optical converter', 'optical-to-line'],
  ['ground loop isolator', 'isolator-line'],
  ['hum eliminator', 'isolator-line'],
  ['DI', 'di-box'],
  ['2 direct boxes', 'di-box', 2],
  ['headphone amp', 'headphone-splitter-box'],
  ['headset', 'headset-usb'],
  ['USB headset', 'headset-usb'],
  ['gaming headset', 'headset-usb'],
  ['bluetooth headset', 'headset-bluetooth'],
  ['wireless gaming headset', 'headset-radio'],
  ['wired headset', 'headset-four-contact'],
  ['headphones', 'headphones'],
  ['two pairs of headphones', 'headphones', 2],
  ['closed-back headphones', 'headphones'],
  ['in-ears', 'earphones'],
  ['earbuds', 'headset-bluetooth'],
  ['vr headset', 'head-worn-display'],
  ['speakers', 'loudspeakers-active'],
  ['a pair of studio monitors', 'loudspeakers-active'],
  ['pa speakers', 'loudspeakers-active'],
  ['pc speakers', 'loudspeakers-desk'],
  ['bluetooth speaker', 'loudspeaker-bluetooth'],
  ['power amp', 'amplifier'],
  ['speakerphone', 'conference-loudspeaker'],
  ['walkie-talkie', 'two-way-handheld'],
  ['3 walkie talkies', 'two-way-handheld', 3],
  ['ham radio', 'two-way-radio'],
  ['usb hub', 'usb-hub'],
  ['powered usb hub', 'usb-hub-powered'],
  ['power strip', 'power-strip'],
  ['extension lead', 'power-strip'],
  ['pc game', 'game-program'],
  ['streaming software', 'capture-program'],
  ['the stream', 'capture-program'],
  ['video call', 'call'],
  ['voice chat', 'call'],
  ['online meeting', 'call'],
  ['virtual audio cable', 'virtual-cable'],
  ['recording software', 'recording-program'],
  ['daw', 'recording-program'],
  ['background music', 'music-player'],
  ['music app', 'music-player'],
  ['noise filter', 'program-filter'],
];

describe('what people call things', () => {
  it.each(SAID.map(([said, typeId, count = 1]) => [said, typeId, count] as const))('%s', (said, typeId, count) => {
    const mention = readMention(said, TYPES);
    expect({ type: mention.type?.id, count: mention.count, left: mention.left }).toEqual({
      type: typeId,
      count,
      left: [],
    });
  });
  it.each(SAID.filter(([said]) => said.length > 6).map(([said, typeId]) => [said, typeId] as const))(
    '%s, with one letter wrong',
    (said, typeId) => {
      const at = said.search(/[a-z]{6,}/);
      if (at < 0) return;
      // Two letters of its longest word have changed places, the commonest slip of a hand.
      const slipped = `${said.slice(0, at + 2)}${said[at + 3]}${said[at + 2]}${said.slice(at + 4)}`;
      expect(readMention(slipped, TYPES).type?.id).toBe(typeId);
    },
  );
  it('drops no word in silence: what was not understood is told, and what it may be instead', () => {
    expect(readMention('teapot', TYPES)).toMatchObject({ type: null, doubt: 'unknown', left: ['teapot'] });
    expect(readMention('', TYPES)).toMatchObject({ type: null, doubt: 'unknown' });
    expect(readMention('turquoise usb mixer', TYPES)).toMatchObject({ doubt: 'words', left: ['turquoise'] });
    // There is none with so many inputs: the nearest, and a doubt.
    expect(readMention('9 in hdmi switch', TYPES)).toMatchObject({ count: 1, doubt: 'words', left: ['9 in'] });
    expect(readMention('3 in hdmi switch', TYPES)).toMatchObject({ type: { id: 'hdmi-switch-3' }, left: [] });
    expect(readMention('interface one', TYPES).others.length).toBeGreaterThan(0);
    const words = fc.array(
      fc.constantFrom('usb', 'mic', 'blue', 'two', 'x', 'mixer', 'my', 'of', 'plinth', '4', 'channel'),
      {
        minLength: 1,
        maxLength: 6,
      },
    );
    fc.assert(
      fc.property(words, (list) => {
        const { left, type, doubt } = readMention(list.join(' '), TYPES);
        for (const odd of ['blue', 'plinth'] as const) if (list.includes(odd)) expect(left).toContain(odd);
        if (left.length > 0 || type === null) expect(doubt).not.toBe('none');
      }),
    );
  });
  it('compares words of both spellings, singular, without accents', () => {
    expect(tokensOf('Analogue  mixers, the host’s Café-mics 3.5mm')).toEqual([
      'analog',
      'mixer',
      'the',
      'host',
      'cafe',
      'mic',
      '3.5',
      'mm',
    ]);
    expect(['switches', 'boxes', 'batteries', 'bus', 'glass', 'speakers'].map(singular)).toEqual([
      'switch',
      'box',
      'battery',
      'bus',
      'glass',
      'speaker',
    ]);
    expect(oneApart('mixer', 'miexr')).toBe(true);
    expect(oneApart('mixer', 'mixr')).toBe(true);
    expect(oneApart('mixer', 'mixxer')).toBe(true);
    expect(oneApart('mixer', 'fixed')).toBe(false);
  });
});
