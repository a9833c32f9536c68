import { useEffect, useState } from 'react';
import type { FollowLesson } from '@zest/contract';
import { takeUrl } from './asks.ts';
import { TAKES_CACHE } from './cache-names.ts';

const size = (bytes: number) => `${Math.max(1, Math.round(bytes / 1e6))} MB`;
/** Up to this size footage is kept without being asked for, where data is not to be saved. */
const SMALL_BYTES = 60e6;

const savesData = () => (navigator as { connection?: { saveData?: boolean } }).connection?.saveData === true;

type State = { kind: 'asking' } | { kind: 'loading'; done: number } | { kind: 'kept' } | { kind: 'fault' };

/** The lesson's footage kept on the device, so that it plays without a connection. */
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
      const cache = await caches.open(TAKES_CACHE);
      let done = 0;
      for (const { id } of takes) {
        if (gone) return;
        const url = takeUrl(code, id);
        if (!(await cache.match(url))) {
          const answer = await fetch(url);
          if (!answer.ok) throw new Error(String(answer.status));
          await cache.put(url, answer);
        }
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
