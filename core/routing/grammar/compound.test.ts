import { describe, expect, it } from 'vitest';
import { findTypes } from '#core/model/rig/index.ts';
import { isNamedAgain, readChains, readMention } from './index.ts';

const TYPES = findTypes({ types: [] });
const itemOf = (text: string) => readChains(text, TYPES, () => null)[0]![0]!.items[0]!;

describe('a name of two things', () => {
  const read = (text: string, fits: Parameters<typeof readChains>[2] = () => 1) =>
    readChains(text, TYPES, fits).map((chain) =>
      chain.map((h) => h.items.map((i) => i.mention.type?.id ?? '?').join()),
    );
  it('is the last of them, and belongs to the first', () => {
    expect(read('laptop headphones')).toEqual([['headphones'], ['computer-laptop', 'headphones']]);
    expect(read('guitar amp mic')).toEqual([['microphone-dynamic'], ['guitar-amp', 'microphone-dynamic']]);
    expect(read('livestream encoder pc')).toEqual([['computer-desktop'], ['capture-program', 'computer-desktop']]);
  });
  it('stays one where it is a name, or where nothing joins the two', () => {
    for (const one of ['gaming pc', 'usb mic', 'hdmi splitter', 'camera mic', 'pc game', 'headset mic'])
      expect(read(one)).toHaveLength(1);
    expect(read('laptop headphones', () => null)).toHaveLength(1);
  });
  it('is never a word out of the middle of a name, nor what its words deny', () => {
    expect(readMention('own track', TYPES).type).toBeNull();
    expect(readMention('camera software', TYPES).type?.id).not.toBe('camera-hdmi');
    expect(readMention('booth mic', TYPES)).toMatchObject({ count: 1, type: { id: 'microphone-dynamic' } });
  });
  it('with unknown words before it is what it ends in, and those are told', () => {
    expect(readMention('quirky style meeting', TYPES)).toMatchObject({
      type: { id: 'call' },
      left: ['quirky', 'style'],
      doubt: 'words',
    });
    expect(readMention('three odd quaint wobbly mixers', TYPES).doubt).toBe('unknown');
  });
});

describe('what is named again', () => {
  it.each([
    ['digital mixer', 'mixer'],
    ['mixer', 'small usb mixer'],
    ['capture card 4k', 'capture card'],
    ['mixer with two usb', 'mixer'],
  ])('%s is %s', (a, b) => expect(isNamedAgain(itemOf(a), itemOf(b))).toBe(true));
  it.each([
    ['guitar', 'guitar amp'],
    ['usb mic', 'xlr mic'],
    ['tv', 'pc'],
  ])('%s is not %s', (a, b) => expect(isNamedAgain(itemOf(a), itemOf(b))).toBe(false));
});

describe('everyone', () => {
  it('is nobody in particular, by whatever word', () => {
    for (const word of ['everyone', 'everybody', 'each other', 'all of us'])
      expect(readMention(word, TYPES)).toMatchObject({ everyone: true, doubt: 'none' });
    expect(readMention('two guests', TYPES).everyone).toBe(false);
  });
  it('and each are kept with what they have', () => {
    const [chain] = readChains('four hosts each with a mic and headphones', TYPES, () => 1);
    expect(chain![1]).toMatchObject({ each: true });
    expect(chain![1]!.items).toHaveLength(2);
  });
});
