// Steps that the npm scripts share: what is missing is made, what is there is left.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = dirname(dirname(fileURLToPath(import.meta.url)));
const STAMPS = join(root, '.mellow');

export function fail(message) {
  process.stderr.write(`\n${message}\n`);
  process.exit(1);
}

export function checkNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major > 20 || (major === 20 && minor >= 19)) return;
  fail(
    `Mellow Tap needs Node.js 20.19 or newer; this is ${process.versions.node}. Install a newer one and start again.`,
  );
}

/** Runs a command with its output shown; ends this one when it fails. */
export function run(command, args, options = {}) {
  const done = spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options });
  if (done.error) fail(`'${command}' could not be started: ${done.error.message}`);
  if (done.status !== 0) process.exit(done.status ?? 1);
}

/** Runs a program from node_modules/.bin. */
export const tool = (name, args, options) => run(process.execPath, [binOf(name), ...args], options);

/** Checks all types, each part of the tree only where it or what it rests on has changed. */
export function checkTypes() {
  ensureWasm();
  run(process.execPath, [join(root, 'node_modules', 'typescript-7', 'bin', 'tsc'), '--build']);
}
/** What reads the tree as a whole: style and mistakes, walls between folders, exports and files that nobody uses. */
export function lint() {
  tool('biome', ['check', '--error-on-warnings']);
  tool('depcruise', WALLED);
  tool('knip', ['--no-config-hints', '--cache', '--cache-location', join(STAMPS, 'knip')]);
}
/** Folders that keep to the walls. */
const WALLED = ['core', 'web', 'server', 'cli', 'words', 'api', 'demo', 'bench', 'scripts', 'e2e'];

export function binOf(name) {
  const link = join(root, 'node_modules', '.bin', name);
  if (!existsSync(link)) fail(`'${name}' is not installed. Run 'npm ci' and start again.`);
  return link;
}

const stamp = (name) => join(STAMPS, `${name}.stamp`);
const isStamped = (name, hash) => existsSync(stamp(name)) && readFileSync(stamp(name), 'utf8') === hash;
function setStamp(name, hash) {
  mkdirSync(STAMPS, { recursive: true });
  writeFileSync(stamp(name), hash);
}

function hashOf(paths) {
  const hash = createHash('sha256');
  const visit = (path) => {
    if (!existsSync(path)) return;
    if (statSync(path).isDirectory()) for (const entry of readdirSync(path).sort()) visit(join(path, entry));
    else hash.update(path).update(readFileSync(path));
  };
  for (const path of paths) visit(join(root, path));
  return hash.digest('hex');
}

/** Installs what the lock file names, unless just that is there already. */
export function ensureInstalled() {
  if (isInstalled()) return;
  process.stdout.write(
    'Installing the packages of package-lock.json into node_modules (sqlite3 is compiled: about two minutes). To do it yourself: npm ci\n',
  );
  run('npm', ['ci', '--no-fund', '--no-audit'], { shell: process.platform === 'win32' });
}

/** npm keeps what it installed in a lock file of its own. */
function isInstalled() {
  const hidden = join(root, 'node_modules', '.package-lock.json');
  if (!existsSync(hidden)) return false;
  const wanted = packagesOf(join(root, 'package-lock.json'));
  const there = packagesOf(hidden);
  return Object.entries(wanted).every(
    ([path, p]) => path === '' || p.optional || p.peer || there[path]?.version === p.version,
  );
}

const packagesOf = (lockFile) => JSON.parse(readFileSync(lockFile, 'utf8')).packages ?? {};

/** Compiles the inner loops of wasm/ to WebAssembly, as a module of bytes that every bundler and runner can import. */
export function ensureWasm() {
  const target = join(root, 'core', 'audio', 'measure', 'kernel', 'levels.generated.ts');
  const hash = hashOf(['wasm', 'package-lock.json']);
  if (existsSync(target) && isStamped('wasm', hash)) return;
  mkdirSync(STAMPS, { recursive: true });
  const compiled = join(STAMPS, 'levels.wasm');
  const options = ['-O3', '--enable', 'simd', '--runtime', 'stub', '--noAssert', '--outFile', compiled];
  tool('asc', [join('wasm', 'levels.ts'), ...options]);
  const bytes = readFileSync(compiled).join(',');
  writeFileSync(
    target,
    `// Made of wasm/levels.ts by the build.\nexport const LEVELS_WASM = new Uint8Array([${bytes}]);\n`,
  );
  setStamp('wasm', hash);
}

/** Everything that a build is made of. */
export const SOURCES = [
  'core',
  'wasm',
  'api',
  'server',
  'web',
  'cli',
  'demo',
  'words',
  'vite.config.ts',
  'vite.node.config.ts',
  'package-lock.json',
];

/** Builds page, server and command line, unless nothing has changed since. */
export function ensureBuilt({ quiet = false } = {}) {
  ensureWasm();
  const hash = hashOf(SOURCES);
  if (
    existsSync(join(root, 'dist', 'node', 'cli.js')) &&
    existsSync(join(root, 'dist', 'web', 'index.html')) &&
    isStamped('build', hash)
  )
    return;
  const options = quiet ? { stdio: ['ignore', 'ignore', 'inherit'] } : {};
  tool('vite', ['build', '--logLevel', 'warn', '-c', 'vite.node.config.ts'], options);
  tool('vite', ['build', '--logLevel', 'warn'], options);
  setStamp('build', hash);
}
