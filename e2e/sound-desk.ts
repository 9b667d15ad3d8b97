import { type ChildProcess, spawn, spawnSync } from 'node:child_process';
import { closeSync, constants, mkdirSync, mkdtempSync, openSync, readSync, rmSync, writeSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

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
const BYTES_A_FRAME = 8;
/** Delays up to 2.7 s. */
const RING = 1 << 17;
const TICK_MS = 4;
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
  const format = `format=float32le rate=${RATE_HZ} channels=2`;
  const modules = [
    'module-native-protocol-unix',
    ...outputs.map(
      (o) => `module-pipe-sink sink_name=${o} file=${pipe(o)} ${format} sink_properties=device.description=${o}`,
    ),
    ...inputs.map(
      (i) => `module-pipe-source source_name=${i} file=${pipe(i)} ${format} source_properties=device.description=${i}`,
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
  const turning = turn(outputs.map(pipe), inputs.map(pipe), outputs, inputs);
  return {
    env,
    plug: turning.plug,
    peaks: turning.peaks,
    remove: (name) => {
      const [kind, what] = outputs.includes(name) ? ['sinks', 'module-pipe-sink'] : ['sources', 'module-pipe-source'];
      void kind;
      const line = control('list', 'short', 'modules')
        .stdout.split('\n')
        .find((l) => l.includes(what) && l.includes(`_name=${name} `));
      control('unload-module', line!.split('\t')[0]!);
    },
    close: async () => {
      turning.stop();
      server.kill('SIGTERM');
      await new Promise((resolve) => (server.exitCode === null ? server.once('exit', resolve) : resolve(null)));
      rmSync(dir, { recursive: true, force: true });
    },
  };
}

/** Turns the pipes by the wall clock. */
function turn(from: readonly string[], to: readonly string[], outputs: readonly string[], inputs: readonly string[]) {
  const sources = from.map((f) => openSync(f, constants.O_RDONLY | constants.O_NONBLOCK));
  const sinks = to.map((f) => openSync(f, constants.O_RDWR | constants.O_NONBLOCK));
  const rings = from.map(() => [new Float32Array(RING), new Float32Array(RING)] as const);
  let cables: readonly { from: number; to: number; gain: number; delay: number; sides: readonly number[] }[] = [];
  let peaks = from.map(() => 0);
  let frame = 0;
  const begun = performance.now();
  const again = (work: () => number): number => {
    try {
      return work();
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code === 'EAGAIN') return 0;
      throw error;
    }
  };
  const tick = () => {
    const count = Math.floor(((performance.now() - begun) / 1000) * RATE_HZ) - frame;
    if (count <= 0) return;
    const bytes = Buffer.alloc(count * BYTES_A_FRAME);
    for (const [n, [left, right]] of rings.entries()) {
      let got = 0;
      for (let more = 1; more > 0 && got < bytes.length; got += more)
        more = again(() => readSync(sources[n]!, bytes, got, bytes.length - got, null));
      for (let i = 0; i < count; i++) {
        const at = (frame + i) & (RING - 1);
        const isThere = (i + 1) * BYTES_A_FRAME <= got;
        left[at] = isThere ? bytes.readFloatLE(i * BYTES_A_FRAME) : 0;
        right[at] = isThere ? bytes.readFloatLE(i * BYTES_A_FRAME + 4) : 0;
        peaks[n] = Math.max(peaks[n]!, Math.abs(left[at]), Math.abs(right[at]));
      }
    }
    for (const [n, fd] of sinks.entries()) {
      const mine = cables.filter((c) => c.to === n);
      for (let i = 0; i < count; i++)
        for (const side of [0, 1] as const) {
          let sum = 0;
          for (const c of mine)
            if (c.sides.includes(side)) sum += c.gain * rings[c.from]![side][(frame + i - c.delay) & (RING - 1)]!;
          bytes.writeFloatLE(sum, i * BYTES_A_FRAME + 4 * side);
        }
      again(() => writeSync(fd, bytes));
    }
    frame += count;
  };
  const timer = setInterval(tick, TICK_MS);
  return {
    plug: (next: readonly Cable[]) => {
      cables = next.map((c) => ({
        from: outputs.indexOf(c.from),
        to: inputs.indexOf(c.to),
        gain: c.gain,
        delay: Math.round((c.delayMs / 1000) * RATE_HZ),
        sides: c.sides === 'left' ? [0] : c.sides === 'right' ? [1] : [0, 1],
      }));
    },
    peaks: () => {
      const now = Object.fromEntries(outputs.map((o, n) => [o, peaks[n]!]));
      peaks = from.map(() => 0);
      return now;
    },
    stop: () => {
      clearInterval(timer);
      for (const fd of [...sources, ...sinks]) closeSync(fd);
    },
  };
}
