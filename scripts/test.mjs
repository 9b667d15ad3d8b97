// npm test: everything that has to hold, on a fresh clone too.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { checkNode, checkTypes, ensureBuilt, ensureInstalled, fail, lint, run, tool } from './steps.mjs';

checkNode();
ensureInstalled();

const chromium = process.env.CHROMIUM ?? '/usr/bin/chromium';
const isThere = (program) => !spawnSync(program, ['--version']).error;
const needed = [
  ...(existsSync(chromium) ? [] : ['chromium']),
  // Scans are tried through real outputs and inputs: those of a sound server of their own.
  ...(isThere('pulseaudio') && isThere('pactl') ? [] : ['pulseaudio', 'pulseaudio-utils']),
];
if (needed.length > 0) {
  const list = needed.join(' ');
  const hint = `Browser tests need ${list}. Install with: sudo apt-get install -y ${list} (or set CHROMIUM to where the browser is).`;
  const isRoot = process.getuid?.() === 0;
  if (!isRoot || !isThere('apt-get')) fail(hint);
  process.stdout.write(`Installing ${list} for the browser tests, by apt-get, for the whole system.\n`);
  run('apt-get', ['-o', 'DPkg::Lock::Timeout=300', 'update', '-qq']);
  run('apt-get', ['-o', 'DPkg::Lock::Timeout=300', 'install', '-y', '-qq', '--no-install-recommends', ...needed], {
    env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
  });
}

const step = (title, work) => {
  process.stdout.write(`\n— ${title}\n`);
  work();
};
step('types', checkTypes);
step('lint', lint);
step('unit tests', () => tool('vitest', ['run']));
step('build', () => ensureBuilt());
// A short form of `npm run torture`: less than two minutes on a quiet machine, the same each time.
step('torture', () => tool('tsx', ['scripts/torture/main.ts', '--minutes', '0.6', '--seed', '1']));
step('browser tests', () => tool('playwright', ['test']));
