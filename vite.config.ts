import react from '@vitejs/plugin-react';
import { defineConfig, type Plugin } from 'vite';

/** Where `npm run dev` starts the server. */
const SERVER = process.env.MELLOW_SERVER ?? 'http://127.0.0.1:4310';

/** Two packages that run in Node.js too ask for this there, behind a check; in the page nothing ever loads it. */
const withoutNode = (): Plugin => ({
  name: 'without-node',
  enforce: 'pre',
  resolveId: (id) => (/^(node:)?module$/.test(id) ? '\0nothing' : null),
  load: (id) => (id === '\0nothing' ? 'export {};' : null),
});

/** The page: one lazy chunk a screen, workers as modules, no data: URLs (the content policy forbids them). */
export default defineConfig({
  root: 'web',
  plugins: [react(), withoutNode()],
  worker: { format: 'es', plugins: () => [withoutNode()] },
  html: { cspNonce: '__NONCE__' },
  build: {
    outDir: '../dist/web',
    emptyOutDir: true,
    // The server reads there which scripts a page of a rig needs.
    manifest: 'manifest.json',
    target: 'es2023',
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 900,
    rolldownOptions: {
      output: {
        strictExecutionOrder: true,
        chunkFileNames: ({ name }) => `assets/${name.split('~', 1)[0]}-[hash].js`,
        // What every page needs is one file; what pages share comes in a dozen by who uses it, not in a hundred.
        codeSplitting: {
          groups: [
            { name: 'first', tags: ['$initial'], priority: 1 },
            { name: 'shared', minShareCount: 2, entriesAware: true, entriesAwareMergeThreshold: 40_000 },
          ],
        },
      },
    },
  },
  server: {
    proxy: {
      '/api': {
        target: SERVER,
        changeOrigin: true,
        // The server takes changes from its own page only; here that page is this one.
        configure: (proxy) => proxy.on('proxyReq', (request) => request.setHeader('Origin', SERVER)),
      },
    },
  },
});
