import { spawn, spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { MissingTool } from './report.ts';

export interface Ran {
  readonly seconds: number;
  /** The most memory that lay in RAM at once, MiB. */
  readonly peakMib: number;
  readonly stdout: string;
}

/** Runs a whole process, start to end, and watches its memory. */
export async function measureProcess(command: string, args: readonly string[]): Promise<Ran> {
  const begun = performance.now();
  const child = spawn(command, args, { stdio: ['ignore', 'pipe', 'inherit'] });
  let stdout = '';
  child.stdout.on('data', (chunk: Buffer) => {
    stdout += chunk.toString();
  });
  let peakKib = 0;
  const watch = setInterval(() => {
    try {
      const status = readFileSync(`/proc/${child.pid}/status`, 'utf8');
      peakKib = Math.max(peakKib, Number(/VmHWM:\s+(\d+)/.exec(status)?.[1] ?? 0));
    } catch {
      // Gone already: what was read before counts.
    }
  }, 20);
  const code = await new Promise<number | null>((resolve, reject) => {
    child.once('error', reject);
    child.once('close', resolve);
  });
  clearInterval(watch);
  if (code !== 0) throw new Error(`${command} ${args.join(' ')} ended with ${code}.`);
  return { seconds: (performance.now() - begun) / 1000, peakMib: peakKib / 1024, stdout };
}

export function needTool(command: string, args: readonly string[], howToGet: string): void {
  const done = spawnSync(command, args, { stdio: 'ignore' });
  if (done.error || done.status !== 0) throw new MissingTool(howToGet);
}
