import { message } from '../message.ts';

/** Round-trip latency of this computer. */
export const roundTrip = {
  startOrStop: message('Start or stop'),
  roundTripLatency: message('Round-trip latency'),
  playsChirpAndTimes: message(
    'Plays a chirp and times its return, through a cable from an output to an input or from speaker to mic. The result includes everything both ways: computer, browser and audio interface.',
  ),
  takeHeadphonesOffIf: message(
    'Take headphones off. If you use a cable, first turn down the input it goes into: a line output overloads a mic input. It starts silent; turn it up until it’s detected.',
  ),
  returnInput: message('Return input'),
  defaultInput: message('the default input'),
  simulatedLoopMs: message('simulated: a loop of {STAND_IN_MS} ms', { STAND_IN_MS: 'text' }),
  detected: message('{heard} of {ENOUGH} detected{muted}.', { heard: 'text', ENOUGH: 'text', muted: 'text' }),
  roundTrip: message('Round trip'),
  spreadMs: message('<spread>Spread</spread>, ms'),
  minMax: message('Min, max'),
  samples: message('Samples'),
  repeats: message('Repeats'),
  reportedByBrowser: message('Reported by the browser'),
  ms: message('{meanMs} ms', { meanMs: 'text' }),
  excluded: message(', {odd} excluded', { odd: 'text' }),
  outputMs: message('output {outputMs} ms', { outputMs: 'text' }),
  inputNotReported: message(', input not reported'),
  inputMs: message(', input {inputMs} ms', { inputMs: 'text' }),
  inputDisappearedItWas: message(
    'The input disappeared: it was unplugged, or another app took it. Plug it in and start again.',
  ),
  nothingDetected: message('. Nothing detected yet: turn it up slowly, or look for a mute'),
};
