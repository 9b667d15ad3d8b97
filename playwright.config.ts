import { defineConfig } from '@playwright/test';

const SOUND = 'scan.spec.ts';

/** Tests start their own servers (see e2e/server.ts); Chromium is the system's. */
export default defineConfig({
  testDir: 'e2e',
  testMatch: '*.spec.ts',
  globalSetup: './e2e/seed.ts',
  // Long enough for a machine that is three times slower, or has other things to do: no test measures time.
  timeout: 300_000,
  expect: { timeout: 60_000 },
  workers: 2,
  fullyParallel: true,
  reporter: [['list']],
  projects: [
    { name: 'all', testIgnore: SOUND },
    // In real time, through the sound server: by themselves, when all else is done. A machine that stalls for longer than
    // the pipes hold loses samples, which the page says: again then.
    { name: 'sound', testMatch: SOUND, dependencies: ['all'], fullyParallel: false, workers: 1, retries: 2 },
  ],
  outputDir: 'test-results',
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
});
