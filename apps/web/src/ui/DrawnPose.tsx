import type { Movement } from '@zest/core/lesson';
import { drawPerformer, poseAt, type DrawContext } from '@zest/performer';
import { useEffect, useRef } from 'react';

/** A moment at which every movement is well under way. */
const MOMENT_S = 0.55;
const WHOLE = { zoom: 1, x: 0.5, y: 0.5 };

interface DrawnPoseProps {
  movement: Movement;
  /** Pixels it is drawn with, 16 by 9. */
  width: number;
  /** How much closer it is, and about which point of the whole picture, in parts of it. */
  crop?: { zoom: number; x: number; y: number };
}

/** The drawn performer in the midst of a movement. */
export function DrawnPose({ movement, width, crop = WHOLE }: DrawnPoseProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const height = Math.round((width * 9) / 16);
  const { zoom, x, y } = crop;
  useEffect(() => {
    const ctx = canvas.current?.getContext('2d');
    if (!ctx) return;
    ctx.save();
    ctx.translate(width / 2 - zoom * x * width, height / 2 - zoom * y * height);
    ctx.scale(zoom, zoom);
    drawPerformer(
      ctx as CanvasRenderingContext2D & DrawContext,
      poseAt(movement, MOMENT_S),
      width,
      height,
    );
    ctx.restore();
  }, [movement, width, height, zoom, x, y]);
  return (
    <canvas
      ref={canvas}
      width={width}
      height={height}
      style={{ width: '100%', display: 'block' }}
    />
  );
}
