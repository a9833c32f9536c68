/// <reference lib="webworker" />
import { PAGES_CACHE, TAKES_CACHE } from './cache-names.ts';
import { PieceStore } from './pieces.ts';

declare const self: ServiceWorkerGlobalScope;
/** Names of the built pages' own files, put in when they are built. */
declare const ASSETS: readonly string[];

const TAKE = /^\/api\/follow\/[^/]+\/takes\/[^/]+$/;
const LESSON = /^\/api\/follow\/[^/]+$/;

/** From the network, and kept; without a connection what was kept last, of whatever choice. */
async function newestOrKept(request: Request): Promise<Response> {
  const cache = await caches.open(PAGES_CACHE);
  try {
    const answer = await fetch(request);
    if (answer.ok) await cache.put(request, answer.clone());
    return answer;
  } catch (error) {
    const kept =
      (await cache.match(request)) ?? (await cache.match(request, { ignoreSearch: true }));
    if (kept) return kept;
    throw error;
  }
}

/** Hashed files never change. */
async function keptOrNew(request: Request): Promise<Response> {
  const cache = await caches.open(PAGES_CACHE);
  const kept = await cache.match(request);
  if (kept) return kept;
  const answer = await fetch(request);
  if (answer.ok) await cache.put(request, answer.clone());
  return answer;
}

const footage = new PieceStore(
  () => caches.open(TAKES_CACHE),
  (url, headers) => fetch(url, { headers, cache: 'no-store' }),
);

self.addEventListener('install', () => void self.skipWaiting());
/**
 * Files of pages that were built before, and caches of before, are asked for by no page any more.
 */
async function clearOld(): Promise<void> {
  for (const name of await caches.keys())
    if (name !== PAGES_CACHE && name !== TAKES_CACHE) await caches.delete(name);
  const cache = await caches.open(PAGES_CACHE);
  const isOld = ({ pathname }: URL) =>
    pathname.startsWith('/assets/') && !ASSETS.includes(pathname.slice('/assets/'.length));
  for (const request of await cache.keys())
    if (isOld(new URL(request.url))) await cache.delete(request);
}

self.addEventListener('activate', (event) =>
  event.waitUntil(Promise.all([self.clients.claim(), clearOld()])),
);
self.addEventListener('fetch', (event) => {
  const { request } = event;
  const { origin, pathname, search } = new URL(request.url);
  if (request.method !== 'GET' || origin !== self.location.origin) return;
  if (TAKE.test(pathname))
    event.respondWith(footage.answer(origin + pathname + search, request.headers.get('range')));
  else if (LESSON.test(pathname) || request.mode === 'navigate')
    event.respondWith(newestOrKept(request));
  else if (pathname.startsWith('/assets/')) event.respondWith(keptOrNew(request));
});
