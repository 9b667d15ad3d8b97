import { loadFft } from '#cli/edges.ts';
import { band, filterInPlace } from '#core/audio/process/index.ts';
import { type FftOf, recordingOf, seededRandom } from '#core/audio/samples/index.ts';
import { type BandEdge, edgesOf, readTap } from '#core/desk-tests/tunes/index.ts';
import { aScene, renderScene, type Scene, walled } from '#core/desk-tests/tunes/scene.testkit.ts';
import type { Row } from './report.ts';

const LEVELS_DB = [0, -7, -14];
const SCENES = 20;
const RATE = 48_000;

interface Condition {
  readonly name: string;
  readonly scene: Partial<Scene>;
  readonly spoil: ((fftOf: FftOf, x: Float32Array, lowHz: number, highHz: number) => void) | null;
}

const slope: NonNullable<Condition['spoil']> = (_, x, lowHz, highHz) => filterInPlace(x, band(lowHz, highHz, RATE));

const wall: NonNullable<Condition['spoil']> = (fftOf, x, lowHz, highHz) => walled(fftOf, x, RATE, lowHz, highHz);

const CONDITIONS: readonly Condition[] = [
  { name: 'room, nothing ends it', scene: {}, spoil: null },
  { name: 'room, speech 0 dB, nothing ends it', scene: { speechDb: 0 }, spoil: null },
  { name: 'line, walls', scene: { roomDb: null }, spoil: wall },
  { name: 'line, slopes of 12 dB an octave', scene: { roomDb: null }, spoil: slope },
  { name: 'room, walls', scene: {}, spoil: wall },
  { name: 'room, slopes of 12 dB an octave', scene: {}, spoil: slope },
  { name: 'room, speech 0 dB, walls', scene: { speechDb: 0 }, spoil: wall },
];

const isTold = (edge: BandEdge): edge is Exclude<BandEdge, 'beyond' | null> => edge !== null && edge !== 'beyond';

/** How closely the ends of a band are told, in made-up scenes whose ends are drawn by chance. */
export async function bands(): Promise<Row[]> {
  const fftOf = await loadFft();
  const rows: Row[] = [];
  for (const [at, { name, scene, spoil }] of CONDITIONS.entries()) {
    let [ends, told, held] = [0, 0, 0];
    const octaves: number[] = [];
    for (let n = 0; n < SCENES; n++) {
      const random = seededRandom(40 + n);
      const lowHz = 120 * 4 ** random();
      const highHz = 2800 * 3.3 ** random();
      const one = aScene(n + 1000 * at, LEVELS_DB, { rateHz: RATE, ...scene }, 0);
      const x = renderScene(fftOf, one);
      spoil?.(fftOf, x, lowHz, highHz);
      const { tunes } = (await readTap(fftOf, recordingOf([x], RATE)))!;
      for (const { heard } of tunes.filter((t) => one.played.some((p) => p.id === t.id))) {
        if (!heard) continue;
        const { low, high } = edgesOf(heard.bands);
        for (const [edge, hz] of [[low, lowHz] as const, [high, highHz] as const]) {
          ends++;
          if (!isTold(edge)) continue;
          told++;
          octaves.push(Math.abs(Math.log2(edge.nominal / hz)));
          if (edge.low <= hz && hz <= edge.high) held++;
        }
      }
    }
    octaves.sort((a, b) => a - b);
    const share = (of: number) => octaves[Math.floor(of * (octaves.length - 1))]?.toFixed(2) ?? '-';
    rows.push({
      what: `band ends, ${name}`,
      ours: spoil
        ? `${told} of ${ends} told, truth within what is stated ${held}; off by ${share(0.5)} octaves (median), ${share(0.9)} (90 %)`
        : `${told} of ${ends} told that are none`,
      other: '',
      ratio: null,
      goal: spoil ? '90 % within what is stated' : 'at most 5 %',
      reached: spoil ? held >= 0.9 * told : told <= 0.05 * ends,
    });
    process.stdout.write(`${rows.at(-1)!.what}: ${rows.at(-1)!.ours}\n`);
  }
  return rows;
}
