import { useCallback, useEffect, useRef } from 'react';

/**
 * A function that stays the same at every turn and does what the newest one does, so that rows
 * given it are not drawn anew.
 */
export function useLatest<A extends unknown[], R = void>(
  run: (...args: A) => R,
): (...args: A) => R {
  const latest = useRef(run);
  useEffect(() => {
    latest.current = run;
  });
  return useCallback((...args: A) => latest.current(...args), []);
}
