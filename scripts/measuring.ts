// Measures the measuring: the minimum requirements of EBU Tech 3341 and 3342, and faults put into made takes. Prints the
// tables of docs/measuring.md; run after a change to core/audio/measure: npx tsx scripts/measuring.ts
import { loadFft } from '../cli/edges.ts';
import { cleanTake, faultyTake, recordingOfTake } from '../core/audio/measure/faults/takes.testkit.ts';
import { diagnose, FAULT_IDS, measureLevels } from '../core/audio/measure/index.ts';
import { recordingOf } from '../core/audio/samples/index.ts';

const RATE = 48_000;
const sine = (hz: number, peak: number, seconds: number, phase = 0): Float32Array =>
  Float32Array.from(
    { length: Math.round(seconds * RATE) },
    (_, i) => peak * Math.sin((2 * Math.PI * hz * i) / RATE + phase),
  );
const tone = (dbfs: number, seconds: number): Float32Array => sine(1000, 10 ** (dbfs / 20), seconds);
const joined = (...parts: readonly Float32Array[]): Float32Array => {
  const out = new Float32Array(parts.reduce((n, p) => n + p.length, 0));
  let at = 0;
  for (const part of parts) {
    out.set(part, at);
    at += part.length;
  }
  return out;
};
const faded = (x: Float32Array): Float32Array => x.map((v, i) => v * Math.min(1, i / 480, (x.length - 1 - i) / 480));

type Figure = 'integratedLufs' | 'rangeLu' | 'maxMomentaryLufs' | 'maxShortTermLufs' | 'truePeakDbtp';
const CASES: readonly (readonly [name: string, figure: Figure, wanted: number, within: string, x: Float32Array])[] = [
  ['3341-1', 'integratedLufs', -23, '±0.1', tone(-23, 20)],
  ['3341-2', 'integratedLufs', -33, '±0.1', tone(-33, 20)],
  ['3341-3', 'integratedLufs', -23, '±0.1', joined(tone(-36, 10), tone(-23, 60), tone(-36, 10))],
  [
    '3341-4',
    'integratedLufs',
    -23,
    '±0.1',
    joined(tone(-72, 10), tone(-36, 10), tone(-23, 60), tone(-36, 10), tone(-72, 10)),
  ],
  ['3341-5', 'integratedLufs', -23, '±0.1', joined(tone(-26, 20), tone(-20, 20.1), tone(-26, 20))],
  [
    '3341-9',
    'maxShortTermLufs',
    -23,
    '±0.1',
    joined(...Array.from({ length: 5 }, () => joined(tone(-20, 1.34), tone(-30, 1.66)))),
  ],
  [
    '3341-10',
    'maxShortTermLufs',
    -23,
    '±0.1',
    joined(new Float32Array(1.05 * RATE), tone(-23, 3), new Float32Array(RATE)),
  ],
  [
    '3341-12',
    'maxMomentaryLufs',
    -23,
    '±0.1',
    joined(...Array.from({ length: 12 }, () => joined(tone(-20, 0.18), tone(-30, 0.22)))),
  ],
  [
    '3341-13',
    'maxMomentaryLufs',
    -23,
    '±0.1',
    joined(new Float32Array(0.14 * RATE), tone(-23, 0.4), new Float32Array(RATE)),
  ],
  ['3341-15', 'truePeakDbtp', -6, '+0.2 −0.4', faded(sine(RATE / 4, 0.5, 1))],
  ['3341-16', 'truePeakDbtp', -6, '+0.2 −0.4', faded(sine(RATE / 4, 0.5, 1, Math.PI / 4))],
  ['3341-17', 'truePeakDbtp', -6, '+0.2 −0.4', faded(sine(RATE / 6, 0.5, 1, Math.PI / 3))],
  ['3341-18', 'truePeakDbtp', -6, '+0.2 −0.4', faded(sine(RATE / 8, 0.5, 1, (67.5 * Math.PI) / 180))],
  ['3341-19', 'truePeakDbtp', 3, '+0.2 −0.4', faded(sine(RATE / 4, 1.41, 1, Math.PI / 4))],
  ['3342-1', 'rangeLu', 10, '±1', joined(tone(-20, 20), tone(-30, 20))],
  ['3342-2', 'rangeLu', 5, '±1', joined(tone(-20, 20), tone(-15, 20))],
  ['3342-3', 'rangeLu', 20, '±1', joined(tone(-40, 20), tone(-20, 20))],
  ['3342-4', 'rangeLu', 15, '±1', joined(tone(-50, 20), tone(-35, 20), tone(-20, 20), tone(-35, 20), tone(-50, 20))],
];

const print = (line: string): boolean => process.stdout.write(`${line}\n`);

async function requirements(): Promise<void> {
  print('| case | figure | wanted | within | read |\n|---|---|---|---|---|');
  for (const [name, figure, wanted, within, x] of CASES) {
    const levels = await measureLevels(recordingOf([x, x], RATE));
    print(`| ${name} | ${figure} | ${wanted} | ${within} | ${levels[figure]!.toFixed(2)} |`);
  }
}

const CLEAN = 200;
const STRENGTHS = 8;

async function faults(seed: number): Promise<void> {
  const fftOf = await loadFft();
  print('| fault | takes | found | also said |\n|---|---|---|---|');
  let [found, all] = [0, 0];
  for (const [n, id] of FAULT_IDS.entries()) {
    let own = 0;
    const also = new Map<string, number>();
    for (let k = 0; k < STRENGTHS; k++) {
      const take = faultyTake(fftOf, id, k / (STRENGTHS - 1), seed + 100 + 17 * n + k);
      for (const f of (await diagnose(fftOf, recordingOfTake(take))).faults)
        if (f.id === id) own++;
        else also.set(f.id, (also.get(f.id) ?? 0) + 1);
    }
    found += own;
    all += STRENGTHS;
    print(`| ${id} | ${STRENGTHS} | ${own} | ${[...also].map(([other, times]) => `${other} ${times}`).join(', ')} |`);
  }
  const alarms: string[] = [];
  for (let k = 0; k < CLEAN; k++) {
    const take = cleanTake(fftOf, seed + 5000 + k);
    const said = (await diagnose(fftOf, recordingOfTake(take))).faults.map((f) => f.id);
    if (said.length > 0) alarms.push(`${take.what}: ${said.join(' and ')}`);
  }
  print(
    `\nFound ${found} of ${all} (${((100 * found) / all).toFixed(1)} %); something said of ${alarms.length} of ${CLEAN} clean takes.`,
  );
  for (const alarm of alarms) print(`- ${alarm}`);
}

await requirements();
for (const seed of [0, 3000]) {
  print(`\n### Takes from seed ${seed}\n`);
  await faults(seed);
}
