import { exec } from 'node:child_process';
import { resolve } from 'node:path';
import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import type { Plugin } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';
import { defineConfig } from 'vitest/config';

const contract = resolve(import.meta.dirname, '../../artifacts/openapi/v1.json');

/** The server's build writes what its API is; the client's types follow it while both are being changed. */
const followTheApi: Plugin = {
  name: 'follow-the-api',
  configureServer({ watcher }) {
    watcher.add(contract);
    watcher.on('change', (file) => {
      if (file === contract) exec('npm run --silent generate');
    });
  },
};

/**
 * The service worker: the whole program is on the device after one visit, and answers of the server are kept to look at
 * while it is away. An answer that comes from the device says so in a header; the page then says how old it is.
 */
const offline = VitePWA({
  registerType: 'prompt',
  injectRegister: null,
  includeAssets: ['mark.svg'],
  manifest: {
    name: 'Blue Dawn',
    short_name: 'Blue Dawn',
    description: 'The bench tool for rebuilding carburetors',
    theme_color: '#0e1a30',
    background_color: '#f4f1ea',
    display: 'standalone',
    icons: [{ src: '/mark.svg', sizes: 'any', type: 'image/svg+xml', purpose: 'any' }],
  },
  workbox: {
    globPatterns: ['**/*.{js,css,html,svg,woff2,wasm,dat,json}'],
    maximumFileSizeToCacheInBytes: 8 * 1024 * 1024,
    navigateFallback: '/index.html',
    navigateFallbackDenylist: [/^\/api\//, /^\/health\//, /^\/openapi\//],
    cleanupOutdatedCaches: true,
    clientsClaim: true,
    runtimeCaching: [
      {
        urlPattern: ({ sameOrigin, url }) => sameOrigin && url.pathname.startsWith('/api/photos/'),
        handler: 'CacheFirst',
        options: { cacheName: 'answers', expiration: { maxEntries: 4000 }, cacheableResponse: { statuses: [200] } },
      },
      {
        urlPattern: ({ sameOrigin, url }) =>
          sameOrigin && /^\/api\/(?!changes|compute|catalogue|me\/|trays\/\d+\/report\.)/.test(url.pathname),
        handler: 'NetworkFirst',
        options: {
          cacheName: 'answers',
          networkTimeoutSeconds: 8,
          expiration: { maxEntries: 4000 },
          cacheableResponse: { statuses: [200] },
          plugins: [
            {
              // A server in trouble is a server that is away: what was seen last is shown.
              fetchDidSucceed: ({ response }) =>
                response.status < 500 ? Promise.resolve(response) : Promise.reject(new Error('in trouble')),
              cachedResponseWillBeUsed: ({ cachedResponse }) => {
                if (!cachedResponse) return Promise.resolve(cachedResponse);
                const headers = new Headers(cachedResponse.headers);
                headers.set('X-Blue-Dawn-From', 'device');
                const { status, statusText } = cachedResponse;
                return Promise.resolve(new Response(cachedResponse.body, { status, statusText, headers }));
              },
            },
          ],
        },
      },
    ],
  },
});

export default defineConfig({
  plugins: [react(), tailwindcss(), followTheApi, offline],
  server: { proxy: { '/api': process.env.BLUE_DAWN_SERVER ?? 'http://127.0.0.1:5080' } },
  build: { target: 'es2022' },
  test: {
    environment: 'jsdom',
    setupFiles: 'src/test-setup.ts',
    restoreMocks: true,
    unstubGlobals: true,
    // One document for all files: making one for each takes five times as long as the tests.
    isolate: false,
    // Only a test that hangs is ended: where everything else is built at the same time the first drawing takes seconds.
    testTimeout: 60_000,
  },
});
