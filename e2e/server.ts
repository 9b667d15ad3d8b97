import { type ChildProcess, spawn } from 'node:child_process';
import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { test as base, expect, type Locator, type Page } from '@playwright/test';
import sqlite3 from 'sqlite3';
import { makeNetwork, type Network } from './network.ts';

export const DEMO_RIG = '0b0a7405-e000-4000-8000-000000000001';
export const COUCH_CLAP = '7a4e0000-0000-4000-8000-000000000001';
export const RELAY_BACKUP = '7a4e0000-0000-4000-8000-000000000003';
export const RELAY_TRACK = '7a4e0000-0000-4000-8000-000000000004';
export const HOST_WITH_HUM = '7a4e0000-0000-4000-8000-000000000005';
export const HOST_TOO_LOUD = '7a4e0000-0000-4000-8000-000000000006';
export const FIVE_TRACKS = '7a4e0000-0000-4000-8000-000000000007';

/** The built server over a folder of its own: it can be killed and started again on the same port and data. */
export interface TestServer {
  readonly url: string;
  /** Its data folder. */
  readonly data: string;
  /** Changes the database as another program does. */
  tamper(sql: string): Promise<void>;
  kill(signal?: NodeJS.Signals): Promise<void>;
  start(more?: Record<string, string>): Promise<void>;
}

const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const probe = createServer();
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => resolve(port));
    });
  });

async function makeServer(): Promise<{ server: TestServer; dispose: () => Promise<void> }> {
  const data = mkdtempSync(join(tmpdir(), 'mellow-e2e-'));
  cpSync(process.env.MELLOW_TEMPLATE!, data, { recursive: true });
  const port = await freePort();
  let child: ChildProcess | null = null;
  const kill = async (signal: NodeJS.Signals = 'SIGKILL'): Promise<void> => {
    const running = child;
    child = null;
    if (!running || running.exitCode !== null) return;
    const gone = new Promise((resolve) => running.once('exit', resolve));
    running.kill(signal);
    await gone;
  };
  const start = (more: Record<string, string> = {}): Promise<void> =>
    new Promise((resolve, reject) => {
      child = spawn(process.execPath, ['dist/node/server.js'], {
        env: { ...process.env, PORT: String(port), MELLOW_DATA: data, MELLOW_SEED: 'demo', ...more },
        stdio: ['ignore', 'pipe', 'inherit'],
      });
      child.stdout!.on('data', (chunk: Buffer) => chunk.toString().includes('Mellow Tap: http') && resolve());
      child.once('exit', (code) => reject(new Error(`The server ended with ${code}.`)));
    });
  const tamper = (sql: string): Promise<void> =>
    new Promise((resolve, reject) => {
      const database = new sqlite3.Database(join(data, 'mellow.sqlite'));
      database.exec(sql, (error) => database.close(() => (error ? reject(error) : resolve())));
    });
  await start();
  return {
    server: { url: `http://127.0.0.1:${port}`, data, kill, start, tamper },
    dispose: async () => {
      await kill('SIGTERM');
      rmSync(data, { recursive: true, force: true });
    },
  };
}

/** Each test has a server and data of its own, and fails on anything that the page complains about. */
export const test = base.extend<{ server: TestServer; network: Network; complaints: string[] }>({
  // biome-ignore lint/correctness/noEmptyPattern: Playwright reads the pattern
  network: async ({}, use) => {
    const network = await makeNetwork();
    await use(network);
    network.close();
  },
  // biome-ignore lint/correctness/noEmptyPattern: Playwright reads the pattern
  server: async ({}, use) => {
    const { server, dispose } = await makeServer();
    await use(server);
    await dispose();
  },
  complaints: [
    async ({ page }, use) => {
      const complaints: string[] = [];
      page.on('pageerror', (error) => complaints.push(error.message));
      page.on('console', (message) => {
        // A lost server and a refused write are said by the browser too; the tests look at what the page makes of them.
        if (
          message.type() === 'error' &&
          !/Failed to load resource|ERR_CONNECTION|Retrying failed fetch|Error while reading response stream/.test(
            message.text(),
          )
        )
          complaints.push(message.text());
      });
      await use(complaints);
      if (complaints.length > 0) throw new Error(`The page complained:\n${complaints.join('\n')}`);
    },
    { auto: true },
  ],
});

/** Closes a dialog by Escape, once it has the focus: it listens from the frame after the one in which it is drawn. */
export async function leaveByEscape(page: Page, dialog: Locator): Promise<void> {
  await expect.poll(() => dialog.evaluate((node) => node.contains(document.activeElement))).toBe(true);
  await page.keyboard.press('Escape');
  await expect(dialog).toBeHidden();
}
/** Lists all issues below the map, as someone who works along the list has it. */
export const withIssues = (page: Page): Promise<unknown> =>
  page.addInitScript(() => localStorage.setItem('mellow.issues-open', 'true'));
export { expect };
