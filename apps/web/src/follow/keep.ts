import { lessonPath } from './asks.ts';
import { PAGES_CACHE, TAKES_CACHE, WORKER } from './cache-names.ts';
import { KEPT_HEADER, pieceCount, pieceUrl, PIECE_BYTES } from './pieces.ts';

/** Pieces asked for with one request. */
const PIECES_AT_ONCE = 4;

export const canKeep = (): boolean => 'serviceWorker' in navigator && 'caches' in window;

/** Waits until this page's requests go through the worker. */
export async function underControl(): Promise<void> {
  await navigator.serviceWorker.register(WORKER, { scope: '/follow/' });
  await navigator.serviceWorker.ready;
  if (navigator.serviceWorker.controller) return;
  await new Promise<void>((resolve) =>
    navigator.serviceWorker.addEventListener('controllerchange', () => resolve(), { once: true }),
  );
}

async function keepAnswer(url: string): Promise<void> {
  const cache = await caches.open(PAGES_CACHE);
  if (await cache.match(url)) return;
  const answer = await fetch(url);
  if (!answer.ok) throw new Error(`${answer.status} ${url}`);
  await cache.put(url, answer);
}

/**
 * Keeps this very page, all it has loaded and the lesson, so that it opens without a connection
 * from the first visit on.
 */
export async function keepPage(code: string): Promise<void> {
  await underControl();
  const loaded = performance.getEntriesByType('resource').map(({ name }) => new URL(name));
  const files = loaded.filter(
    ({ origin, pathname }) =>
      origin === location.origin &&
      (pathname.startsWith('/assets/') || pathname === lessonPath(code)),
  );
  for (const url of new Set([location.href, ...files.map(({ href }) => href)]))
    await keepAnswer(url);
}

/** Footage to be kept, by the address it is played from. */
export interface Keepable {
  url: string;
  bytes: number;
}

const whole = (url: string) => new URL(url, location.href).href;

/** Whether every piece of some footage is on the device. */
export async function isKept({ url, bytes }: Keepable): Promise<boolean> {
  const cache = await caches.open(TAKES_CACHE);
  for (let i = 0; i < pieceCount(bytes); i += 1)
    if (!(await cache.match(pieceUrl(whole(url), i)))) return false;
  return true;
}

/**
 * Has the worker fetch and keep what is missing of some footage.
 * @throws when it cannot be had or kept
 */
export async function keepFootage(keepable: Keepable, isGone: () => boolean): Promise<void> {
  for (let from = 0; from < keepable.bytes && !isGone(); from += PIECES_AT_ONCE * PIECE_BYTES) {
    const to = Math.min(keepable.bytes, from + PIECES_AT_ONCE * PIECE_BYTES) - 1;
    const answer = await fetch(keepable.url, { headers: { range: `bytes=${from}-${to}` } });
    if (!answer.ok) throw new Error(`${answer.status} ${keepable.url}`);
    await answer.arrayBuffer();
  }
  if (!isGone() && !(await isKept(keepable)))
    throw new Error(`There is no room for ${keepable.url}`);
}

/** Other versions of kept footage make room. */
export async function dropOthers(kept: readonly Keepable[]): Promise<void> {
  const cache = await caches.open(TAKES_CACHE);
  const wanted = kept.map(({ url }) => new URL(url, location.href));
  const isOther = (url: URL) =>
    wanted.some(
      ({ pathname, searchParams }) =>
        pathname === url.pathname &&
        (searchParams.get('lines') !== url.searchParams.get('lines') ||
          searchParams.get('v') !== url.searchParams.get('v')),
    );
  for (const request of await cache.keys())
    if (isOther(new URL(request.url))) await cache.delete(request);
}

/**
 * What the line carries, in kilobits a second, by the first piece of some footage; null when that
 * is on the device already.
 */
export async function measureLine(url: string): Promise<number | null> {
  const beganMs = performance.now();
  const answer = await fetch(url, { headers: { range: `bytes=0-${PIECE_BYTES - 1}` } });
  if (!answer.ok || answer.headers.has(KEPT_HEADER)) return null;
  const bytes = (await answer.arrayBuffer()).byteLength;
  return (bytes * 8) / Math.max(1, performance.now() - beganMs);
}
