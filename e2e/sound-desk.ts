import { type ChildProcess, spawn, spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Worker } from 'node:worker_threads';

/** What an output's sides do at an input. */
export interface Cable {
  readonly from: string;
  readonly to: string;
  /** Linear; below 0 it is upside down. */
  readonly gain: number;
  readonly delayMs: number;
  readonly sides?: 'both' | 'left' | 'right';
}

export interface SoundDesk {
  /** For the browser: where its sound server is. */
  readonly env: NodeJS.ProcessEnv;
  /** What lies between outputs and inputs from now on. */
  plug(cables: readonly Cable[]): void;
  /** The highest sample that has left the browser since the last time this was asked, linear; by output. */
  peaks(): Record<string, number>;
  /** An output or input is unplugged. */
  remove(name: string): void;
  close(): Promise<void>;
}

const RATE_HZ = 48_000;
const READY_MS = 10_000;

/**
 * A sound server of its own, whose outputs and inputs are pipes of this process: what goes out comes in just as late, as
 * loud and as upside down as the cables say, sample by sample.
 * @throws Error where the sound server isn't installed
 */
export async function openSoundDesk(outputs: readonly string[], inputs: readonly string[]): Promise<SoundDesk> {
  if (spawnSync('pulseaudio', ['--version']).error)
    throw new Error('These tests need a sound server: sudo apt-get install -y pulseaudio pulseaudio-utils');
  const dir = mkdtempSync(join(tmpdir(), 'mellow-sound-'));
  const runtime = join(dir, 'pulse');
  mkdirSync(runtime);
  const env = {
    ...process.env,
    HOME: dir,
    XDG_RUNTIME_DIR: dir,
    PULSE_RUNTIME_PATH: runtime,
    PULSE_SERVER: `unix:${runtime}/native`,
  };
  const pipe = (name: string) => join(dir, `${name}.pipe`);
  // Programs show it with spaces.
  const described = (name: string) => `'device.description="${name.replaceAll('_', ' ')}"'`;
  const format = `format=float32le rate=${RATE_HZ} channels=2`;
  const modules = [
    'module-native-protocol-unix',
    ...outputs.map((o) => `module-pipe-sink sink_name=${o} file=${pipe(o)} ${format} sink_properties=${described(o)}`),
    ...inputs.map(
      (i) => `module-pipe-source source_name=${i} file=${pipe(i)} ${format} source_properties=${described(i)}`,
    ),
  ];
  const server: ChildProcess = spawn(
    'pulseaudio',
    ['-n', '--daemonize=no', '--exit-idle-time=-1', '--disallow-exit', ...modules.flatMap((m) => ['-L', m])],
    { env, stdio: 'ignore' },
  );
  const control = (...args: string[]) => spawnSync('pactl', args, { env, encoding: 'utf8' });
  const until = Date.now() + READY_MS;
  while (!control('list', 'short', 'sources').stdout?.includes(inputs.at(-1) ?? '')) {
    if (Date.now() > until || server.exitCode !== null) throw new Error('The sound server did not start.');
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  const peaks = new Float32Array(new SharedArrayBuffer(Float32Array.BYTES_PER_ELEMENT * outputs.length));
  const pipes = new Worker(new URL('./sound-pipes.mjs', import.meta.url), {
    workerData: { outputs: outputs.map(pipe), inputs: inputs.map(pipe), rateHz: RATE_HZ, peaks },
  });
  return {
    env,
    plug: (cables) =>
      pipes.postMessage(
        cables.map((c) => ({
          from: outputs.indexOf(c.from),
          to: inputs.indexOf(c.to),
          gain: c.gain,
          delay: Math.round((c.delayMs / 1000) * RATE_HZ),
          sides: c.sides === 'left' ? [0] : c.sides === 'right' ? [1] : [0, 1],
        })),
      ),
    peaks: () => {
      const now = Object.fromEntries(outputs.map((o, n) => [o, peaks[n]!]));
      peaks.fill(0);
      return now;
    },
    remove: (name) => {
      const what = outputs.includes(name) ? 'module-pipe-sink' : 'module-pipe-source';
      const line = control('list', 'short', 'modules')
        .stdout.split('\n')
        .find((l) => l.includes(what) && l.includes(`_name=${name} `));
      control('unload-module', line!.split('\t')[0]!);
    },
    close: async () => {
      pipes.postMessage('stop');
      await new Promise((resolve) => pipes.once('exit', resolve));
      server.kill('SIGTERM');
      await new Promise((resolve) => (server.exitCode === null ? server.once('exit', resolve) : resolve(null)));
      rmSync(dir, { recursive: true, force: true });
    },
  };
}
