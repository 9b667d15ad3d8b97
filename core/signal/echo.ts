/** Below this delay, one's own voice returned is sidetone, ms. */
const SIDE_TONE_MS = 5;

/**
 * How far under itself a talker's own voice has to come back, dB, by how long it takes there and back. 0 below 5 ms,
 * where it is side tone. ITU-T G.131, the curve at which 1 % object, as approximated in ITU-T G.107.
 */
export function talkerEchoLossDb(roundTripMs: number): number {
  const t = roundTripMs / 2;
  return roundTripMs < SIDE_TONE_MS ? 0 : 14 + 40 * Math.log10((1 + t / 10) / (1 + t / 150));
}
