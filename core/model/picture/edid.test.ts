import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { hertz } from '#core/model/units/index.ts';
import { cta, detailed, edid, nameDescriptor } from './edid.testkit.ts';
import {
  type Coding,
  type Edid,
  EdidError,
  edidBytes,
  modeOfVic,
  parseEdid,
  parseMode,
  timingOf,
  whyNot,
} from './index.ts';

const FULL_HD = { clockMhz: 148.5, active: [1920, 1080], total: [2200, 1125] } as const;
const modesOf = (e: Edid) =>
  e.modes.map(
    (m) => `${m.mode.width}x${m.mode.height}@${Number(hertz(m.mode.rate).toFixed(2))}${m.only420 ? ' 4:2:0' : ''}`,
  );
const fine: Coding = { bits: 8, chroma: '4:4:4' };

/** A television: 2160p60 in 4:2:0 only, sound in six channels, an 18 Gbit/s link without deep color. */
const television = () =>
  edid({
    descriptors: [detailed(FULL_HD), nameDescriptor('Boathouse TV')],
    extensions: [
      cta({
        flags: 0x70,
        vics: [0x90, 31, 4, 95, 93, 63],
        sound: [0x09, 0x07, 0x07, 0x15, 0x04, 0x50],
        hdmi: { mhz: 300, deep: 0 },
        only420: [96, 97],
      }),
    ],
  });

describe('an EDID', () => {
  it('says its name, its modes with the preferred one first, its sound and its link', () => {
    const read = parseEdid(television());
    expect(read).toMatchObject({
      name: 'Boathouse TV',
      version: '1.4',
      link: 'tmds-165',
      deepColourBits: [],
      unread: [],
    });
    expect(modesOf(read)).toEqual([
      '1920x1080@60',
      '3840x2160@50 4:2:0',
      '3840x2160@60 4:2:0',
      '1920x1080@50',
      '1280x720@60',
      '3840x2160@30',
      '3840x2160@24',
      '1920x1080@120',
    ]);
    expect(read.sound).toEqual([
      { format: 'PCM', channels: 2, ratesHz: [32_000, 44_100, 48_000], bits: [16, 20, 24] },
      { format: 'AC-3', channels: 6, ratesHz: [48_000], bits: [] },
    ]);
    expect(read.chromas).toEqual(['4:4:4', '4:2:2', '4:2:0']);
    expect(read.modes[0]!.timing).toEqual({
      totalWidth: 2200,
      totalHeight: 1125,
      pixelClockHz: 148_500_000,
      source: 'EDID',
    });
  });
  it.each([
    [{ hdmi: { mhz: 340, deep: 0x30 } }, 'tmds-340', [10, 12]],
    [{ hdmi: { mhz: 340, deep: 0x10 }, forum: { mhz: 600, frl: 0 } }, 'tmds-600', [10]],
    [{ hdmi: { mhz: 340, deep: 0x70 }, forum: { mhz: 600, frl: 3 } }, 'frl-24', [10, 12, 16]],
    [{ forum: { mhz: 600, frl: 6 } }, 'frl-48', []],
    [{}, 'tmds-165', []],
  ] as const)('states a link: %j', (what, link, deep) => {
    expect(parseEdid(edid({ extensions: [cta(what)] }))).toMatchObject({ link, deepColourBits: deep });
  });
  it('of an old screen has the old timings, and no sound', () => {
    const read = parseEdid(
      edid({
        established: [0x21, 0x08, 0],
        standard: [
          [0xb3, 0x00],
          [0x81, 0x40],
          [0xd1, 0xc0],
        ],
      }),
    );
    expect(modesOf(read)).toEqual([
      '640x480@60',
      '800x600@60',
      '1024x768@60',
      '1680x1050@60',
      '1280x960@60',
      '1920x1080@60',
    ]);
    expect(read.sound).toEqual([]);
    expect(read.name).toBeNull();
  });
  it('with basic sound alone takes PCM in two channels', () => {
    expect(parseEdid(edid({ extensions: [cta({ flags: 0x40 })] })).sound).toMatchObject([
      { format: 'PCM', channels: 2 },
    ]);
  });
  it('leaves interlaced modes out, and names extensions that it cannot read', () => {
    const read = parseEdid(
      edid({
        descriptors: [detailed({ ...FULL_HD, interlaced: true })],
        extensions: [
          [0x70, 1],
          cta({
            vics: [5, 20, 16],
            detailed: [detailed({ clockMhz: 241.5, active: [2560, 1440], total: [2720, 1481] })],
          }),
        ],
      }),
    );
    expect(modesOf(read)).toEqual(['1920x1080@60', '2560x1440@59.95']);
    expect(read.unread).toEqual([0x70]);
  });
  it('maps which modes it takes with halved colours', () => {
    const maps = (may420: number[]) => parseEdid(edid({ extensions: [cta({ vics: [16, 97], may420 })] })).chromas;
    expect(maps([0b10])).toContain('4:2:0');
    expect(maps([])).toContain('4:2:0');
    expect(maps([0])).not.toContain('4:2:0');
  });
});

describe('what a device takes', () => {
  const tv = parseEdid(television());
  it.each([
    ['1920x1080@60', fine, null],
    ['1920x1080@59.94', fine, null],
    ['1280x720@60', { bits: 12, chroma: '4:2:2' }, null],
    [
      '2560x1440@60',
      fine,
      { code: 'picture.itsEdidDoesntList', params: { mode: { params: { width: 2560, height: 1440 } } } },
    ],
    ['3840x2160@60', fine, { code: 'picture.itAcceptsInOnly' }],
    ['1920x1080@60', { bits: 10, chroma: '4:4:4' }, { code: 'picture.itDoesntAcceptBits', params: { bits: 10 } }],
    ['1920x1080@120', fine, { params: { need: '10.2 Gbit/s', link: '4.95 Gbit/s' } }],
  ] as const)('%s, %j: %s', (mode, coding, why) => {
    const said = whyNot(tv, parseMode(mode), coding);
    if (why === null) expect(said).toBeNull();
    else expect(said).toMatchObject(why);
  });
});

describe('a damaged EDID', () => {
  const refusal = (bytes: Uint8Array): EdidError => {
    try {
      parseEdid(bytes);
    } catch (error) {
      if (error instanceof EdidError) return error;
      throw error;
    }
    throw new Error('was read');
  };
  it('is refused with the byte: too short, another header, sums that are wrong, blocks that run over', () => {
    const good = television();
    expect(refusal(good.subarray(0, 100))).toMatchObject({ code: 'too-short', byte: 100 });
    expect(refusal(good.subarray(0, 128))).toMatchObject({ code: 'too-short', byte: 128 });
    expect(refusal(Uint8Array.from(good, (b, i) => (i === 3 ? 254 : b)))).toMatchObject({ code: 'no-header', byte: 3 });
    expect(refusal(Uint8Array.from(good, (b, i) => (i === 60 ? b ^ 1 : b)))).toMatchObject({
      code: 'checksum',
      byte: 127,
    });
    expect(refusal(Uint8Array.from(good, (b, i) => (i === 200 ? b ^ 1 : b)))).toMatchObject({
      code: 'checksum',
      byte: 255,
    });
    const over = edid({ extensions: [cta({ raw: [0x5f, 1, 2] })] });
    expect(refusal(over)).toMatchObject({ code: 'bad-block', byte: 132 });
    expect(refusal(over).said).toMatchObject({ params: { byte: 132 } });
  });
  it('never crashes on bytes at random that add up', () => {
    fc.assert(
      fc.property(
        fc.uint8Array({ minLength: 120, maxLength: 120 }),
        fc.uint8Array({ minLength: 126, maxLength: 126 }),
        (a, b) => {
          const bytes = edid({ extensions: [[2, ...b]] });
          bytes.set(a.subarray(0, 100), 8);
          bytes[126] = 1;
          bytes[127] = (512 * 100 - bytes.subarray(0, 127).reduce((s, v) => s + v, 0)) % 256;
          try {
            const read = parseEdid(bytes);
            for (const { mode } of read.modes) expect(mode.width * mode.height).toBeGreaterThan(0);
          } catch (error) {
            expect(error).toBeInstanceOf(EdidError);
          }
        },
      ),
      { numRuns: 300 },
    );
  });
  it('pasted as text is read however it is written, and refused where it is none', () => {
    const bytes = television();
    const hex = [...bytes].map((b) => b.toString(16).padStart(2, '0'));
    expect(edidBytes(hex.join(' '))).toEqual(bytes);
    expect(edidBytes(hex.map((h) => `0x${h.toUpperCase()}`).join(',\n'))).toEqual(bytes);
    expect(edidBytes(hex.join(''))).toEqual(bytes);
    expect(() => edidBytes('00 ff zz')).toThrow(EdidError);
    expect(() => edidBytes('00f')).toThrow('picture.notHexadecimalBytesPaste');
    expect(() => edidBytes('')).toThrow(EdidError);
  });
});

describe('codes of CTA-861', () => {
  it('name modes whose totals are known, each', () => {
    const named = Array.from({ length: 256 }, (_, vic) => modeOfVic(vic)).filter((m) => m !== null);
    expect(named.length).toBeGreaterThan(75);
    for (const mode of named) expect(timingOf(mode).source).toBe('CTA-861');
    expect(modeOfVic(5)).toBeNull();
    expect(modeOfVic(107)).toEqual(modeOfVic(97));
  });
});
