import { fileURLToPath } from 'node:url';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';

/** A file beside this one; the folder may have spaces in its name. */
const at = (path: string): string => fileURLToPath(new URL(path, import.meta.url));

/** What was fetched of cases while there was a line; asked of the server first, from here only when it does not answer. */
const KNOWN = ['me', 'cases', 'gauges', 'sheets', 'stand-ins', 'prices', 'policy', 'grade-books', 'references', 'network'];

export default defineConfig({
  root: import.meta.dirname,
  plugins: [
    react(),
    VitePWA({
      registerType: 'prompt',
      injectRegister: null,
      manifest: {
        name: 'True Ledger',
        short_name: 'Ledger',
        description: 'Teardown accounts: what was seen, what was measured, why it failed.',
        start_url: '/',
        display: 'standalone',
        background_color: '#eef0f1',
        theme_color: '#20272b',
        icons: [{ src: '/icon.svg', sizes: 'any', type: 'image/svg+xml', purpose: 'any' }],
      },
      workbox: {
        globPatterns: ['**/*.{js,css,html,woff2,svg}'],
        maximumFileSizeToCacheInBytes: 4 * 1024 * 1024,
        navigateFallback: '/index.html',
        navigateFallbackDenylist: [/^\/api\//, /^\/authority\.crt/],
        cleanupOutdatedCaches: true,
        runtimeCaching: [
          {
            urlPattern: new RegExp(
              `/api/(?:${KNOWN.join('|')})(?:/[0-9a-f-]{36})?(?:/page\\?[^/]*|/entries\\?after=\\d+|/photos/[0-9a-f]{64}/(?:thumb|work))?$`,
            ),
            handler: 'NetworkFirst',
            options: {
              cacheName: 'known',
              cacheableResponse: { statuses: [200] },
              expiration: { maxEntries: 600, maxAgeSeconds: 14 * 86_400 },
            },
          },
        ],
      },
    }),
  ],
  define: { global: 'globalThis' },
  resolve: {
    alias: {
      '@true-ledger/core': at('../core/src/index.ts'),
      '@true-ledger/contract': at('../contract/src/index.ts'),
    },
  },
  worker: { format: 'es' },
  build: { outDir: 'dist', emptyOutDir: true, target: 'es2022', assetsInlineLimit: 0, chunkSizeWarningLimit: 2500 },
  server: { proxy: { '/api': 'http://127.0.0.1:4310' } },
});
