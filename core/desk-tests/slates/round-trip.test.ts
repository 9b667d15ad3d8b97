import { describe, expect, it } from 'vitest';
import { testFft } from '#core/audio/samples/fft.testkit.ts';
import { type Recording, recordingOf, resample, seededNormal } from '#core/audio/samples/index.ts';
import { convolve, roomResponse, voice } from '#core/desk-tests/stand-ins/index.ts';
import { readTrip, type SentChirp, summariseTrips, TRIP_EVERY_S, tripChirp } from './index.ts';

const RATE = 48_000;
const sent: SentChirp[] = Array.from({ length: 20 }, (_, i) => ({
  atS: 100.25 + i * TRIP_EVERY_S,
  kind: (i % 2) as 0 | 1,
}));
const START_S = 99.5;
const SECONDS = 16;

/** What comes back of chirps sent out, so much later, over noise. */
function back(tripMs: (i: number) => number, gain = 0.1, noise = 0.001): Float32Array {
  const normal = seededNormal(4);
  const out = Float32Array.from({ length: SECONDS * RATE }, () => noise * normal());
  sent.forEach(({ atS, kind }, i) => {
    const at = (atS - START_S + tripMs(i) / 1000) * RATE;
    const first = Math.floor(at);
    const part = resample(tripChirp(kind, RATE), first - at, 1, Math.ceil(0.062 * RATE));
    for (let k = 0; k < part.length && first + k < out.length; k++) out[first + k]! += gain * part[k]!;
  });
  return out;
}
async function read(x: Float32Array): Promise<ReturnType<typeof summariseTrips>> {
  const fftOf = await testFft();
  const heard: Recording = recordingOf([x], RATE);
  const trips = [];
  for (const s of sent) trips.push(await readTrip(fftOf, heard, START_S, s));
  return summariseTrips(trips);
}

describe('a round trip', () => {
  it('is read to hundredths of a millisecond, short and long', async () => {
    for (const ms of [0, 3.217, 48.3, 611.9, 1100]) {
      const trip = (await read(back(() => ms)))!;
      expect(trip.count).toBe(20);
      expect(Math.abs(trip.meanMs - ms)).toBeLessThan(0.01);
      expect(trip.sdMs).toBeLessThan(0.01);
    }
  });
  it('tells the spread of its repeats, and leaves out one that stands apart', async () => {
    const normal = seededNormal(8);
    const by = Array.from({ length: 20 }, () => 0.3 * normal());
    const trip = (await read(back((i) => 120 + by[i]! + (i === 7 ? 40 : 0))))!;
    expect(trip).toMatchObject({ count: 19, odd: 1 });
    expect(trip.sdMs).toBeGreaterThan(0.15);
    expect(trip.sdMs).toBeLessThan(0.5);
    expect(Math.abs(trip.meanMs - 120)).toBeLessThan(0.2);
    expect(trip.leastMs).toBeLessThan(trip.mostMs);
  });
  it('is heard through a room while somebody talks', async () => {
    const fftOf = await testFft();
    const talk = voice(140)(SECONDS * RATE, RATE, 3);
    const room = convolve(
      fftOf,
      back(() => 73.4, 0.3),
      roomResponse(RATE, 0.4, 8, 5),
    );
    const trip = (await read(room.map((v, i) => v + 0.15 * talk[i]!)))!;
    expect(trip.count).toBeGreaterThan(15);
    expect(Math.abs(trip.meanMs - 73.4)).toBeLessThan(0.1);
  });
  it('is not told where nothing came back', async () => {
    expect(await read(back(() => 50, 0))).toBeNull();
    expect(await read(voice(150)(SECONDS * RATE, RATE, 9))).toBeNull();
    expect(summariseTrips([])).toBeNull();
  });
});
