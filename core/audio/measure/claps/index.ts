import type { FftOf, Recording } from '#core/audio/samples/index.ts';
import { burstsOf } from './bursts.ts';
import type { Clap } from './clap.ts';
import { onsetMs } from './onset.ts';
import { apartDb, type Scored, scoreBursts } from './score.ts';

export type { Clap } from './clap.ts';

/** Log odds from which a burst is called a clap: of takes without any, next to none reaches the first. Where one does, weaker ones count too. */
const MIN_LOG_ODDS = { first: 1.2, others: 0.4 } as const;

/** Echo window: a burst this soon after another, and this much weaker, is a reflection or a bounce. */
const BACK = { withinS: 0.25, downDb: 6 } as const;

const comesBackFrom = (first: Scored, second: Scored): boolean =>
  second.burst.atS > first.burst.atS &&
  second.burst.atS - first.burst.atS < BACK.withinS &&
  first.burst.netDb - second.burst.netDb > BACK.downDb;

/** A person claps a few times to be found; what is alike and comes oftener is a clock, keys, a drum or applause. */
const MANY = { withinS: 8, alikeDb: 6, most: 9 } as const;

const isOfMany = ({ burst }: Scored, likely: readonly Scored[]): boolean =>
  likely.filter((o) => Math.abs(o.burst.atS - burst.atS) < MANY.withinS && apartDb(o.burst, burst) < MANY.alikeDb)
    .length > MANY.most;

/**
 * Claps, slates, snaps and clicks: sounds that begin all at once above the voice's body, are gone within hundredths of a
 * second and are not what goes on anyway. Each burst is held against what sounds around it and against the other bursts
 * there: a plosive has many like it, so have a drum and a shot, a clap has those of its row.
 * @returns in order of time; empty when there are none
 */
export async function findClaps(
  fftOf: FftOf,
  recording: Recording,
  onProgress?: (done: number) => void,
): Promise<Clap[]> {
  const scored = scoreBursts(await burstsOf(fftOf, recording, onProgress));
  if (!scored.some((s) => s.logOdds >= MIN_LOG_ODDS.first)) return [];
  const claps: Clap[] = [];
  const likely = scored.filter((s) => s.logOdds >= MIN_LOG_ODDS.others);
  for (const { burst, logOdds, kind } of likely.filter(
    (s) => !likely.some((t) => comesBackFrom(t, s)) && !isOfMany(s, likely),
  ))
    claps.push({
      atMs: await onsetMs(recording, Math.round(burst.atS * recording.sampleRateHz)),
      strength: burst.prominence,
      confidence: 1 / (1 + Math.exp(-logOdds)),
      kind,
    });
  return claps;
}
