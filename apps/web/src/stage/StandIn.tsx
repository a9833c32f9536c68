import type { Span } from '@zest/core/schedule';
import { drawPerformer, performAt, plainHabits, type DrawContext } from '@zest/performer';
import { useEffect, useRef } from 'react';

/** As the practice camera draws: smaller than the picture, larger than it is shown in a pane. */
const WIDTH = 960;
const HEIGHT = 540;

interface StandInProps {
  /** The block laid out in time. */
  spans: readonly Span[];
  momentMs: () => number;
}

/** The drawn performer doing what the plan says, where nothing is filmed yet. */
export function StandIn({ spans, momentMs }: StandInProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const ctx = canvas.current?.getContext('2d');
    if (!ctx) return;
    let tick = 0;
    let drawn = -1;
    const draw = () => {
      tick = requestAnimationFrame(draw);
      const ms = Math.floor(momentMs());
      if (ms === drawn) return;
      drawn = ms;
      const pose = performAt(spans, plainHabits, ms);
      drawPerformer(ctx as CanvasRenderingContext2D & DrawContext, pose, WIDTH, HEIGHT);
    };
    draw();
    return () => cancelAnimationFrame(tick);
  }, [spans, momentMs]);
  return <canvas ref={canvas} width={WIDTH} height={HEIGHT} />;
}
