/** Keeps the player's page, so that it starts without a network. Programs and files are the page's own affair. */
declare const self: ServiceWorkerGlobalScope;
export {};

const worker = self;

const CACHE = 'lanternpost-player';
const PAGE = ['/player', '/player/player.js', '/player/player.css', '/player/heading.woff2', '/player/mono.woff2'];
const NETWORK_FIRST_MS = 3000;

worker.addEventListener('install', (event) => {
  event.waitUntil(
    caches
      .open(CACHE)
      .then((cache) => cache.addAll(PAGE))
      .then(() => worker.skipWaiting()),
  );
});

worker.addEventListener('activate', (event) => event.waitUntil(worker.clients.claim()));

worker.addEventListener('fetch', (event) => {
  const { pathname } = new URL(event.request.url);
  if (event.request.method === 'GET' && PAGE.includes(pathname)) event.respondWith(freshOrKept(event.request));
});

async function freshOrKept(request: Request): Promise<Response> {
  const cache = await caches.open(CACHE);
  const kept = await cache.match(request, { ignoreSearch: true });
  const fresh = fetch(request).then(async (response) => {
    if (response.ok) await cache.put(request, response.clone());
    return response;
  });
  if (!kept) return fresh;
  const late = new Promise<Response>((resolve) => setTimeout(() => resolve(kept), NETWORK_FIRST_MS));
  return Promise.race([fresh.catch(() => kept), late]);
}
