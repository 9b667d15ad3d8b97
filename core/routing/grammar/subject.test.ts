import { describe, expect, it } from 'vitest';
import { emptyRig, findTypes } from '#core/model/rig/index.ts';
import { fitsAmong, readTyped } from '#core/routing/wiring/index.ts';
import { readChains } from './index.ts';

const types = findTypes(emptyRig('Desk'));
const fits = fitsAmong(types);
/** Chains as 'interface/mic, interface>laptop': `/` for what is named with something. */
const chainsOf = (text: string): string[] =>
  readChains(text, types, fits).map((chain) =>
    chain
      .map(({ joint, items }) => {
        const sign = joint === 'to' ? '>' : joint === 'from' ? '<' : joint === 'either' ? '/' : '';
        return sign + items.map((i) => i.mention.text.toLowerCase() + (i.socket ? `#${i.socket}` : '')).join('+');
      })
      .join(''),
  );
const leadsOf = (text: string): string[] => {
  const { rig } = readTyped(emptyRig('Desk'), text);
  const name = (id: string) => rig.devices.find((d) => d.id === id)!.name;
  return [
    ...new Set(
      rig.cables.filter((c) => c.medium === 'lead').map((c) => `${name(c.from.deviceId)} > ${name(c.to.deviceId)}`),
    ),
  ].sort();
};

describe('what is said of a thing that has others with it', () => {
  it('goes on from the thing, where the others only lead to it', () => {
    expect(chainsOf('interface with xlr mic into laptop')).toEqual(['interface/xlr mic', 'interface>laptop']);
    expect(leadsOf('interface with xlr mic and headphones into laptop')).toEqual(
      ['Interface > Headphones', 'Interface > Laptop', 'Laptop > Interface', 'XLR mic > Interface'].sort(),
    );
  });
  it('comes to the thing, where the others only come from it', () => {
    expect(chainsOf('headphone amp with 2 headphones from the mixer')).toEqual([
      'headphone amp/headphones',
      'headphone amp<mixer',
    ]);
    expect(leadsOf('capture card in the streaming pc gets hdmi from the gaming pc')).toEqual([
      'Capture card > Streaming PC',
      'Gaming PC > Capture card',
    ]);
  });
  it('goes on from the others, where they lead on', () => {
    expect(chainsOf('guitar with a pedal into an amp')).toEqual(['guitar/pedal>amp']);
    expect(chainsOf('host with a mic into the mixer')).toEqual(['host/mic>mixer']);
  });
  it('is said of a call, and not of who is on it', () => {
    expect(chainsOf('video call with a friend on the laptop')).toEqual(['video call/friend', 'video call/laptop']);
  });
});

describe('a socket that is named for itself', () => {
  it('is one of what has it, and takes nothing but what was said to go there', () => {
    expect(chainsOf('console > tv; headset on the controller')).toEqual(['console>tv', 'headset/console#controller']);
    expect(chainsOf('console, tv, headset on the controller')).toEqual(['console+tv', 'headset/console#controller']);
  });
  it('is a thing of its own where nothing has it', () => {
    expect(chainsOf('pc, controller')).toEqual(['pc+controller']);
  });
  it('by which something is plugged belongs to what stands before', () => {
    expect(chainsOf('tv, soundbar via optical, console')).toEqual(['tv+soundbar#optical+console']);
  });
});

describe('one way for several things', () => {
  it('is said again behind an and', () => {
    expect(chainsOf('mixer to the speakers and to the laptop')).toEqual(['mixer>speakers+laptop']);
    expect(chainsOf('console into a capture card, then into the pc')).toEqual(['console>capture card>pc']);
  });
  it('is taken by those of a list that have a place there', () => {
    expect(chainsOf('usb headset, xlr mic on the interface')).toEqual(['usb headset', 'xlr mic/interface']);
    expect(chainsOf('webcam and headset on the laptop')).toEqual(['webcam+headset/laptop']);
  });
  it('is none where a number of sockets is meant', () => {
    expect(chainsOf('5 mics into an interface with 8 inputs into the pc')).toEqual(['mics>interface with 8 inputs>pc']);
  });
  it('is no matter of where people sit', () => {
    expect(chainsOf('five people round a table with a mic into a recorder')).toEqual(['people/mic>recorder']);
  });
});

describe('several people', () => {
  const countOf = (text: string, word: RegExp) =>
    readTyped(emptyRig('Desk'), text).rig.devices.filter((d) => word.test(d.name)).length;
  it('have one each of what nobody counted', () => {
    expect(countOf('four hosts with mics into a mixer', /^Mic/)).toBe(4);
    expect(countOf('three guests with headphones', /^Headphones/)).toBe(3);
    expect(countOf('three guests with a mic into a mixer', /^Mic/)).toBe(1);
    expect(countOf('three guests with 2 mics into a mixer', /^Mic/)).toBe(2);
  });
  it('are all meant by a word for all of them', () => {
    expect(countOf('2 hosts with mics into a mixer, all on headphones from the mixer', /^Headphones/)).toBe(2);
  });
  it('are as many as were named: what somebody does is no plural', () => {
    expect(countOf('my friend joins on a call', /^Friend/i)).toBe(1);
  });
  it('find a mixer with inputs for all of their mics', () => {
    for (const n of [2, 3, 4, 6, 8]) {
      const { rig } = readTyped(emptyRig('Desk'), `${n} mics > mixer > laptop`);
      const taken = rig.cables.filter((c) => c.from.portId === 'xlr').map((c) => c.to.portId);
      expect(new Set(taken).size, `${n} mics`).toBe(n);
    }
  });
});
