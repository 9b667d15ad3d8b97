import { encodeWav, seededNormal } from '#core/audio/samples/index.ts';
import { game, jingle, type SourceMaker, voice } from '#core/desk-tests/stand-ins/index.ts';
import { ratioFromDb } from '#core/model/units/index.ts';
import { boathouse } from './boathouse.ts';

const RATE_HZ = 24_000;
const SECONDS = 32;
const SEED = 20260412;
const FLOOR_DBFS = -74;
const FADE_S = 0.08;

interface Part {
  readonly sourceId: string;
  readonly make: SourceMaker;
  /** RMS of what sounds, dBFS. */
  readonly rmsDbfs: number;
  /** When it sounds, and how much louder than usual; all the time where absent. */
  readonly when?: readonly (readonly [fromS: number, toS: number, db?: number])[];
}

/** One source a track, recorded as it came: Ilse low, the game high, and an explosion in the middle of Wren's sentence. */
const PARTS: readonly Part[] = [
  {
    sourceId: 'wren',
    make: voice(205),
    rmsDbfs: -24,
    when: [
      [1, 9],
      [13, 23],
      [28, 31],
    ],
  },
  {
    sourceId: 'ilse',
    make: voice(150),
    rmsDbfs: -33,
    when: [
      [8.5, 13.5],
      [23, 28],
    ],
  },
  {
    sourceId: 'couch',
    make: voice(172),
    rmsDbfs: -29,
    when: [
      [11, 12.5],
      [25, 27],
    ],
  },
  {
    sourceId: 'couch-game',
    make: game,
    rmsDbfs: -22,
    when: [
      [0, 17],
      [17, 19.5, 9],
      [19.5, 32],
    ],
  },
  {
    sourceId: 'jingles',
    make: jingle,
    rmsDbfs: -20,
    when: [
      [0, 6],
      [26, 32],
    ],
  },
];
export const BURST_S = [17, 19.5] as const;

/** The relay on five tracks that begin together: what is to be balanced. */
export function renderFiveTracks(): Uint8Array<ArrayBuffer> {
  const frames = SECONDS * RATE_HZ;
  const tracks = PARTS.map(({ make, rmsDbfs, when = [[0, SECONDS]] }, n) => {
    const x = make(frames, RATE_HZ, SEED + 31 * n);
    const sounds = when.map(([from, to, db = 0]) => ({ from, to, gain: ratioFromDb(db) }));
    const level = ratioFromDb(rmsDbfs) / rmsWithin(x, sounds[0]!);
    const normal = seededNormal(SEED + n);
    const floor = ratioFromDb(FLOOR_DBFS);
    return x.map((v, i) => {
      const s = i / RATE_HZ;
      let gain = 0;
      for (const { from, to, gain: own } of sounds)
        gain = Math.max(gain, own * Math.max(0, Math.min(1, (s - from) / FADE_S + 1, (to - s) / FADE_S + 1)));
      return level * gain * v + floor * normal();
    });
  });
  const names = PARTS.map((p) => boathouse.sources.find((s) => s.id === p.sourceId)!.name);
  return encodeWav(tracks, RATE_HZ, names);
}

function rmsWithin(x: Float32Array, { from, to }: { from: number; to: number }): number {
  let sum = 0;
  const [start, end] = [Math.round(from * RATE_HZ), Math.round(to * RATE_HZ)];
  for (let i = start; i < end; i++) sum += x[i]! * x[i]!;
  return Math.sqrt(sum / (end - start));
}
