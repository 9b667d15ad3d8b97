import { channelOf, type FftOf, type Recording } from '#core/audio/samples/index.ts';
import { dbFromRatio } from '#core/model/units/index.ts';
import {
  clippingMeter,
  dropoutMeter,
  echoOf,
  type Fault,
  type Floor,
  floorMeter,
  hissOf,
  humOf,
  type Spectrum,
  sidesMeter,
} from './faults/index.ts';
import { type Levels, weightsOf } from './levels.ts';
import { loudnessMeter } from './loudness.ts';
import { MeasureError } from './measure-error.ts';
import { say } from './sayings.ts';
import { peakMeter } from './true-peak.ts';

/** What a take holds, and what is wrong with it. */
export interface Diagnosis {
  /** Worst first. */
  readonly faults: readonly Fault[];
  readonly levels: Levels;
  /** Loudness over time, LUFS, one value every 100 ms, at the end of its window. */
  readonly curves: { readonly momentaryLufs: Float64Array; readonly shortTermLufs: Float64Array };
  /** By channel. */
  readonly floors: readonly Floor[];
  readonly spectra: readonly Spectrum[];
}

const PIECE_S = 4;
/** Below this there is nothing to be heard, whatever one turns up. */
const SILENT_DBFS = -66;
const BLOCK_S = 0.4;
/** A voice at a normal level is near -20 LUFS with peaks from -12 to -6 dBFS: this far below, bits and noise are lost. */
const TOO_QUIET = { watchLufs: -36, fixLufs: -43 } as const;
/** No headroom is left: EBU R 128 asks for -1 dBTP at most. */
const TOO_HOT = { watchDbtp: -0.5, fixDbtp: 0.1, lufs: -9 } as const;

/**
 * Everything that can be told wrong of a take by itself. Reads it once from end to end, then looks closely at stretches
 * of it for hum and echoes.
 * @param onProgress  called with the fraction done, 0 to 1
 * @throws MeasureError for tracks that belong to no speakers, and for samples that are no numbers
 */
export async function diagnose(
  fftOf: FftOf,
  recording: Recording,
  onProgress?: (part: number) => void,
): Promise<Diagnosis> {
  const { channels, frames, sampleRateHz } = recording;
  const loudness = loudnessMeter(channels, sampleRateHz, { weights: weightsOf(recording) });
  const peaks = peakMeter(channels, sampleRateHz);
  const clipping = clippingMeter(channels, sampleRateHz);
  const dropouts = dropoutMeter(channels, sampleRateHz);
  const sides = sidesMeter(channels, sampleRateHz);
  const floors = Array.from({ length: channels }, () => floorMeter(fftOf, sampleRateHz, frames));
  const piece = PIECE_S * sampleRateHz;
  for (let at = 0; at < frames; at += piece) {
    const part = await recording.read(at, Math.min(piece, frames - at));
    for (const meter of [loudness, peaks, clipping, dropouts, sides]) meter.push(part);
    if (!loudness.isWhole())
      throw new MeasureError('not-a-number', say.fromSOn({ at: (at / sampleRateHz).toFixed(0) }));
    floors.forEach((meter, c) => {
      meter.push(part[c]!);
    });
    onProgress?.((0.8 * Math.min(frames, at + piece)) / frames);
  }
  const { samplePeak, truePeak } = peaks.result();
  const levels: Levels = {
    ...loudness.result(),
    truePeakDbtp: truePeak > 0 ? dbFromRatio(truePeak) : null,
    samplePeakDbfs: samplePeak > 0 ? dbFromRatio(samplePeak) : null,
  };
  const between = sides.result();
  const spectra = floors.map((f) => f.spectrum());
  const curves = { momentaryLufs: loudness.momentary(), shortTermLufs: loudness.shortTerm() };
  const read = floors.map((f) => f.floor());
  const silent = silence(levels, frames / sampleRateHz);
  if (silent) {
    const constants = between.filter((f) => f.id === 'dc-offset');
    return { faults: [silent, ...constants], levels, curves, floors: read, spectra };
  }
  // What is the same on both sides is reported once; an empty side reports nothing.
  const quiet = between.find((f) => f.id === 'one-sided')?.channel ?? -1;
  const same = between.some((f) => f.id === 'dual-mono');
  // Low effects are meant to be low and to rest: nothing of them is hum or hiss.
  const told = Array.from({ length: channels }, (_, c) => c).filter(
    (c) => c !== quiet && !(same && c > 0) && recording.layout?.[c] !== 'lfe',
  );
  const named = same ? 1 : channels;
  const closely: Fault[] = [];
  for (const c of told) {
    const track = channels === 1 ? recording : channelOf(recording, c);
    closely.push(
      ...hissOf(read[c]!, c, named),
      ...(await humOf(track, read[c]!.programmeDbfs, c, named)),
      ...(await echoOf(fftOf, track, c, named)),
    );
    onProgress?.(0.8 + (0.2 * (c + 1)) / channels);
  }
  const faults = [
    ...between,
    ...[...clipping.result(), ...dropouts.result()].filter((f) => f.channel === null || told.includes(f.channel)),
    ...closely,
    ...loud(levels),
  ];
  return { faults: oncePerSide(faults), levels, curves, floors: read, spectra };
}

function silence({ samplePeakDbfs, integratedLufs }: Levels, seconds: number): Fault | null {
  const faint = samplePeakDbfs === null || samplePeakDbfs <= SILENT_DBFS;
  // Of less than a block there is no loudness, whatever it holds.
  if (!faint && (integratedLufs !== null || seconds < BLOCK_S)) return null;
  const evidence =
    samplePeakDbfs === null
      ? say.allSamplesAreZero()
      : faint
        ? say.noSampleIsAbove({ samplePeakDbfs: samplePeakDbfs.toFixed(0) })
        : say.nothingLastsLongEnough();
  return { id: 'silent', severity: 'fix', evidence, atS: [], channel: null };
}

function loud({ integratedLufs, truePeakDbtp, samplePeakDbfs }: Levels): Fault[] {
  if (integratedLufs === null || truePeakDbtp === null) return [];
  const read = say.lufsTruePeakDbtp({
    integratedLufs: integratedLufs.toFixed(1),
    truePeakDbtp: truePeakDbtp.toFixed(1),
  });
  if (integratedLufs < TOO_QUIET.watchLufs)
    return [
      {
        id: 'too-quiet',
        severity: integratedLufs < TOO_QUIET.fixLufs ? 'fix' : 'watch',
        evidence: say.highestSampleDbfsTurning({ levels: read, peak: samplePeakDbfs!.toFixed(1) }),
        atS: [],
        channel: null,
      },
    ];
  const overs = truePeakDbtp > TOO_HOT.fixDbtp;
  if (overs || truePeakDbtp > TOO_HOT.watchDbtp || integratedLufs > TOO_HOT.lufs)
    return [
      {
        id: 'too-hot',
        severity: overs || integratedLufs > TOO_HOT.lufs ? 'fix' : 'watch',
        evidence: say.noHeadroomLeftAnd({ levels: read }),
        atS: [],
        channel: null,
      },
    ];
  return [];
}

/** The same fault on both sides is one of the take; the worse first, then in the order of the list. */
function oncePerSide(faults: readonly Fault[]): Fault[] {
  const byId = new Map<string, Fault>();
  for (const fault of faults) {
    const known = byId.get(fault.id);
    if (!known) byId.set(fault.id, fault);
    else
      byId.set(fault.id, {
        ...known,
        severity: known.severity === 'fix' ? 'fix' : fault.severity,
        evidence: say.both({ first: known.evidence, second: fault.evidence }),
        atS: [...new Set([...known.atS, ...fault.atS])].sort((a, b) => a - b),
        channel: null,
      });
  }
  return [...byId.values()].sort((a, b) => Number(b.severity === 'fix') - Number(a.severity === 'fix'));
}
