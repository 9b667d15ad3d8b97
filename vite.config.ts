import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

/** The page: one lazy chunk a screen, workers as modules, no data: URLs (the content policy forbids them). */
export default defineConfig({
  root: 'web',
  plugins: [react()],
  worker: { format: 'es' },
  html: { cspNonce: '__NONCE__' },
  build: {
    outDir: '../dist/web',
    emptyOutDir: true,
    target: 'es2023',
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 900,
  },
  server: { proxy: { '/api': 'http://127.0.0.1:4310' } },
});
