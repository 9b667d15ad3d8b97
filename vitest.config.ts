import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    globalSetup: './scripts/vitest-setup.ts',
    // All cores: the tests compute, and the runner itself hardly does.
    maxWorkers: '100%',
    projects: [
      {
        test: {
          name: 'core',
          include: ['core/**/*.test.ts', 'demo/**/*.test.ts'],
          environment: 'node',
          // One worker reads the catalogue once for all of its files.
          isolate: false,
          testTimeout: 240_000,
          hookTimeout: 240_000,
        },
      },
      {
        test: {
          // Apart from core: here words are given, there codes are asked for.
          name: 'node',
          include: ['words/**/*.test.ts', 'cli/**/*.test.ts', 'server/**/*.test.ts', 'scripts/**/*.test.ts'],
          environment: 'node',
          isolate: false,
          testTimeout: 240_000,
          hookTimeout: 240_000,
        },
      },
      {
        test: {
          name: 'web',
          include: ['web/**/*.test.ts', 'web/**/*.test.tsx'],
          environment: 'node',
          testTimeout: 120_000,
          hookTimeout: 240_000,
        },
      },
    ],
  },
});
