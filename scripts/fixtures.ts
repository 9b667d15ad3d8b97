// Renders the demo videos from the stand-ins and encodes them with ffmpeg, and from the first the short clips in other containers
// that the browser tests open. Run only when the scene changes: npm run fixtures.
import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { loadFft } from '../cli/edges.ts';
import { encodeWav } from '../core/samples/index.ts';
import { renderFrame, renderSlateShot } from '../core/standin/index.ts';
import { QUAY_SECONDS, quayShot, renderQuayCameraSound } from '../demo/quay-takes.ts';
import { couchScene, couchSceneFrames, renderCouchSound } from '../demo/takes.ts';

const VIDEO = 'demo/takes/couch-clap.mp4';
const CLIPS = {
  // Opus begins 6.5 ms early; ffmpeg's muxer puts that off on the picture unless the sound is stamped later.
  'clap.webm':
    '-af asetpts=PTS+0.0065/TB -c:v libvpx-vp9 -b:v 60k -deadline realtime -cpu-used 8 -c:a libopus -b:a 48k',
  'clap.mkv': '-c:v libx264 -crf 30 -g 60 -c:a libmp3lame -b:a 64k',
  'clap.mov': '-c:v libx264 -crf 30 -g 60 -c:a aac -b:a 64k',
};

/** Luma frames and a sound, encoded as a take is; the same bytes whenever it is run. */
async function encode(
  file: string,
  { width, height, rate }: { width: number; height: number; rate: string },
  sound: Float32Array,
  frames: () => Generator<Uint8Array>,
): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'mellow-'));
  const wav = join(folder, 'sound.wav');
  writeFileSync(wav, encodeWav([sound], 48000));
  const into = `-y -f rawvideo -pix_fmt gray -s ${width}x${height} -r ${rate} -i - -i ${wav}`;
  const codecs =
    '-c:v libx264 -crf 30 -g 120 -pix_fmt yuv420p -c:a aac -b:a 96k -movflags +faststart -fflags +bitexact';
  const ffmpeg = spawn('ffmpeg', [...into.split(' '), ...codecs.split(' '), file], {
    stdio: ['pipe', 'ignore', 'ignore'],
  });
  for (const frame of frames())
    if (!ffmpeg.stdin.write(Buffer.from(frame))) await new Promise((resolve) => ffmpeg.stdin.once('drain', resolve));
  ffmpeg.stdin.end();
  await new Promise((resolve) => ffmpeg.once('close', resolve));
  rmSync(folder, { recursive: true });
}

async function main(): Promise<void> {
  if (spawnSync('ffmpeg', ['-version']).error) {
    process.stderr.write('ffmpeg is needed to encode the demo video. Install it with the system’s packages.\n');
    process.exit(1);
  }
  const { width, height, frameRateHz } = couchScene;
  await encode(VIDEO, { width, height, rate: String(frameRateHz) }, renderCouchSound(await loadFft()), function* () {
    const frame = new Uint8Array(width * height);
    for (let f = 0; f < couchSceneFrames; f++) {
      renderFrame(couchScene, f, frame);
      yield frame;
    }
  });
  await encode(
    'demo/takes/quay-slates.mp4',
    { width: quayShot.width, height: quayShot.height, rate: '30000/1001' },
    renderQuayCameraSound(),
    function* () {
      for (let f = 0; f < Math.floor(QUAY_SECONDS * quayShot.rateHz); f++) yield renderSlateShot(quayShot, f).bytes;
    },
  );
  for (const [file, codecs] of Object.entries(CLIPS)) {
    const clip = ['-y', '-i', VIDEO, '-t', '5.2', '-vf', 'scale=160:90', ...codecs.split(' '), '-fflags', '+bitexact'];
    const { status } = spawnSync('ffmpeg', [...clip, `fixtures/${file}`], { stdio: 'ignore' });
    if (status !== 0) throw new Error(`ffmpeg could not make ${file}.`);
  }
}

void main();
