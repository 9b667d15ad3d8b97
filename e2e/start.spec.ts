import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, type Server } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';

/** The demo as `npm run demo` starts it, with what it prints. */
function start(env: NodeJS.ProcessEnv): {
  child: ChildProcess;
  said: () => string;
  address: Promise<string>;
  ended: Promise<number | null>;
} {
  const { PORT: _, ...rest } = process.env;
  const child = spawn(process.execPath, ['scripts/demo.mjs'], {
    env: { ...rest, ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let text = '';
  const address = new Promise<string>((resolve) => {
    const hear = (chunk: Buffer) => {
      text += chunk.toString();
      const found = /Mellow Tap: (http:\S+)/.exec(text);
      if (found) resolve(found[1]!);
    };
    child.stdout!.on('data', hear);
    child.stderr!.on('data', hear);
  });
  const ended = new Promise<number | null>((resolve) => child.once('exit', resolve));
  return { child, said: () => text, address, ended };
}
const occupy = (port: number): Promise<Server | null> =>
  new Promise((resolve) => {
    const server = createServer();
    server.once('error', () => resolve(null));
    server.listen(port, '127.0.0.1', () => resolve(server));
  });

test('the demo starts on the next free port, keeps what was changed, and stops cleanly', async ({ request }) => {
  const data = mkdtempSync(join(tmpdir(), 'mellow-start-'));
  const taken = await occupy(4310);
  try {
    const first = start({ MELLOW_DATA: data });
    const url = await first.address;
    expect(url).not.toBe('http://127.0.0.1:4310');
    expect(first.said()).toMatch(/Port 4310 is used by another program; trying the next one/);
    expect(first.said()).toMatch(/Demo rig and takes are set up/);
    const [rig] = await (await request.get(`${url}/api/rigs`)).json();
    const { document } = await (await request.get(`${url}/api/rigs/${rig.id}`)).json();
    const saved = await request.put(`${url}/api/rigs/${rig.id}`, {
      headers: { 'If-Match': `"${rig.revision}"` },
      data: { ...document, name: 'Boathouse, changed' },
    });
    expect(saved.ok()).toBe(true);
    first.child.kill('SIGTERM');
    expect(await first.ended).toBe(0);

    const second = start({ MELLOW_DATA: data });
    const again = await second.address;
    expect(second.said()).not.toMatch(/set up/);
    const rigs = await (await request.get(`${again}/api/rigs`)).json();
    expect(rigs.map((r: { name: string }) => r.name)).toEqual([
      'Boathouse, changed',
      'Quay talk, at the desk: straight in',
      'Quay talk, at the desk: through a mixer',
      'Moth night',
      'Clay hour',
      'Skerry net',
      'Glider corner',
      'Quay talk',
    ]);
    expect(await (await request.get(`${again}/api/takes`)).json()).toHaveLength(11);
    second.child.kill('SIGINT');
    expect(await second.ended).toBe(0);
  } finally {
    taken?.close();
    rmSync(data, { recursive: true, force: true });
  }
});

test('a port that was asked for and is used is said, and nothing is started', async () => {
  const data = mkdtempSync(join(tmpdir(), 'mellow-start-'));
  const taken = createServer();
  const port = await new Promise<number>((resolve) =>
    taken.listen(0, '127.0.0.1', () => resolve((taken.address() as { port: number }).port)),
  );
  try {
    const { ended, said } = start({ MELLOW_DATA: data, PORT: String(port) });
    expect(await ended).toBe(1);
    expect(said()).toContain(`Port ${port} is used by another program. Set PORT to a free one.`);
  } finally {
    taken.close();
    rmSync(data, { recursive: true, force: true });
  }
});
