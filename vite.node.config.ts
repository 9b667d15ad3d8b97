import { defineConfig } from 'vite';

/** Server and command line, bundled for Node; native and wasm packages stay outside. */
export default defineConfig({
  build: {
    ssr: true,
    outDir: 'dist/node',
    // While developing, the running server reads what is there until it is replaced.
    emptyOutDir: process.env.MELLOW_DEV === undefined,
    target: 'node20',
    rolldownOptions: {
      input: {
        server: 'server/start/main.ts',
        judge: 'server/judgments/judge.thread.ts',
        reader: 'server/rigs/reader.thread.ts',
        backup: 'server/backup/unpack.thread.ts',
        archive: 'server/archive/read.thread.ts',
        cli: 'cli/main.ts',
        levels: 'cli/levels.thread.ts',
      },
      output: { entryFileNames: '[name].js' },
    },
  },
  ssr: {
    noExternal: true,
    external: [
      'sqlite3',
      'sequelize',
      'umzug',
      'express',
      'helmet',
      'yazl',
      'yauzl',
      '@echogarden/pffft-wasm',
      'highs',
    ],
  },
});
