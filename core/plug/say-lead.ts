import { type End, isTwoSided } from './contacts.ts';
import { isTwoWired, type LeadFound } from './lead-for.ts';

/** What a lead loses or changes of the sound, in short; empty where all comes over as it is. */
export function lostBy(from: End, to: End, { wiring }: LeadFound): string[] {
  if (!wiring) return [];
  const { carried } = wiring;
  if (carried.length === 0) return ['nothing gets through'];
  const upsideDown = carried.filter((c) => c.nominal < 0);
  const [fed, taken] = [new Set(carried.map((c) => c.to)).size, new Set(carried.map((c) => c.from)).size];
  const said: string[] = [];
  if (upsideDown.some((c) => carried.some((o) => o.to === c.to && o.nominal > 0)))
    said.push('left minus right: the center is gone');
  else if (upsideDown.length > 0) said.push('one side is inverted');
  if (isTwoSided(from) && taken < from.sides) said.push('one side only');
  else if (isTwoSided(to) && fed < to.sides) said.push('only one side of the input gets a signal');
  else if (isTwoSided(from) && !isTwoSided(to) && upsideDown.length === 0)
    said.push('both sides summed, each 6 dB less');
  if (isTwoWired(from) && !wiring.balanced)
    said.push(carried.some((c) => c.high > c.low) ? 'unbalanced, up to 6 dB less' : 'unbalanced');
  return said;
}
