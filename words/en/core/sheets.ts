import { say } from '#core/output/sheets/sayings.ts';
import { wordingOf } from '../../said.ts';

export const sheets = wordingOf(say, {
  noCableFits: 'no cable fits',
  itsOwnCable: 'its own cable',
  skipped: ' (skipped: {why})',
  steps: 'Steps',
  checks: 'Checks',
  shutDown: 'Shut down',
  setUp: 'set up',
  checks2: 'checks',
  session: 'session',
  shutDown2: 'shut down',
  speakersLowHeadphonesOff:
    'Speakers low, headphones off. Call apps in music mode: noise suppression and auto gain off.',
  everyRecorderStartsFirst: 'Every recorder starts first, and runs until all test tunes are over.',
  tryEachPlayerWith:
    'Try each player with the trial, fading in, until it is about as loud as its source. Then leave its level alone.',
  pressPlayEverywhereWithin:
    'Press Play everywhere, within about two seconds. Each tune lasts 15 seconds. No one talks.',
  waitTwoMoreSeconds: 'Wait two more seconds, stop the recorders, and name each file after its destination.',
  tapTestEverySource: 'Tap test: every source plays its own test tune',
  beforeAnythingPlays: 'Before anything plays',
  whichFileGoesWhere: 'Which file goes where',
  instead: 'instead of {at}',
  inThisOrder: 'In this order',
  clapAndSlateHold: 'Clap and slate: hold this in front of the camera, then clap',
  nameEachFileAfter:
    'Name each file after its number and its delay (“take 3, 128 ms”): dropped together, they are sorted by that.',
  take: 'Take',
  delaySetMs: 'Delay set, ms',
  slate: 'Slate',
  pathWhichSoundRecorded: 'Path: which sound, recorded where',
  path: 'Path',
  delaysSet: 'Delays set',
  firstClapAnythingOdd: 'First clap, anything odd',
  toBeAgreed: 'To be agreed.',
  itReachesYouAbout: 'It reaches you about {low} to {high} ms after it happens.',
  youListenOnSpeaker:
    'You listen on a speaker: keep it low and away from the mic. A headset is safer; bring one if you have it.',
  headsetOnBeforeYou: 'Headset on before you join. Start with the volume at zero and bring it up slowly.',
  chooseMicAndHeadphones:
    'Choose the mic and the headphones by name in the app; do not leave it at “default”. Close every other app that uses them.',
  leaveEchoCancellationAnd: 'Leave echo cancellation and noise suppression on.',
  switchNoiseSuppressionAnd:
    'Switch noise suppression and automatic gain off, if your app lets you: we send music too, and they would chop it up. With a headset there is no echo to cancel.',
  networkCableIsBetter: 'A network cable is better than Wi-Fi. Plug your laptop in to power.',
  joinMutedTenMinutes: 'Join muted, ten minutes early; we do a test before we start.',
  recordYourMicOn:
    'Record your mic on your side as well: {rate} kHz, uncompressed (WAV). A phone recorder next to you is a good backup.',
  whenWeSaySo:
    'When we say so, clap three times, a second apart, close to the mic; again at the end. That is how we line up the recordings.',
  doNotStopOr:
    'Do not stop or pause in between. Afterward send the file as it is: not trimmed, not made louder, not converted.',
  yourVoiceGoesTo: 'Your voice goes to: {where}.',
  itIsRecordedRecording: 'It is recorded. The recording is kept until the date below, and used for the purpose below:',
  keptUntilUsedFor: '  kept until: ______________________  used for: ______________________',
  youMaySayNo: 'You may say no, now or later; then we leave you out.',
  agreedNameDate: 'Agreed (name, date): ______________________',
  noOneElse: 'no one but the other side of the call',
  currentSettings: '{rig}: current settings',
  sheet: 'sheet {sheet}',
  sheetOf: 'sheet {sheet} of {sheets}',
  wiring: '{rig}: wiring',
  toDevice: 'to {device}',
  fromDevice: 'from {device}',
  meters: '{lengthM} m',
  lengthAndKnown: '{lengthM} m, {known, select, assumed {assumed} measured {measured} other {confirmed}}',
  failed: ' (failed)',
  caution: '**Caution:** {caution}',
  footOfRun:
    'Phantom off before plugs, volumes down before power, never defeat a safety ground (earth); local rules first.',
  handSteps:
    'Hands: clear of the body, side on. A dark sleeve behind a light hand. Four claps, a second apart, sharp; fingers apart, so that the frame in which they meet is visible. As close to the mic as the voice is: a meter is 3 ms.',
  hingeSteps:
    'Wooden slate or two rulers: flat to the camera, hinge up, in the light. Say the number. Close it at once, and keep it closed for a second. At the end again, upside down, so you can tell start from end. Use a short shutter, or it blurs.',
  guestTitle: '{rig}: for {guest}',
  youHear: '{names}. Not yourself: if you do, say so at once.',
  whatYouHear: 'What you will hear',
  yourEnd: 'Your end of the call',
  recordYourself: 'Record your own voice, and send it',
  agreeTo: 'What we ask you to agree to',
});
