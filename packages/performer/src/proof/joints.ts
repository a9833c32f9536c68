import type { SeenPose } from '@zest/core/signal';
import { chance, skeletonOf, type Point } from '../index.ts';
import { lengthMs, proofPose, proofView, type ProofClip } from './clips.ts';

/**
 * Looks at a clip as a perfect eye with a little tremor would see it, without drawing it: for tests
 * of what is made of the looks.
 */
export function looksAt(
  clip: ProofClip,
  everyMs: number,
  tremor = 0.004,
): { poses: SeenPose[]; aspect: number } {
  const view = proofView(clip);
  let salt = clip.seed;
  const shaken = () => (chance((salt += 1)) + chance((salt += 1)) - 1) * tremor;
  const seen = ({ x, y }: Point) => {
    const at = {
      x: (view.middleX + (x + shaken()) * view.unit) / clip.width,
      y: (view.floorY - (y + shaken()) * view.unit) / clip.height,
    };
    const isInside = at.x > 0 && at.x < 1 && at.y > 0 && at.y < 1;
    // What is outside is guessed, just beyond the edge at most.
    return {
      x: Math.min(1.02, Math.max(-0.02, at.x)),
      y: Math.min(1.02, Math.max(-0.02, at.y)),
      score: isInside ? 0.7 : 0.15,
    };
  };
  const poses = Array.from({ length: Math.floor(lengthMs(clip) / everyMs) }, (_, i): SeenPose => {
    const { head, arms, legs } = skeletonOf(proofPose(clip, i * everyMs));
    const both = (of: (side: 'left' | 'right') => Point) => [seen(of('left')), seen(of('right'))];
    return [
      seen(head),
      ...both(() => head),
      ...both(() => head),
      ...both((side) => arms[side].shoulder),
      ...both((side) => arms[side].elbow),
      ...both((side) => arms[side].hand),
      ...both((side) => legs[side].hip),
      ...both((side) => legs[side].knee),
      ...both((side) => legs[side].foot),
    ];
  });
  return { poses, aspect: clip.width / clip.height };
}
