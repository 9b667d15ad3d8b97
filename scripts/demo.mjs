// npm run demo: installs what is missing, builds, sets up the demo data, starts, prints the address.
// npm run demo -- --lan: also lets a phone or tablet on the local network have the run, by a code.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { checkNode, ensureBuilt, ensureInstalled, root } from './steps.mjs';

checkNode();
ensureInstalled();
ensureBuilt();
const server = spawn(process.execPath, [join(root, 'dist', 'node', 'server.js')], {
  cwd: root,
  stdio: 'inherit',
  env: { ...process.env, MELLOW_SEED: 'demo', ...(process.argv.includes('--lan') ? { MELLOW_LAN: '1' } : {}) },
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code, signal) => process.exit(code ?? (signal ? 0 : 1)));
