import type { Body } from './body.ts';
import { runsOf } from './numbers.ts';
import { isSomebody, joints, type Joint, type SeenPose } from './pose.ts';

export const edges = ['left', 'right', 'top', 'bottom'] as const;
/** An edge of the picture, as the viewer sees it. */
export type Edge = (typeof edges)[number];

export interface OutStretch {
  startMs: number;
  endMs: number;
  edges: Edge[];
  /** Nobody is seen at all. */
  isGone: boolean;
}

/** A joint with a lower score than this may be anywhere. */
const GUESSED = 0.13;
/**
 * What lies beyond the last joint, in heights of the body: the hand, the foot, the top of the face.
 */
const BEYOND: readonly { joint: Joint; from: Joint; reach: number }[] = [
  { joint: 'left wrist', from: 'left elbow', reach: 0.045 },
  { joint: 'right wrist', from: 'right elbow', reach: 0.045 },
  { joint: 'left ankle', from: 'left knee', reach: 0.03 },
  { joint: 'right ankle', from: 'right knee', reach: 0.03 },
  { joint: 'nose', from: 'nose', reach: 0 },
];
/**
 * Joints near the edge are drawn back into the picture by the frame, by about this part of its
 * height.
 */
const DRAWN_BACK = 0.006;
/** Shorter than this is a slip; gaps of this length are none. */
const LEAST_MS = 300;

function edgesOf(pose: SeenPose, height: number, aspect: number): Edge[] {
  const found = new Set<Edge>();
  for (const { joint, from, reach } of BEYOND) {
    const [end, root] = [pose[joints.indexOf(joint)], pose[joints.indexOf(from)]];
    if (!end || !root || end.score < GUESSED) continue;
    const [dx, dy] = [(end.x - root.x) * aspect, end.y - root.y];
    const length = Math.hypot(dx, dy) || 1;
    const [x, y] = [
      end.x + ((dx / length) * reach * height) / aspect,
      end.y + (dy / length) * reach * height,
    ];
    if (x < DRAWN_BACK) found.add('left');
    if (x > 1 - DRAWN_BACK) found.add('right');
    if (y < DRAWN_BACK) found.add('top');
    if (y > 1 - DRAWN_BACK) found.add('bottom');
  }
  return edges.filter((edge) => found.has(edge));
}

/** The edge somebody is nearest to: where they went, or come from. */
function nearestEdge(pose: SeenPose): Edge {
  const sure = pose.filter(({ score }) => score >= GUESSED);
  const x = sure.reduce((sum, joint) => sum + joint.x, 0) / Math.max(1, sure.length);
  const y = sure.reduce((sum, joint) => sum + joint.y, 0) / Math.max(1, sure.length);
  const gaps: [Edge, number][] = [
    ['left', x],
    ['right', 1 - x],
    ['top', y],
    ['bottom', 1 - y],
  ];
  return gaps.reduce((best, gap) => (gap[1] < best[1] ? gap : best))[0];
}

/**
 * When part of the performer is beyond an edge of the picture, and which edges; somebody who is
 * gone is beyond the edge they were last seen at.
 * @param poses as they were looked at, not cleaned
 * @param aspect width of the picture over its height
 */
export function outOfFrame(
  poses: readonly SeenPose[],
  { everyMs, height }: Body,
  aspect: number,
): OutStretch[] {
  const there = poses.map(isSomebody);
  const byFrame = poses.map((pose, i) => (there[i] ? edgesOf(pose, height, aspect) : []));
  for (const { from, to } of runsOf(poses.length, (i) => !there[i])) {
    const [before, after] = [poses[from - 1], poses[to]];
    const edge = before ? nearestEdge(before) : after ? nearestEdge(after) : null;
    if (edge) for (let i = from; i < to; i += 1) byFrame[i] = [edge];
  }
  const least = Math.round(LEAST_MS / everyMs);
  const isOut = Uint8Array.from(byFrame, (beyond) => (beyond.length > 0 ? 1 : 0));
  for (const { from, to } of runsOf(isOut.length, (i) => isOut[i] === 0))
    if (from > 0 && to < isOut.length && to - from <= least) isOut.fill(1, from, to);
  return runsOf(isOut.length, (i) => isOut[i] === 1)
    .filter(({ from, to }) => to - from >= least)
    .map(({ from, to }) => ({
      startMs: from * everyMs,
      endMs: to * everyMs,
      edges: edges.filter((edge) =>
        byFrame.slice(from, to).some((beyond) => beyond.includes(edge)),
      ),
      isGone: there.slice(from, to).includes(false),
    }));
}
