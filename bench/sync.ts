import { joinTakes, measureJumps, measureOffset } from '#core/audio/measure/index.ts';
import { recordingOf, resample, seededNormal, seededRandom } from '#core/audio/samples/index.ts';
import { game, voice } from '#core/desk-tests/stand-ins/index.ts';
import { testPrograms } from '#core/routing/suggest/highs.testkit.ts';
import { alignAll } from '#core/routing/suggest/index.ts';
import { delaySettingsFor, evaluate } from '#core/signal/index.ts';
import { loadFft } from '../cli/edges.ts';
import type { Row } from './report.ts';
import { bigRig } from './rigs.ts';

const RATE = 16_000;

/** Twelve takes of five recorders, four minutes and more each, out of two sessions, unsorted. */
export async function joining(): Promise<readonly Row[]> {
  const random = seededRandom(41);
  const sessions = [1, 2].map((s) => talkAndGame(s, 600));
  const cuts = Array.from({ length: 12 }, (_, i) => {
    const session = i % 2;
    const fromS = Math.abs(random()) * 300;
    return { session, fromS, seconds: 240 + 60 * Math.abs(random()), recorder: i % 5 };
  });
  const takes = cuts.map(({ session, fromS, seconds, recorder }, n) => {
    const normal = seededNormal(n);
    const x = resample(sessions[session]!, fromS * RATE, 1 / (1 + (recorder - 2) * 30e-6), Math.round(seconds * RATE));
    return recordingOf([x.map((v) => 0.3 * v + 0.005 * normal())], RATE);
  });
  const fftOf = await loadFft();
  const begun = performance.now();
  const groups = await joinTakes(fftOf, takes);
  const seconds = (performance.now() - begun) / 1000;
  let worst = 0;
  for (const { takes: laid } of groups)
    for (const t of laid) {
      const [own, first] = [cuts[t.index]!, cuts[laid[0]!.index]!];
      const wrong = own.session !== first.session;
      worst = Math.max(
        worst,
        wrong ? Number.POSITIVE_INFINITY : Math.abs(t.startMs - 1000 * (own.fromS - first.fromS)),
      );
    }
  return [
    {
      what: '12 takes of 5 recorders, 4 to 5 min each, joined by what they hold',
      ours: `${seconds.toFixed(1)} s, ${groups.length} sessions, off by ${worst.toFixed(2)} ms at most`,
      other: '',
      ratio: null,
      goal: 'all right, under 30 s',
      reached: groups.length === 2 && worst < 30 && seconds < 30,
    },
  ];
}

function talkAndGame(seed: number, seconds: number): Float32Array {
  const out = new Float32Array(seconds * RATE);
  const block = 60 * RATE;
  for (let at = 0, n = 0; at < out.length; at += block, n++) {
    const count = Math.min(block, out.length - at);
    const talk = voice(110 + 17 * ((seed + n) % 5))(count, RATE, 100 * seed + n);
    const bang = game(count, RATE, 100 * seed + 50 + n);
    for (let i = 0; i < count; i++) out[at + i] = talk[i]! + 0.4 * bang[i]!;
  }
  return out;
}

/** Delays of many devices for many listeners at once, to a proof. */
export async function aligning(): Promise<readonly Row[]> {
  const one = bigRig(720);
  // Whoever records beside each stream hears by the same delays: half of all pairs pull at settings that others pull at.
  const rig = {
    ...one,
    listeners: one.listeners.flatMap((l) => [l, { ...l, id: `${l.id}-too`, toleranceId: 'atsc-is191' as const }]),
  };
  const evaluation = evaluate(rig);
  const settings = new Set(
    rig.listeners.flatMap((l) => delaySettingsFor(rig, evaluation, l.id).map((s) => `${s.deviceId}.${s.spec.id}`)),
  );
  const pairs = evaluation.pairs.filter((p) => p.ways[0]?.offset).length;
  const solve = await testPrograms();
  const begun = performance.now();
  const { proven, gap } = alignAll(rig, evaluation, solve);
  const seconds = (performance.now() - begun) / 1000;
  return [
    {
      what: `delays for all listeners at once: ${settings.size} settings on the ways of ${pairs} pairs`,
      ours: `${seconds.toFixed(2)} s, ${proven ? 'proven the best' : `gap ${gap.toFixed(3)}`}`,
      other: '',
      ratio: null,
      goal: '30 settings, 60 pairs: under 5 s',
      reached: seconds < 5 && settings.size >= 30 && pairs >= 60,
    },
  ];
}

const HOUR_S = 3600;

/** Two clocks over an hour, with and without one lost buffer of 10 ms. */
export async function drifting(): Promise<readonly Row[]> {
  const fftOf = await loadFft();
  const session = talkAndGame(7, HOUR_S + 10);
  let [worstPpm, worstStepMs, worstAtS, found, wanted] = [0, 0, 0, 0, 0];
  const cases = [0.5, -20, 150].flatMap((ppm) => [
    { ppm, lostAtS: null },
    { ppm, lostAtS: 1234.5 + 11 * Math.abs(ppm) },
  ]);
  for (const [n, { ppm, lostAtS }] of cases.entries()) {
    const [a, b] = [seededNormal(2 * n + 1), seededNormal(2 * n + 2)];
    let y = resample(session, 2 * RATE, 1 / (1 + ppm * 1e-6), HOUR_S * RATE);
    if (lostAtS !== null) {
      const at = Math.round((lostAtS - 2) * RATE);
      const lost = 0.01 * RATE;
      const joined = new Float32Array(y.length - lost);
      joined.set(y.subarray(0, at));
      joined.set(y.subarray(at + lost), at);
      y = joined;
    }
    const ref = recordingOf([session.map((v) => v + 0.01 * a())], RATE);
    const other = recordingOf([y.map((v) => v + 0.01 * b())], RATE);
    const apart = await measureJumps(fftOf, ref, other, await measureOffset(fftOf, ref, other));
    worstPpm = Math.max(worstPpm, Math.abs(apart.driftPpm! - ppm));
    wanted += lostAtS === null ? 0 : 1;
    if (lostAtS === null) found -= apart.jumps.length;
    else if (apart.jumps.length === 1) {
      found++;
      worstStepMs = Math.max(worstStepMs, Math.abs(apart.jumps[0]!.stepMs + 10));
      worstAtS = Math.max(worstAtS, Math.abs(apart.jumps[0]!.atMs / 1000 - lostAtS));
    }
  }
  return [
    {
      what: `clocks over an hour, 0.5 to 150 ppm, with and without a lost buffer of 10 ms (${cases.length} pairs of takes)`,
      ours: `within ${worstPpm.toFixed(3)} ppm; ${found} of ${wanted} steps, within ${worstAtS.toFixed(2)} s and ${worstStepMs.toFixed(2)} ms`,
      other: '',
      ratio: null,
      goal: '0.1 ppm; every step within 1 s and 1 ms, none where none was',
      reached: worstPpm < 0.1 && found === wanted && worstAtS < 1 && worstStepMs < 1,
    },
  ];
}
