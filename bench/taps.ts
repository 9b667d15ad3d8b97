import { spawnSync } from 'node:child_process';
import { loadFft } from '#cli/edges.ts';
import { band, filterInPlace } from '#core/audio/process/index.ts';
import { encodeWav, type FftOf, recordingOf, seededRandom } from '#core/audio/samples/index.ts';
import { game, jingle, noise, voice } from '#core/desk-tests/stand-ins/index.ts';
import { readTap, TUNES, type TuneReading } from '#core/desk-tests/tunes/index.ts';
import {
  aScene,
  type Played,
  renderScene,
  type Scene,
  stretched,
  trueAtMs,
} from '#core/desk-tests/tunes/scene.testkit.ts';
import { needTool } from './processes.ts';
import type { Row } from './report.ts';

const LEVELS_DB = [0, -7, -14, -20, -26, -30, -40, -50];
const SCENES = 20;
const EMPTY_TAKES = 400;

interface Condition {
  readonly name: string;
  readonly scene: Partial<Scene>;
  readonly spoil?: (x: Float32Array, rateHz: number, seed: number) => Promise<Float32Array> | Float32Array;
  /** What has to hold: share found to -20 and to -30 dB, and 90 % of delay, level and clock within these. */
  readonly limits: { readonly delayMs: number; readonly levelDb: number; readonly ppm: number; readonly to30: boolean };
}

const OPUS = ['-c:a', 'libopus', '-b:a', '32k', '-application', 'voip'];
const CONDITIONS: readonly Condition[] = [
  { name: 'room', scene: {}, limits: { delayMs: 0.1, levelDb: 1.5, ppm: 5, to30: true } },
  {
    name: 'Opus 32',
    scene: {},
    spoil: (x, r) => opus(x, r),
    limits: { delayMs: 0.1, levelDb: 1.5, ppm: 5, to30: true },
  },
  { name: '4:1, clipped', scene: {}, spoil: squeezed, limits: { delayMs: 0.1, levelDb: 2, ppm: 5, to30: true } },
  { name: 'speech 0 dB', scene: { speechDb: 0 }, limits: { delayMs: 0.15, levelDb: 3, ppm: 5, to30: true } },
  {
    name: 'call, speech 0 dB',
    scene: { speechDb: 0 },
    spoil: async (x, r, seed) => lossy(await opus(called(x, r), r), r, seed),
    limits: { delayMs: 0.15, levelDb: 3, ppm: 5, to30: true },
  },
  { name: 'speech +10 dB', scene: { speechDb: 10 }, limits: { delayMs: 0.5, levelDb: 4, ppm: 12, to30: false } },
  {
    name: 'lost and stretched',
    scene: {},
    spoil: (x, r, seed) => lossy(stretched(x, r, seed), r, seed),
    // Its delay moves by some ten ms: no time is better than that, and no clock is told.
    limits: { delayMs: 10, levelDb: 4, ppm: 5, to30: false },
  },
];

/** Through a codec and back. */
async function opus(x: Float32Array, rateHz: number): Promise<Float32Array> {
  const run = (args: string[], input: Uint8Array) => {
    const done = spawnSync('ffmpeg', ['-v', 'error', ...args], { input, maxBuffer: 1 << 28 });
    if (done.status !== 0) throw new Error(`ffmpeg: ${done.stderr}`);
    return new Uint8Array(done.stdout);
  };
  const coded = run(['-f', 'wav', '-i', 'pipe:0', ...OPUS, '-f', 'ogg', 'pipe:1'], encodeWav([x], rateHz));
  const wav = run(['-f', 'ogg', '-i', 'pipe:0', '-ar', String(rateHz), '-ac', '1', '-f', 'f32le', 'pipe:1'], coded);
  return new Float32Array(wav.buffer, 0, wav.byteLength >> 2);
}

const ATTACK_S = 0.005;
const RELEASE_S = 0.15;

/** A follower of the level, dB. */
function* followed(x: Float32Array, rateHz: number): Generator<number> {
  const [up, down] = [1 - Math.exp(-1 / (ATTACK_S * rateHz)), 1 - Math.exp(-1 / (RELEASE_S * rateHz))];
  let level = 1e-6;
  for (const v of x) {
    const a = Math.abs(v);
    level += (a > level ? up : down) * (a - level);
    yield 20 * Math.log10(level + 1e-9);
  }
}

/** Compressed 4:1 from -32 dBFS, then driven 12 dB into a ceiling. */
function squeezed(x: Float32Array, rateHz: number): Float32Array {
  const out = new Float32Array(x.length);
  let i = 0;
  for (const db of followed(x, rateHz)) {
    const v = x[i]! * 10 ** ((-0.75 * Math.max(0, db + 32) + 26) / 20);
    out[i++] = Math.max(-1, Math.min(1, v));
  }
  return out;
}

/** A call: 300 to 3400 Hz, a gate that lets the loud pass only, and a level that is held. */
function called(x: Float32Array, rateHz: number): Float32Array {
  const out = x.slice();
  filterInPlace(out, band(300, 3400, rateHz));
  let slow = -30;
  let open = 0;
  let i = 0;
  for (const db of followed(out, rateHz)) {
    slow += (db - slow) / (1.5 * rateHz);
    open += ((db > slow - 12 ? 1 : 0.126) - open) / (0.02 * rateHz);
    out[i]! *= open * 10 ** (Math.min(18, -24 - slow) / 20);
    i++;
  }
  return out;
}

/** A twentieth lost, in bursts of 20 to 60 ms. */
function lossy(x: Float32Array, rateHz: number, seed: number): Float32Array {
  const random = seededRandom(seed + 9);
  for (let at = 0; at < x.length; ) {
    at += Math.floor((0.3 + 1.0 * random()) * rateHz);
    const long = Math.floor((0.02 + 0.04 * random()) * rateHz);
    x.fill(0, at, at + long);
    at += long;
  }
  return x;
}

interface Held {
  readonly played: Played;
  readonly read: TuneReading;
}

async function condition(
  fftOf: FftOf,
  { name, scene, spoil, limits }: Condition,
): Promise<{ rows: Row[]; claims: Claim[] }> {
  const held: Held[] = [];
  const offs = { delayMs: [] as number[], levelDb: [] as number[], ppm: [] as number[] };
  const claims: Claim[] = [];
  const seconds = { right: 0, there: 0, wrong: 0, offDb: [] as number[] };
  let [upside, polar] = [0, 0];
  for (let n = 0; n < SCENES; n++) {
    const one = aScene(n + 1000 * CONDITIONS.findIndex((c) => c.name === name), LEVELS_DB, {
      ...scene,
      rateHz: n % 2 === 0 ? 48_000 : 44_100,
    });
    const dry = renderScene(fftOf, one);
    const x = spoil ? await spoil(dry, one.rateHz, n) : dry;
    const reading = (await readTap(fftOf, recordingOf([x], one.rateHz)))!;
    const own = one.played.map((played): Held => ({ played, read: reading.tunes[played.id]! }));
    held.push(...own);
    for (const t of reading.tunes)
      if (t.confidence !== null)
        claims.push({
          confidence: t.confidence,
          isTrue: one.played.some((p) => p.id === t.id && Math.abs(t.heard!.atMs - trueAtMs(p)) < 60),
        });
    const there = own.filter((h) => h.read.heard);
    const delay = there.map((h) => h.read.heard!.atMs - trueAtMs(h.played));
    const level = there.map((h) => h.read.heard!.gainDb - h.played.levelDb);
    offs.delayMs.push(...aboutMiddle(delay));
    offs.levelDb.push(...aboutMiddle(level));
    offs.ppm.push(...there.flatMap((h) => (h.read.heard!.ppm === null ? [] : [h.read.heard!.ppm - h.played.ppm])));
    const strongest = there.reduce((a, b) => (b.read.heard!.gainDb > a.read.heard!.gainDb ? b : a));
    for (const { played, read } of there) {
      if (read.heard!.polarity !== null) {
        polar++;
        if (read.heard!.polarity !== played.polarity * strongest.played.polarity) upside++;
      }
      const ways = read.heard!.seconds.ways;
      if (played.second) {
        seconds.there++;
        const own = ways.find((w) => Math.abs(w.afterMs - played.second!.ms) < 0.5);
        if (own) seconds.right++;
        if (own) seconds.offDb.push(own.underDb + played.second.db);
      }
      if (ways.some((w) => !w.perhapsReflection && !(played.second && Math.abs(w.afterMs - played.second.ms) < 0.5)))
        seconds.wrong++;
    }
  }
  const foundTo = (from: number, to: number) => {
    const some = held.filter((h) => h.played.levelDb <= from && h.played.levelDb >= to);
    return `${some.filter((h) => h.read.word === 'found').length} of ${some.length}`;
  };
  const p = (of: readonly number[], share: number) =>
    [...of].map(Math.abs).sort((a, b) => a - b)[Math.floor(share * (of.length - 1))] ?? 0;
  const is = { delayMs: p(offs.delayMs, 0.9), levelDb: p(offs.levelDb, 0.9), ppm: p(offs.ppm, 0.9) };
  const wanted = held.filter((h) => h.played.levelDb >= (limits.to30 ? -30 : -20));
  const share = wanted.filter((h) => h.read.word === 'found').length / wanted.length;
  const false_ = claims.filter((c) => !c.isTrue).length;
  return {
    claims,
    rows: [
      {
        what: `tap, ${name}: found`,
        ours: `to -20 dB ${foundTo(0, -20)}, -30 ${foundTo(-21, -30)}, -40 ${foundTo(-40, -40)}, -50 ${foundTo(-50, -50)}; false ${false_}`,
        other: '',
        ratio: null,
        goal: `95 % to ${limits.to30 ? -30 : -20} dB`,
        reached: share >= 0.95,
      },
      {
        what: `tap, ${name}: read`,
        ours: `90 % within ${is.delayMs.toFixed(3)} ms, ${is.levelDb.toFixed(2)} dB, ${is.ppm.toFixed(2)} ppm of ${offs.ppm.length} (median ${p(offs.delayMs, 0.5).toFixed(3)}, ${p(offs.levelDb, 0.5).toFixed(2)}); second ways ${seconds.right} of ${seconds.there} (90 % within ${p(seconds.offDb, 0.9).toFixed(1)} dB), wrong ${seconds.wrong} of ${held.length}; polarity wrong ${upside} of ${polar}`,
        other: '',
        ratio: null,
        goal: `${limits.delayMs} ms, ${limits.levelDb} dB, ${limits.ppm} ppm`,
        reached: is.delayMs <= limits.delayMs && is.levelDb <= limits.levelDb && is.ppm <= limits.ppm,
      },
    ],
  };
}

function aboutMiddle(of: readonly number[]): number[] {
  const middle = [...of].sort((a, b) => a - b)[of.length >> 1] ?? 0;
  return of.map((v) => v - middle);
}

interface Claim {
  readonly confidence: number;
  readonly isTrue: boolean;
}

/** Takes of all kinds in which no one played a tune. */
async function empty(fftOf: FftOf): Promise<{ row: Row; claims: Claim[] }> {
  const makers = [voice(118), voice(205), game, jingle, noise];
  const rate = 16_000;
  const claims: Claim[] = [];
  let takes = 0;
  for (let n = 0; n < EMPTY_TAKES; n++) {
    const mixed = new Float32Array(20 * rate);
    for (const [i, maker] of makers.entries())
      if (i === n % makers.length || i === (n * 3 + 1) % makers.length) {
        const part = maker(mixed.length, rate, n * 13 + i);
        for (let k = 0; k < mixed.length; k++) mixed[k]! += part[k]!;
      }
    const own = (await readTap(fftOf, recordingOf([mixed], rate)))!.tunes.filter((t) => t.confidence !== null);
    claims.push(...own.map((t) => ({ confidence: t.confidence!, isTrue: false })));
    if (own.length > 0) takes++;
  }
  return {
    claims,
    row: {
      what: `tap, nothing played: ${EMPTY_TAKES} takes`,
      ours: `claimed in ${takes} takes, ${claims.length} of ${EMPTY_TAKES * TUNES} tunes`,
      other: '',
      ratio: null,
      goal: '1 % of takes, 0.1 % of tunes',
      reached: takes <= EMPTY_TAKES / 100 && claims.length <= (EMPTY_TAKES * TUNES) / 1000,
    },
  };
}

/** What `readTap` finds and how exactly, in made-up scenes with codecs. Takes half an hour. */
export async function taps(): Promise<Row[]> {
  needTool('ffmpeg', ['-version'], 'The taps need ffmpeg: apt-get install ffmpeg.');
  const fftOf = await loadFft();
  const rows: Row[] = [];
  const claims: Claim[] = [];
  for (const one of CONDITIONS) {
    const done = await condition(fftOf, one);
    rows.push(...done.rows);
    claims.push(...done.claims);
    process.stdout.write(`${done.rows.map((r) => `${r.what}: ${r.ours}`).join('\n')}\n`);
  }
  const nothing = await empty(fftOf);
  rows.push(nothing.row);
  claims.push(...nothing.claims);
  const sure = claims.filter((c) => c.confidence >= 0.95);
  const true_ = sure.filter((c) => c.isTrue).length;
  rows.push({
    what: 'tap, claims shown with 0.95 or more',
    ours: `${true_} of ${sure.length} true; of ${claims.length - sure.length} below, ${claims.filter((c) => c.confidence < 0.95 && c.isTrue).length} true`,
    other: '',
    ratio: null,
    goal: '95 % true',
    reached: true_ >= 0.95 * sure.length,
  });
  return rows;
}
