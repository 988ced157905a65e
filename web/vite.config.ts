import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  root: import.meta.dirname,
  plugins: [react()],
  define: { global: 'globalThis' },
  resolve: {
    alias: {
      '@true-ledger/core': new URL('../core/src/index.ts', import.meta.url).pathname,
      '@true-ledger/contract': new URL('../contract/src/index.ts', import.meta.url).pathname,
    },
  },
  worker: { format: 'es' },
  build: { outDir: 'dist', emptyOutDir: true, target: 'es2022', assetsInlineLimit: 0, chunkSizeWarningLimit: 2500 },
  server: { proxy: { '/api': 'http://127.0.0.1:4310' } },
});
