import { message } from '../message.ts';

/** Takes: what every view of one shares, and how it is saved. */
export const take = {
  correctedWav: message('Corrected WAV'),
  slipListFile: message('slip list.{ending}', { ending: 'text' }),
  tableCsv: message('Table, CSV'),
  timelineOtio: message('Timeline, OTIO'),
  edl: message('EDL'),
  sessionMarkers: message('Session markers'),
  withoutMarkers: message('without markers'),
  session: message('the session'),
  markers: message('markers of {session}, {beganAt}', { session: 'text', beganAt: 'text' }),
  recordedFrom: message('recorded from'),
  startFirstRecordingAfter: message('Start of the first recording after the session, s'),
  sAfterItsStart: message('s after its start'),
  measuringWithoutRig: message('Measuring without a rig.'),
  openRigToAdd: message('<a>Open a rig</a> to add what you measure to it.'),
  uploadInterrupted: message(
    'Not saved yet: the server isn’t responding. Start again when it’s back; the upload continues where it stopped.',
  ),
  opening: message('Opening…'),
  oneTheseTakesWasnt: message('One of these takes wasn’t saved. '),
  backToMeasure: message('Back to Measure'),
  streamToLufs: message('Stream, −16 to −14 LUFS'),
  speechStereoLufs: message('Speech, stereo, −16 LUFS'),
  speechMonoLufs: message('Speech, mono, −19 LUFS'),
  broadcastLufsR: message('Broadcast, −23 LUFS (R 128)'),
};
