// Renders the demo videos from the stand-ins and encodes them with ffmpeg, and from the first the short clips in other containers
// that the browser tests open. Run only when the scene changes: npm run fixtures.
import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { loadFft } from '../cli/edges.ts';
import { encodeWav } from '../core/audio/samples/index.ts';
import { renderFrame, renderSlateShot } from '../core/desk-tests/stand-ins/index.ts';
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
  foreignFiles();
}

/** Files as other programs write them, and what ffmpeg's meter reads of each: three channels of talk, and pictures that lack something. */
const FOREIGN = {
  'talk.mp3': '-i stereo.wav -c:a libmp3lame -b:a 96k',
  'talk.m4a': '-i stereo.wav -c:a aac -b:a 96k -movflags +faststart',
  'talk.webm': '-i surround.wav -af aformat=channel_layouts=5.1 -c:a libopus -mapping_family 1 -b:a 128k',
  'uneven.mp4':
    "-f lavfi -i testsrc=s=160x90:r=60:d=4 -i stereo.wav -shortest -vf select='gt(random(3),0.55)' -vsync vfr -c:v libx264 -crf 34 -c:a aac -b:a 64k",
  'mute.mp4': '-f lavfi -i testsrc=s=160x90:r=30:d=2 -c:v libx264 -crf 34',
};

function foreignFiles(): void {
  const folder = mkdtempSync(join(tmpdir(), 'mellow-'));
  const run = (command: string, args: readonly string[]): string => {
    const { status, stderr } = spawnSync(command, args, { cwd: folder, encoding: 'utf8' });
    if (status !== 0) throw new Error(`${command} ${args.join(' ')}: ${stderr}`);
    return stderr;
  };
  const says = 'The console is on the left. The microphones are on the right, and nobody hears the music yet.';
  for (const voice of ['slt', 'rms', 'awb']) run('flite', ['-voice', voice, '-t', says, '-o', `${voice}.wav`]);
  const join6 = '[0]volume=0.9[a];[1]volume=0.4[b];[2]volume=0.6[c]';
  const voices = ['-i', 'slt.wav', '-i', 'rms.wav', '-i', 'awb.wav', '-t', '5', '-ar', '48000'];
  run('ffmpeg', ['-y', ...voices, '-filter_complex', `${join6};[a][b]join=2:stereo;[c]anullsink`, 'stereo.wav']);
  const six = `${join6};[a]asplit[a1][a2];[b]asplit[b1][b2];[c]asplit[c1][c2];[a1][b1][c1][a2][b2][c2]join=6:5.1`;
  run('ffmpeg', ['-y', ...voices, '-filter_complex', six, 'surround.wav']);
  const truth: Record<string, { lufs: number; peakDbtp: number }> = {};
  for (const [file, args] of Object.entries(FOREIGN)) {
    const made = join(process.cwd(), 'fixtures', file);
    run('ffmpeg', ['-y', ...args.split(' '), '-fflags', '+bitexact', made]);
    if (file === 'mute.mp4') continue;
    const said = run('ffmpeg', ['-nostats', '-i', made, '-af', 'ebur128=peak=true', '-f', 'null', '-']);
    const read = (pattern: RegExp) => Number(pattern.exec(said.slice(said.lastIndexOf('Summary:')))![1]);
    truth[file] = { lufs: read(/I:\s+(-?[\d.]+) LUFS/), peakDbtp: read(/Peak:\s+(-?[\d.]+) dBFS/) };
  }
  writeFileSync('fixtures/read-by-ffmpeg.json', `${JSON.stringify(truth, null, 2)}\n`);
  rmSync(folder, { recursive: true });
}

void main();
