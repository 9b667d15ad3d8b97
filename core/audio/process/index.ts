export { type Biquad, band, bell, filterInPlace, highPass, kWeighting, lowPass, responseDb } from './biquad.ts';
export { type Treatment, treat, treatmentSections } from './chain.ts';
export {
  applyGain,
  type CompressorSettings,
  compressorGain,
  deEssInPlace,
  gateGain,
  staticGainDb,
} from './dynamics.ts';
export { type LimiterSettings, limiter } from './limiter.ts';
