import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { hertz } from '#core/model/units/index.ts';
import {
  type Chroma,
  isEnough,
  LINKS,
  linkName,
  modeName,
  needOf,
  PictureError,
  parseChroma,
  parseMode,
  timingOf,
  usbVideoGbps,
} from './index.ts';

const need = (mode: string, bits = 8, chroma: Chroma = '4:4:4') => needOf(parseMode(mode), { bits, chroma });
const clockMhz = (mode: string) => timingOf(parseMode(mode)).pixelClockHz / 1e6;

describe('picture modes', () => {
  it.each([
    // Pixel clocks in MHz as CTA-861 prints them.
    ['640x480@59.94', 25.175],
    ['640x480@60', 25.2],
    ['720x480@59.94', 27],
    ['720x576@50', 27],
    ['1280x720@24', 59.4],
    ['1280x720@25', 74.25],
    ['1280x720@30', 74.25],
    ['1280x720@50', 74.25],
    ['1280x720@59.94', 74.176],
    ['1280x720@60', 74.25],
    ['1280x720@120', 148.5],
    ['1920x1080@23.976', 74.176],
    ['1920x1080@24', 74.25],
    ['1920x1080@25', 74.25],
    ['1920x1080@29.97', 74.176],
    ['1920x1080@30', 74.25],
    ['1920x1080@50', 148.5],
    ['1920x1080@59.94', 148.352],
    ['1920x1080@60', 148.5],
    ['1920x1080@100', 297],
    ['1920x1080@120', 297],
    ['3840x2160@24', 297],
    ['3840x2160@30', 297],
    ['3840x2160@48', 594],
    ['3840x2160@50', 594],
    ['3840x2160@60', 594],
    ['3840x2160@100', 1188],
    ['3840x2160@119.88', 1186.813],
    ['3840x2160@120', 1188],
    ['4096x2160@60', 594],
    ['7680x4320@30', 1188],
    ['7680x4320@50', 2376],
    ['7680x4320@60', 2376],
    ['7680x4320@120', 4752],
  ])('%s has a pixel clock of %s MHz', (mode, mhz) => {
    expect(clockMhz(mode)).toBeCloseTo(mhz, 3);
    expect(timingOf(parseMode(mode)).source).toBe('CTA-861');
  });
  it.each([
    // VESA's own table of reduced blanking, version 1.
    ['1920x1200@60', 154, 2080, 1235],
    ['1680x1050@60', 119, 1840, 1080],
    ['2560x1440@60', 241.5, 2720, 1481],
    ['2560x1600@60', 268.5, 2720, 1646],
    ['1440x900@60', 88.75, 1600, 926],
  ])('%s, of no CTA format, has reduced blanking: %s MHz', (mode, mhz, width, height) => {
    expect(timingOf(parseMode(mode))).toMatchObject({ totalWidth: width, totalHeight: height });
    expect(clockMhz(mode)).toBeCloseTo(mhz, 3);
  });
  it('are read with their exact rates, and named', () => {
    expect(parseMode(' 3840x2160@59.94 ').rate).toEqual({ num: 60_000, den: 1001 });
    expect(parseMode('3840x2160@23.98').rate).toEqual({ num: 24_000, den: 1001 });
    expect(parseMode('2560x1440@143.9').rate).toEqual({ num: 1439, den: 10 });
    expect(modeName(parseMode('1920x1080@59.94'))).toMatchObject({
      params: { width: 1920, height: 1080, rate: 59.94 },
    });
  });
  it.each([
    '1080p',
    '1920x1080',
    '1920x1080@',
    '1920*1080@60',
    '1x1@60',
    '99999x99999@60',
    '1920x1080@0',
    '1920x1080@-60',
  ])('%s is refused with what to write', (text) => {
    expect(() => parseMode(text)).toThrow(PictureError);
  });
  it('are refused in codings that no link knows', () => {
    expect(() => need('1920x1080@60', 9)).toThrow(/8, 10, 12, 16/);
    expect(() => need('1920x1080@60', 16, '4:2:2')).toThrow('picture.carriesAtMostBits');
    expect(() => parseChroma('4:1:1')).toThrow('picture.isNotChromaFormat(4:1:1)');
  });
});

describe('links', () => {
  it.each([
    ['1920x1080@60', 8, '4:4:4', 'tmds-165'],
    ['1920x1080@60', 10, '4:4:4', 'tmds-340'],
    ['1920x1080@60', 12, '4:2:2', 'tmds-165'],
    ['1920x1080@120', 8, '4:4:4', 'tmds-340'],
    ['3840x2160@30', 8, '4:4:4', 'tmds-340'],
    ['3840x2160@60', 8, '4:2:0', 'tmds-340'],
    ['3840x2160@60', 10, '4:2:0', 'tmds-600'],
    ['3840x2160@60', 8, '4:4:4', 'tmds-600'],
    ['3840x2160@60', 12, '4:2:2', 'tmds-600'],
    ['3840x2160@60', 10, '4:4:4', 'frl-24'],
    ['3840x2160@60', 12, '4:4:4', 'frl-24'],
    ['3840x2160@120', 8, '4:4:4', 'frl-32'],
    ['3840x2160@120', 12, '4:2:2', 'frl-32'],
    ['3840x2160@120', 10, '4:4:4', 'frl-40'],
    ['3840x2160@120', 12, '4:4:4', 'frl-48'],
    ['7680x4320@60', 10, '4:2:0', 'frl-40'],
    ['7680x4320@60', 8, '4:4:4', null],
  ] as const)('%s at %s bits, %s, needs %s', (mode, bits, chroma, link) => {
    expect(need(mode, bits, chroma).minimumLink).toBe(link);
  });
  it('are told by what they carry', () => {
    expect(LINKS.map(linkName)).toEqual([
      '4.95 Gbit/s',
      '10.2 Gbit/s',
      '18 Gbit/s',
      '9 Gbit/s',
      '18 Gbit/s',
      '24 Gbit/s',
      '32 Gbit/s',
      '40 Gbit/s',
      '48 Gbit/s',
    ]);
  });
  it('take the picture’s own data: clock times bits a pixel', () => {
    expect(need('3840x2160@60').dataRateGbps).toBeCloseTo(14.256, 6);
    expect(need('3840x2160@60', 12, '4:2:2').dataRateGbps).toBeCloseTo(14.256, 6);
    expect(need('3840x2160@60', 10, '4:2:0').dataRateGbps).toBeCloseTo(8.91, 6);
  });
  it('that carry a mode carry every one that asks less', () => {
    const mode = fc.record({
      width: fc.constantFrom(640, 1280, 1920, 2560, 3440, 3840, 7680),
      height: fc.constantFrom(480, 720, 1080, 1440, 2160, 4320),
      hz: fc.integer({ min: 24, max: 240 }),
      bits: fc.constantFrom(8, 10, 12),
    });
    fc.assert(
      fc.property(mode, fc.integer({ min: 1, max: 60 }), ({ width, height, hz, bits }, less) => {
        const asks = need(`${width}x${height}@${hz}`, bits);
        const asksLess = need(`${width}x${height}@${Math.max(20, hz - less)}`, bits, '4:2:0');
        const at = (link: (typeof LINKS)[number] | null) => (link ? LINKS.indexOf(link) : LINKS.length);
        if (asks.timing.source === asksLess.timing.source)
          expect(at(asksLess.minimumLink)).toBeLessThanOrEqual(at(asks.minimumLink));
        // The smallest that is enough is enough, and nothing below it is.
        LINKS.forEach((link, i) => {
          if (i < at(asks.minimumLink) && link.startsWith('tmds')) expect(isEnough(link, asks)).toBe(false);
        });
        if (asks.minimumLink) expect(isEnough(asks.minimumLink, asks)).toBe(true);
      }),
    );
  });
  it('of the faster kind also speak the slower one', () => {
    expect(isEnough('frl-9', need('3840x2160@60'))).toBe(true);
    expect(isEnough('frl-9', need('3840x2160@60', 10))).toBe(false);
    expect(isEnough('tmds-340', need('3840x2160@60'))).toBe(false);
  });
  it('over USB carry visible pixels only', () => {
    const mode = parseMode('1920x1080@60');
    expect(usbVideoGbps(mode, '4:2:2')).toBeCloseTo((1920 * 1080 * hertz(mode.rate) * 16) / 1e9, 9);
    expect(usbVideoGbps(mode, '4:2:0') / usbVideoGbps(mode, '4:2:2')).toBeCloseTo(0.75, 9);
  });
});
