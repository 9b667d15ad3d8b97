import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = dirname(dirname(dirname(fileURLToPath(import.meta.url))));

/** What did not hold, in a sentence. It ends the run. */
export class Broken extends Error {}
export function hold(holds: boolean, says: string): asserts holds {
  if (!holds) throw new Broken(says);
}

export type Figures = Record<string, string | number>;

interface Answer {
  readonly status: number;
  // biome-ignore lint/suspicious/noExplicitAny: answers are looked at, not used
  readonly json: any;
}

const START_MS = 60_000;

const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const probe = createServer();
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => resolve(port));
    });
  });

/** The built program over a data folder of its own, killed and started as one likes. */
export interface Desk {
  readonly data: string;
  readonly base: string;
  readonly pid: number;
  readonly said: string;
  start(env?: Record<string, string>): Promise<void>;
  /** Starts it and does not wait: its end, with what it said, is the answer. */
  tryStart(env?: Record<string, string>): Promise<{ code: number | null; said: string }>;
  kill(signal?: NodeJS.Signals): Promise<void>;
  /** Whether it ended by itself. */
  readonly ended: boolean;
  ask(method: string, path: string, body?: unknown, headers?: Record<string, string>): Promise<Answer>;
  memoryMb(): number;
  openFiles(): number;
  dispose(): Promise<void>;
}

export async function makeDesk(data = mkdtempSync(join(tmpdir(), 'mellow-torture-'))): Promise<Desk> {
  const folder = join(data, 'data');
  const port = await freePort();
  const base = `http://127.0.0.1:${port}`;
  let child: ChildProcess | null = null;
  let said = '';
  let expected = true;
  let ended = false;
  const run = (env: Record<string, string>) => {
    said = '';
    ended = false;
    const started = spawn(process.execPath, [join(root, 'dist', 'node', 'server.js')], {
      env: { ...process.env, PORT: String(port), MELLOW_DATA: folder, ...env },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    const exit = new Promise<number | null>((resolve) => started.once('exit', (code) => resolve(code)));
    const hear = (chunk: Buffer) => {
      said += chunk.toString();
    };
    started.stdout!.on('data', hear);
    started.stderr!.on('data', hear);
    return { started, exit };
  };
  const desk: Desk = {
    data: folder,
    base,
    get pid() {
      return child!.pid!;
    },
    get said() {
      return said;
    },
    get ended() {
      return ended;
    },
    async start(env = {}) {
      const { started, exit } = run(env);
      child = started;
      expected = false;
      void exit.then(() => {
        if (!expected) ended = true;
      });
      const up = new Promise<void>((resolve) =>
        started.stdout!.on('data', () => {
          if (said.includes('Mellow Tap: http')) resolve();
        }),
      );
      const late = new Promise<number>((resolve) => setTimeout(() => resolve(-1), START_MS).unref());
      const code = await Promise.race([up, exit, late]);
      hold(code === undefined, `It did not start (${code}): ${said}`);
    },
    async tryStart(env = {}) {
      const { exit } = run(env);
      return { code: await exit, said };
    },
    async kill(signal = 'SIGKILL') {
      expected = true;
      const running = child;
      child = null;
      if (!running || running.exitCode !== null || running.signalCode !== null) return;
      const gone = new Promise((resolve) => running.once('exit', resolve));
      running.kill(signal);
      await gone;
    },
    async ask(method, path, body, headers = {}) {
      const raw = body instanceof Uint8Array;
      const response = await fetch(base + path, {
        method,
        headers: {
          ...(body === undefined ? {} : { 'Content-Type': raw ? 'application/octet-stream' : 'application/json' }),
          ...headers,
        },
        ...(body === undefined
          ? {}
          : { body: raw ? (body as Uint8Array<ArrayBuffer>) : typeof body === 'string' ? body : JSON.stringify(body) }),
      });
      const text = await response.text();
      let json: unknown = text;
      try {
        json = JSON.parse(text);
      } catch {
        // No JSON: looked at as text.
      }
      return { status: response.status, json };
    },
    memoryMb: () => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${child!.pid}/status`, 'utf8'))?.[1]) / 1024,
    openFiles: () => readdirSync(`/proc/${child!.pid}/fd`).length,
    async dispose() {
      await desk.kill();
      rmSync(data, { recursive: true, force: true });
    },
  };
  return desk;
}

/** An id made of a number: the same seed asks for the same. */
export const idOf = (kind: number, n: number): string =>
  `${kind.toString(16).padStart(8, '0')}-0000-4000-8000-${n.toString(16).padStart(12, '0')}`;
