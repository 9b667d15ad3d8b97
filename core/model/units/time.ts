/** A rate as an exact ratio, so that 59.94 is 60000/1001 and an hour counts no frame too many. */
export interface Rate {
  readonly num: number;
  readonly den: number;
}

const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b));

/** @throws RangeError when a part is not a whole number above zero. */
export function rate(num: number, den = 1): Rate {
  if (!Number.isInteger(num) || !Number.isInteger(den) || num <= 0 || den <= 0) {
    throw new RangeError(`A rate is a ratio of whole numbers above zero; got ${num}/${den}.`);
  }
  const common = gcd(num, den);
  return { num: num / common, den: den / common };
}

export const FRAME_RATES: readonly Rate[] = [
  rate(24000, 1001),
  rate(24),
  rate(25),
  rate(30000, 1001),
  rate(30),
  rate(50),
  rate(60000, 1001),
  rate(60),
  rate(100),
  rate(120000, 1001),
  rate(120),
];

export const hertz = (r: Rate): number => r.num / r.den;
export const frameMs = (r: Rate): number => (1000 * r.den) / r.num;
export const msFromFrames = (frames: number, r: Rate): number => (frames * 1000 * r.den) / r.num;
export const framesFromMs = (ms: number, r: Rate): number => (ms * r.num) / (1000 * r.den);
export const samplesFromMs = (ms: number, sampleRateHz: number): number => (ms * sampleRateHz) / 1000;
export const msFromSamples = (samples: number, sampleRateHz: number): number => (samples * 1000) / sampleRateHz;

/** How far two clocks move apart, `ppm` parts in a million over `durationMs`. */
export const driftMs = (ppm: number, durationMs: number): number => ppm * 1e-6 * durationMs;

/** The known frame rate nearest to a measured one, or the measured one itself in thousandths. */
export function nearestRate(measuredHz: number): Rate {
  const near = FRAME_RATES.reduce((best, r) =>
    Math.abs(hertz(r) - measuredHz) < Math.abs(hertz(best) - measuredHz) ? r : best,
  );
  return Math.abs(hertz(near) / measuredHz - 1) < 2e-4 ? near : rate(Math.max(1, Math.round(measuredHz * 1000)), 1000);
}

/** '59.94', '60', '23.976'. */
export const rateName = (r: Rate): string => String(Number(hertz(r).toFixed(3)));

/** Speed of sound in air, m/s, at a temperature in degrees C: 331.3 + 0.606 T. */
const speedOfSound = (celsius: number): number => 331.3 + 0.606 * celsius;

/** Time that sound takes through air; 20 degrees C unless said. */
export const airMs = (metres: number, celsius = 20): number => (1000 * metres) / speedOfSound(celsius);
