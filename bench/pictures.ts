import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, renameSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { encodeWav } from '#core/audio/samples/index.ts';
import { clapsAt, voice } from '#core/desk-tests/stand-ins/index.ts';
import { withPage, withProgram } from './browser.ts';
import { needTool } from './processes.ts';
import type { Row } from './report.ts';

const RATE = 48000;
const MINUTES = 5;
/** Flashes begin with a frame, so their instants are known to the sample; claps come so much later. */
const FLASH_FRAMES = [1234, 6007, 11111, 16502];
const FPS = 60;
const SOUND_LATE_MS = 88;

/** Takes of 1080p60 H.264 with AAC: a clip and five minutes measured in the program; read whole against decoding alone. */
export async function pictures(): Promise<readonly Row[]> {
  needTool('ffmpeg', ['-version'], 'The pictures need ffmpeg: apt-get install ffmpeg.');
  const clip = makeTake('clip.mp4', 20, [244, 481, 733, 978]);
  const file = makeTake('five-minutes.mp4', 60 * MINUTES, FLASH_FRAMES);
  const { alone, withBrightness, frames } = await decode(file);
  return [
    await measured(clip, 'picture to sound, a clip of 20 s of 1080p60 H.264 and AAC with 4 claps, in the page', 3),
    await measured(file, `the same of ${MINUTES} min`, 10),
    {
      what: `brightness of ${frames} frames`,
      ours: `${withBrightness.toFixed(0)} frames/s`,
      other: `decoding alone: ${alone.toFixed(0)} frames/s`,
      ratio: withBrightness / alone,
      goal: '0.9 or more',
      reached: withBrightness / alone >= 0.9,
    },
  ];
}

/** How long until the offset stands there, and until all claps have been looked at. */
async function measured(file: string, what: string, goalS: number): Promise<Row> {
  return withProgram(async (url, page) => {
    await page.goto(`${url}/bench`);
    await page.getByLabel('Take file').waitFor({ state: 'attached' });
    const begun = performance.now();
    const sinceS = () => (performance.now() - begun) / 1000;
    await page.getByLabel('Take file').setInputFiles(file);
    const offset = page.getByTestId('findings').getByText(/ms (late|early)$/);
    await offset.waitFor({ timeout: 300_000 });
    const firstS = sinceS();
    await page.getByText('4 flashes and 4 claps found.').waitFor({ timeout: 300_000 });
    const lastS = sinceS();
    const said = (await offset.textContent())!;
    const offBy = Math.abs(Number.parseFloat(said) * (said.endsWith('early') ? -1 : 1) - SOUND_LATE_MS);
    return {
      what,
      ours: `${firstS.toFixed(1)} s, of all claps ${lastS.toFixed(1)} s, off by ${offBy.toFixed(1)} ms`,
      other: '',
      ratio: null,
      goal: `under ${goalS} s, within half a frame (8.3 ms)`,
      reached: firstS < goalS && offBy < 8.34,
    };
  });
}

async function decode(file: string): Promise<{ alone: number; withBrightness: number; frames: number }> {
  return withPage('bench/picture', async (page) => {
    await page.locator('#file').setInputFiles(file);
    await page.waitForFunction(() => 'compare' in window);
    return page.evaluate(() => window.compare(20));
  });
}

function makeTake(name: string, seconds: number, flashFrames: readonly number[]): string {
  const folder = join(tmpdir(), 'mellow-bench');
  mkdirSync(folder, { recursive: true });
  const file = join(folder, name);
  if (existsSync(file)) return file;
  process.stdout.write(`Encoding ${seconds} s of 1080p60…\n`);
  const frames = seconds * RATE;
  const sound = clapsAt(flashFrames.map((f) => f / FPS + SOUND_LATE_MS / 1000))(frames, RATE, 1);
  const talk = voice(140)(frames, RATE, 2);
  for (let i = 0; i < frames; i++) sound[i] = 0.5 * (sound[i]! + 0.25 * talk[i]!);
  const wav = join(folder, `${name}.wav`);
  writeFileSync(wav, encodeWav([sound], RATE));
  const flash = flashFrames.map((f) => `between(n,${f},${f + 3})`).join('+');
  const args = [
    ...['-y', '-f', 'lavfi', '-i', `testsrc2=size=1920x1080:rate=${FPS}:duration=${seconds}`, '-i', wav],
    ...['-vf', `drawbox=x=1200:y=600:w=240:h=240:color=white:t=fill:enable='${flash}'`],
    ...['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '26', '-g', '120', '-pix_fmt', 'yuv420p'],
    ...['-c:a', 'aac', '-b:a', '128k', '-shortest', '-movflags', '+faststart', `${file}.part.mp4`],
  ];
  const done = spawnSync('ffmpeg', args, { stdio: ['ignore', 'ignore', 'ignore'] });
  if (done.status !== 0) throw new Error(`ffmpeg ended with ${done.status}.`);
  renameSync(`${file}.part.mp4`, file);
  return file;
}
