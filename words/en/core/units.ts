import { say } from '#core/model/units/sayings.ts';
import { wordingOf } from '../../said.ts';

export const units = wordingOf(say, {
  fullScaleAt: 'full scale at {dbu} dBu, as set for the session',
  dbuIs: '0 dBu is 0.775 V',
  dbvIs: '0 dBV is 1 V',
  rmsOfSine: 'RMS of a sine',
  vuIs: '0 VU is +4 dBu; an average, voice peaks are 8 to 14 dB above it',
  peakOfSine: 'the peak of a sine; measure it for other sounds',
  sineOnBothSides: 'a 1 kHz sine on both sides; on one side only, 3 LU less',
  ofFullScale: 'of full scale, by voltage',
});
