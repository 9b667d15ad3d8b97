import { beforeAll, describe, expect, it } from 'vitest';
import { findClaps, measureOffset } from '#core/audio/measure/index.ts';
import { testFft } from '#core/audio/samples/fft.testkit.ts';
import { type FftOf, recordingOf } from '#core/audio/samples/index.ts';
import { parseRig } from '#core/model/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import {
  clapsAt,
  convolve,
  game,
  hum,
  jingle,
  noise,
  renderTrack,
  roomResponse,
  type SourceMaker,
  type Truth,
  trueDelayMs,
  voice,
} from './index.ts';

const RATE = 16_000;
const rig = parseRig(JSON.parse(JSON.stringify(boathouse)));
let fftOf: FftOf;
beforeAll(async () => {
  fftOf = await testFft();
});
const rms = (x: Float32Array, from = 0, to = x.length): number =>
  Math.sqrt(x.subarray(from, to).reduce((sum, v) => sum + v * v, 0) / (to - from));

describe('stand-in sounds', () => {
  const makers: [string, SourceMaker][] = [
    ['a voice', voice(170)],
    ['a game', game],
    ['a jingle', jingle],
    ['claps', clapsAt([0.5, 1.5])],
    ['hum', hum(50)],
    ['noise', noise],
  ];
  it.each(makers)('%s is the same for a seed, within full scale, and not silent', (_, make) => {
    const x = make(3 * RATE, RATE, 7);
    expect(x).toHaveLength(3 * RATE);
    expect(make(3 * RATE, RATE, 7)).toEqual(x);
    expect(x.every((v) => Number.isFinite(v) && Math.abs(v) <= 1)).toBe(true);
    expect(rms(x)).toBeGreaterThan(0.005);
  });
  it('differ from seed to seed where chance is in them', () => {
    for (const make of [voice(170), game, noise]) expect(make(RATE, RATE, 1)).not.toEqual(make(RATE, RATE, 2));
  });
  it('hum at the mains’ frequency and its odd harmonics', () => {
    for (const mainsHz of [50, 60] as const) {
      const x = hum(mainsHz)(RATE, RATE, 0);
      const at = (hz: number) => {
        let [re, im] = [0, 0];
        x.forEach((v, i) => {
          re += v * Math.cos((2 * Math.PI * hz * i) / RATE);
          im += v * Math.sin((2 * Math.PI * hz * i) / RATE);
        });
        return Math.hypot(re, im) / RATE;
      };
      expect(at(mainsHz)).toBeGreaterThan(100 * at(mainsHz * 1.5));
      expect(at(3 * mainsHz)).toBeGreaterThan(10 * at(4 * mainsHz));
    }
  });
  it('clap at the instants they are asked for', async () => {
    const found = await findClaps(fftOf, recordingOf([clapsAt([0.41, 1.72])(2 * RATE, RATE, 3)], RATE));
    expect(found.map((c) => Math.round(c.atMs / 10) / 100)).toEqual([0.41, 1.72]);
  });
});

describe('a room', () => {
  it('decays by 60 dB in its time, behind a direct sound that stands as far out as asked', () => {
    const h = roomResponse(RATE, 0.5, 6, 4);
    expect(h[0]).toBe(1);
    const energy = (from: number, to: number) => rms(h, Math.floor(from * RATE), Math.floor(to * RATE)) ** 2;
    expect(10 * Math.log10(energy(0.05, 0.1) / energy(0.3, 0.35))).toBeCloseTo(30, -1);
    const tail = h.subarray(1).reduce((sum, v) => sum + v * v, 0);
    expect(10 * Math.log10(1 / tail)).toBeCloseTo(6, 5);
  });
  it('is heard as the sum of its reflections', () => {
    const h = Float32Array.from([1, 0, 0, 0.5]);
    const x = Float32Array.from({ length: 64 }, (_, i) => (i === 2 ? 1 : i === 40 ? -2 : 0));
    const y = convolve(fftOf, x, h);
    const expected = new Float32Array(64);
    [expected[2], expected[5], expected[40], expected[43]] = [1, 0.5, -2, -1];
    y.forEach((v, i) => {
      expect(v).toBeCloseTo(expected[i]!, 5);
    });
  });
});

describe('a rendered track', () => {
  const truth: Truth = { delaysMs: { 'camera.sound': 55, 'camera-capture.sound': 101 }, clocksPpm: {} };
  const base = { rig, truth, seconds: 8, sampleRateHz: RATE, seed: 3 };
  const couch = { couch: voice(180) };
  const ways = evaluate(rig).pairs.find((p) => p.sourceId === 'couch' && p.listenerId === 'track-3')!.ways;

  it('holds each source as late as the hidden figures say, not as the rig believes', async () => {
    const hidden = trueDelayMs(ways[0]!.soundTerms, truth);
    const believed = trueDelayMs(ways[0]!.soundTerms, { delaysMs: {}, clocksPpm: {} });
    expect(hidden - believed).toBeCloseTo(55 + 101 - 50 - 60, 6);
    const track = (t: Truth) =>
      recordingOf([renderTrack(fftOf, { ...base, truth: t, listenerId: 'track-3', sounds: couch })], RATE);
    const found = await measureOffset(fftOf, track({ delaysMs: {}, clocksPpm: {} }), track(truth));
    expect(found.offsetMs).toBeCloseTo(hidden - believed, 1);
  });
  it('starts when its recorder was started, and runs by its recorder’s clock', async () => {
    const track = (startS: number, ppm: number, seconds = 8) =>
      recordingOf(
        [
          renderTrack(fftOf, {
            ...base,
            seconds,
            startS,
            truth: { delaysMs: {}, clocksPpm: { [ways[0]!.clock!]: ppm } },
            listenerId: 'track-3',
            sounds: couch,
          }),
        ],
        RATE,
      );
    const later = await measureOffset(fftOf, track(0, 0), track(1.25, 0));
    expect(later.offsetMs).toBeCloseTo(-1250, 1);
    const fast = await measureOffset(fftOf, track(0, 0, 90), track(0, 200, 90));
    expect(fast.driftPpm!).toBeCloseTo(200, -1);
  });
  it('is silent but for its noise where nothing that sounds arrives', () => {
    const track = renderTrack(fftOf, { ...base, listenerId: 'track-3', sounds: {} });
    expect(20 * Math.log10(rms(track))).toBeCloseTo(-78, 0);
  });
});
