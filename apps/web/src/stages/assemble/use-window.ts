import { spanLength, type TimeSpan } from '@zest/core/time';
import { useCallback, useMemo, useState } from 'react';
import { useLatest } from '../../ui/use-latest.ts';

/** Narrower than this nothing more is seen. */
const NARROWEST_MS = 2_000;

/**
 * The part of the video the lanes show: all of it, or a window that goes along with the picture.
 */
export function useWindow(durationMs: number) {
  const [wanted, setWindow] = useState<TimeSpan | null>(null);
  const window = useMemo<TimeSpan>(() => {
    if (!wanted || wanted.startMs >= durationMs)
      return { startMs: 0, endMs: Math.max(1, durationMs) };
    return {
      startMs: wanted.startMs,
      endMs: Math.max(wanted.startMs + 1, Math.min(durationMs, wanted.endMs)),
    };
  }, [wanted, durationMs]);
  /** A window of another length in which `ms` keeps its place. */
  const scaled = (ms: number, by: number) => {
    const lengthMs = Math.max(NARROWEST_MS, spanLength(window) * by);
    if (lengthMs >= durationMs) return setWindow(null);
    const part = Math.min(1, Math.max(0, (ms - window.startMs) / spanLength(window)));
    const startMs = Math.round(Math.min(durationMs - lengthMs, Math.max(0, ms - part * lengthMs)));
    setWindow({ startMs, endMs: Math.round(startMs + lengthMs) });
  };
  const follow = useCallback((ms: number) => {
    setWindow((known) => {
      if (!known || (ms >= known.startMs && ms < known.endMs)) return known;
      const lengthMs = spanLength(known);
      const startMs = Math.max(0, Math.round(ms - lengthMs * 0.1));
      return { startMs, endMs: startMs + lengthMs };
    });
  }, []);
  const zoom = useLatest(scaled);
  const pan = useLatest((byMs: number) => {
    const lengthMs = spanLength(window);
    const startMs = Math.round(Math.min(durationMs - lengthMs, Math.max(0, window.startMs + byMs)));
    if (lengthMs < durationMs) setWindow({ startMs, endMs: startMs + lengthMs });
  });
  return {
    ...{ window, setWindow, follow, zoom, pan },
    closer: (ms: number) => scaled(ms, 0.5),
    wider: (ms: number) => scaled(ms, 2),
  };
}
