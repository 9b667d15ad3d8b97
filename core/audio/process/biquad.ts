/** A second-order section, normalised so that a0 is 1. */
export interface Biquad {
  readonly b0: number;
  readonly b1: number;
  readonly b2: number;
  readonly a1: number;
  readonly a2: number;
}

const BUTTERWORTH_Q = Math.SQRT1_2;

/** Below `hz` 12 dB less each octave, 3 dB at it: Butterworth, by the bilinear transform with the frequency kept. */
export function highPass(hz: number, sampleRateHz: number, q = BUTTERWORTH_Q): Biquad {
  const k = Math.tan((Math.PI * hz) / sampleRateHz);
  const norm = 1 / (1 + k / q + k * k);
  return { b0: norm, b1: -2 * norm, b2: norm, a1: 2 * (k * k - 1) * norm, a2: (1 - k / q + k * k) * norm };
}

/** Above `hz` 12 dB less each octave, 3 dB at it. */
export function lowPass(hz: number, sampleRateHz: number, q = BUTTERWORTH_Q): Biquad {
  const k = Math.tan((Math.PI * hz) / sampleRateHz);
  const norm = 1 / (1 + k / q + k * k);
  return {
    b0: k * k * norm,
    b1: 2 * k * k * norm,
    b2: k * k * norm,
    a1: 2 * (k * k - 1) * norm,
    a2: (1 - k / q + k * k) * norm,
  };
}

/**
 * A bell: `gainDb` at `hz`, nothing far from it; `q` is its width. Bilinear transform of an analog bell, as in the W3C
 * note 'Audio EQ Cookbook'.
 */
export function bell(hz: number, gainDb: number, q: number, sampleRateHz: number): Biquad {
  const turn = (2 * Math.PI * hz) / sampleRateHz;
  const a = 10 ** (gainDb / 40);
  const alpha = Math.sin(turn) / (2 * q);
  const norm = 1 / (1 + alpha / a);
  const middle = -2 * Math.cos(turn) * norm;
  return { b0: (1 + alpha * a) * norm, b1: middle, b2: (1 - alpha * a) * norm, a1: middle, a2: (1 - alpha / a) * norm };
}

/** What sections do to a sine of `hz`, dB: their transfer function on the unit circle. */
export function responseDb(sections: readonly Biquad[], hz: number, sampleRateHz: number): number {
  const turn = (2 * Math.PI * hz) / sampleRateHz;
  const [c1, s1, c2, s2] = [Math.cos(turn), Math.sin(turn), Math.cos(2 * turn), Math.sin(2 * turn)];
  let power = 1;
  for (const { b0, b1, b2, a1, a2 } of sections) {
    const over = (b0 + b1 * c1 + b2 * c2) ** 2 + (b1 * s1 + b2 * s2) ** 2;
    const under = (1 + a1 * c1 + a2 * c2) ** 2 + (a1 * s1 + a2 * s2) ** 2;
    power *= over / under;
  }
  return 10 * Math.log10(power);
}

/** Band-pass between two corners; a corner at 0, or at or above half the sample rate, is left out. */
export function band(lowHz: number, highHz: number, sampleRateHz: number): Biquad[] {
  return [
    ...(lowHz > 0 ? [highPass(lowHz, sampleRateHz)] : []),
    ...(highHz < sampleRateHz / 2 ? [lowPass(highHz, sampleRateHz)] : []),
  ];
}

/**
 * The two sections of K weighting at any sample rate: the analog prototypes of ITU-R BS.1770-5 annex 1, whose
 * coefficients at 48 kHz equal those of its tables 1 and 2.
 */
export function kWeighting(sampleRateHz: number): [shelf: Biquad, lowCut: Biquad] {
  const [shelfHz, shelfDb, shelfQ] = [1681.974450955533, 3.999843853973347, 0.7071752369554196];
  const k = Math.tan((Math.PI * shelfHz) / sampleRateHz);
  const high = 10 ** (shelfDb / 20);
  const middle = high ** 0.4996667741545416;
  const norm = 1 / (1 + k / shelfQ + k * k);
  const shelf = {
    b0: (high + (middle * k) / shelfQ + k * k) * norm,
    b1: 2 * (k * k - high) * norm,
    b2: (high - (middle * k) / shelfQ + k * k) * norm,
    a1: 2 * (k * k - 1) * norm,
    a2: (1 - k / shelfQ + k * k) * norm,
  };
  // The standard leaves this section's numerator at 1, -2, 1 at every rate.
  const { a1, a2 } = highPass(38.13547087602444, sampleRateHz, 0.5003270373238773);
  return [shelf, { b0: 1, b1: -2, b2: 1, a1, a2 }];
}

/** Runs samples through sections, one after the other, in place; from rest. */
export function filterInPlace(x: Float32Array, sections: readonly Biquad[]): void {
  for (const { b0, b1, b2, a1, a2 } of sections) {
    let z1 = 0;
    let z2 = 0;
    for (let i = 0; i < x.length; i++) {
      const v = x[i]!;
      const y = b0 * v + z1;
      z1 = b1 * v - a1 * y + z2;
      z2 = b2 * v - a2 * y;
      x[i] = y;
    }
  }
}
