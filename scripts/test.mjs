// npm test: everything that has to hold, on a fresh clone too.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { checkNode, checkTypes, ensureBuilt, ensureInstalled, fail, lint, run, tool } from './steps.mjs';

checkNode();
ensureInstalled();

const chromium = process.env.CHROMIUM ?? '/usr/bin/chromium';
if (!existsSync(chromium)) {
  const hint =
    'Browser tests need Chromium. Install it with: sudo apt-get install -y chromium (or set CHROMIUM to where it is).';
  const isRoot = process.getuid?.() === 0;
  if (!isRoot || spawnSync('apt-get', ['--version']).error) fail(hint);
  process.stdout.write(
    'Installing Chromium for the browser tests, by apt-get, for the whole system. To avoid it, set CHROMIUM to a browser that is there.\n',
  );
  run('apt-get', ['-o', 'DPkg::Lock::Timeout=300', 'update', '-qq']);
  run('apt-get', ['-o', 'DPkg::Lock::Timeout=300', 'install', '-y', '-qq', 'chromium'], {
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
