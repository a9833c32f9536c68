import { useEffect, useState } from 'react';
import type { FollowLesson } from '@zest/contract';
import { lessonPath, takeUrl } from './asks.ts';
import { PAGES_CACHE, TAKES_CACHE, WORKER } from './cache-names.ts';

const size = (bytes: number) => `${Math.max(1, Math.round(bytes / 1e6))} MB`;
/** Up to this size footage is kept without being asked for, where data is not to be saved. */
const SMALL_BYTES = 60e6;

const savesData = () => (navigator as { connection?: { saveData?: boolean } }).connection?.saveData === true;

type State = { kind: 'asking' } | { kind: 'loading'; done: number } | { kind: 'kept' } | { kind: 'fault' };

/** Keeps an answer under its address, if it is not kept yet. @throws when it cannot be had */
async function keep(cacheName: string, url: string): Promise<void> {
  const cache = await caches.open(cacheName);
  if (await cache.match(url)) return;
  const answer = await fetch(url);
  if (!answer.ok) throw new Error(`${answer.status} ${url}`);
  await cache.put(url, answer);
}

/** Keeps this very page, all it has loaded and the lesson, so that it opens without a connection from the first visit on. */
async function keepPage(code: string): Promise<void> {
  await navigator.serviceWorker.register(WORKER, { scope: '/follow/' });
  await navigator.serviceWorker.ready;
  const loaded = performance.getEntriesByType('resource').map(({ name }) => new URL(name));
  const own = loaded.filter(({ origin, pathname }) => origin === location.origin && (pathname.startsWith('/assets/') || pathname === lessonPath(code)));
  for (const url of new Set([location.href, ...own.map(({ href }) => href)])) await keep(PAGES_CACHE, url);
}

/** The lesson kept on the device, so that it plays without a connection. It is said to be kept only once all of it is. */
export function KeepOffline({ code, takes }: { code: string; takes: FollowLesson['takes'] }) {
  const [state, setState] = useState<State>({ kind: 'asking' });
  const [wanted, setWanted] = useState(false);
  const bytes = takes.reduce((sum, take) => sum + take.bytes, 0);
  const canKeep = 'serviceWorker' in navigator && 'caches' in window;
  const isOn = wanted || (bytes <= SMALL_BYTES && !savesData());
  useEffect(() => {
    if (!canKeep || !isOn) return;
    let gone = false;
    const load = async () => {
      await keepPage(code);
      let done = 0;
      for (const { id } of takes) {
        if (gone) return;
        await keep(TAKES_CACHE, takeUrl(code, id));
        done += 1;
        setState({ kind: 'loading', done });
      }
      setState({ kind: 'kept' });
    };
    load().catch(() => gone || setState({ kind: 'fault' }));
    return () => {
      gone = true;
    };
  }, [canKeep, isOn, code, takes]);
  if (!canKeep) return null;
  switch (state.kind) {
    case 'asking':
      return isOn ? null : (
        <p>
          <button type="button" onClick={() => setWanted(true)}>
            Keep it for when there is no connection ({size(bytes)})
          </button>
        </p>
      );
    case 'loading':
      return (
        <p className="soft" role="status">
          Being kept for when there is no connection: {state.done} of {takes.length}
        </p>
      );
    case 'kept':
      return <p className="soft">Kept on this device: it plays without a connection too.</p>;
    case 'fault':
      return <p className="soft">It could not be kept for when there is no connection. With a connection it plays.</p>;
  }
}
