import { type Biquad, bell, filterInPlace, highPass } from './biquad.ts';
import {
  applyGain,
  type CompressorSettings,
  compressorGain,
  type DeEssSettings,
  deEssInPlace,
  type GainCurve,
  type GateSettings,
  gateGain,
} from './dynamics.ts';
import { type LimiterSettings, limiter } from './limiter.ts';

/** What is done to a voice, in this order; null where a step is left out. */
export interface Treatment {
  readonly lowCut: { readonly hz: number } | null;
  readonly gate: GateSettings | null;
  readonly presence: { readonly hz: number; readonly gainDb: number; readonly q: number } | null;
  readonly deEss: DeEssSettings | null;
  readonly compressor: CompressorSettings | null;
  /** After the compressor, dB. */
  readonly makeupDb: number;
  readonly limiter: LimiterSettings | null;
}

/** The result; gain over time for each step that has one. */
export interface Treated {
  readonly channels: readonly Float32Array[];
  readonly gains: Partial<Record<'gate' | 'deEss' | 'compressor', GainCurve>>;
  readonly limited: { readonly mostDb: number; readonly frames: number } | null;
}

/** The filters that stand still: what a response curve is drawn from. */
export function treatmentSections({ lowCut, presence }: Treatment, sampleRateHz: number): Biquad[] {
  const top = sampleRateHz / 2;
  return [
    ...(lowCut && lowCut.hz < top ? [highPass(lowCut.hz, sampleRateHz)] : []),
    ...(presence && presence.hz < top ? [bell(presence.hz, presence.gainDb, presence.q, sampleRateHz)] : []),
  ];
}

/**
 * Treats a stretch in memory; what is given stays as it is.
 * @param channels  all of one length, full scale 1
 */
export function treat(given: readonly Float32Array[], sampleRateHz: number, treatment: Treatment): Treated {
  const channels = given.map((x) => x.slice());
  const gains: Treated['gains'] = {};
  const filter = (part: Partial<Treatment>) => {
    const sections = treatmentSections({ ...treatment, lowCut: null, presence: null, ...part }, sampleRateHz);
    for (const x of channels) filterInPlace(x, sections);
  };
  filter({ lowCut: treatment.lowCut });
  if (treatment.gate) {
    gains.gate = gateGain(channels, treatment.gate, sampleRateHz);
    applyGain(channels, gains.gate);
  }
  filter({ presence: treatment.presence });
  if (treatment.deEss) gains.deEss = deEssInPlace(channels, treatment.deEss, sampleRateHz);
  if (treatment.compressor) gains.compressor = compressorGain(channels, treatment.compressor, sampleRateHz);
  const still = gains.compressor ?? new Float32Array(channels[0]?.length ?? 0);
  if (treatment.compressor || treatment.makeupDb !== 0) applyGain(channels, still, treatment.makeupDb);
  if (!treatment.limiter) return { channels, gains, limited: null };
  return { ...limitWhole(channels, sampleRateHz, treatment.limiter), gains };
}

/** A whole stretch through a limiter, its latency taken off again. */
export function limitWhole(
  channels: readonly Float32Array[],
  sampleRateHz: number,
  settings: LimiterSettings,
): { channels: Float32Array[]; limited: { mostDb: number; frames: number } } {
  const stage = limiter(channels.length, sampleRateHz, settings);
  const frames = channels[0]?.length ?? 0;
  const longer = channels.map((x) => {
    const y = new Float32Array(frames + stage.latencyFrames);
    y.set(x);
    return y;
  });
  stage.run(longer);
  return { channels: longer.map((x) => x.subarray(stage.latencyFrames)), limited: stage.taken() };
}
