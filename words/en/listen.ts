import { message } from '../message.ts';

/** Listening to a rig, a take, an input. */
export const listen = {
  silent: message('silent'),
  db: message('{db} dB', { db: 'text' }),
  listeningLevelDb: message('Listening level, dB'),
  startOrStopListening: message('Start or stop listening here'),
  stopListening: message('Stop listening'),
  listenHere: message('Listen here'),
  listenAtNextDestination: message('Listen at the next destination'),
  listenAtPrevious: message('Listen at the previous destination'),
  louder: message('Louder'),
  quieter: message('Quieter'),
  listening: message('Listening'),
  simulated: message('simulated'),
  renderingAudio: message('rendering the audio…'),
  noSignalHere: message('No signal here{hum}.', { hum: 'text' }),
  andHum: message('and hum'),
  previous: message('Previous <kbd>⇧ ←</kbd>'),
  next: message('Next <kbd>⇧ →</kbd>'),
  stopH: message('Stop <kbd>h</kbd>'),
  allPointsPlayAt: message(
    'All points play at the same loudness. The sound fades in; keep it quieter than conversation.',
  ),
  cantPlayAudioChoose: message('Can’t play audio. Choose an output device in your browser and try again.'),
  hear: message('Hear {name}', { name: 'text' }),
  startOrStopListeningTitle: message('Start or stop listening'),
  itFadesInStart: message('{says} It fades in; start low, especially with headphones on.', { says: 'text' }),
  thisBrowserWontOpen: message('This browser won’t open audio inputs at this address. Open Mellow Tap at 127.0.0.1.'),
  input: message('Input {n1}', { n1: 'text' }),
  microphoneAccessWasDenied: message('Microphone access was denied. Allow it for this page, then try again.'),
  thatInputIsntThere: message('That input isn’t there. Plug it in, or choose another one.'),
  inputCantBeOpened: message('The input can’t be opened: another app may hold it. Close that app and try again.'),
  inputDisappearedItWas: message(
    'The input disappeared: it was unplugged, or another app took it. Plug it in and start again.',
  ),
  butHum: message(' but hum'),
};
