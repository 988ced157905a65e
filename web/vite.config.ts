import { fileURLToPath } from 'node:url';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { serwist } from '@serwist/vite';

/** A file beside this one; the folder may have spaces in its name. */
const at = (path: string): string => fileURLToPath(new URL(path, import.meta.url));

export default defineConfig({
  root: import.meta.dirname,
  plugins: [
    react(),
    serwist({
      swSrc: at('src/serviceWorker.ts'),
      swDest: 'sw.js',
      globDirectory: at('dist'),
      globPatterns: ['**/*.{js,css,html,woff2,svg,webmanifest}'],
      maximumFileSizeToCacheInBytes: 4 * 1024 * 1024,
      rollupFormat: 'iife',
    }),
  ],
  define: { global: 'globalThis' },
  resolve: {
    alias: [
      { find: /^@true-ledger\/core\/(\w+)$/, replacement: at('../core/src/$1/index.ts') },
      { find: '@true-ledger/contract', replacement: at('../contract/src/index.ts') },
    ],
  },
  worker: { format: 'es' },
  build: { outDir: 'dist', emptyOutDir: true, target: 'es2022', assetsInlineLimit: 0, chunkSizeWarningLimit: 2500 },
  server: { proxy: { '/api': 'http://127.0.0.1:4310' } },
});
