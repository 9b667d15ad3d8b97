import type { Text } from '#core/base/said/index.ts';
import { type End, isTwoSided } from './contacts.ts';
import { isTwoWired, type LeadFound } from './lead-for.ts';
import { say } from './sayings.ts';

/** What a cable loses or changes of the sound, in short; empty where all comes over as it is. */
export function lostBy(from: End, to: End, { wiring }: LeadFound): Text[] {
  if (!wiring) return [];
  const { carried } = wiring;
  if (carried.length === 0) return [say.nothingGetsThrough()];
  const upsideDown = carried.filter((c) => c.nominal < 0);
  const [fed, taken] = [new Set(carried.map((c) => c.to)).size, new Set(carried.map((c) => c.from)).size];
  const said: Text[] = [];
  if (upsideDown.some((c) => carried.some((o) => o.to === c.to && o.nominal > 0)))
    said.push(say.leftMinusRightCenter());
  else if (upsideDown.length > 0) said.push(say.oneSideIsInverted());
  if (isTwoSided(from) && taken < from.sides) said.push(say.oneSideOnly());
  else if (isTwoSided(to) && fed < to.sides) said.push(say.onlyOneSideInput());
  else if (isTwoSided(from) && !isTwoSided(to) && upsideDown.length === 0) said.push(say.bothSidesSummedEach());
  if (isTwoWired(from) && !wiring.balanced)
    said.push(carried.some((c) => c.high > c.low) ? say.unbalancedUpToDb() : say.unbalanced());
  return said;
}
