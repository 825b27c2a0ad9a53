/**
 * Keeps the app and what was last seen of the server on this device. Before this stand, written by the export: `FILES`, the hash of each
 * file by its path, and `VERSION`, the hash of them all.
 */
/* global FILES, VERSION */
const APP = `app-${VERSION}`;
const SEEN = 'seen';
/** Answers that are kept; the oldest go first. */
const MOST_SEEN = 300;
/** What is kept of the server: what one looks at, not what one takes away. */
const LOOKED_AT =
  /^\/api\/(jobs|shop|people|door|releases|handing-out)(\/|$)(?!.*\/(document|programs|papers\/[^/]*)$)/;
const ONE_JOB = /^\/api\/jobs\/([0-9a-f-]{32,36})$/;
/** Finds an answer however it was packed on its way. */
const ANY = { ignoreVary: true };

const keyOf = (path) => `${path}?h=${FILES[path]}`;

async function hashOf(answer) {
  const hash = await crypto.subtle.digest('SHA-256', await answer.arrayBuffer());
  return [...new Uint8Array(hash)].map((b) => b.toString(16).padStart(2, '0')).join('');
}

/** Files that did not change are taken from the version before. */
async function install() {
  const app = await caches.open(APP);
  for (const path of Object.keys(FILES)) {
    const found = (await caches.match(keyOf(path), ANY)) ?? (await fetch(path, { cache: 'reload' }));
    if (!found.ok || (await hashOf(found.clone())) !== FILES[path]) throw new Error(`${path} is of another version`);
    await app.put(keyOf(path), found);
  }
}

async function takeOver() {
  const old = (await caches.keys()).filter((name) => name.startsWith('app-') && name !== APP);
  await Promise.all(old.map((name) => caches.delete(name)));
  await self.clients.claim();
}

async function fileOf(path, request) {
  return (await caches.match(keyOf(path), { ...ANY, cacheName: APP })) ?? fetch(request);
}

async function remember(request, answer) {
  const seen = await caches.open(SEEN);
  await seen.put(request, answer);
  const all = await seen.keys();
  await Promise.all(all.slice(0, Math.max(0, all.length - MOST_SEEN)).map((old) => seen.delete(old)));
}

/** What the server says; where it cannot be reached what it said last, marked so. */
async function looked(event) {
  const { request } = event;
  let answer;
  try {
    answer = await fetch(request);
  } catch (error) {
    const seen = await caches.match(request, { ...ANY, cacheName: SEEN });
    if (!seen) throw error;
    const headers = new Headers(seen.headers);
    headers.set('x-from', 'cache');
    return new Response(seen.body, { status: seen.status, headers });
  }
  // Whoever is not let in any more keeps nothing.
  if (answer.status === 401) event.waitUntil(caches.delete(SEEN));
  else if (answer.ok) event.waitUntil(remember(request, answer.clone()));
  return answer;
}

/** What was saved is what is seen of the job from then on. */
async function saved(event, id) {
  const { request } = event;
  const sent = request.clone();
  const answer = await fetch(request);
  if (answer.ok) {
    const { version } = await answer.clone().json();
    const row = { id, version, updatedAt: new Date().toISOString(), job: (await sent.json()).job };
    event.waitUntil(remember(request.url, Response.json(row)));
  }
  return answer;
}

self.addEventListener('install', (event) => event.waitUntil(install()));
self.addEventListener('activate', (event) => event.waitUntil(takeOver()));
/** A new version waits until somebody asks for it. */
self.addEventListener('message', ({ data }) => data === 'take over' && self.skipWaiting());

self.addEventListener('fetch', (event) => {
  const { request } = event;
  const { origin, pathname } = new URL(request.url);
  if (origin !== self.location.origin) return;
  if (pathname.startsWith('/api/')) {
    const [, id] = ONE_JOB.exec(pathname) ?? [];
    if (request.method === 'PUT' && id) event.respondWith(saved(event, id));
    else if (request.method === 'GET' && request.mode !== 'navigate' && LOOKED_AT.test(pathname))
      event.respondWith(looked(event));
  } else if (request.method === 'GET' && request.mode === 'navigate') event.respondWith(fileOf('/index.html', request));
  else if (request.method === 'GET' && pathname in FILES) event.respondWith(fileOf(pathname, request));
});
