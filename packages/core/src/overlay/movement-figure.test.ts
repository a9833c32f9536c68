import { PERIOD_S, poseAt, skeletonOf, type Point } from '@zest/performer';
import { expect, it } from 'vitest';
import type { Movement } from '../lesson/index.ts';
import { movementFigures } from './movement-figure.ts';

it('the figures stand as the drawn performer does', () => {
  const turns: Partial<Record<Movement, number>> = { 'step-and-reach': 0.25 };
  for (const [movement, figure] of Object.entries(movementFigures) as [
    Movement,
    NonNullable<(typeof movementFigures)[Movement]>,
  ][]) {
    const pose = poseAt(movement, PERIOD_S[movement] * (turns[movement] ?? 0.5));
    const { head, arms, legs } = skeletonOf(pose);
    const drawn: Point[] = [
      head,
      ...[arms.left, arms.right].flatMap(({ shoulder, elbow, hand }) => [shoulder, elbow, hand]),
      ...[legs.left, legs.right].flatMap(({ hip, knee, foot }) => [hip, knee, foot]),
    ];
    const figures = [...figure.head, ...figure.limbs.flat()];
    expect(figures).toHaveLength(2 * drawn.length);
    drawn
      .flatMap(({ x, y }) => [x, y])
      .forEach((value, i) =>
        expect(Math.abs((figures[i] ?? NaN) / 100 - value)).toBeLessThan(0.011),
      );
  }
});
