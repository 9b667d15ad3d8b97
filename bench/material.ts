import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { needTool } from './processes.ts';

/** Sound that programs other than this one make: two speech synthesizers, and one for plucked strings and noise. */
export const MATERIAL_RATE_HZ = 48_000;
const TOOLS = ['espeak-ng', 'flite', 'sox'] as const;

export function needMaterial(): void {
  for (const tool of TOOLS)
    needTool('which', [tool], `The material needs ${TOOLS.join(', ')}: apt-get install ${TOOLS.join(' ')}.`);
}

const WORDS = (
  'time people way water day part sound place work year back thing name good sentence man think say great where ' +
  'help through much before line right too mean old any same tell boy follow came want show also around form three ' +
  'small set put end does another well large must big even such because turn here why ask went men read need land ' +
  'different home us move try kind hand picture again change off play spell air away animal house point page letter ' +
  'mother answer found study still learn should plant cover food sun four between state keep eye never last let ' +
  'thought city tree cross farm hard start might story saw far sea draw left late run while press close night real ' +
  'life few north open seem together next white children begin got walk example ease paper group always music those ' +
  'both mark often until mile river car feet care second book carry took science eat room friend began idea fish'
).split(' ');

/** Sentences of common words, by chance. */
export function sentences(count: number, random: () => number): string {
  const word = () => WORDS[Math.floor(random() * WORDS.length)]!;
  return Array.from({ length: count }, () => {
    const words = Array.from({ length: 5 + Math.floor(random() * 9) }, word);
    return `${words[0]![0]!.toUpperCase()}${words.join(' ').slice(1)}.`;
  }).join(' ');
}

export const VOICES = [
  'kal16',
  'slt',
  'rms',
  'awb',
  'en-us',
  'en-gb',
  'en-us+f3',
  'en-gb-scotland+m3',
  'en-gb-x-rp+f2',
] as const;
export type Voice = (typeof VOICES)[number];

/** A talker, mono, with its peak at 0.5. @param pace  1 as usual, over it faster and with shorter pauses */
export function talker(voice: Voice, text: string, pace = 1): Float32Array {
  return inFolder((folder) => {
    const [said, made] = [join(folder, 'said.wav'), join(folder, 'made.f32')];
    if (voice.startsWith('en'))
      execFileSync('espeak-ng', ['-v', voice, '-s', String(Math.round(165 * pace)), '-w', said, text]);
    else execFileSync('flite', ['-voice', voice, '--setf', `duration_stretch=${1 / pace}`, '-t', text, '-o', said]);
    execFileSync('sox', [
      said,
      '-r',
      String(MATERIAL_RATE_HZ),
      '-c',
      '1',
      '-e',
      'float',
      '-b',
      '32',
      made,
      'norm',
      '-6',
    ]);
    return floatsOf(made);
  });
}

const NOTES = ['A2', 'C3', 'D3', 'E3', 'G3', 'A3', 'C4', 'D4', 'E4', 'G4', 'A4', 'C5'];

/** Plucked strings, a bass and a beat of noise, mono; its peak at 0.5. */
export function tuneful(seconds: number, random: () => number): Float32Array {
  const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)]!;
  return inFolder((folder) => {
    const beat = 0.2 + 0.2 * random();
    const out = new Float32Array(Math.round(seconds * MATERIAL_RATE_HZ));
    const notes = NOTES.map((note) => synth(folder, note, ['pluck', note], 1.2, []));
    const bass = ['A1', 'E2', 'D2'].map((note) =>
      synth(folder, note, ['sine', note], 0.7, ['fade', 't', '0.005', '0.7', '0.3']),
    );
    const hat = synth(folder, 'hat', ['whitenoise'], 0.1, [
      'vol',
      '0.3',
      'highpass',
      '6000',
      'fade',
      't',
      '0.001',
      '0.1',
      '0.09',
    ]);
    for (let at = 0, n = 0; at < seconds; at += beat, n++) {
      add(out, pick(notes), at, 0.3 + 0.3 * random());
      if (n % 4 === 0) add(out, pick(bass), at, 0.5);
      if (n % 2 === 1) add(out, hat, at, 0.15);
    }
    const most = out.reduce((m, v) => Math.max(m, Math.abs(v)), 0);
    return out.map((v) => (0.5 * v) / most);
  });
}

function synth(
  folder: string,
  name: string,
  wave: readonly string[],
  seconds: number,
  effects: readonly string[],
): Float32Array {
  const made = join(folder, `${name}.f32`);
  const form = ['-r', String(MATERIAL_RATE_HZ), '-c', '1', '-e', 'float', '-b', '32'];
  execFileSync('sox', ['-R', '-n', ...form, made, 'synth', String(seconds), ...wave, ...effects]);
  return floatsOf(made);
}

function add(out: Float32Array, x: Float32Array, atS: number, gain: number): void {
  const first = Math.round(atS * MATERIAL_RATE_HZ);
  for (let i = 0; i < x.length && first + i < out.length; i++) out[first + i]! += gain * x[i]!;
}

/** A file's sound, mono. */
export function fileOf(path: string): Float32Array {
  return inFolder((folder) => {
    const made = join(folder, 'made.f32');
    execFileSync('sox', [path, '-r', String(MATERIAL_RATE_HZ), '-c', '1', '-e', 'float', '-b', '32', made]);
    return floatsOf(made);
  });
}

function floatsOf(path: string): Float32Array {
  const bytes = readFileSync(path);
  return new Float32Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength));
}

function inFolder<T>(work: (folder: string) => T): T {
  const folder = mkdtempSync(join(tmpdir(), 'mellow-material-'));
  try {
    return work(folder);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
