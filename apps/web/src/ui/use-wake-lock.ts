import { useEffect } from 'react';

/** Keeps the screen from going dark while the component is shown, where the browser can. */
export function useWakeLock(): void {
  useEffect(() => {
    let lock: WakeLockSentinel | null = null;
    let left = false;
    const ask = () => {
      if (document.visibilityState !== 'visible' || !('wakeLock' in navigator)) return;
      navigator.wakeLock
        .request('screen')
        .then((held) => {
          if (left) void held.release();
          else lock = held;
        })
        .catch(() => undefined); // Low battery: the screen may go dark, filming goes on.
    };
    ask();
    document.addEventListener('visibilitychange', ask);
    return () => {
      left = true;
      document.removeEventListener('visibilitychange', ask);
      void lock?.release();
    };
  }, []);
}
