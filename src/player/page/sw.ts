import { freshOrKept, keepAll } from './kept-page';

/** Keeps the player's page. Programs and files are the page's own affair. */
declare const self: ServiceWorkerGlobalScope;

const worker = self;

const CACHE = 'lanternpost-player-2';
/** This one took whatever came with status 200. */
const BEFORE = 'lanternpost-player';
const PAGE = ['/player', '/player/player.js', '/player/player.css', '/player/heading.woff2', '/player/mono.woff2'];

const fetcher = (input: RequestInfo | URL, init?: RequestInit) => fetch(input, init);

worker.addEventListener('install', (event) => {
  event.waitUntil(
    caches
      .open(CACHE)
      .then((cache) => keepAll(cache, PAGE, fetcher))
      .then(() => worker.skipWaiting()),
  );
});

worker.addEventListener('activate', (event) =>
  event.waitUntil(caches.delete(BEFORE).then(() => worker.clients.claim())),
);

worker.addEventListener('fetch', (event) => {
  const { pathname } = new URL(event.request.url);
  if (event.request.method === 'GET' && PAGE.includes(pathname))
    event.respondWith(caches.open(CACHE).then((cache) => freshOrKept(event.request, cache, fetcher)));
});
