export { type Biquad, band, filterInPlace, highPass, kWeighting, lowPass } from './biquad.ts';
