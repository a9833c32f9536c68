import type { FollowLesson } from '@zest/contract';
import { inkOf, isDrawn, paintMovement } from '@zest/core/overlay';
import { useEffect, useMemo, useRef } from 'react';

/** As many figures as are told apart on a small phone, in pixels of their picture. */
const MOST_FIGURES = 4;
const FIGURE = { width: 180, height: 200 };

/** The movements of the lesson, drawn: seen before any footage has come. */
export function Movements({ lesson: { assembly } }: { lesson: FollowLesson }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const movements = useMemo(
    () =>
      [
        ...new Set(
          assembly.lanes.board.flatMap(({ board }) =>
            'movement' in board ? [board.movement] : [],
          ),
        ),
      ]
        .filter(isDrawn)
        .slice(0, MOST_FIGURES),
    [assembly],
  );
  useEffect(() => {
    const ctx = canvas.current?.getContext('2d');
    if (!ctx) return;
    const ink = inkOf(assembly.look);
    ctx.clearRect(0, 0, FIGURE.width * MOST_FIGURES, FIGURE.height);
    movements.forEach((movement, i) => {
      const x = FIGURE.width * (i + (MOST_FIGURES - movements.length) / 2);
      paintMovement(ctx, movement, { x, y: 16, width: FIGURE.width, height: 170 }, ink);
    });
  }, [assembly, movements]);
  if (movements.length === 0) return null;
  return (
    <canvas
      ref={canvas}
      className="movements"
      aria-hidden="true"
      width={FIGURE.width * MOST_FIGURES}
      height={FIGURE.height}
    />
  );
}
