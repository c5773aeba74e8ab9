// The service worker of Mirvak: keeps the app, so that it opens without its server. `scripts/offline.mjs` puts in front of it
// NAME (of this build's cache) and FILES (what this build consists of, with the pages).
const known = new Set(FILES);

/** The page that answers for a path; every job has the same one, which finds out by its address which job it is. */
function pageOf(path) {
  if (path === '/' || path === '/library') return path;
  // An address that is none is for the server to refuse.
  return /^\/job\/[^/%]+$/.test(path) ? '/job/_' : null;
}

/** Windows of the build before still ask for its parts: it is kept as long as there is no newer one. */
const CACHES_KEPT = 2;

self.addEventListener('install', (e) => {
  // All or nothing: half an app does not open.
  // What has its content in its name may come from where the browser has it already.
  const fresh = (f) => (f.startsWith('/_next/static/') ? f : new Request(f, { cache: 'no-cache' }));
  e.waitUntil(caches.open(NAME).then((cache) => cache.addAll(FILES.map(fresh))));
});

self.addEventListener('activate', (e) => {
  const tidy = async () => {
    const mine = (await caches.keys()).filter((k) => k.startsWith('mirvak-'));
    // In the order in which they were made.
    const old = mine.filter((k) => k !== NAME).slice(0, -(CACHES_KEPT - 1));
    await Promise.all(old.map((k) => caches.delete(k)));
    await self.clients.claim();
  };
  e.waitUntil(tidy());
});

/** A newer build waits until a maker says so. */
self.addEventListener('message', (e) => {
  if (e.data === 'start') void self.skipWaiting();
});

async function answer(path, request) {
  const kept = (await (await caches.open(NAME)).match(path)) ?? (await caches.match(path));
  // A kept answer has an address, which takes the place of the one that was asked for: a worker would miss what stands behind it.
  return kept ? new Response(kept.body, { status: kept.status, headers: kept.headers }) : fetch(request);
}

self.addEventListener('fetch', (e) => {
  const url = new URL(e.request.url);
  if (e.request.method !== 'GET' || url.origin !== self.location.origin) return;
  if (e.request.mode === 'navigate') {
    const page = pageOf(url.pathname);
    if (page) e.respondWith(answer(page, e.request));
  } else if (!url.searchParams.has('_rsc') && (known.has(url.pathname) || url.pathname.startsWith('/_next/static/')))
    e.respondWith(answer(url.pathname, e.request));
});
