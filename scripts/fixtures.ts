// Renders the demo video from the stand-ins and encodes it with ffmpeg, and from it the short clips in other containers
// that the browser tests open. Run only when the scene changes: npm run fixtures.
import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { loadFft } from '../cli/edges.ts';
import { encodeWav } from '../core/samples/index.ts';
import { renderFrame } from '../core/standin/index.ts';
import { couchScene, couchSceneFrames, renderCouchSound } from '../demo/takes.ts';

const VIDEO = 'demo/takes/couch-clap.mp4';
const CLIPS = {
  // Opus begins 6.5 ms early; ffmpeg's muxer puts that off on the picture unless the sound is stamped later.
  'clap.webm':
    '-af asetpts=PTS+0.0065/TB -c:v libvpx-vp9 -b:v 60k -deadline realtime -cpu-used 8 -c:a libopus -b:a 48k',
  'clap.mkv': '-c:v libx264 -crf 30 -g 60 -c:a libmp3lame -b:a 64k',
  'clap.mov': '-c:v libx264 -crf 30 -g 60 -c:a aac -b:a 64k',
};

async function main(): Promise<void> {
  if (spawnSync('ffmpeg', ['-version']).error) {
    process.stderr.write('ffmpeg is needed to encode the demo video. Install it with the system’s packages.\n');
    process.exit(1);
  }
  const folder = mkdtempSync(join(tmpdir(), 'mellow-'));
  const sound = join(folder, 'sound.wav');
  writeFileSync(sound, encodeWav([renderCouchSound(await loadFft())], 48000));
  const { width, height, frameRateHz } = couchScene;
  const args = [
    '-y',
    '-f',
    'rawvideo',
    '-pix_fmt',
    'gray',
    '-s',
    `${width}x${height}`,
    '-r',
    String(frameRateHz),
    '-i',
    '-',
    '-i',
    sound,
  ];
  const codecs = [
    '-c:v',
    'libx264',
    '-crf',
    '30',
    '-g',
    '120',
    '-pix_fmt',
    'yuv420p',
    '-c:a',
    'aac',
    '-b:a',
    '96k',
    '-movflags',
    '+faststart',
  ];
  const ffmpeg = spawn('ffmpeg', [...args, ...codecs, '-fflags', '+bitexact', VIDEO], {
    stdio: ['pipe', 'ignore', 'ignore'],
  });
  const frame = new Uint8Array(width * height);
  for (let f = 0; f < couchSceneFrames; f++) {
    renderFrame(couchScene, f, frame);
    if (!ffmpeg.stdin.write(Buffer.from(frame))) await new Promise((resolve) => ffmpeg.stdin.once('drain', resolve));
  }
  ffmpeg.stdin.end();
  await new Promise((resolve) => ffmpeg.once('close', resolve));
  rmSync(folder, { recursive: true });
  for (const [file, codecs] of Object.entries(CLIPS)) {
    const clip = ['-y', '-i', VIDEO, '-t', '5.2', '-vf', 'scale=160:90', ...codecs.split(' '), '-fflags', '+bitexact'];
    const { status } = spawnSync('ffmpeg', [...clip, `fixtures/${file}`], { stdio: 'ignore' });
    if (status !== 0) throw new Error(`ffmpeg could not make ${file}.`);
  }
}

void main();
