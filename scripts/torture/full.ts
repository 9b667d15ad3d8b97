import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, statfsSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { boathouse } from '#demo/boathouse.ts';
import { type Figures, hold, idOf, makeDesk } from './desk.ts';

const SIZE_MB = 120;

/** Set within a user namespace of our own, where anyone may mount. */
const INSIDE = 'MELLOW_TORTURE_INSIDE';

/** A small disk that is filled to its last byte: all is said, deleting works, and what was refused is taken once there is room. */
export async function full(seed: number): Promise<Figures> {
  const disk = mkdtempSync(join(tmpdir(), 'mellow-full-'));
  const mounted = spawnSync('mount', ['-t', 'tmpfs', '-o', `size=${SIZE_MB}m`, 'tmpfs', disk]).status === 0;
  if (!mounted) {
    rmSync(disk, { recursive: true, force: true });
    return process.env[INSIDE] ? LEFT_OUT : inNamespace(seed);
  }
  const figures = { 'writes refused as disk full': 0, 'takes deleted on a full disk': 0, 'starts on a full disk': 0 };
  const desk = await makeDesk(join(disk, 'desk'));
  try {
    await desk.start();
    const id = idOf(0x30, 1);
    await desk.ask('POST', '/api/rigs', { id, document: boathouse });
    // The reserve is taken a moment after the start.
    await new Promise((resolve) => setTimeout(resolve, 4000));
    const takes: string[] = [];
    for (let n = 0; n < 400; n++) {
      const take = idOf(0x31, n);
      const { status, json } = await desk.ask(
        'PUT',
        `/api/takes/${take}?name=t${n}.wav`,
        new Uint8Array(2_000_000).fill(n % 250),
      );
      if (status === 201) {
        takes.push(take);
        continue;
      }
      hold(
        status === 507 && /disk is full/.test(json.detail),
        `A full disk answered ${status}: ${JSON.stringify(json)}`,
      );
      hold(json.space.largest.length > 0, 'It is not said what takes most space');
      figures['writes refused as disk full']++;
      break;
    }
    hold(figures['writes refused as disk full'] > 0, 'The small disk was never full');
    // To the last byte.
    const left = statfsSync(disk);
    try {
      writeFileSync(join(disk, 'filler'), Buffer.alloc(left.bavail * left.bsize));
    } catch {
      // As full as it gets.
    }
    let revision = (await desk.ask('GET', `/api/rigs/${id}`)).json.revision as number;
    let refused = 0;
    for (let n = 0; n < 4000 && refused === 0; n++) {
      const { status, json } = await desk.ask(
        'PUT',
        `/api/rigs/${id}`,
        { ...boathouse, notes: `${n}` },
        { 'If-Match': `"${revision}"` },
      );
      if (status === 200) revision = json.revision;
      else {
        hold(status === 507, `A save on a full disk answered ${status}: ${JSON.stringify(json)}`);
        refused++;
      }
    }
    figures['writes refused as disk full'] += refused;
    hold((await desk.ask('GET', `/api/rigs/${id}`)).json.revision === revision, 'A refused save left something');
    await desk.kill();
    await desk.start();
    figures['starts on a full disk']++;
    for (const take of takes.slice(0, 5)) {
      const { status, json } = await desk.ask('DELETE', `/api/takes/${take}`);
      hold(status === 204, `Deleting on a full disk answered ${status}: ${JSON.stringify(json)}`);
      figures['takes deleted on a full disk']++;
    }
    const again = await desk.ask(
      'PUT',
      `/api/rigs/${id}`,
      { ...boathouse, notes: 'after' },
      { 'If-Match': `"${revision}"` },
    );
    hold(again.status === 200, `With room again a save answered ${again.status}`);
  } finally {
    await desk.dispose();
    spawnSync('umount', [disk]);
    rmSync(disk, { recursive: true, force: true });
  }
  return figures;
}

const LEFT_OUT: Figures = { 'left out': 'no small disk may be mounted here' };

/** The same again, as who may mount: the stage runs in a user namespace, and its line is ours. */
function inNamespace(seed: number): Figures {
  const within = ['--user', '--map-root-user', '--mount'];
  if (spawnSync('unshare', [...within, 'true']).status !== 0) return LEFT_OUT;
  const self = [process.execPath, ...process.execArgv, process.argv[1]!, '--only', 'full disk', '--seed', String(seed)];
  const { status, stdout, stderr } = spawnSync('unshare', [...within, ...self], {
    env: { ...process.env, [INSIDE]: '1' },
    encoding: 'utf8',
  });
  hold(status === 0, stderr);
  return { 'in a namespace of its own': stdout.trim().split(': ').at(-1)! };
}
