import { message } from '../message.ts';

/** Help in place: what each page answers, its keys and its terms. */
export const help = {
  button: message('Help <kbd>?</kbd>'),
  helpFor: message('Help: {page}', { page: 'text' }),
  title: message('Help'),
  key: message('Help: what this page answers, its keys and terms'),
  keysHere: message('Keys on this page'),
  keysEverywhere: message('Keys everywhere'),
  terms: message('Terms on this page'),
  more: message('More help'),
  startTour: message('Start the tour'),
  startTourAgain: message('Start the tour again'),
  rigs: message(
    'Where do I start, and which rig needs work? Each rig shows its verdict. Measure a file without a rig, describe your own desk, or open the demo.',
  ),
  newRig: message(
    'What’s on your desk? Type it in plain words. You see what was understood, answer what only you can know, and get a rig with the plan of who should hear what.',
  ),
  measure: message(
    'What is in this recording, and is it in time? Choose one file for loudness, peaks, faults and lip sync; choose several to compare and line them up.',
  ),
  measureOfRig: message(
    'What did this rig really record? Choose a take: it is measured and compared with what the rig predicts, and the figures can be put into the rig.',
  ),
  balance: message('Which track is too loud? Several tracks of one session are balanced, and heard together.'),
  tryProcessing: message('Which filter or dynamics help this voice? Hear a stretch with and without, at one loudness.'),
  join: message('Do these parts make one recording? They are joined, with gaps and overlaps shown.'),
  blind: message('Can you hear the difference? A blind test at one loudness, with the odds of guessing.'),
  slate: message('How do I mark picture and sound at one instant? Show the slate, or save it as a file for a player.'),
  testTune: message('Which source is which? This page plays one source’s test tune while every destination records.'),
  roundTrip: message('How long from output to input and back? Measured through a cable or the air, in this browser.'),
  plan: message(
    'Who should hear what? Choose a cell to say whether someone must, may or mustn’t hear a source, in each moment of the session.',
  ),
  wire: message(
    'What is connected to what, and what is wrong with it? Choose an issue to see its cause on the map and its fixes; choose any point to see what arrives there.',
  ),
  route: message(
    'Who gets what, through what, and how? Choose a cell for the whole path, the mutes on it, and changes that make it match the plan.',
  ),
  level: message(
    'Is it loud enough, and clean enough? The ladder shows level, noise and headroom at each stage, with gains that suit.',
  ),
  sync: message(
    'Is everything in time where it’s heard? See what arrives early or late, and the delays that bring it together.',
  ),
  syncTest: message('How sure is each delay? Which takes to record next, and what they say about each device.'),
  run: message(
    'What do I do on the day, and in which order? Set up, check, go live, mark what happens, and take down safely.',
  ),
  next: message(
    'What is left until this rig is ready? All steps in the best order, by place, with the time they take.',
  ),
  how: message(
    'How do I do a certain job on my own rig? Each guide finds the devices meant and shows what is missing.',
  ),
  desk: message(
    'What hasn’t been confirmed yet, and what is still to be done? Answer and tick here; everything else follows.',
  ),
  scan: message(
    'Which output of this computer arrives at which input, how loud and how late? Scan, compare with last time, and look at each path.',
  ),
  tap: message(
    'Who really hears whom? Each source plays a tune of its own, each destination records, and the takes say who arrived.',
  ),
  trouble: message(
    'Something is wrong: what is it? Say what you hear, and take the one look that halves the suspects.',
  ),
  measured: message('Which figures of this rig were measured, how well, and what rests on them?'),
  log: message('What happened in past sessions, what changed since it last went well, and what drifts over weeks?'),
  versions: message('What did this rig look like earlier? Look at any version, and restore it.'),
  ways: message(
    'Would other gear or another way be better? Each is worked out on your rig, with cost, delay, noise and risk.',
  ),
  beside: message('How do two variants of this rig differ, and what happens if one device fails?'),
  gear: message('What is inside a device, and which figures are assumed? Look at every type, and describe your own.'),
};
