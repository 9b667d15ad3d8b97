import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Browser, chromium, type Page } from '@playwright/test';
import { createServer } from 'vite';

/** What Chromium is started with where there is no screen and no net. */
export const launch = (more: readonly string[] = []): Promise<Browser> =>
  chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--disable-background-networking', ...more],
  });

/** The built program over fresh demo data. */
export async function withProgram<T>(work: (url: string, page: Page) => Promise<T>): Promise<T> {
  const data = mkdtempSync(join(tmpdir(), 'mellow-bench-data-'));
  const server: ChildProcess = spawn(process.execPath, ['dist/node/server.js'], {
    env: { ...process.env, PORT: '0', MELLOW_DATA: data, MELLOW_SEED: 'demo' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const url = await new Promise<string>((resolve) =>
    server.stdout!.on('data', (chunk: Buffer) => {
      const found = /Mellow Tap: (http\S+)/.exec(chunk.toString());
      if (found) resolve(found[1]!);
    }),
  );
  const browser = await launch();
  try {
    return await work(url, await browser.newPage({ viewport: { width: 1280, height: 800 } }));
  } finally {
    await browser.close();
    server.kill('SIGTERM');
    rmSync(data, { recursive: true, force: true });
  }
}

/** A page of this folder's own, straight from its sources. */
export const withPage = <T>(root: string, work: (page: Page) => Promise<T>): Promise<T> =>
  withSources(root, (open) => open([], work));

/** Opens the page in a browser of its own, with more flags. */
export type Open = <T>(flags: readonly string[], work: (page: Page) => Promise<T>) => Promise<T>;

/** The same page in as many browsers as one wants. */
export async function withSources<T>(root: string, work: (open: Open) => Promise<T>): Promise<T> {
  const vite = await createServer({
    root,
    configFile: false,
    logLevel: 'error',
    // Nothing of it changes while it is measured.
    server: { host: '127.0.0.1', port: 0, hmr: false, watch: null, fs: { allow: [process.cwd()] } },
    // Its wasm lies beside it, and is not found from where bundled modules go.
    optimizeDeps: { exclude: ['@echogarden/pffft-wasm'] },
  });
  await vite.listen();
  try {
    return await work(async (flags, use) => {
      const browser = await launch(flags);
      try {
        const page = await browser.newPage();
        await page.goto(vite.resolvedUrls!.local[0]!);
        return await use(page);
      } finally {
        await browser.close();
      }
    });
  } finally {
    await vite.close();
  }
}
