import { TRUNK, type Body } from './body.ts';
import { runsOf } from './numbers.ts';
import { isSomebody, joints, placeOfJoint, SURE_JOINT, type Joint, type SeenPose } from './pose.ts';

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
 * What lies beyond the last joint, in heights of the body (proportions of a drawn or grown body, from
 * memory): hand, foot, the crown of the head above the nose.
 */
const HAND = 0.045;
const FOOT = 0.03;
const CROWN = 0.06;
/** From knee to foot, where the foot is not seen; and how surely a foot that is there is seen. */
const SHANK = 0.24;
const PLAIN_FOOT = 0.3;
/**
 * Joints near the edge are drawn back into the picture by the frame, by about this part of its
 * height.
 */
const DRAWN_BACK = 0.006;
/** Shorter than this is a slip. */
const LEAST_MS = 300;
/** Back for no longer than this is not back: in an empty picture somebody is soon seen. */
const GAP_MS = 500;

interface Place {
  x: number;
  y: number;
}

/** From one joint on beyond the other, by a length in heights of the picture. */
function beyond(from: Place, end: Place, reach: number, aspect: number): Place {
  const [dx, dy] = [(end.x - from.x) * aspect, end.y - from.y];
  const length = Math.hypot(dx, dy) || 1;
  return { x: end.x + ((dx / length) * reach) / aspect, y: end.y + (dy / length) * reach };
}

/** How tall the body is in this picture: nearer to the camera than usual it is taller. */
function heightIn(at: (joint: Joint) => Place | null, usual: number, aspect: number): number {
  const trunk = (['left', 'right'] as const).flatMap((side) => {
    const [shoulder, hip] = [at(`${side} shoulder`), at(`${side} hip`)];
    return shoulder && hip
      ? [Math.hypot((shoulder.x - hip.x) * aspect, shoulder.y - hip.y) / TRUNK]
      : [];
  });
  return Math.max(usual, ...(trunk.length === 2 ? trunk : []));
}

/** The ends of the body as they are in the picture, or would be beside it. */
function endsOf(pose: SeenPose, usual: number, aspect: number): Place[] {
  const seen = (joint: Joint, least: number): (Place & { score: number }) | null => {
    const found = pose[joints.indexOf(joint)];
    return found && found.score >= least ? found : null;
  };
  const sure = (joint: Joint) => placeOfJoint(pose, joint);
  const height = heightIn(sure, usual, aspect);
  const ends: Place[] = [];
  for (const side of ['left', 'right'] as const) {
    const [elbow, wrist] = [seen(`${side} elbow`, 0), seen(`${side} wrist`, GUESSED)];
    if (elbow && wrist) ends.push(beyond(elbow, wrist, HAND * height, aspect));
    const [hip, knee, ankle] = [
      sure(`${side} hip`),
      seen(`${side} knee`, 0),
      seen(`${side} ankle`, GUESSED),
    ];
    // Feet that are not in the picture are guessed into it; the thigh tells where they are.
    if (hip && knee && knee.score >= SURE_JOINT && (ankle?.score ?? 0) < PLAIN_FOOT)
      ends.push(beyond(hip, knee, SHANK * height, aspect));
    if (knee && ankle) ends.push(beyond(knee, ankle, FOOT * height, aspect));
  }
  const nose = seen('nose', GUESSED);
  const [left, right] = [sure('left shoulder'), sure('right shoulder')];
  if (nose && left && right) {
    const neck = { x: (left.x + right.x) / 2, y: (left.y + right.y) / 2 };
    ends.push(beyond(neck, nose, CROWN * height, aspect));
  } else if (nose) ends.push(nose);
  return ends;
}

function edgesOf(pose: SeenPose, height: number, aspect: number): Edge[] {
  const found = new Set<Edge>();
  for (const { x, y } of endsOf(pose, height, aspect)) {
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
    if (from > 0 && to < isOut.length && (to - from) * everyMs <= GAP_MS) isOut.fill(1, from, to);
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
