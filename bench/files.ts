import { execFileSync, spawnSync } from 'node:child_process';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { measureOffset } from '#core/audio/measure/index.ts';
import { bytesInMemory, encodeWav, openWav, seededRandom } from '#core/audio/samples/index.ts';
import { loadFft } from '../cli/edges.ts';
import { withPage } from './browser.ts';
import { MATERIAL_RATE_HZ, needMaterial, sentences, talker, tuneful } from './material.ts';
import { needTool } from './processes.ts';
import type { Row } from './report.ts';

const FFMPEG = process.env.FFMPEG ?? 'ffmpeg';
const BITS = ['-b:a', '256k'];

/** File endings by what ffmpeg is asked for; each is made of stereo, and of 5.1 and 7.1 where the codec knows them. */
const KINDS: Record<string, { readonly args: readonly string[]; readonly manyArgs?: readonly string[] }> = {
  'aac.mp4': { args: ['-c:a', 'aac', ...BITS], manyArgs: ['-c:a', 'aac', '-b:a', '512k'] },
  'aac.mov': { args: ['-c:a', 'aac', ...BITS] },
  'aac.mkv': { args: ['-c:a', 'aac', ...BITS], manyArgs: ['-c:a', 'aac', '-b:a', '512k'] },
  'adts.aac': { args: ['-c:a', 'aac', ...BITS] },
  '44.aac.mp4': { args: ['-ar', '44100', '-c:a', 'aac', ...BITS] },
  '44.aac.mkv': { args: ['-ar', '44100', '-c:a', 'aac', ...BITS] },
  mp3: { args: ['-c:a', 'libmp3lame', ...BITS] },
  'bare.mp3': { args: ['-c:a', 'libmp3lame', ...BITS, '-write_xing', '0'] },
  'mp3.mkv': { args: ['-c:a', 'libmp3lame', ...BITS] },
  '22.mp3': { args: ['-ar', '22050', '-c:a', 'libmp3lame', '-b:a', '128k'] },
  opus: { args: ['-c:a', 'libopus', ...BITS] },
  'opus.webm': {
    args: ['-c:a', 'libopus', ...BITS],
    manyArgs: ['-c:a', 'libopus', '-mapping_family', '1', '-b:a', '512k'],
  },
  'opus.mp4': { args: ['-c:a', 'libopus', ...BITS] },
  'vorbis.ogg': { args: ['-c:a', 'libvorbis', '-q:a', '8'], manyArgs: ['-c:a', 'libvorbis', '-q:a', '8'] },
  'vorbis.webm': { args: ['-c:a', 'libvorbis', '-q:a', '8'] },
  flac: { args: ['-c:a', 'flac'], manyArgs: ['-c:a', 'flac'] },
  'flac.mkv': { args: ['-c:a', 'flac'] },
  'pcm.mov': { args: ['-c:a', 'pcm_s24be'] },
  'pcm.mkv': { args: ['-c:a', 'pcm_s16le'] },
  'pcm.mp4': { args: ['-strict', '-2', '-c:a', 'pcm_s16le', '-f', 'mov'] },
};

/** Files as other programs write them, opened as Measure does; beside what ffmpeg decodes and measures of the very same. */
export async function files(): Promise<readonly Row[]> {
  needTool(FFMPEG, ['-version'], 'The files need ffmpeg: apt-get install ffmpeg (or set FFMPEG).');
  needMaterial();
  const folder = join(tmpdir(), 'mellow-bench', 'files');
  mkdirSync(folder, { recursive: true });
  const made = [...makeFiles(folder, 2), ...makeFiles(folder, 6), ...makeFiles(folder, 8)];
  const worst = { loudness: 0, peak: 0, offset: 0, again: 0 };
  const wrong: string[] = [];
  await withPage('bench/files', async (page) => {
    await page.route('**/made/*', (route) =>
      route.fulfill({ body: readFileSync(join(folder, basename(new URL(route.request().url()).pathname))) }),
    );
    for (const { name, from, channels, layout } of made) {
      const read = await page.evaluate(([a, b]) => window.openFile(a!, b!), [`/made/${name}`, `/made/${from}`]);
      if (read.notices.length > 0) wrong.push(`${name}: ${read.notices.join(' ')}`);
      const theirs = ebur128(join(folder, name));
      if (read.channels !== channels || read.layout !== layout) wrong.push(`${name}: ${read.channels} ${read.layout}`);
      // ffmpeg counts the pair behind as much as that beside the listener; the standard does so in 5.1 alone.
      if (channels !== 8)
        worst.loudness = Math.max(worst.loudness, Math.abs(read.levels!.integratedLufs! - theirs.lufs));
      worst.peak = Math.max(worst.peak, Math.abs(read.levels!.truePeakDbtp! - theirs.peakDbtp));
      const offset = Math.abs(read.offsetMs - (await offsetOfFfmpeg(join(folder, from), join(folder, name))));
      if (offset > 0.1) wrong.push(`${name}: ${offset.toFixed(3)} ms`);
      worst.offset = Math.max(worst.offset, offset);
      worst.again = Math.max(worst.again, read.againS);
    }
  });
  const row = (what: string, ours: string, other: string, goal: string, reached: boolean): Row => ({
    what: `  ${what}`,
    ours,
    other,
    ratio: null,
    goal,
    reached,
  });
  return [
    {
      what: `${made.length} files of ${Object.keys(KINDS).length} kinds, stereo, 5.1 and 7.1: channels and layouts`,
      ours: wrong.length === 0 ? 'all right' : wrong.join('; '),
      other: '',
      ratio: null,
      goal: 'all right',
      reached: wrong.length === 0,
    },
    row(
      'integrated',
      `${worst.loudness.toFixed(2)} LU apart at most`,
      'ffmpeg ebur128, in tenths',
      '0.1 LU',
      worst.loudness <= 0.1,
    ),
    row(
      'true peak',
      `${worst.peak.toFixed(2)} dB apart at most`,
      'ffmpeg ebur128, in tenths',
      '0.15 dB',
      worst.peak <= 0.15,
    ),
    row(
      'where the sound stands',
      `${worst.offset.toFixed(4)} ms apart at most`,
      'what ffmpeg decodes',
      '0.1 ms',
      worst.offset <= 0.1,
    ),
    row('opened a second time', `${(1000 * worst.again).toFixed(0)} ms at most`, '', '100 ms', worst.again < 0.1),
  ];
}

const LAYOUTS: Record<number, string> = { 2: 'stereo', 6: '5.1', 8: '7.1' };

/** Two talkers, or one talker and music round them, each louder than the next; and what they are stored as. */
function makeFiles(folder: string, channels: number) {
  const layout = LAYOUTS[channels]!;
  const random = seededRandom(channels);
  const sides = Array.from({ length: channels }, (_, c) =>
    c % 2 === 0 ? talker(c % 4 === 0 ? 'slt' : 'en-us', sentences(4, random)) : tuneful(14, random),
  );
  const frames = Math.min(...sides.map((s) => s.length));
  const from = `from-${channels}.wav`;
  writeFileSync(
    join(folder, from),
    encodeWav(
      sides.map((s, c) => s.subarray(0, frames).map((v) => v * 0.8 ** c)),
      MATERIAL_RATE_HZ,
    ),
  );
  return Object.entries(KINDS)
    .filter(([, kind]) => channels === 2 || kind.manyArgs)
    .map(([ending, kind]) => {
      const name = `made-${channels}.${ending}`;
      const args = channels === 2 ? kind.args : kind.manyArgs!;
      const told = channels === 2 ? [] : ['-af', `aformat=channel_layouts=${layout}`];
      execFileSync(FFMPEG, [
        '-v',
        'error',
        '-y',
        '-channel_layout',
        layout,
        '-i',
        join(folder, from),
        ...told,
        ...args,
        join(folder, name),
      ]);
      return { name, from, channels, layout };
    });
}

function ebur128(file: string): { lufs: number; peakDbtp: number } {
  const args = ['-nostats', '-hide_banner', '-i', file, '-af', 'ebur128=peak=true', '-f', 'null', '-'];
  const said = spawnSync(FFMPEG, args, { encoding: 'utf8' }).stderr;
  const summary = said.slice(said.lastIndexOf('Summary:'));
  const read = (pattern: RegExp): number => Number(pattern.exec(summary)![1]);
  return { lufs: read(/I:\s+(-?[\d.]+) LUFS/), peakDbtp: read(/Peak:\s+(-?[\d.]+) dBFS/) };
}

/** How much later the sound stands where ffmpeg decodes the file. */
async function offsetOfFfmpeg(from: string, made: string): Promise<number> {
  const decoded = `${made}.decoded.wav`;
  execFileSync(FFMPEG, ['-v', 'error', '-y', '-i', made, '-c:a', 'pcm_f32le', decoded]);
  const [a, b] = await Promise.all([from, decoded].map((path) => openWav(bytesInMemory(readFileSync(path)))));
  return (await measureOffset(await loadFft(), a!, b!)).offsetMs;
}
