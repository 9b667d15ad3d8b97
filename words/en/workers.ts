import { message } from '../message.ts';

/** What computing beside the page says. */
export const workers = {
  rigCouldntBeRead: message('The rig couldn’t be read. Reload the page and try again.'),
  reloadPageAndTry: message('{failed} Reload the page and try again.', { failed: 'text' }),
  measuringFailed: message('Measuring failed.'),
  couldntCreateFile: message('Couldn’t create the file.'),
  couldntDrawMap: message('Couldn’t draw the map.'),
  couldntPlan: message('Couldn’t plan the next steps.'),
  watchStopped: message('The watch stopped.'),
  searchFailed: message('The search failed.'),
  couldntDrawAlternatives: message('Couldn’t draw the alternatives.'),
  couldntSimulateFaults: message('Couldn’t simulate the faults.'),
  readingTapTestFailed: message('Reading the tap test failed.'),
  couldntRenderWhatIs: message('Couldn’t render what is heard. Try again.'),
  onePlace: message('one place'),
  places: message('{holesS, number} places', { holesS: 'number' }),
  fileIsDamagedIts: message('The file is damaged: its video could not be decoded at {places}, the first at {n1} s.', {
    places: 'text',
    n1: 'text',
  }),
  framesAreUnevenlySpaced: message(
    'The frames are unevenly spaced, {n0} to {n02} ms apart, so the video is known to {n02} ms. For a finer reading, record at a constant frame rate.',
    { n0: 'text', n02: 'text' },
  ),
  oneTwoTakesHas: message('One of the two takes has no audio. Choose takes with audio.'),
  menuClicksNeedTake: message('Menu clicks need a take with video and audio.'),
  oneTheseTakesHas: message('One of these takes has no audio. Exclude it, and sync the others.'),
  thisTakeHasNo: message('This take has no audio.'),
  whatIsThereWas: message('{message} What is there was opened.', { message: 'text' }),
  itsAudioTrackIs: message('Its audio track is empty.'),
  thisBrowserCantDecode: message(
    'This browser can’t decode anything in this file. {join} Export it as MP4 with H.264 and AAC, or as WAV.',
    { join: 'text' },
  ),
  recordingWasNeverFinalized: message(
    'The recording was never finalized: the part of the file that lists its contents is missing. Repair it with the app that made it, or record to MKV, which doesn’t need it.',
  ),
  codedAs: message('{codec}', { codec: 'text' }),
  codedUnknown: message('unknown'),
  exportItsAudioAs: message('export its audio as AAC or WAV'),
  exportItsVideoAs: message('export its video as H.264'),
  cannotDecode: message(
    'Your browser can’t decode its {what, select, sound {audio} other {video}} ({named}). To measure it, {mend}.',
    {
      what: 'text',
      named: 'text',
      mend: 'text',
    },
  ),
  cantReadThisFile: message('Can’t read this file as audio or video. Choose a WAV, MP4, MOV, WebM or MKV file.'),
  thisBrowserHasNo: message('This browser has no room for more than an hour of audio: the first hour is measured.'),
  fileIsDamagedItsAudio: message(
    'The file is damaged: its audio could not be decoded at {places}, the first at {n1} s. Those places are silent.',
    { places: 'text', n1: 'text' },
  ),
  fileBreaksOffIt: message('The file breaks off: it has {n1} s of audio instead of {n12} s. It was read to its end.', {
    n1: 'text',
    n12: 'text',
  }),
  decoderFailed: message('The decoder failed.'),
  thisBrowserCantWriteThat: message('This browser can’t write that format. Choose {container}.', { container: 'text' }),
  thisBrowserCantWrite: message('This browser can’t write video. Show the sync slate on its page, or play its audio.'),
  oneTheseTakesHasNo: message('One of these takes has no audio. Choose takes with audio.'),
  takeNoLongerExists: message('The take no longer exists. Choose its file again.'),
};
