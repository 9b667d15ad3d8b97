import { say } from '#core/audio/measure/sayings.ts';
import { readWindow } from '#core/audio/measure/windows.ts';
import type { Recording } from '#core/audio/samples/index.ts';
import { dbFromRatio } from '#core/model/units/index.ts';
import { type Fault, sideName } from './fault.ts';

/** Mains frequencies, and how far grids let them wander in normal running (50 mHz). */
const MAINS_HZ = [50, 60] as const;
const WANDER_HZ = 0.06;
const SHARED_HZ = 300;
const HARMONICS = [1, 2, 3, 4, 5, 6, 7, 8];
const RATE_HZ = 2000;
/** Length over which the phase of a line is tracked, s: long enough to separate 50 Hz from a bass at 49 or 51.9. */
const STRETCH_S = 8;
const MAX_STRETCHES = 24;
const SHORTEST_S = 2;
/** A Hann window of 0.25 s: zero from 8 Hz off its middle on, every 4 Hz. */
const WINDOW_S = 0.25;
const HOP_S = 0.125;
/** Beside a line, where the window is deaf to it. */
const BESIDE_HZ = 14;
/** Lines are looked at while the least sounds beside them. */
const QUIET_PART = 0.35;
/** One phase all along: 1; random ones over as many windows stay below a half. */
const COHERENT = 0.8;
const OVER_BESIDE_DB = 6;
const AGREE_HZ = 0.05;
/** Quieter is heard by no one: in itself, and against what is loud. */
const MIN_DBFS = -74;
const UNDER_PROGRAMME_DB = { watch: 58, fix: 40 } as const;

interface Line {
  readonly harmonic: number;
  readonly amplitude: number;
  /** Off the harmonic, as a shift of the AC power frequency. */
  readonly offHz: number;
}

/** Mains hum of one channel: lines at multiples of the AC power frequency that keep their phase while all else comes and goes. */
export async function humOf(
  track: Recording,
  programmeDbfs: number | null,
  channel: number,
  channels: number,
): Promise<Fault[]> {
  const lengthS = track.frames / track.sampleRateHz;
  if (lengthS < SHORTEST_S || programmeDbfs === null) return [];
  const stretchS = Math.min(STRETCH_S, lengthS);
  const count = Math.min(MAX_STRETCHES, Math.max(1, Math.floor(lengthS / stretchS)));
  const stretches: Float32Array[] = [];
  for (let i = 0; i < count; i++) {
    const start = count === 1 ? 0 : ((lengthS - stretchS) * i) / (count - 1);
    stretches.push(await readWindow(track, start, Math.floor(stretchS * RATE_HZ), RATE_HZ));
  }
  const found = MAINS_HZ.map((mainsHz) => ({ mainsHz, lines: linesOf(stretches, mainsHz) }));
  // 300 and 600 Hz are harmonics of both: the remaining lines decide which.
  return found.flatMap(({ mainsHz, lines }): Fault[] => {
    if (!lines.some((l) => (mainsHz * l.harmonic) % SHARED_HZ !== 0)) return [];
    const levelDbfs = dbFromRatio(Math.hypot(...lines.map((l) => l.amplitude)));
    const underDb = programmeDbfs - levelDbfs;
    if (levelDbfs < MIN_DBFS || underDb > UNDER_PROGRAMME_DB.watch) return [];
    const at = lines.map((l) => mainsHz * l.harmonic).join(', ');
    return [
      {
        id: `hum-${mainsHz}`,
        severity: underDb < UNDER_PROGRAMME_DB.fix ? 'fix' : 'watch',
        evidence: say.dbfsAtHzPhase({
          side: sideName(channel, channels),
          levelDbfs: levelDbfs.toFixed(0),
          at,
          underDb: underDb.toFixed(0),
        }),
        atS: [],
        channel: channels > 1 ? channel : null,
      },
    ];
  });
}

/** The lines of one AC power frequency that hold in most stretches, and agree about what it exactly is. */
function linesOf(stretches: readonly Float32Array[], mainsHz: number): Line[] {
  const lines = HARMONICS.flatMap((harmonic): Line[] => {
    const seen = stretches.flatMap((x) => lineIn(x, mainsHz, harmonic) ?? []);
    if (seen.length < 0.7 * stretches.length || seen.length === 0) return [];
    const middle = [...seen].sort((a, b) => a.amplitude - b.amplitude)[Math.floor(seen.length / 2)]!;
    return [middle];
  });
  if (lines.length === 0) return [];
  const loudest = lines.reduce((a, b) => (b.amplitude > a.amplitude ? b : a));
  const agreed = lines.filter((l) => Math.abs(l.offHz - loudest.offHz) < AGREE_HZ);
  // One line alone is the AC power only at the AC power frequency itself, or at twice that, where a supply hums.
  const alone = agreed.length === 1 && agreed[0]!.harmonic > 2;
  return alone || Math.abs(loudest.offHz) > WANDER_HZ ? [] : agreed;
}

function lineIn(x: Float32Array, mainsHz: number, harmonic: number): Line | null {
  const hz = mainsHz * harmonic;
  const line = demodulate(x, hz);
  const beside = [demodulate(x, hz - BESIDE_HZ), demodulate(x, hz + BESIDE_HZ)];
  const count = line.re.length;
  const quiet = Array.from({ length: count }, (_, w) => w)
    .map((w) => ({ w, power: (powerAt(beside[0]!, w) + powerAt(beside[1]!, w)) / 2 }))
    .sort((a, b) => a.power - b.power)
    .slice(0, Math.max(6, Math.floor(QUIET_PART * count)));
  // By phase alone: a few loud windows would agree with themselves.
  const sizes = quiet.map(({ w }) => Math.sqrt(powerAt(line, w)));
  const amplitude = [...sizes].sort((a, b) => a - b)[Math.floor(sizes.length / 2)]!;
  if (amplitude === 0) return null;
  let best = 0;
  let offHz = 0;
  const most = WANDER_HZ * 1.3;
  for (let off = -most; off <= most; off += 0.01) {
    let re = 0;
    let im = 0;
    for (const [q, { w }] of quiet.entries()) {
      if (sizes[q] === 0) continue;
      const turn = -2 * Math.PI * off * harmonic * w * HOP_S;
      const [c, s] = [Math.cos(turn) / sizes[q]!, Math.sin(turn) / sizes[q]!];
      re += line.re[w]! * c - line.im[w]! * s;
      im += line.re[w]! * s + line.im[w]! * c;
    }
    const size = Math.hypot(re, im);
    if (size > best) [best, offHz] = [size, off];
  }
  const besidePower = quiet.reduce((p, q) => p + q.power, 0) / quiet.length;
  if (best / quiet.length < COHERENT || amplitude ** 2 < besidePower * 10 ** (OVER_BESIDE_DB / 10)) return null;
  return { harmonic, amplitude, offHz };
}

interface Demodulated {
  readonly re: Float64Array;
  readonly im: Float64Array;
}
const powerAt = ({ re, im }: Demodulated, w: number): number => re[w]! ** 2 + im[w]! ** 2;

const HANN = Float64Array.from(
  { length: Math.round(WINDOW_S * RATE_HZ) },
  (_, i) => (2 - 2 * Math.cos((2 * Math.PI * i) / (WINDOW_S * RATE_HZ))) / (WINDOW_S * RATE_HZ),
);

/** The wave at one frequency, window by window, as amplitude and phase against one clock. */
function demodulate(x: Float32Array, hz: number): Demodulated {
  const size = HANN.length;
  const hop = Math.round(HOP_S * RATE_HZ);
  const count = Math.max(0, Math.floor((x.length - size) / hop) + 1);
  const re = new Float64Array(count);
  const im = new Float64Array(count);
  const step = (2 * Math.PI * hz) / RATE_HZ;
  const cos = Float64Array.from(HANN, (w, i) => w * Math.cos(step * i));
  const sin = Float64Array.from(HANN, (w, i) => w * Math.sin(step * i));
  for (let w = 0; w < count; w++) {
    const from = w * hop;
    let [a, b] = [0, 0];
    for (let i = 0; i < size; i++) {
      const v = x[from + i]!;
      a += v * cos[i]!;
      b -= v * sin[i]!;
    }
    // Turned back to the clock of the stretch, since each window began its own.
    const [c, s] = [Math.cos(step * from), Math.sin(step * from)];
    re[w] = a * c + b * s;
    im[w] = b * c - a * s;
  }
  return { re, im };
}
