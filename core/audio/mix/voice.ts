import { diagnose, HOP_S, loudnessMeter, lufsOf, peakMeter, type Spectrum } from '#core/audio/measure/index.ts';
import { filterInPlace, highPass, type Treatment } from '#core/audio/process/index.ts';
import { type FftOf, recordingOf } from '#core/audio/samples/index.ts';
import { dbFromPower, dbFromRatio } from '#core/model/units/index.ts';
import { type Talk, talkOf } from './talk.ts';

/** What a voice measures in a stretch: what starting values are made of. */
export interface VoiceMeasured {
  readonly talk: Talk;
  /** While it speaks, and in the rest between its phrases, LUFS; null where there is none of it. */
  readonly speechLufs: number | null;
  readonly betweenLufs: number | null;
  /** Tops of each 10 ms while it speaks: of twenty, one is higher; and half are. dBFS. */
  readonly loudTopsDbfs: number | null;
  readonly usualTopsDbfs: number | null;
  /** The same of the band above 5 kHz. */
  readonly hissTopsDbfs: number | null;
  /** Level of 2 to 4 kHz relative to 300 Hz to 1 kHz, dB. */
  readonly presenceDb: number | null;
  readonly mainsHum: boolean;
  readonly spectrum: Spectrum | null;
}

const ESS_HZ = 5000;
const TOP_S = 0.01;

/**
 * Measures the voice of a stretch in memory, channels as they are.
 * @param channels  one or two of one length, full scale 1
 */
export async function measureVoice(
  fftOf: FftOf,
  channels: readonly Float32Array[],
  sampleRateHz: number,
): Promise<VoiceMeasured> {
  const { hops } = figures(channels, sampleRateHz);
  const talk = talkOf(hops);
  const tops = topsWhile(talk, channels, sampleRateHz);
  const high = channels.map((x) => {
    const y = x.slice();
    if (ESS_HZ < sampleRateHz / 2) filterInPlace(y, [highPass(ESS_HZ, sampleRateHz)]);
    else y.fill(0);
    return y;
  });
  const { spectra, faults } = await diagnose(fftOf, recordingOf(channels, sampleRateHz));
  const [spectrum = null] = spectra;
  return {
    talk,
    speechLufs: speechOf(hops, talk),
    betweenLufs: betweenOf(hops, talk),
    loudTopsDbfs: partOf(tops, 0.95),
    usualTopsDbfs: partOf(tops, 0.5),
    hissTopsDbfs: partOf(topsWhile(talk, high, sampleRateHz), 0.95),
    presenceDb: spectrum && bandDb(spectrum, 2000, 4000) - bandDb(spectrum, 300, 1000),
    mainsHum: faults.some((f) => f.id === 'hum-50' || f.id === 'hum-60'),
    spectrum,
  };
}

/** The highest of each 10 ms while someone speaks, linear. */
function topsWhile(talk: Talk, channels: readonly Float32Array[], sampleRateHz: number): number[] {
  const length = Math.round(TOP_S * sampleRateHz);
  const frames = channels[0]?.length ?? 0;
  const tops: number[] = [];
  for (let at = 0; at + length <= frames; at += length) {
    if (talk[Math.floor(at / sampleRateHz / HOP_S)] !== 1) continue;
    let top = 0;
    for (const x of channels) for (let i = at; i < at + length; i++) top = Math.max(top, Math.abs(x[i]!));
    tops.push(top);
  }
  return tops.sort((a, b) => a - b);
}

function partOf(sorted: readonly number[], part: number): number | null {
  const top = sorted[Math.floor(part * (sorted.length - 1))];
  return top === undefined || top <= 0 ? null : dbFromRatio(top);
}

/** Of what is not talk the quietest third: the rest of it is words that fade. */
const REST = 1 / 3;

const meanLufs = (powers: Float64Array): number | null =>
  powers.length > 0 ? lufsOf(powers.reduce((a, b) => a + b, 0) / powers.length) : null;
const speechOf = (hops: Float64Array, talk: Talk): number | null => meanLufs(hops.filter((_, h) => talk[h] === 1));
function betweenOf(hops: Float64Array, talk: Talk): number | null {
  const quiet = hops.filter((p, h) => talk[h] !== 1 && p > 0).sort();
  return meanLufs(quiet.subarray(0, Math.ceil(REST * quiet.length)));
}

function bandDb({ binHz, power }: Spectrum, fromHz: number, toHz: number): number {
  let sum = 1e-20;
  for (let b = Math.ceil(fromHz / binHz); b <= Math.min(power.length - 1, toHz / binHz); b++) sum += power[b]!;
  return dbFromPower(sum);
}

/** Starting points for a voice (typical): what most people begin with before they listen. */
const START = {
  lowCutHz: 80,
  /** Where the AC power hums: over its lowest two harmonics, still under most voices. */
  lowCutHumHz: 110,
  presence: { hz: 2500, q: 0.9, mostDb: 3 },
  /** A voice that is close stands about so: less presence is lifted by half of what is missing. */
  usualPresenceDb: -11,
  ratio: 3,
  kneeDb: 6,
  /** What the compressor takes off the loud tops. */
  takenDb: 4.5,
  attackMs: 8,
  releaseMs: 150,
  /** A room is asked for a gate where the voice stands less than this over what is between. */
  roomLu: 38,
  /** An s is too sharp where its tops come within this of the voice's usual ones. */
  sharpDb: 6,
} as const;

/** Where to begin with this voice; what the take does not ask for is left out. */
export function startingTreatment(voice: VoiceMeasured, ceilingDbtp: number): Treatment {
  const { speechLufs, betweenLufs, loudTopsDbfs, usualTopsDbfs, hissTopsDbfs, presenceDb } = voice;
  const round = (db: number) => Math.round(2 * db) / 2;
  const missing = presenceDb === null ? 0 : (START.usualPresenceDb - presenceDb) / 2;
  const lift = Math.min(START.presence.mostDb, round(missing));
  const overRoom = speechLufs !== null && betweenLufs !== null ? speechLufs - betweenLufs : null;
  const sharp = hissTopsDbfs !== null && usualTopsDbfs !== null && hissTopsDbfs > usualTopsDbfs - START.sharpDb;
  const thresholdDbfs =
    loudTopsDbfs === null ? null : Math.max(-60, round(loudTopsDbfs - START.takenDb / (1 - 1 / START.ratio)));
  return {
    lowCut: { hz: voice.mainsHum ? START.lowCutHumHz : START.lowCutHz },
    gate:
      overRoom !== null && overRoom < START.roomLu && usualTopsDbfs !== null
        ? {
            // Halfway between what is in pauses and the voice, nearer to the pauses.
            thresholdDbfs: round(usualTopsDbfs - 0.6 * overRoom),
            rangeDb: 10,
            attackMs: 2,
            holdMs: 250,
            releaseMs: 200,
          }
        : null,
    presence: lift >= 1 ? { hz: START.presence.hz, gainDb: lift, q: START.presence.q } : null,
    deEss: sharp ? { hz: ESS_HZ, thresholdDbfs: round(hissTopsDbfs! - 6), rangeDb: 6 } : null,
    compressor:
      thresholdDbfs === null
        ? null
        : {
            thresholdDbfs,
            ratio: START.ratio,
            kneeDb: START.kneeDb,
            attackMs: START.attackMs,
            releaseMs: START.releaseMs,
          },
    makeupDb: 0,
    limiter: { ceilingDbtp, releaseMs: 80 },
  };
}

/** What is held against each other, before and after. */
export interface TreatmentFigures {
  readonly integratedLufs: number | null;
  readonly truePeakDbtp: number | null;
  /** Peak over loudness. */
  readonly peakToLoudnessDb: number | null;
  readonly rangeLu: number | null;
  /** The voice over what is between its phrases. */
  readonly overNoiseLu: number | null;
}

/** For a stretch in memory; where someone speaks is passed in, so that it is the same before and after. */
export function treatmentFigures(
  channels: readonly Float32Array[],
  sampleRateHz: number,
  talk: Talk,
): TreatmentFigures {
  const { hops, integratedLufs, rangeLu, truePeakDbtp } = figures(channels, sampleRateHz);
  const [speech, between] = [speechOf(hops, talk), betweenOf(hops, talk)];
  return {
    integratedLufs,
    truePeakDbtp,
    rangeLu,
    peakToLoudnessDb: integratedLufs === null || truePeakDbtp === null ? null : truePeakDbtp - integratedLufs,
    overNoiseLu: speech === null || between === null ? null : speech - between,
  };
}

function figures(channels: readonly Float32Array[], sampleRateHz: number) {
  const loudness = loudnessMeter(channels.length, sampleRateHz);
  const peaks = peakMeter(channels.length, sampleRateHz);
  loudness.push(channels);
  peaks.push(channels);
  const { truePeak } = peaks.result();
  return {
    ...loudness.result(),
    hops: loudness.hops(),
    truePeakDbtp: truePeak > 0 ? dbFromRatio(truePeak) : null,
  };
}
