import { say } from '#core/audio/measure/sayings.ts';
import { wordingOf } from '../../said.ts';

export const measure = wordingOf(say, {
  allSamplesAreFull: '{side}: all samples are {percent}% of full scale off zero ({dbfs} dBFS)',
  leftAndRightAre:
    'left and right are out of phase: correlation {correlation}, in {negative}% of the loud parts; they cancel in mono',
  bothSidesHoldSame:
    'both sides hold the same sound, to {rest, select, sample {the sample} other {{rest} dB}}: half the file is enough, and it reads 3 LU louder than one side',
  peaksClippedAtDbfs:
    '{side}: {tops} peaks clipped at {level} dBFS{turned, select, down {, turned down afterward} other {}}, {samples} samples in total, the first at {first}',
  steadyNoiseAtDbfs:
    '{side}: steady noise at {floorDbfs} dBFS above 1 kHz, {overDb} dB below the program, audible by itself {restPart}% of the time',
  dbfsAtHzPhase: '{side}: {levelDbfs} dBFS at {at} Hz, phase-locked throughout, {underDb} dB below the program',
  gapInMiddleAudio: '{gaps, plural, one {# gap} other {# gaps}} in the middle of audio',
  pieceRepeatedAtOnce: '{repeats} × a piece repeated at once',
  upToMsFirst: '{side}: {found}, up to {longest} ms, the first at {first}',
  channel: 'channel {n}',
  min: '{minutes}:{seconds} min',
  fromSOn: 'from {at} s on',
  allSamplesAreZero: 'all samples are zero',
  noSampleIsAbove: 'no sample is above {samplePeakDbfs} dBFS',
  nothingLastsLongEnough: 'nothing lasts long enough to be counted, at −70 LUFS or above',
  lufsTruePeakDbtp: '{integratedLufs} LUFS, true peak {truePeakDbtp} dBTP',
  highestSampleDbfsTurning: '{levels}, highest sample {peak} dBFS: turning it up raises the noise too',
  noHeadroomLeftAnd: '{levels}: no headroom left, and players will clip it',
  noSignal: 'no signal',
  noVoiceAnyMore: 'no voice any more, and other sound goes on',
  onlyLeftSide: 'only the {side, select, left {left} other {right}} side',
  dbLouderThanNormal: '{off} dB {change, select, louder {louder} other {quieter}} than normal',
  clippedTimesSinceStart: 'clipped {clips} times since the start',
  audioIsTooShort: 'The audio is too short to measure: half a second is needed at least. Record a longer take.',
  trackIsSilentCheck: 'The track is silent. Check that it was recorded, or choose another.',
  fileDoesntSayWhich:
    'The file doesn’t say which channel belongs to which speaker, so it has no loudness as a whole. Measure its tracks one by one.',
  tracksHaveDifferentSample:
    'The tracks have different sample rates. Export them at one rate, or choose tracks of one take.',
  fileContainsInvalidSamples: 'The file contains invalid samples (NaN). Export it again.',
  channels: '{channels} channels',
  wholeTake: 'the take',
  left: 'left',
  right: 'right',
  which: 'the {order, select, first {first} other {second}}',
  echo: 'the same sound again {delayMs} ms later, about {quieterDb} dB quieter, throughout',
  echoOn: '{side}: the same sound again {delayMs} ms later, about {quieterDb} dB quieter, throughout',
  sideEmpty: '{side}: nothing at all',
  sideLess: '{side}: {db} dB less than {other}',
  ofFile: '{which}: {problem}',
  both: '{first}; {second}',
});
