import { say } from '#core/audio/measure/sayings.ts';
import { dbFromPower, dbFromRatio } from '#core/model/units/index.ts';
import { type Fault, sideName } from './fault.ts';

const BLOCK_S = 0.1;
/** A constant in the samples: from -52 dBFS on it takes headroom and clicks at cuts, from -40 on much. */
const DC = { watch: 0.0025, fix: 0.01 } as const;
/** Level difference between the sides, dB. */
const ONE_SIDED_DB = { watch: 15, fix: 25 } as const;
/** Correlation of the two sides, over all that is loud. */
const INVERTED = { watch: -0.4, fix: -0.7 } as const;
/** What is left of one side when the other is taken out of it. */
const SAME_DB = -45;
/** Two sides of one sound are within this many decibels of each other. */
const SAME_LEVEL_DB = 0.5;

/** Constants, and the two sides of a stereo take against each other. */
export function sidesMeter(channelCount: number, sampleRateHz: number) {
  const block = Math.round(BLOCK_S * sampleRateHz);
  const sum = new Float64Array(channelCount);
  const power = new Float64Array(channelCount);
  let cross = 0;
  let filled = 0;
  // Block by block: means, powers without them, and the product of the sides.
  const means = Array.from({ length: channelCount }, (): number[] => []);
  const powers = Array.from({ length: channelCount }, (): number[] => []);
  const products: number[] = [];
  const close = () => {
    if (filled === 0) return;
    for (let c = 0; c < channelCount; c++) {
      const mean = sum[c]! / filled;
      means[c]!.push(mean);
      powers[c]!.push(Math.max(0, power[c]! / filled - mean * mean));
    }
    if (channelCount === 2) products.push(cross / filled - (sum[0]! / filled) * (sum[1]! / filled));
    sum.fill(0);
    power.fill(0);
    cross = 0;
    filled = 0;
  };
  const add = (x: Float32Array, c: number, start: number, end: number) => {
    let s = 0;
    let p = 0;
    for (let i = start; i < end; i++) {
      const v = x[i]!;
      s += v;
      p += v * v;
    }
    sum[c]! += s;
    power[c]! += p;
  };
  /** Both sides in one go: five sums that do not wait for each other. */
  const addPair = (left: Float32Array, right: Float32Array, start: number, end: number) => {
    let [sl, sr, pl, pr, lr] = [0, 0, 0, 0, 0];
    for (let i = start; i < end; i++) {
      const l = left[i]!;
      const r = right[i]!;
      sl += l;
      sr += r;
      pl += l * l;
      pr += r * r;
      lr += l * r;
    }
    sum[0]! += sl;
    sum[1]! += sr;
    power[0]! += pl;
    power[1]! += pr;
    cross += lr;
  };
  return {
    push(channels: readonly Float32Array[]): void {
      const frames = channels[0]?.length ?? 0;
      for (let at = 0; at < frames; ) {
        const end = Math.min(frames, at + block - filled);
        if (channelCount === 2) addPair(channels[0]!, channels[1]!, at, end);
        else
          channels.forEach((x, c) => {
            add(x, c, at, end);
          });
        filled += end - at;
        at = end;
        if (filled === block) close();
      }
    },
    result(): Fault[] {
      close();
      return [
        ...means.flatMap((own, c) => constantOf(own, powers[c]!, c, channelCount)),
        ...(channelCount === 2 ? betweenSides(powers[0]!, powers[1]!, products) : []),
      ];
    },
  };
}

/** Hours have more blocks than a call can have arguments. */
const highest = (values: readonly number[]): number => values.reduce((most, v) => Math.max(most, v), 0);

/** A DC offset is present in every block; what a wave leaves in one, the next one cancels. */
function constantOf(means: readonly number[], powers: readonly number[], channel: number, channels: number): Fault[] {
  const sorted = [...means].sort((a, b) => a - b);
  const at = (part: number) => sorted[Math.min(sorted.length - 1, Math.floor(part * sorted.length))] ?? 0;
  const middle = at(0.5);
  // Waves with a mean of their own, as voices have, have none while they rest: the constant is what is there then too.
  const rest = meanAtRest(means, powers);
  const size = Math.sign(rest) === Math.sign(middle) ? Math.min(Math.abs(middle), Math.abs(rest)) : 0;
  const oneSigned = middle > 0 ? at(0.1) > 0 : at(0.9) < 0;
  const loudest = Math.sqrt(highest(powers));
  if (size < DC.watch || !oneSigned || size < 0.003 * loudest) return [];
  const evidence = say.allSamplesAreFull({
    side: sideName(channel, channels),
    percent: (100 * size * Math.sign(middle)).toFixed(2),
    dbfs: dbFromRatio(size).toFixed(0),
  });
  return [
    {
      id: 'dc-offset',
      severity: size >= DC.fix ? 'fix' : 'watch',
      evidence,
      atS: [],
      channel: channels > 1 ? channel : null,
    },
  ];
}

/** The middle of the means of the quietest twentieth of all blocks. */
function meanAtRest(means: readonly number[], powers: readonly number[]): number {
  const order = powers.map((power, i) => ({ power, mean: means[i]! })).sort((a, b) => a.power - b.power);
  const quiet = order.slice(0, Math.max(1, Math.floor(order.length / 20))).map((o) => o.mean);
  return quiet.sort((a, b) => a - b)[Math.floor(quiet.length / 2)] ?? 0;
}

function betweenSides(left: readonly number[], right: readonly number[], products: readonly number[]): Fault[] {
  const total = (x: readonly number[]) => x.reduce((a, b) => a + b, 0);
  const [l, r, lr] = [total(left), total(right), total(products)];
  if (l + r === 0) return [];
  const apartDb = dbFromPower(Math.max(l, 1e-30) / Math.max(r, 1e-30));
  if (Math.abs(apartDb) >= ONE_SIDED_DB.watch) {
    const quiet = apartDb > 0 ? 1 : 0;
    return [
      {
        id: 'one-sided',
        severity: Math.abs(apartDb) >= ONE_SIDED_DB.fix ? 'fix' : 'watch',
        evidence:
          Math.min(l, r) === 0
            ? say.sideEmpty({ side: sideName(quiet, 2) })
            : say.sideLess({
                side: sideName(quiet, 2),
                db: Math.abs(apartDb).toFixed(0),
                other: sideName(1 - quiet, 2),
              }),
        atS: [],
        channel: quiet,
      },
    ];
  }
  const correlation = lr / Math.sqrt(l * r);
  if (correlation <= INVERTED.watch) {
    // One instrument may be so by intent: it has to hold for most of what is loud.
    const loud = left.map((p, i) => p + right[i]!);
    const gate = 0.03 * highest(loud);
    const counted = products.filter((_, i) => loud[i]! > gate);
    const negative = counted.filter((p) => p < 0).length / counted.length;
    if (negative > 0.7)
      return [
        {
          id: 'polarity-inverted',
          severity: correlation <= INVERTED.fix ? 'fix' : 'watch',
          evidence: say.leftAndRightAre({ correlation: correlation.toFixed(2), negative: Math.round(100 * negative) }),
          atS: [],
          channel: null,
        },
      ];
  }
  const restDb = dbFromPower(Math.max(1e-12, 1 - correlation * correlation));
  if (correlation > 0 && restDb <= SAME_DB && Math.abs(apartDb) <= SAME_LEVEL_DB)
    return [
      {
        id: 'dual-mono',
        severity: 'watch',
        evidence: say.bothSidesHoldSame({ rest: restDb <= -119 ? 'sample' : restDb.toFixed(0) }),
        atS: [],
        channel: null,
      },
    ];
  return [];
}
