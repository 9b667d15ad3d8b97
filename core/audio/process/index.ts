export { type Biquad, band, bell, filterInPlace, highPass, kWeighting, lowPass, responseDb } from './biquad.ts';
export { type Treated, type Treatment, treat, treatmentSections } from './chain.ts';
export {
  applyGain,
  type CompressorSettings,
  compressorGain,
  type DeEssSettings,
  deEssInPlace,
  type GainCurve,
  type GateSettings,
  gateGain,
  staticGainDb,
} from './dynamics.ts';
export { type Limiter, type LimiterSettings, limiter } from './limiter.ts';
