import { message } from '../message.ts';

/** What is worked on beside the page: how far it is, and what became of it. */
export const work = {
  title: message('In progress'),
  waiting: message('Waiting for its turn'),
  stageAt: message('{stage}: {share, number, percent}{left}', { stage: 'text', share: 'number', left: 'text' }),
  left: message(', {seconds, number} s left', { seconds: 'number' }),
  stopped: message('Stopped. Nothing changed. You can start again any time.'),
  startAgain: message('Start again'),
  discard: message('Discard'),
  stages: {
    opening: message('Opening'),
    decoding: message('Decoding the audio'),
    waveform: message('Reading the audio'),
    claps: message('Looking for claps'),
    slates: message('Looking for sync slates'),
    picture: message('Scanning the video'),
    comparing: message('Comparing the audio of both takes'),
    following: message('Following both takes to their ends'),
    joining: message('Comparing takes'),
    clicks: message('Matching clicks'),
    measuring: message('Measuring'),
    faults: message('Simulating faults'),
    ways: message('Drawing alternatives'),
    writing: message('Writing'),
    sending: message('Saving on this computer'),
  },
};
