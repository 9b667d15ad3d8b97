import { message } from '../message.ts';

/**
 * A job that people come with.
 * @param names  other words that people look for it by
 */
const job = (title: string, says: string, names: string) => ({
  title: message(title),
  says: message(says),
  names: message(names),
});

/** Guides by their ids: what each is for, and by which words it is found. */
export const guideTitles = {
  'console-sound': job(
    'Get a console’s sound into the computer, and hear it without delay',
    'The stream takes the game through the capture card; your ears take it before that, so it isn’t late.',
    'console audio, game sound, capture card no sound, hear my game late, delay in headphones',
  ),
  'lip-sync': job(
    'Get sound and picture in sync',
    'Each camera and capture card is late by its own amount. Delay what is early until they meet.',
    'lip sync, audio video delay, camera late, webcam out of sync, capture card delay, voice before picture',
  ),
  'guest-echo': job(
    'Keep a guest from hearing themselves',
    'Send the guest everything but their own voice (mix-minus).',
    'echo, guest hears themselves, mix-minus, N-1, clean feed, talkback, remote guest',
  ),
  'left-and-right': job(
    'Host on the left, guest on the right',
    'One stereo take with a person on each side can still be mixed afterward.',
    'split stereo, left right, two people one file, pan, separate channels, interview',
  ),
  'track-each': job(
    'Record every voice on its own track',
    'A voice by itself can be made louder, cut or cleaned later without touching the others.',
    'multitrack, separate tracks, isolated, podcast recording, each person',
  ),
  'phone-music': job(
    'Add a phone’s or a music app’s sound',
    'Through a cable at line level, or inside the computer; once, and behind the voice.',
    'background music, phone into mixer, jingles, music player, aux, bluetooth music, desktop audio',
  ),
  'class-music': job(
    'Play music to a class in time with yourself',
    'Mix music and voice before the call, so both arrive together, and keep the call from filtering it.',
    'online class, teach with music, yoga, dance, fitness, music in call, music mode, share sound',
  ),
  'computer-microphone': job(
    'Use a recorder, a camera or a mixer as the computer’s microphone',
    'By USB as an audio device, or from its line or headphone jack into an input of the computer.',
    'handheld recorder, USB microphone mode, audio interface, camera mic, mixer to PC, external mic',
  ),
  'usb-or-xlr': job(
    'Choose between USB and XLR',
    'USB needs the fewest devices; XLR takes long cables, a mixer and more than one microphone.',
    'which microphone, usb vs xlr, buy a mic, audio interface or not, long cable',
  ),
  'lapel-microphone': job(
    'Use a lapel or radio microphone on a laptop’s single jack',
    'A three-pole plug needs an adapter to be seen in a four-pole headset jack.',
    'lavalier, clip-on, wireless microphone, TRRS, TRS, combo jack, headset jack, mic not detected',
  ),
  hum: job(
    'Find and cure hum',
    'Most hum comes from a loop of grounds. Break it in the signal, never in the safety ground (earth).',
    'buzz, ground loop, noise, earth hum, isolator, 50 Hz, 60 Hz, mains hum',
  ),
  howl: job(
    'Find and cure a howl',
    'A speaker that a microphone picks up, louder each time around. Turn down, move apart, point away.',
    'feedback, squeal, whistle, ringing, speakers and microphone, PA',
  ),
  'open-microphone': job(
    'Find an open microphone',
    'A webcam or a laptop hears the room too: late, hollow, and whether you meant it or not.',
    'wrong microphone, webcam mic, hollow voice, echoey, room sound, which mic is live',
  ),
  gains: job(
    'Set the gains',
    'Loud early, then leave it: the first gain stage sets how much hiss there is.',
    'gain staging, too quiet, too loud, clipping, distortion, hiss, levels, preamp',
  ),
  balance: job(
    'Balance voices over a game',
    'Start with the game 8 to 14 LU below the voice, then measure a take.',
    'voice too quiet, game too loud, ducking, mix levels, can’t hear me',
  ),
  'two-channels': job(
    'Many microphones into an app that takes two channels',
    'Mix them before the app: it takes only the first two channels of a device.',
    'multichannel interface, only channel one and two, call app mono, several mics in a call',
  ),
  radios: job(
    'Several radios on one desk',
    'What is sent on one must not be heard by the others, and who is keyed does not receive.',
    'two-way radio, push to talk, walkie talkie, ham, marine, dispatch, monitor two channels',
  ),
  hall: job(
    'A hall with members who are far away',
    'Each side gets the other, and no one gets their own voice returned.',
    'hybrid meeting, remote participants, hall and call, conference room, echo in the room',
  ),
  blind: job(
    'Compare two microphones blind',
    'At equal loudness, without knowing which is which: louder alone always sounds better.',
    'A/B test, ABX, which mic sounds better, blind test, compare settings',
  ),
  'after-months': job(
    'Bring a rig back after months',
    'See what changed since the last good session, do only that, and run through it once.',
    'set up again, come back, old setup, restore, forgotten, pack away',
  ),
};

/** What steps of guides say. */
export const guides = {
  title: message('How do I …?'),
  all: message('All guides'),
  find: message('Search the guides'),
  none: message('No guide has these words.'),
  progress: message('{done, number} of {of, number} steps are done or already true', { done: 'number', of: 'number' }),
  meant: message('Meant here'),
  notHere: message('not in this rig'),
  have: message('{name} is there.', { name: 'name' }),
  haveNot: message('Add it first: {what}.', { what: 'text' }),
  reach: message('{source} is received by {listener}.', { source: 'name', listener: 'name' }),
  apart: message('{source} isn’t received by {listener}.', { source: 'name', listener: 'name' }),
  once: message('{source} arrives only once at {listener}.', { source: 'name', listener: 'name' }),
  time: message('{source} is in sync at {listener}.', { source: 'name', listener: 'name' }),
  alone: message('{source} has {listener} to itself.', { source: 'name', listener: 'name' }),
  quick: message('{source} is at {listener} within {withinMs, number} ms.', {
    source: 'name',
    listener: 'name',
    withinMs: 'number',
  }),
  clear: message('The drawing shows no issue with it.'),
  proof: message('Proof: what {listener} gets of {source}.', { source: 'name', listener: 'name' }),
  gets: message('{level} {scale}, {delay} ms', { level: 'text', scale: 'text', delay: 'text' }),
  getsNothing: message('nothing yet'),
  missingPair: message('Something that this step is about isn’t in the rig yet.'),
  suggest: message('Suggest changes'),
  searching: message('Looking for the fewest changes…'),
  nothingFound: message('No setting, cable or device that is known brings it. See in Route where it stops.'),
  openPage: message('Open {page}', { page: 'text' }),
  wireSays: message('In Wire, add the device and connect it.'),
  planSays: message('In Plan, name it as a source or a destination.'),
  step: message('{guide}: {says}', { guide: 'text', says: 'text' }),
  pageBench: message('Record a take, open it in Measure, and see what it holds.'),
  pageBalance: message('Balance a take: faders for the loudness and distances that you want.'),
  pageBlind: message('Listen blind: two takes at equal loudness, until you know.'),
  pageLevel: message('Set each stage in Level, from the first to the last; speak as loud as you will.'),
  pageLog: message('See in Log what was set, measured and changed last time.'),
  pageNext: message('Do what is left in Next steps.'),
  pagePlan: message('Name the moments in Plan: who sends, who listens.'),
  pageRoute: message('See in Route who gets what, and set the sides.'),
  pageRun: message('Run through it once, with nothing at stake.'),
  pageSync: message('See in Sync how early or late each sound is, and set the delays.'),
  pagePaths: message('Measure it with a clap or a slate in the sync test.'),
  pageTap: message('Tap test: every source plays its tune, and takes show who gets whom.'),
  pageTrouble: message('Say in Troubleshoot what you hear; each answer rules causes out.'),
  pageWays: message('Compare ways to build it by cost, cables, noise and delay.'),
  sourceVoice: message('someone who speaks here'),
  sourceFar: message('someone at the far side of a call'),
  sourceRadio: message('someone on a radio'),
  sourceGame: message('a game'),
  sourceMusic: message('music'),
  sourceOther: message('a source'),
  listenerMix: message('a stream or a recording'),
  listenerTrack: message('a track of its own'),
  listenerEars: message('someone’s ears here'),
  listenerFar: message('someone’s ears at the far side of a call'),
  listenerRoom: message('a room with speakers'),
  deviceCamera: message('a camera'),
  deviceCapture: message('a capture device'),
  deviceComputer: message('a computer'),
  deviceCall: message('a call app'),
  deviceRecorder: message('a recorder'),
  deviceMicrophone: message('a microphone'),
  deviceHeadphones: message('headphones'),
  deviceLoudspeakers: message('speakers'),
  deviceRadio: message('a radio'),
  deviceMixer: message('a mixer'),
};
