import { message } from '../message.ts';

/** Sync slate: shown, played, saved as a file. */
export const slate = {
  onceS: message('once, 16 s'),
  min: message('1 min'),
  minTitle: message('5 min'),
  slateFile: message('sync slate {n1}, {rate} fps.{ending}', { n1: 'text', rate: 'text', ending: 'text' }),
  mbSavedToYour: message('{name} ({n1e6} MB) saved to your downloads.', { name: 'text', n1e6: 'text' }),
  asFileForConsole: message('As a file, for a console or player'),
  videoSize: message('Video size'),
  videoLength: message('Video length'),
  video: message('Video'),
  audioOnlyWav: message('Audio only, WAV'),
  syncSlate: message('Sync slate {n1}', { n1: 'text' }),
  fps: message('{rate} fps', { rate: 'text' }),
  yourBrowserBlockedAudio: message('Your browser blocked audio. Press Start again, or use the files below.'),
  startOrStopSlate: message('Start or stop the slate'),
  fullScreenOnOr: message('Full screen, on or off'),
  syncSlateTitle: message('Sync slate'),
  showItOnAny: message(
    'Show it on any screen or phone, or play it from the console. Record it, and the take shows how late the audio is, whether frames were dropped, and the true frame rate.',
  ),
  fullScreenF: message('Full screen <kbd>f</kbd>'),
  frameRateSlate: message('Frame rate of the slate'),
  fpsOf: message('{r} fps', { r: 'text' }),
  slateNumber: message('Slate number'),
  number: message('number {n1}', { n1: 'text' }),
  itStartsSilentTurn: message(
    'It starts silent; turn it up slowly. Anyone wearing headphones on this path should take them off first. Warning: flashes once every two seconds.',
  ),
  ifYouCantShow: message('If you can’t show a slate'),
  handClapBothHands: message(
    'Hand clap: both hands in view, clear of the body, one sharp clap about every second, four at least. Keep fingers apart, so that the frame in which they meet is visible. A dark sleeve behind a light hand helps.',
  ),
  woodenSlateOrTwo: message(
    'A wooden slate or two rulers: flat toward the camera, hinge up, closed at once and kept closed for a second.',
  ),
  consoleThatPlaysNo: message(
    'A console that plays no files: a menu whose pointer clicks as it moves. Click it ten times, about a second apart, and in Measure mark the region of the picture that changes.',
  ),
  printClapSheet: message('Print the clap sheet'),
  boardToHoldIn: message('A board to hold in front of the camera, how to clap, and a take list.'),
  browserReportsMsOutput: message(
    'The browser reports {outputMs} ms output latency{own}, and the picture is timed to match. Screen and sound card delays aren’t reported: up to ±40 ms stays in the uncertainty until a <slate-skew>clap beside the slate</slate-skew> removes it.',
    { outputMs: 'text', own: 'text' },
  ),
  ofItOwn: message(' ({baseMs} ms of it its own)', { baseMs: 'text' }),
  fileFormat: message('File format'),
};
