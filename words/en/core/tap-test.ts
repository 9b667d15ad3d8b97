import { say } from '#core/desk-tests/tap-test/sayings.ts';
import { wordingOf } from '../../said.ts';

export const taptest = wordingOf(say, {
  reaches: '{source} reaches {listener} {band}',
  to: '{low} to {high}',
  beyondBandTestTune: 'beyond the band of the test tune',
  isOffOrSet: '{listener} is off, or set to private or test.',
  otherwiseYourAudienceHears: 'If not, your audience hears 15 seconds of test tunes, and they stay in the recording.',
  theyHaveBeenTold: '{listener}: they have been told, and their headset is off.',
  levelThereIsUnknown: 'The level there is unknown until it has been measured.',
  intoDummyLoadVoice: '{radios}: into a dummy load, voice keying off.',
  codedMusicOnAir: 'Coded music on the air is against most licenses. Ask the license holder.',
  turnedLowTurnThem: '{loud}: turned low. Turn them up slowly once the tunes are heard.',
  overlookedLoopFeedsBack: 'An overlooked loop feeds back at full volume immediately.',
  noOneHereWears: 'No one here wears headphones or earphones until the levels are known.',
  levelsAreUnknownUntil: 'Levels are unknown until they have been read. Loud sound can damage hearing permanently.',
  ms: '±{spread} ms',
  reachesTwice: '{source} reaches {listener} twice',
  msApart: '{says}, {apart} ms apart',
  at: '{source} at {listener}',
  ms2: '{says}: {offset} ms',
  laterThanThere: '{pair} later than {source} there',
  laterThanAt: '{pair} later than at {listener}',
  vsAndVs: '{pair} vs. {source}, and vs. {listener}',
  tapTestClocks: 'tap test: clocks',
  ppm: '±{spread} ppm',
  runsPpmFastAgainst: '{clock} runs {ppm} ppm {fast, select, fast {fast} other {slow}} against {other}',
  notFoundDoesntMean:
    'Not found doesn’t mean not connected. It may be more than 30 dB below the loudest (play it alone), or blocked by voice processing (switch the call app to music mode).',
  knownOnItsOwn: 'known on its own',
  onlyKnownRelativeTo: 'only known relative to other sources in this take',
  onlyKnownRelativeToThis: 'only known relative to this source in other takes',
  onlyKnownAsOne: 'only known as one source relative to another, here and there',
  dbBelowLoudest: ', {db} dB below the loudest',
  shouldReachButWas: '{source} should reach {listener}, but was not found there.',
  shouldBeLoudAt: '{source} should be loud at {listener}, but is hardly there, if at all.',
  shouldNotReachBut: '{source} should not reach {listener}, but does{under}.',
  reachesTwiceAgainMs:
    '{source} reaches {listener} twice: again {after} ms {order, select, later {later} other {earlier}}, {under} dB quieter. {faint, select, yes {That faint, it may be chance.} other {That path isn’t drawn.}}',
  shouldReachTwiceMs: '{source} should reach {listener} twice, {after} ms apart, but arrives once.',
  hasInvertedPolarityAt: '{source} has inverted polarity at {listener}, relative to the loudest source there.',
  isDbLouderAt:
    '{source} is {db} dB {change, select, louder {louder} other {quieter}} at {listener} than the other readings suggest.',
  arrivesMsLaterAt:
    '{source} arrives {ms} ms {order, select, later {later} other {earlier}} at {listener} than the other readings suggest ({known}).',
  arrivesAtUpTo: '{source} arrives at {listener} up to {high}; the drawing has another bandwidth.',
  runsPpmLongAt:
    '{source} runs {ppm} ppm {length, select, long {long} other {short}} at {listener} compared with the other readings: something in between resamples, or runs on its own clock.',
  jumpsByMsAt: '{source} jumps by {ms} ms at {listener}: a buffer was lost or doubled.',
  delayKeepsChangingUp:
    '{sources} → {listener}: the delay keeps changing, up to {earlier} ms earlier and {later} ms later than in the middle. The receiver stretches the audio, as a call does where packets are lost.',
  shouldArriveAtBut: '{source} should arrive at {listener}, but doesn’t.',
  mustNotArriveAt: '{source} must not arrive at {listener}, but does{under}{way}.',
  putPhoneThatPlays: 'Put the phone that plays next to the mic: then it’s known how long its audio takes to that take.',
  usingOnePlayerFor:
    'Use one player for two sources, plugged in one after the other, or both from one computer: then the difference of their starts drops out.',
  recordTwoDestinationsAs:
    'Record two destinations as tracks of one file: they start at the same moment, on one clock.',
  wholeBand: 'with the whole band of the test tune',
  bandBetween: 'from {low} up to {high}',
  bandFrom: 'from {low}',
  bandUpTo: 'up to {high}',
  asDrawnBy: ', as drawn: {way}',
  unknown: 'unknown',
  tap: 'tap: {says}',
});
