import { clockText, spanLength, type TimeSpan } from '@zest/core/time';
import { useRef, type PointerEvent } from 'react';
import { snapped, type Stretch } from '../stretch.ts';
import { percent } from './scale.ts';

/** A stretch snaps to a moment this near, in pixels. */
const SNAP_PX = 7;
/** A press that moves less than this is a click. */
const CLICK_PX = 4;
/** Seconds between marks of the rail, so that they are neither crowded nor far apart. */
const STEPS_S = [1, 2, 5, 10, 30, 60, 120, 300, 600];
const MOST_MARKS = 12;

export interface RailProps {
  moments: readonly number[];
  /** The part of the video that is shown. */
  window: TimeSpan;
  onSeek: (ms: number) => void;
  onStretch: (stretch: Stretch | null) => void;
}

/** The time rail: a click goes there, drawing on it takes a stretch. */
export function Rail({ moments, window, onSeek, onStretch }: RailProps) {
  const lengthMs = spanLength(window);
  const rail = useRef<HTMLDivElement>(null);
  const from = useRef<{ x: number; ms: number } | null>(null);
  const msAt = (x: number, snap: boolean) => {
    const { left, width } = rail.current?.getBoundingClientRect() ?? { left: 0, width: 1 };
    const ms = window.startMs + Math.min(1, Math.max(0, (x - left) / width)) * lengthMs;
    return snap ? snapped(moments, ms, (SNAP_PX * lengthMs) / width) : Math.round(ms);
  };
  const draw = (event: PointerEvent) => {
    const start = from.current;
    if (!start || Math.abs(event.clientX - start.x) < CLICK_PX) return;
    const ms = msAt(event.clientX, !event.altKey);
    onStretch(
      ms === start.ms ? null : { startMs: Math.min(ms, start.ms), endMs: Math.max(ms, start.ms) },
    );
  };
  const stepMs = (STEPS_S.find((s) => lengthMs / (s * 1_000) <= MOST_MARKS) ?? 600) * 1_000;
  const first = Math.ceil(window.startMs / stepMs);
  const count = Math.max(0, Math.floor(window.endMs / stepMs) - first + 1);
  return (
    <div
      ref={rail}
      className="lane-rail"
      data-testid="rail"
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        from.current = { x: event.clientX, ms: msAt(event.clientX, !event.altKey) };
      }}
      onPointerMove={draw}
      onPointerUp={(event) => {
        const start = from.current;
        from.current = null;
        if (start && Math.abs(event.clientX - start.x) < CLICK_PX)
          onSeek(msAt(event.clientX, false));
      }}
    >
      {Array.from({ length: count }, (_, i) => (first + i) * stepMs).map((ms) => (
        <span key={ms} style={{ left: `${percent(ms, window)}%` }}>
          {clockText(ms)}
        </span>
      ))}
    </div>
  );
}
