import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** Sets the demo data up once; every test starts from a copy of it. */
export default async function seed(): Promise<() => void> {
  const folder = mkdtempSync(join(tmpdir(), 'mellow-seed-'));
  process.env.MELLOW_TEMPLATE = folder;
  await new Promise<void>((resolve, reject) => {
    const server = spawn(process.execPath, ['dist/node/server.js'], {
      env: { ...process.env, PORT: '0', MELLOW_DATA: folder, MELLOW_SEED: 'demo' },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    server.stdout.on(
      'data',
      (chunk: Buffer) => chunk.toString().includes('Mellow Tap: http') && server.kill('SIGTERM'),
    );
    server.once('exit', (code) => (code === 0 ? resolve() : reject(new Error(`The server ended with ${code}.`))));
  });
  return () => rmSync(folder, { recursive: true, force: true });
}
