/* global console, process, Headers, Response */
// Writes the service worker: the whole program is on the device after one visit, and answers of the server are kept to look
// at while it is away. An answer that comes from the device says so in a header; the page then says how old it is.
//   node service-worker.js FOLDER    for the program that is served from that folder, Core for the browser in it
import { generateSW } from 'workbox-build';

const folder = process.argv[2];
if (!folder) throw new Error('Which folder is served?');

const { warnings, count, size } = await generateSW({
  globDirectory: folder,
  globPatterns: ['**/*.{js,css,html,svg,woff2,wasm,dat,json,webmanifest}'],
  swDest: `${folder}/sw.js`,
  // The names of these change with what is in them.
  dontCacheBustURLsMatching: /^assets\//,
  maximumFileSizeToCacheInBytes: 8 * 1024 * 1024,
  navigateFallback: '/index.html',
  navigateFallbackDenylist: [/^\/api\//, /^\/health\//, /^\/openapi\//],
  cleanupOutdatedCaches: true,
  clientsClaim: true,
  sourcemap: false,
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
});
for (const warning of warnings) console.warn(warning);
console.log(`${count} files, ${size} bytes`);
if (count === 0 || warnings.length > 0) process.exit(1);
