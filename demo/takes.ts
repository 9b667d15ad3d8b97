import { encodeWav, type FftOf } from '#core/audio/samples/index.ts';
import {
  type ClapScene,
  clapsAt,
  game,
  hum,
  jingle,
  renderTrack,
  type SourceMaker,
  type Truth,
  voice,
} from '#core/desk-tests/stand-ins/index.ts';
import { ratioFromDb } from '#core/model/units/index.ts';
import { boathouse } from './boathouse.ts';
import { renderFiveTracks } from './five-tracks.ts';
import { renderQuayRecorder, renderThreeWays } from './quay-takes.ts';

/** What is really so in the boathouse; the rig knows typical figures only. Tests hold measurements against it. */
export const boathouseTruth: Truth = {
  delaysMs: {
    'camera.picture': 50,
    'camera.sound': 38,
    'camera-capture.picture': 96,
    'camera-capture.sound': 168,
    'mixer.inside': 1.1,
    'mixer.usb-out': 7.2,
    'sound-system.record': 18.4,
  },
  clocksPpm: { 'backup-recorder': 18, mixer: -13, camera: 6 },
};

/** The clap test on the couch: claps with a light that flashes, in session time. */
export const COUCH_CLAPS_S = [1.7134, 4.4021, 7.2507, 9.6338];
const CLAP_SECONDS = 12;
const SEED = 20260411;

const couchSounds = (): Record<string, SourceMaker> => {
  const claps = clapsAt(COUCH_CLAPS_S);
  const talk = voice(170);
  return {
    couch: (frames, rate, seed) => {
      const x = claps(frames, rate, seed);
      const y = talk(frames, rate, seed + 3);
      for (let i = 0; i < frames; i++) x[i]! += 0.35 * y[i]!;
      return x;
    },
  };
};

export const couchScene: ClapScene = {
  width: 640,
  height: 360,
  frameRateHz: 60,
  flashesS: COUCH_CLAPS_S,
  delayMs: boathouseTruth.delaysMs['camera.picture']! + boathouseTruth.delaysMs['camera-capture.picture']!,
  seed: SEED,
};
export const couchSceneFrames = CLAP_SECONDS * couchScene.frameRateHz;

/** The sound of the couch's own track during the clap test: it goes with the picture into the video. */
export const renderCouchSound = (fftOf: FftOf): Float32Array =>
  renderTrack(fftOf, {
    rig: boathouse,
    truth: boathouseTruth,
    listenerId: 'track-3',
    sounds: couchSounds(),
    seconds: CLAP_SECONDS,
    sampleRateHz: 48000,
    seed: SEED,
    loudestDbfs: -6,
  });

/** A take that the demo brings along, rendered when the demo is set up. */
export interface DemoTake {
  readonly name: string;
  readonly render: (fftOf: FftOf) => Uint8Array<ArrayBuffer>;
}

const talkOfAll = (): Record<string, SourceMaker> => ({
  wren: voice(205),
  'couch-game': game,
  jingles: jingle,
  ilse: voice(150),
});
const TALK_SECONDS = 30;
const TALK_RATE_HZ = 16000;

const talk = (listenerId: string, startS: number) => (fftOf: FftOf) =>
  encodeWav(
    [
      renderTrack(fftOf, {
        rig: boathouse,
        truth: boathouseTruth,
        listenerId,
        sounds: talkOfAll(),
        seconds: TALK_SECONDS,
        sampleRateHz: TALK_RATE_HZ,
        seed: SEED + 7,
        startS,
      }),
    ],
    TALK_RATE_HZ,
  );

const HOST_SECONDS = 16;

/** Wren alone as a listener has her, with something gone wrong on the way. */
const host = (listenerId: string, spoil: (x: Float32Array) => Float32Array) => (fftOf: FftOf) =>
  encodeWav(
    [
      spoil(
        renderTrack(fftOf, {
          rig: boathouse,
          truth: boathouseTruth,
          listenerId,
          sounds: { wren: voice(205) },
          seconds: HOST_SECONDS,
          sampleRateHz: TALK_RATE_HZ,
          seed: SEED + 11,
          loudestDbfs: -8,
        }),
      ),
    ],
    TALK_RATE_HZ,
  );

/** What was done to the spoilt takes: the loudest of the hum's parts, where tops were cut, and what was turned down then. */
export const SPOILT = { humDbfs: -42, clipGainDb: 11, turnedDownDb: -7 } as const;

const withHum = (x: Float32Array): Float32Array => {
  const mains = hum(50)(x.length, TALK_RATE_HZ, 0);
  return x.map((v, i) => v + 10 * ratioFromDb(SPOILT.humDbfs) * mains[i]!);
};
const cut = (x: Float32Array): Float32Array =>
  x.map((v) => ratioFromDb(SPOILT.turnedDownDb) * Math.max(-1, Math.min(1, v * ratioFromDb(SPOILT.clipGainDb))));

export const DRIFT_STARTS_S = { backup: 0.4, mixer: 1.05 };

/** WAV takes of the boathouse and of the quay. The couch clap and the quay's slates are videos and lie beside this file. */
export const demoTakes: readonly DemoTake[] = [
  {
    name: 'couch clap, backup recorder.wav',
    render: (fftOf) =>
      encodeWav(
        [
          renderTrack(fftOf, {
            rig: boathouse,
            truth: boathouseTruth,
            listenerId: 'backup',
            sounds: couchSounds(),
            seconds: CLAP_SECONDS,
            sampleRateHz: TALK_RATE_HZ,
            seed: SEED,
            startS: 0.65,
            loudestDbfs: -9,
          }),
        ],
        TALK_RATE_HZ,
      ),
  },
  { name: 'relay talk, backup recorder.wav', render: talk('backup', DRIFT_STARTS_S.backup) },
  { name: 'relay talk, track 4.wav', render: talk('track-4', DRIFT_STARTS_S.mixer) },
  { name: 'host with hum, backup recorder.wav', render: host('backup', withHum) },
  { name: 'host too loud, backup recorder.wav', render: host('backup', cut) },
  { name: 'relay, five tracks.wav', render: renderFiveTracks },
  { name: 'quay talk, three ways.wav', render: renderThreeWays },
  { name: 'quay talk, first recorder.wav', render: renderQuayRecorder('first') },
  { name: 'quay talk, second recorder.wav', render: renderQuayRecorder('second') },
];
