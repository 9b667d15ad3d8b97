import { closeSync, existsSync, mkdirSync, openSync, renameSync, writeSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { encodeWav, resample, seededNormal } from '#core/audio/samples/index.ts';
import { voice } from '#core/desk-tests/stand-ins/index.ts';
import { measureProcess, needTool } from './processes.ts';
import type { Row } from './report.ts';

const RATE = 48000;
const MINUTES = 60;
const OFFSET_S = 3.2174;
const DRIFT_PPM = 60;
const PYTHON = process.env.PYTHON ?? '/usr/bin/python3';

/** An hour of talk, recorded twice: by clocks that drift apart, each with noise of its own. */
export async function offsetOfAnHour(): Promise<readonly Row[]> {
  needTool(PYTHON, ['-c', 'import scipy'], 'The hour needs scipy: apt-get install python3-scipy (or set PYTHON).');
  const folder = join(tmpdir(), 'mellow-bench');
  mkdirSync(folder, { recursive: true });
  const [first, second] = [join(folder, 'hour-a.wav'), join(folder, 'hour-b.wav')];
  if (!existsSync(second)) writeHours(first, second);
  const ours = await measureProcess('bin/mellow', ['offset', first, second, '--json']);
  const theirs = await measureProcess(PYTHON, ['bench/whole_length.py', first, second]);
  const found = JSON.parse(ours.stdout) as { offsetMs: number; driftPpm: number; confidence: number };
  const ratio = theirs.seconds / ours.seconds;
  // Told for the first sample of the first take, in the second one's clock.
  const offBy = Math.abs(found.offsetMs + 1000 * OFFSET_S * (1 + DRIFT_PPM * 1e-6));
  return [
    {
      what: `offset of two takes of ${MINUTES} min, mono, 48 kHz, whole process`,
      ours: `${ours.seconds.toFixed(1)} s`,
      other: `scipy, whole length: ${theirs.seconds.toFixed(1)} s`,
      ratio,
      goal: '4 or more',
      reached: ratio >= 4,
    },
    {
      what: '  its memory',
      ours: `${ours.peakMib.toFixed(0)} MiB`,
      other: `${theirs.peakMib.toFixed(0)} MiB`,
      ratio: theirs.peakMib / ours.peakMib,
      goal: 'under 400 MiB',
      reached: ours.peakMib < 400,
    },
    {
      what: '  its error',
      ours: `${offBy.toFixed(4)} ms, ${Math.abs(found.driftPpm - DRIFT_PPM).toFixed(4)} ppm, confidence ${found.confidence.toFixed(2)}`,
      other: `lag of its highest peak: ${theirs.stdout.trim()} ms, no drift`,
      ratio: null,
      goal: '0.5 ms, 1 ppm',
      reached: offBy < 0.5 && Math.abs(found.driftPpm - DRIFT_PPM) < 1 && found.confidence >= 0.5,
    },
  ];
}

/** The second starts later, so the same sound stands earlier in it; its clock is fast, so it grows longer. */
function writeHours(first: string, second: string): void {
  process.stdout.write('Rendering two takes of an hour…\n');
  const frames = MINUTES * 60 * RATE;
  const session = new Float32Array(frames + 8 * RATE);
  const block = 60 * RATE;
  for (let at = 0, n = 0; at < session.length; at += block, n++) {
    session.set(voice(n % 3 === 0 ? 190 : 125)(Math.min(block, session.length - at), RATE, 100 + n), at);
  }
  writeMinutes(first, 1, (at, count) => session.subarray(at, at + count));
  const step = 1 / (1 + DRIFT_PPM * 1e-6);
  writeMinutes(second, 2, (at, count) => {
    const from = OFFSET_S * RATE + at * step;
    const base = Math.max(0, Math.floor(from) - 64);
    return resample(session.subarray(base, base + count + 128), from - base, step, count);
  });
}

function writeMinutes(path: string, seed: number, piece: (at: number, count: number) => Float32Array): void {
  const frames = MINUTES * 60 * RATE;
  const normal = seededNormal(seed);
  const file = openSync(`${path}.part`, 'w');
  const header = encodeWav([new Float32Array(0)], RATE).slice(0, 44);
  const view = new DataView(header.buffer);
  view.setUint32(4, 36 + frames * 2, true);
  view.setUint32(40, frames * 2, true);
  writeSync(file, header);
  const block = 60 * RATE;
  for (let at = 0; at < frames; at += block) {
    const samples = piece(at, block);
    const words = new Int16Array(block);
    for (let i = 0; i < block; i++) {
      words[i] = Math.max(-32768, Math.min(32767, Math.round(9000 * samples[i]! + 120 * normal())));
    }
    writeSync(file, words);
  }
  closeSync(file);
  renameSync(`${path}.part`, path);
}
