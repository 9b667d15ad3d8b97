import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, renameSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { encodeWav } from '#core/audio/samples/index.ts';
import { renderSlateShot, type SlateShot } from '#core/desk-tests/stand-ins/index.ts';
import { needTool } from './processes.ts';

export const SOUND_RATE_HZ = 48_000;
/** Films are made once and kept: they take longer than what is measured on them. */
export const FILMS = join(tmpdir(), 'mellow-bench', 'slates');

// Opus begins 6.5 ms early; ffmpeg's muxer puts that off on the picture unless the sound is stamped later.
export const CODECS = [
  { name: 'H.264, AAC', ending: 'mp4', args: '-c:v libx264 -preset veryfast -b:v 600k -c:a aac -b:a 128k' },
  {
    name: 'VP9, Opus',
    ending: 'mkv',
    args: '-af asetpts=PTS+0.0065/TB -c:v libvpx-vp9 -b:v 600k -deadline realtime -cpu-used 8 -c:a libopus -b:a 96k',
  },
  {
    name: 'AV1, Opus',
    ending: 'mkv',
    args: '-af asetpts=PTS+0.0065/TB -c:v libsvtav1 -preset 10 -b:v 600k -c:a libopus -b:a 96k',
  },
] as const;

export function needFfmpeg(): void {
  needTool('ffmpeg', ['-version'], 'Films need ffmpeg: apt-get install ffmpeg.');
  mkdirSync(FILMS, { recursive: true });
}

/** The shot's pictures with a sound, coded; once. */
export async function encodeShot(
  file: string,
  shot: SlateShot,
  sound: () => Float32Array,
  codecs: string,
): Promise<void> {
  if (existsSync(file)) return;
  const wav = `${file}.wav`;
  writeFileSync(wav, encodeWav([sound()], SOUND_RATE_HZ));
  const part = file.replace(/(\.\w+)$/, '.part$1');
  const { width, height, rateHz } = shot;
  const rate =
    Math.abs(rateHz - Math.round(rateHz)) < 1e-6 ? String(Math.round(rateHz)) : `${Math.round(rateHz * 1001)}/1001`;
  const into = `-y -f rawvideo -pix_fmt gray -s ${width}x${height} -r ${rate} -i - -i ${wav} -pix_fmt yuv420p`;
  const ffmpeg = spawn('ffmpeg', [...into.split(' '), ...codecs.split(' '), part], {
    stdio: ['pipe', 'ignore', 'ignore'],
  });
  for (let f = 0; f < Math.floor(shot.seconds * rateHz); f++)
    if (!ffmpeg.stdin.write(Buffer.from(renderSlateShot(shot, f).bytes)))
      await new Promise((resolve) => ffmpeg.stdin.once('drain', resolve));
  ffmpeg.stdin.end();
  await new Promise((resolve) => ffmpeg.once('close', resolve));
  renameSync(part, file);
}
