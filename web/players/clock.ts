/** What is played begins so long after the start: nothing is to be cut off. */
export const LEAD_S = 0.3;
/** A level that is moved gets there within about three times this: no click is heard. */
export const RAMP_S = 0.03;

/** What leaves the speaker at an instant of `performance.now`, on the sound card's own clock. */
export function heardAtS(context: AudioContext, performanceMs: number): number {
  const stamp = context.getOutputTimestamp();
  // Before anything has come out the stamp is zero: the clock less its latency is as near.
  return stamp.performanceTime
    ? stamp.contextTime! + (performanceMs - stamp.performanceTime) / 1000
    : context.currentTime - (context.outputLatency || 0);
}
