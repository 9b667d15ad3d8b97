import { describe, expect, it } from 'vitest';
import { emptyRig } from '#core/model/rig/index.ts';
import { readTyped } from './index.ts';

const read = (text: string) => readTyped(emptyRig('x'), text, { levels: false });
const typesIn = (text: string) => read(text).rig.devices.map((d) => d.typeId);
const leadsIn = (text: string) =>
  read(text)
    .rig.cables.filter((c) => c.medium !== 'air')
    .map((c) => `${c.from.deviceId}.${c.from.portId} > ${c.to.deviceId}.${c.to.portId}`);

describe('which of the types that its words allow something is', () => {
  it.each([
    ['mic > interface', 'microphone-dynamic'],
    ['mic > pc', 'microphone-usb'],
    ['laptop, mic, headphones, video call', 'microphone-usb'],
    ['mixer, mic, laptop', 'microphone-dynamic'],
    ['headset > mixer', 'headset-xlr'],
    ['dslr with shotgun mic > capture > pc', 'microphone-camera-top'],
    ['lav mic > phone', 'phone-call'],
    ['3 consoles > hdmi switch with extractor > tv', 'hdmi-switch-3-extractor'],
    ['console > hdmi switch > tv; console > hdmi switch', 'hdmi-switch'],
    ['shotgun mic > camera', 'microphone-camera-top'],
    ['pc > monitors', 'screen-with-jack'],
    ['interface > monitors', 'loudspeakers-active'],
    ['interface > laptop > recorder', 'recording-program'],
    ['mixer > recorder', 'recorder-stereo'],
    ['digital piano > interface; mic > interface', 'interface-4'],
    ['lav > wireless transmitter > receiver > camera', 'radio-base-camera'],
  ])('%s: %s', (text, typeId) => expect(typesIn(text)).toContain(typeId));
  it('is the same wherever it is named, and another one where it cannot stand', () => {
    expect(typesIn('headset mic > digital mixer; mixer > pc').filter((t) => t.startsWith('mixer'))).toEqual([
      'mixer-usb-10',
    ]);
    const two = typesIn('usb mic > pc; mic > interface').filter((t) => t.startsWith('microphone'));
    expect(two.sort()).toEqual(['microphone-dynamic', 'microphone-usb']);
  });
});

describe('what is counted', () => {
  it('is as many as there are people, where each or everyone has it', () => {
    const each = read('four hosts each with a mic and headphones, all into a podcast mixer');
    const count = (typeId: string, { rig } = each) => rig.devices.filter((d) => d.typeId === typeId).length;
    expect([count('person'), count('microphone-dynamic'), count('headphones')]).toEqual([4, 4, 4]);
    for (const id of ['mic-1', 'mic-2', 'mic-3', 'mic-4'])
      expect(each.rig.cables.filter((c) => c.from.deviceId === id)).toHaveLength(1);
    const all = read('host and two guests > 3 mics > podcast mixer; headphones for everyone');
    expect(count('headphones', all)).toBe(3);
    expect(all.rig.cables.filter((c) => c.from.deviceId.startsWith('headphones') && c.medium === 'air')).toHaveLength(
      3,
    );
  });
  it('is named later, one after the other', () => {
    const { rig } = read('two pcs; gaming pc > capture card > stream pc');
    expect(rig.devices.filter((d) => d.typeId === 'computer-desktop').map((d) => d.name)).toEqual([
      'Gaming PC',
      'Stream PC',
    ]);
  });
});

describe('the way', () => {
  it('goes by the socket that was named, even if it runs the other way then', () => {
    expect(leadsIn('console > capture card > pc; tv > capture card loop')).toContain('capture-card.through > tv.hdmi');
    expect(read('console > capture card > pc; tv > capture card loop').noSocket).toEqual([]);
  });
  it('leads from each output that something comes to, to an input of its own', () => {
    const leads = leadsIn('2 wireless mics > dual receiver > mixer');
    expect(leads.filter((l) => l.startsWith('dual-receiver'))).toEqual([
      'dual-receiver.out-1 > mixer.strip-1',
      'dual-receiver.out-2 > mixer.strip-2',
    ]);
    expect(leadsIn('wireless mic > dual receiver > mixer').filter((l) => l.startsWith('dual-receiver'))).toHaveLength(
      1,
    );
  });
  it('is no second cable in a USB socket, and no microphone jack of a computer for a studio mic', () => {
    const usb = leadsIn('mixer > laptop; phone on a call > mixer');
    expect(usb.filter((l) => l.startsWith('mixer.usb >'))).toHaveLength(1);
    expect(leadsIn('xlr mic > interface > pc')).toContain('xlr-mic.xlr > interface.in-1');
  });
});
