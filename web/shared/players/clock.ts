/** Playback starts this long after the click, so that nothing is cut off, s. */
export const LEAD_S = 0.3;
/** A level that is moved gets there within about three times this: no click is heard. */
export const RAMP_S = 0.03;

/** What leaves the speaker at an instant of `performance.now`, on the sound card's own clock. */
export function heardAtS(context: AudioContext, performanceMs: number): number {
  const stamp = context.getOutputTimestamp();
  // Before the first output the time stamp is zero: clock minus latency is the closest estimate.
  return stamp.performanceTime
    ? stamp.contextTime! + (performanceMs - stamp.performanceTime) / 1000
    : context.currentTime - (context.outputLatency || 0);
}
