import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { median } from 'd3-array';
import { build, preview } from 'vite';
import { launch, withProgram } from './browser.ts';
import type { Row } from './report.ts';

const DEMO_SYNC = '/rigs/0b0a7405-e000-4000-8000-000000000001/sync';
const TURNS = 5;

/** From an empty cache until something can be used, against the first paint of a bare page of the same libraries. */
export async function firstPaint(): Promise<readonly Row[]> {
  const folder = mkdtempSync(join(tmpdir(), 'mellow-bare-'));
  await build({
    root: 'bench/bare',
    configFile: false,
    logLevel: 'error',
    build: { outDir: folder, emptyOutDir: true, chunkSizeWarningLimit: 2000 },
  });
  const bare = await preview({ configFile: false, root: folder, build: { outDir: '.' }, preview: { port: 0 } });
  const bareUrl = bare.resolvedUrls!.local[0]!;
  try {
    return await withProgram(async (url) => {
      const times = { bare: [] as number[], rigs: [] as number[], sync: [] as number[] };
      for (let turn = 0; turn < TURNS; turn++) {
        times.bare.push(await usableMs(bareUrl, (page) => page.getByRole('button', { name: 'Go' }).waitFor()));
        times.rigs.push(await usableMs(url, (page) => page.getByRole('button', { name: 'Export' }).first().waitFor()));
        times.sync.push(
          await usableMs(url + DEMO_SYNC, (page) => page.getByRole('button', { name: /^Couch voices:/ }).waitFor()),
        );
      }
      const bareMs = median(times.bare)!;
      const row = (what: string, ms: number): Row => ({
        what: `${what} opened with an empty cache`,
        ours: `usable after ${ms.toFixed(0)} ms`,
        other: `a bare page of the same libraries: ${bareMs.toFixed(0)} ms`,
        ratio: bareMs / ms,
        goal: '0.5 or more',
        reached: bareMs / ms >= 0.5,
      });
      return [row('the list of rigs', median(times.rigs)!), row('a rig’s Sync', median(times.sync)!)];
    });
  } finally {
    await bare.close();
    rmSync(folder, { recursive: true, force: true });
  }
}

/** How long a new browser takes from the address to what is waited for. */
async function usableMs(url: string, wait: (page: Page) => Promise<void>): Promise<number> {
  const browser = await launch();
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    const begun = performance.now();
    await page.goto(url, { waitUntil: 'commit' });
    await wait(page);
    return performance.now() - begun;
  } finally {
    await browser.close();
  }
}
