import type { TimeSpan } from '@zest/core/time';

/** Where a moment lies in a window of the video, in percent. */
export const percent = (ms: number, { startMs, endMs }: TimeSpan) =>
  ((ms - startMs) * 100) / (endMs - startMs);

/** A moment's place beside the names of the lanes. */
export const inLanes = (ms: number, window: TimeSpan) =>
  'calc(var(--lane-names) + (100% - var(--lane-names)) * ' +
  `${percent(Math.min(window.endMs, Math.max(window.startMs, ms)), window) / 100})`;
