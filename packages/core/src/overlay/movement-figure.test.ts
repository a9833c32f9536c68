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
    const { head, neck, arms, legs } = skeletonOf(pose);
    const drawn: Point[] = [
      ...[head, neck],
      ...[arms.left, arms.right].flatMap(({ shoulder, elbow, hand }) => [shoulder, elbow, hand]),
      ...[legs.left, legs.right].flatMap(({ hip, knee, foot }) => [hip, knee, foot]),
    ];
    [figure.head, figure.neck, ...figure.limbs.flat()].forEach(([x, y], i) => {
      expect(Math.abs(x / 100 - (drawn[i]?.x ?? NaN))).toBeLessThan(0.011);
      expect(Math.abs(y / 100 - (drawn[i]?.y ?? NaN))).toBeLessThan(0.011);
    });
  }
});
