import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { findTypes } from '#core/model/rig/index.ts';
import { readChains, titleOf } from './index.ts';
import { lexemesOf } from './lexer.ts';

const TYPES = findTypes({ types: [] });
/** A chain as text: joints, items with their numbers, sockets after '@'. */
const read = (text: string, fits: Parameters<typeof readChains>[2] = () => 1): string[] =>
  readChains(text, TYPES, fits).map((chain) =>
    chain
      .map(({ joint, items }) => {
        const said = items.map(
          ({ mention, socket, name }) =>
            `${mention.count > 1 ? `${mention.count} ` : ''}${mention.text || name}${socket ? `@${socket}` : ''}`,
        );
        return `${joint ? `${joint} ` : ''}${said.join(' + ')}`;
      })
      .join(' | '),
  );

describe('chains', () => {
  it.each([
    ['console > capture > pc', ['console | to capture | to pc']],
    ['console -> capture => pc → stream', ['console | to capture | to pc | to stream']],
    ['tv <- console', ['tv | from console']],
    ['mic goes straight into the mixer', ['mic | to mixer']],
    ['headphones fed by the mixer', ['headphones | from mixer']],
    ['usb mic on my laptop with a streaming app', ['usb mic | either laptop | either streaming app']],
    ['mic and phone > mixer', ['mic + phone | to mixer']],
    ['My mic goes into an interface, which is plugged into the laptop.', ['mic | to interface | to laptop']],
    ['hdmi to usb dongle on the laptop', ['hdmi to usb dongle | either laptop']],
    ['mixer > usb > pc', ['mixer | to pc@usb']],
    [
      'phone > mixer aux in; mixer main out > interface in 3/4',
      ['phone | to mixer@aux in', 'mixer@main out | to interface@in 3/4'],
    ],
    ['mixer out > pc line in', ['mixer@out | to pc@line in']],
    ['mixer usb to the laptop', ['mixer@usb | to laptop']],
    ['tv < capture card loop', ['tv | from capture card@loop']],
    ['soundbar optical from tv', ['soundbar@optical | from tv']],
    ['mixer recording to the laptop', ['mixer | to laptop']],
    ['rca to usb > pc', ['rca to usb | to pc']],
    ['turntables x2 > dj mixer', ['2 turntables | to dj mixer']],
    ['phone without headphone jack > mixer', ['phone without headphone jack | to mixer']],
    ['mics > mixer, mixer > laptop', ['2 mics | to mixer', 'mixer | to laptop']],
    ['mic, wireless mic > mixer', ['mic + wireless mic | to mixer']],
    ['laptop headphones > mixer', ['laptop headphones | to mixer', 'laptop | either laptop headphones']],
    ['usb headset in the laptop', ['usb headset | either laptop']],
    ['3 in hdmi switch, 2 out splitter', ['3 in hdmi switch + 2 out splitter']],
    ['laptop "Old Bess" > mixer', ['laptop | to mixer']],
    ['Church: 3 vocal mics > digital mixer', ['3 vocal mics | to digital mixer']],
    ['mic > interface\nwebcam; phone', ['mic | to interface', 'webcam', 'phone']],
    ['> > ; , and', []],
  ])('%s', (text, chains) => expect(read(text)).toEqual(chains));
  it('after a comma are one more of the list, the next hop, or a chain of their own, by what is plugged to what', () => {
    const plugged = new Set([
      'game-console>hdmi-splitter',
      'hdmi-splitter>television',
      'hdmi-splitter>capture-usb-compressed',
      'mixer-usb-send>loudspeakers-active',
      'microphone-dynamic>mixer-usb-send',
    ]);
    const fits = (a: { id: string }, b: { id: string }) => (plugged.has(`${a.id}>${b.id}`) ? 1 : null);
    expect(read('console > splitter > tv, capture card', fits)).toEqual([
      'console | to splitter | to tv + capture card',
    ]);
    expect(read('mic > mixer, pa speakers', fits)).toEqual(['mic | to mixer | to pa speakers']);
    expect(read('console > splitter > tv, mic > mixer', fits)).toEqual([
      'console | to splitter | to tv',
      'mic | to mixer',
    ]);
  });
  it('tell where each thing stands in the text, and lose no word of it', () => {
    const word = fc.constantFrom(...'console mic > , ; into and the teapot (gaming) "Bess" 2 pc. usb'.split(' '));
    fc.assert(
      fc.property(fc.array(word, { maxLength: 14 }), (words) => {
        const text = words.join(' ');
        for (const { kind, text: piece, from, to } of lexemesOf(text)) {
          expect(text.slice(from, to)).toBe(piece);
          if (kind === 'word') expect(piece).toMatch(/[\p{L}\p{N}]/u);
        }
        const items = readChains(text, TYPES, () => 1).flatMap((c) => c.flatMap((h) => h.items));
        for (const odd of ['teapot', 'console'])
          if (words.includes(odd)) expect(items.some((i) => i.text.includes(odd))).toBe(true);
      }),
    );
  });
  it('leave a title to the rig', () => {
    expect(titleOf('Two person podcast: 2 mics > mixer')).toBe('Two person podcast');
    expect(titleOf('mic > mixer')).toBeNull();
    expect(titleOf('console > pc: mic')).toBeNull();
  });
});
