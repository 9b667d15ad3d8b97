import { spawnSync } from 'node:child_process';
import { closeSync, existsSync, mkdirSync, openSync, renameSync, writeFileSync, writeSync } from 'node:fs';
import { availableParallelism, tmpdir } from 'node:os';
import { join } from 'node:path';
import { encodeWav } from '#core/audio/samples/index.ts';
import { jingle, noise, type SourceMaker, voice } from '#core/desk-tests/stand-ins/index.ts';
import { withPage, withProgram } from './browser.ts';
import { measureProcess, needTool } from './processes.ts';
import type { Row } from './report.ts';

const RATE = 48_000;
const MINUTES = 60;
const FFMPEG = process.env.FFMPEG ?? 'ffmpeg';
const meter = (file: string): string[] => [
  '-nostats',
  '-hide_banner',
  '-i',
  file,
  '-af',
  'ebur128=peak=true',
  '-f',
  'null',
  '-',
];

/** Loudness with true peak of an hour in stereo, and of speech, music and noise at three rates, beside ffmpeg's meter. */
export async function loudnessOfAnHour(): Promise<readonly Row[]> {
  needTool(FFMPEG, ['-version'], 'The loudness needs ffmpeg: apt-get install ffmpeg (or set FFMPEG).');
  const folder = join(tmpdir(), 'mellow-bench');
  mkdirSync(folder, { recursive: true });
  const hour = join(folder, 'hour-stereo.wav');
  if (!existsSync(hour)) writeHour(hour);
  const ours = await measureProcess('bin/mellow', ['loudness', hour, '--json']);
  const theirs = await measureProcess(FFMPEG, ['-v', 'error', ...meter(hour)]);
  const ratio = theirs.seconds / ours.seconds;
  const onOne = ['-c', '0'];
  const oursOnOne = await measureProcess('taskset', [...onOne, 'bin/mellow', 'loudness', hour, '--json']);
  const theirsOnOne = await measureProcess('taskset', [...onOne, FFMPEG, '-v', 'error', ...meter(hour)]);
  const ratioOnOne = theirsOnOne.seconds / oursOnOne.seconds;
  const diagnosed = await measureProcess('bin/mellow', ['diagnose', hour, '--json']);
  const diagnosedTimes = (MINUTES * 60) / diagnosed.seconds;
  return [
    {
      what: `loudness and true peak of ${MINUTES} min, stereo, 24 bit, whole process, ${availableParallelism()} cores`,
      ours: `${ours.seconds.toFixed(1)} s`,
      other: `ffmpeg ebur128: ${theirs.seconds.toFixed(1)} s`,
      ratio,
      goal: '12 or more on two cores',
      reached: ratio >= 12,
    },
    {
      what: '  on one core',
      ours: `${oursOnOne.seconds.toFixed(1)} s`,
      other: `ffmpeg ebur128: ${theirsOnOne.seconds.toFixed(1)} s`,
      ratio: ratioOnOne,
      goal: '7 or more',
      reached: ratioOnOne >= 7,
    },
    {
      what: '  all that can be wrong with it (mellow diagnose)',
      ours: `${diagnosed.seconds.toFixed(1)} s, ${diagnosedTimes.toFixed(0)} times real time`,
      other: '',
      ratio: null,
      goal: '150 times real time',
      reached: diagnosedTimes >= 150,
    },
    {
      what: '  its memory',
      ours: `${ours.peakMib.toFixed(0)} MiB`,
      other: `${theirs.peakMib.toFixed(0)} MiB`,
      ratio: null,
      goal: 'under 400 MiB',
      reached: ours.peakMib < 400,
    },
    ...(await inChromium(hour)),
    ...agreement(folder),
  ];
}

/** The same hour in a worker of Chromium; and three hours opened on the program's own bench. */
async function inChromium(hour: string): Promise<Row[]> {
  const { seconds, blockedMs } = await withPage('bench/sound', async (page) => {
    await page.locator('#file').setInputFiles(hour);
    await page.waitForFunction(() => 'measure' in window);
    return page.evaluate(() => window.measure());
  });
  const times = (MINUTES * 60) / seconds;
  const three = join(tmpdir(), 'mellow-bench', 'three-hours.wav');
  if (!existsSync(three)) writeHour(three, 3 * MINUTES);
  const wavS = await firstPicture(three);
  const mp4S = await firstPicture(threeHoursOfVideo(three));
  return [
    {
      what: '  in a worker of Chromium',
      ours: `${seconds.toFixed(1)} s, ${times.toFixed(0)} times real time; the page waits ${blockedMs.toFixed(0)} ms at most`,
      other: '',
      ratio: null,
      goal: '150 times real time, page never blocked',
      reached: times >= 150 && blockedMs < 50,
    },
    {
      what: '3 h, stereo, 24 bit: opened on the bench, first picture',
      ours: `${wavS.toFixed(1)} s`,
      other: '',
      ratio: null,
      goal: 'under 1 s',
      reached: wavS < 1,
    },
    {
      what: '3 h of MP4, H.264 and AAC: first picture of its sound',
      ours: `${mp4S.toFixed(1)} s`,
      other: '',
      ratio: null,
      goal: 'under 3 s, while it is still being read',
      reached: mp4S < 3,
    },
  ];
}

/** Seconds from choosing a file until its wave is drawn. */
const firstPicture = (file: string): Promise<number> =>
  withProgram(async (url, page) => {
    await page.goto(`${url}/bench`);
    await page.getByLabel('Take file').waitFor({ state: 'attached' });
    const begun = performance.now();
    await page.getByLabel('Take file').setInputFiles(file);
    await page.getByLabel('Lanes of the takes').locator('g path').first().waitFor({ timeout: 60_000 });
    return (performance.now() - begun) / 1000;
  });

/** Ten minutes of sound and picture, eighteen times over: no program encodes three hours while one waits. */
function threeHoursOfVideo(sound: string): string {
  const [ten, three] = ['ten-minutes.mp4', 'three-hours.mp4'].map((name) => join(tmpdir(), 'mellow-bench', name));
  if (existsSync(three!)) return three!;
  const encode = [
    ...['-v', 'error', '-y', '-f', 'lavfi', '-i', 'testsrc=size=640x360:rate=30', '-i', sound, '-t', '600'],
    ...['-c:v', 'libx264', '-preset', 'ultrafast', '-crf', '32', '-g', '60', '-pix_fmt', 'yuv420p'],
    ...['-c:a', 'aac', '-b:a', '192k', ten!],
  ];
  spawnSync(FFMPEG, encode);
  spawnSync(FFMPEG, ['-v', 'error', '-y', '-stream_loop', '17', '-i', ten!, '-c', 'copy', three!]);
  return three!;
}

const KINDS: Record<string, SourceMaker> = { speech: voice(130), music: jingle, noise };
const RATES = [44_100, 48_000, 96_000];
const SECONDS = 40;

/** The largest differences over nine takes. */
function agreement(folder: string): Row[] {
  let [integrated, range, peak] = [0, 0, 0];
  for (const rate of RATES)
    for (const [kind, make] of Object.entries(KINDS)) {
      const file = join(folder, `${kind}-${rate}.wav`);
      const sides = [7, 8].map((seed) =>
        make(SECONDS * rate, rate, seed).map((v, i) => v * (1 + 0.5 * Math.sin(i / rate / 3))),
      );
      writeFileSync(file, encodeWav(sides, rate));
      const ours = JSON.parse(spawnSync('bin/mellow', ['loudness', file, '--json'], { encoding: 'utf8' }).stdout) as {
        integratedLufs: number;
        rangeLu: number;
        truePeakDbtp: number;
      };
      const said = spawnSync(FFMPEG, meter(file), { encoding: 'utf8' }).stderr;
      const summary = said.slice(said.lastIndexOf('Summary:'));
      const read = (pattern: RegExp): number => Number(pattern.exec(summary)![1]);
      integrated = Math.max(integrated, Math.abs(ours.integratedLufs - read(/I:\s+(-?[\d.]+) LUFS/)));
      range = Math.max(range, Math.abs(ours.rangeLu - read(/LRA:\s+(-?[\d.]+) LU/)));
      peak = Math.max(peak, Math.abs(ours.truePeakDbtp - read(/Peak:\s+(-?[\d.]+) dBFS/)));
    }
  const row = (what: string, off: number, unit: string, most: number): Row => ({
    what: `  ${what}, speech, music and noise at 44.1, 48 and 96 kHz`,
    ours: `${off.toFixed(2)} ${unit} apart at most`,
    other: 'ffmpeg ebur128, in tenths',
    ratio: null,
    goal: `${most} ${unit}`,
    reached: off <= most,
  });
  return [row('integrated', integrated, 'LU', 0.1), row('range', range, 'LU', 0.3), row('true peak', peak, 'dB', 0.15)];
}

/** Two voices, one a side, in 24 bits; an hour of them unless it is said otherwise. */
function writeHour(path: string, minutes = MINUTES): void {
  process.stdout.write(`Rendering ${minutes} minutes in stereo…\n`);
  const frames = minutes * 60 * RATE;
  const block = 60 * RATE;
  const header = encodeWav([new Float32Array(0), new Float32Array(0)], RATE).slice(0, 44);
  const view = new DataView(header.buffer);
  const bytes = frames * 6;
  view.setUint32(4, 36 + bytes, true);
  view.setUint32(28, RATE * 6, true);
  view.setUint16(32, 6, true);
  view.setUint16(34, 24, true);
  view.setUint32(40, bytes, true);
  const file = openSync(`${path}.part`, 'w');
  writeSync(file, header);
  const sides = [190, 125].map((pitch, n) =>
    Array.from({ length: 3 }, (_, k) => voice(pitch)(block, RATE, 10 * n + k)),
  );
  for (let minute = 0; minute < minutes; minute++) {
    const [l, r] = [sides[0]![minute % 3]!, sides[1]![(minute + 1) % 3]!];
    const level = 0.4 + (0.6 * ((minute * 7) % 10)) / 10;
    const out = new Uint8Array(block * 6);
    for (let i = 0, o = 0; i < block; i++)
      for (const x of [l, r]) {
        const v = Math.round(level * 2 * x[i]! * 0x7fffff);
        out[o++] = v & 255;
        out[o++] = (v >> 8) & 255;
        out[o++] = (v >> 16) & 255;
      }
    writeSync(file, out);
  }
  closeSync(file);
  renameSync(`${path}.part`, path);
}
