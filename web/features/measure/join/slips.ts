import type { Joined } from '#core/audio/measure/index.ts';
import type { Rate } from '#core/model/units/index.ts';
import type { SlipList } from '#core/output/exchange/index.ts';
import type { JoinedTakes } from '#web/shared/workers/index.ts';

/** The edit that aligns the takes of a group, with the first as the reference. */
export function slipsOfGroup(
  { takes }: Joined,
  facts: JoinedTakes['facts'],
  names: readonly string[],
  frameRate: Rate,
): SlipList {
  return {
    title: names[takes[0]!.index]!,
    frameRate,
    items: takes.map(({ index, startMs, longerPpm }) => ({
      name: names[index]!.replace(/\.[a-z0-9]{2,4}$/i, ''),
      fileName: names[index]!,
      durationMs: facts[index]!.durationMs,
      moveMs: startMs,
      longerPpm: longerPpm ?? 0,
      sampleRateHz: facts[index]!.sampleRateHz,
    })),
  };
}
