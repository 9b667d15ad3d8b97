// npm run dev: the page with hot reload, the server built anew and started again with every change, and the demo data in a
// folder of its own (.mellow/dev). Ctrl+C ends all of it.
import { spawn } from 'node:child_process';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { binOf, checkNode, ensureInstalled, ensureWasm, root } from './steps.mjs';

const SERVER_PORT = '4310';
const POLL_MS = 200;

checkNode();
ensureInstalled();
ensureWasm();

const started = [];
function start(args, env = {}) {
  const child = spawn(process.execPath, args, { cwd: root, stdio: 'inherit', env: { ...process.env, ...env } });
  started.push(child);
  child.on('exit', (code) => stop(code ?? 0));
  return child;
}
let stopping = false;
function stop(code) {
  if (stopping) return;
  stopping = true;
  for (const child of started) child.kill('SIGTERM');
  process.exitCode = code;
}
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => stop(0));

const vite = binOf('vite');
const server = join(root, 'dist', 'node', 'server.js');
start([vite, 'build', '--watch', '--logLevel', 'warn', '-c', 'vite.node.config.ts'], { MELLOW_DEV: '1' });
start([vite], { MELLOW_SERVER: `http://127.0.0.1:${SERVER_PORT}` });
while (!existsSync(server) && !stopping) await new Promise((next) => setTimeout(next, POLL_MS));
if (!stopping)
  start(['--watch', '--watch-preserve-output', server], {
    PORT: SERVER_PORT,
    MELLOW_SEED: 'demo',
    MELLOW_DATA: join(root, '.mellow', 'dev'),
  });
