import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { findClaps } from '#core/audio/measure/index.ts';
import { type FftOf, recordingOf, seededNormal, seededRandom } from '#core/audio/samples/index.ts';
import { convolve, roomResponse } from '#core/desk-tests/stand-ins/index.ts';
import { loadFft } from '../cli/edges.ts';
import { fileOf, needMaterial, MATERIAL_RATE_HZ as RATE, sentences, talker, tuneful, VOICES } from './material.ts';
import { MissingTool, type Row } from './report.ts';

const RECORDED = '/usr/share/hydrogen/data/drumkits';
const SOUNDS = /(^clap_0\d|fingersnap-med|woodblock-med|clave-med|^stick-\d|stick_woody)/i;
const SECONDS = 20;
const TAKES = 14;
const CLEAN_MINUTES = 15;
/** Loudest of a take: this part of its samples is quieter. */
const LOUD = 0.997;

type Random = () => number;
interface Scene {
  readonly name: string;
  readonly background: (random: Random) => Float32Array;
  /** The top of the clap over the loudest of the background, dB. */
  readonly overDb: number;
  readonly room: { readonly t60S: number; readonly directDb: number } | null;
}

/** Claps, slates, snaps and clicks that were recorded or made, over speech and music of other programs. */
export async function claps(): Promise<readonly Row[]> {
  needMaterial();
  if (!existsSync(RECORDED))
    throw new MissingTool(
      'The claps need recorded hands, snaps, sticks and blocks: apt-get install hydrogen-drumkits.',
    );
  const fftOf = await loadFft();
  const sharp = recorded();
  const words = VOICES.slice(0, 6).map((voice, n) => talker(voice, sentences(60, seededRandom(n)), 1 + 0.1 * (n % 3)));
  const tunes = [1, 2, 3, 4].map((seed) => tuneful(150, seededRandom(seed)));
  const cut =
    (from: readonly Float32Array[]) =>
    (random: Random): Float32Array => {
      const x = from[Math.floor(random() * from.length)]!;
      const at = Math.floor(random() * Math.max(1, x.length - SECONDS * RATE));
      return x.slice(at, at + SECONDS * RATE);
    };
  const still = (random: Random): Float32Array => {
    const normal = seededNormal(Math.floor(1e6 * random()));
    return Float32Array.from({ length: SECONDS * RATE }, () => 0.001 * normal());
  };
  const scenes: Scene[] = [
    { name: 'speech, as loud as its peaks', background: cut(words), overDb: 6, room: null },
    {
      name: 'speech, 6 dB over its peaks, in a room',
      background: cut(words),
      overDb: 12,
      room: { t60S: 0.4, directDb: 4 },
    },
    { name: 'music, as loud as its peaks', background: cut(tunes), overDb: 6, room: null },
    { name: 'music, 6 dB over its peaks', background: cut(tunes), overDb: 12, room: null },
    { name: 'far away in a room, nobody talks', background: still, overDb: 30, room: { t60S: 0.6, directDb: -5 } },
  ];
  const rows: Row[] = [];
  for (const [n, scene] of scenes.entries()) rows.push(await row(fftOf, scene, sharp, 100 * n));
  let [heard, seconds] = [0, 0];
  for (const x of [...words, ...tunes])
    for (let at = 0; at + 30 * RATE <= x.length && seconds < 60 * CLEAN_MINUTES; at += 30 * RATE, seconds += 30)
      heard += (await findClaps(fftOf, recordingOf([x.slice(at, at + 30 * RATE)], RATE))).length;
  return [
    ...rows,
    {
      what: `${(seconds / 60).toFixed(0)} minutes of speech and music without a clap`,
      ours: `${heard} heard`,
      other: '',
      ratio: null,
      goal: 'none',
      reached: heard === 0,
    },
  ];
}

async function row(fftOf: FftOf, scene: Scene, sharp: readonly Float32Array[], seed: number): Promise<Row> {
  let [made, found, wrong] = [0, 0, 0];
  const off: number[] = [];
  for (let take = 0; take < TAKES; take++) {
    const random = seededRandom(seed + take);
    const instants = spread(random);
    const heard = await findClaps(fftOf, recordingOf([render(fftOf, scene, sharp, instants, random)], RATE));
    const hits = instants.flatMap((s) => heard.filter((c) => Math.abs(c.atMs - 1000 * s) < 2).slice(0, 1));
    instants.forEach((s) => {
      const hit = heard.find((c) => Math.abs(c.atMs - 1000 * s) < 2);
      if (hit) off.push(Math.abs(hit.atMs - 1000 * s));
    });
    made += instants.length;
    found += hits.length;
    wrong += heard.length - hits.length;
  }
  const worst = off.sort((a, b) => a - b)[Math.floor(0.95 * off.length)] ?? 0;
  return {
    what: `claps, slates, snaps: ${scene.name}`,
    ours: `${found} of ${made} within 2 ms (95 of a hundred ${worst.toFixed(2)} ms), ${wrong} wrong`,
    other: '',
    ratio: null,
    goal: '95 of a hundred, none wrong',
    reached: found >= 0.95 * made && wrong === 0,
  };
}

/** Three a second apart as people do, or some by chance. */
function spread(random: Random): number[] {
  const first = 2 + random() * (SECONDS - 8);
  if (random() < 0.5) return [0, 1, 2].map((n) => first + n * (0.95 + 0.1 * random()));
  return [first, first + 1 + 2 * random()];
}

function render(
  fftOf: FftOf,
  { background, overDb, room }: Scene,
  sharp: readonly Float32Array[],
  instants: readonly number[],
  random: Random,
): Float32Array {
  let under = background(random);
  let over = new Float32Array(under.length);
  const sound = sharp[Math.floor(random() * sharp.length)]!;
  for (const s of instants) {
    const first = Math.round(s * RATE);
    for (let i = 0; i < sound.length && first + i < over.length; i++) over[first + i]! += sound[i]!;
  }
  if (room) {
    const response = roomResponse(RATE, room.t60S, room.directDb, Math.floor(1e6 * random()));
    over = convolve(fftOf, over, response).slice(0, under.length);
    under = convolve(fftOf, under, response).slice(0, under.length);
  }
  const loud = under.map(Math.abs).sort()[Math.floor(LOUD * under.length)]!;
  const top = over.reduce((most, v) => Math.max(most, Math.abs(v)), 0);
  const gain = (loud * 10 ** (overDb / 20)) / top;
  return under.map((v, i) => 0.3 * (v + gain * over[i]!));
}

/** Recorded sounds from where they begin, and two that are made: boards that fall together, and a click. */
function recorded(): Float32Array[] {
  const files = (readdirSync(RECORDED, { recursive: true }) as string[]).filter((f) =>
    SOUNDS.test(f.split('/').at(-1)!),
  );
  const random = seededRandom(9);
  const normal = seededNormal(9);
  const boards = Array.from({ length: 4 }, () => {
    const modes = [1, 1.7, 2.6, 3.8].map((m) => ({ hz: m * (700 + 600 * random()), decayS: 0.005 + 0.012 * random() }));
    return Float32Array.from({ length: 0.2 * RATE }, (_, i) => {
      const t = i / RATE;
      const wood = modes.reduce((sum, m) => sum + Math.exp(-t / m.decayS) * Math.sin(2 * Math.PI * m.hz * t), 0);
      return 0.3 * wood + 0.5 * normal() * Math.exp(-t / 0.004);
    });
  });
  const click = Float32Array.from({ length: 0.02 * RATE }, (_, i) => normal() * Math.exp(-i / RATE / 0.001));
  return [...files.map((f) => fromOnset(fileOf(join(RECORDED, f)))), ...boards, click];
}

/** From where the sound begins: back from its top, over gaps shorter than a millisecond, while an eighth of it is there. */
function fromOnset(x: Float32Array): Float32Array {
  const steep = x.map((v, i) => (i > 0 ? v - x[i - 1]! : v));
  const power = steep.map((_, i) => {
    let sum = 0;
    for (let k = Math.max(0, i - 11); k <= i; k++) sum += steep[k]! ** 2;
    return sum;
  });
  const top = power.reduce((best, v, i) => (v > power[best]! ? i : best), 0);
  let onset = top;
  for (let i = top; i >= 0 && onset - i <= 36; i--) if (power[i]! >= 0.12 * power[top]!) onset = i;
  const from = Math.max(0, onset - 6);
  const most = x.reduce((m, v) => Math.max(m, Math.abs(v)), 0);
  return x.slice(from, from + 0.5 * RATE).map((v) => v / most);
}
