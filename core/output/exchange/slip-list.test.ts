import { csvParse } from 'd3-dsv';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { FRAME_RATES, hertz, type Rate, rate } from '#core/model/units/index.ts';
import { EdlError, type SlipItem, type SlipList, slipListToCsv, slipListToEdl, slipListToOtio } from './index.ts';

const item = (more: Partial<SlipItem> = {}): SlipItem => ({
  name: 'Host',
  fileName: 'host mic, take 2.wav',
  durationMs: 61_234.5,
  moveMs: 0,
  longerPpm: 0,
  sampleRateHz: 48_000,
  ...more,
});
const list = (frameRate: Rate, ...items: SlipItem[]): SlipList => ({ title: 'Quay talk', frameRate, items });
const aList = () =>
  fc
    .tuple(
      fc.constantFrom(...FRAME_RATES.filter((r) => hertz(r) <= 60)),
      fc.array(
        fc.record({
          moveMs: fc.double({ min: -900_000, max: 7_200_000, noNaN: true }),
          longerPpm: fc.double({ min: -150, max: 150, noNaN: true }),
          durationMs: fc.double({ min: 1000, max: 7_200_000, noNaN: true }),
          sampleRateHz: fc.constantFrom(44_100, 48_000, 96_000),
        }),
        { minLength: 1, maxLength: 6 },
      ),
    )
    .map(([frameRate, items]) =>
      list(
        frameRate,
        // No table knows a zero below zero.
        ...items.map((i, n) =>
          item({ ...i, moveMs: i.moveMs + 0, longerPpm: i.longerPpm + 0, fileName: `take ${n}.wav` }),
        ),
      ),
    );

/** A reader of its own: what a timeline's tracks hold, in ms from its beginning. */
function readOtio(text: string) {
  const ms = (t: { value: number; rate: number }) => (1000 * t.value) / t.rate;
  const timeline = JSON.parse(text);
  expect(timeline.OTIO_SCHEMA).toBe('Timeline.1');
  return timeline.tracks.children.map((track: { kind: string; children: Record<string, never>[] }) => {
    expect(track.kind).toBe('Audio');
    let at = 0;
    for (const child of track.children as never as {
      OTIO_SCHEMA: string;
      source_range: { duration: { value: number; rate: number } };
      effects: { time_scalar: number }[];
      media_reference: { target_url: string };
    }[]) {
      if (child.OTIO_SCHEMA.startsWith('Gap')) at += ms(child.source_range.duration);
      else
        return {
          startMs: at,
          lengthMs: ms(child.source_range.duration),
          speed: child.effects[0]?.time_scalar ?? 1,
          file: decodeURI(child.media_reference.target_url),
        };
    }
    return null;
  });
}

/** Frames of a timecode by counting them, as its separator says. */
function framesOf(text: string, perSecond: number): number {
  const [h, m, s, f] = text.split(/[:;]/).map(Number) as [number, number, number, number];
  const minutes = 60 * h + m;
  const dropped = text.includes(';') ? 2 * (minutes - Math.floor(minutes / 10)) : 0;
  return (60 * minutes + s) * perSecond + f - dropped;
}

describe('a slip list', () => {
  it('comes back from its table and its timeline exactly', () => {
    fc.assert(
      fc.property(aList(), (slips) => {
        const lead = Math.max(0, ...slips.items.map((i) => -i.moveMs));
        const rows = csvParse(slipListToCsv(slips));
        const tracks = readOtio(slipListToOtio(slips));
        slips.items.forEach((i, n) => {
          expect(Number(rows[n]!['exchange.moveByMs'])).toBe(i.moveMs);
          expect(Number(rows[n]!['exchange.runsLongerPpm'])).toBe(i.longerPpm);
          expect(tracks[n].startMs).toBeCloseTo(i.moveMs + lead, 6);
          expect(tracks[n].lengthMs).toBeCloseTo(i.durationMs, 6);
          expect(tracks[n].speed).toBe(1 + i.longerPpm * 1e-6);
          expect(tracks[n].file).toBe(i.fileName);
        });
      }),
    );
  });
  it('comes back from an EDL to its frame, drop-frame too, what is left between frames in a comment', () => {
    fc.assert(
      fc.property(aList(), (slips) => {
        const text = slipListToEdl(slips);
        const lead = Math.max(0, ...slips.items.map((i) => -i.moveMs));
        const nominal = Math.round(hertz(slips.frameRate));
        const [perSecond, pairs] = nominal > 30 ? [nominal / 2, 2] : [nominal, 1];
        const events = [...text.matchAll(/^(\d{3}) {2}(\S+) +(A\d?) +C +(\S+) (\S+) (\S+) (\S+)\r$/gm)];
        expect(events).toHaveLength(slips.items.length);
        expect(text).toContain(
          slips.frameRate.den === 1001 && perSecond === 30 ? 'FCM: DROP FRAME' : 'FCM: NON-DROP FRAME',
        );
        slips.items.forEach((i, n) => {
          const [, number, reel, , sourceIn, , recordIn, recordOut] = events[n]!;
          expect(Number(number)).toBe(n + 1);
          expect(reel).toBe(`TAKE${n}`);
          expect(framesOf(sourceIn!, perSecond)).toBe(0);
          const exact = ((i.moveMs + lead) * slips.frameRate.num) / slips.frameRate.den / 1000 / pairs;
          const day = 24 * 3600 * perSecond;
          if (exact + i.durationMs * 0.06 < day * 0.9) {
            expect(framesOf(recordIn!, perSecond)).toBe(Math.round(exact));
            expect(framesOf(recordOut!, perSecond)).toBeGreaterThan(framesOf(recordIn!, perSecond));
          }
        });
      }),
    );
    const between = slipListToEdl(list(rate(25), item(), item({ moveMs: 50, longerPpm: 31 })));
    expect(between).toMatch(/MOVE ON BY (-?)10\.000 MS, WHAT LIES BETWEEN FRAMES/);
    expect(between).toContain('PLAY AT 1.000031000 OF ITS SPEED');
  });
  it('says what an EDL cannot hold', () => {
    expect(() => slipListToEdl(list(rate(120), item()))).toThrow(EdlError);
    expect(slipListToEdl(list(rate(50), item()))).toContain('COUNTED AT HALF RATE: 50');
    const six = slipListToEdl(list(rate(30), ...Array.from({ length: 6 }, () => item())));
    expect(six.match(/FOUR CHANNELS OF SOUND/g)).toHaveLength(2);
    expect(slipListToEdl(list(rate(24), item({ fileName: '—.wav' })))).toMatch(/^001 {2}TAKE1/m);
  });
  it('lays the parts of a recording that was cut on one track, each from where it begins in the file', () => {
    const cut = list(
      rate(25),
      item({ name: 'Ref', fileName: 'ref.wav', durationMs: 10_000 }),
      item({ durationMs: 4250, moveMs: -250, longerPpm: 0 }),
      item({ durationMs: 5000, moveMs: 4000, fromMs: 4235 }),
    );
    const { tracks } = JSON.parse(slipListToOtio(cut));
    expect(tracks.children).toHaveLength(2);
    const parts = tracks.children[1].children;
    expect(parts.map((p: { OTIO_SCHEMA: string }) => p.OTIO_SCHEMA)).toEqual(['Clip.1', 'Clip.1']);
    expect(parts[1].source_range.start_time.value).toBeCloseTo(4.235 * 48_000, 6);
    const edl = slipListToEdl(cut).split('\r\n');
    const events = edl.filter((l) => /^00\d /.test(l));
    expect(events).toHaveLength(3);
    // The reference is led in by 250 ms, 6 frames of 25.
    expect(events[2]).toMatch(/ A2 .*00:00:04:06 00:00:09:06 00:00:04:06 00:00:09:06$/);
    expect(csvParse(slipListToCsv(cut)).map((r) => r['exchange.startsInFileMs'])).toEqual(['0', '0', '4235']);
  });
});

describe('markers of the day', () => {
  const thirty = rate(30, 1);
  const marked: SlipList = {
    ...list(thirty, item({ moveMs: -500 }), item({ fileName: 'b.wav' })),
    markers: [
      { atMs: 1000, says: 'lap record' },
      { atMs: 61_000, says: 'a\nb' },
    ],
  };
  it('stand on the timeline, where all were moved so that none begins before it', () => {
    const markers = JSON.parse(slipListToOtio(marked)).tracks.markers;
    expect(
      markers.map((m: { name: string; marked_range: { start_time: { value: number; rate: number } } }) => [
        m.name,
        m.marked_range.start_time.value / m.marked_range.start_time.rate,
      ]),
    ).toEqual([
      ['lap record', 1.5],
      ['a\nb', 61.5],
    ]);
    expect(slipListToEdl(marked)).toContain(
      '* LOC: 00:00:01:15 GREEN lap record\r\n\r\n* LOC: 00:01:01:15 GREEN a b\r\n',
    );
  });
  it('stand in the table as they are, in three units', () => {
    const rows = csvParse(slipListToCsv(marked).replace(/\r\n$/, ''));
    expect(rows.at(-2)).toMatchObject({
      'exchange.track': 'exchange.marker(lap record)',
      'exchange.file': '',
      'exchange.moveByMs': '1000',
      'exchange.moveByFramesAt(30)': '30',
      'exchange.moveBySamples': '48000',
    });
    expect(JSON.parse(slipListToOtio(list(thirty, item()))).tracks.markers).toEqual([]);
  });
});
