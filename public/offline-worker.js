// Shows a page of our own where a page cannot be fetched, instead of the browser's. Everything else goes its usual way.
const STORE = 'etagere-offline-1';
const PAGE = '/offline.html';

self.addEventListener('install', (event) => {
  event.waitUntil(caches.open(STORE).then((store) => store.add(new Request(PAGE, { cache: 'reload' }))));
  self.skipWaiting();
});

self.addEventListener('activate', (event) => {
  event.waitUntil(self.clients.claim());
});

self.addEventListener('fetch', (event) => {
  if (event.request.mode !== 'navigate') return;
  event.respondWith(fetch(event.request).catch(() => caches.match(PAGE)));
});
