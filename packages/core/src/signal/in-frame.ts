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
 * Feet that lie in one place, to this part of what the knees are apart, are guessed, unless they are
 * seen as surely as this.
 */
const IN_ONE_PLACE = 0.2;
const SURE_FOOT = 0.6;
/**
 * Joints near the edge are drawn back into the picture by the frame, by about this part of its
 * height.
 */
const DRAWN_BACK = 0.006;
/** Who has so much of the picture on all sides cannot leave it from one look to the next. */
const INSIDE = 0.1;
/** Nearer than this to an edge somebody is beyond soon or was just before. */
const NEAR = 0.025;
/** Shorter than this is a slip. */
const LEAST_MS = 300;
/** Back for no longer than this is not back: in an empty picture somebody is soon seen. */
const GAP_MS = 500;

interface Place {
  x: number;
  y: number;
}

const jointIn = (pose: SeenPose, joint: Joint) => pose[joints.indexOf(joint)];

/** From one place to another, in heights of the picture. */
const apart = (a: Place, b: Place, aspect: number) => Math.hypot((a.x - b.x) * aspect, a.y - b.y);

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
    return shoulder && hip ? [apart(shoulder, hip, aspect) / TRUNK] : [];
  });
  return Math.max(usual, ...(trunk.length === 2 ? trunk : []));
}

/** Whether the trunk is upright, so that feet are below the knees, and whether both feet are guessed. */
function legsOf(pose: SeenPose, height: number, aspect: number) {
  const at = (joint: Joint) => jointIn(pose, joint);
  const [shoulder, hip] = [at('left shoulder'), at('left hip')];
  const [kneeL, kneeR] = [at('left knee'), at('right knee')];
  const [footL, footR] = [at('left ankle'), at('right ankle')];
  const knees = kneeL && kneeR ? apart(kneeL, kneeR, aspect) : 0;
  return {
    standUp:
      shoulder !== undefined &&
      hip !== undefined &&
      hip.y - shoulder.y > Math.abs(hip.x - shoulder.x) * aspect,
    areGuessed:
      footL !== undefined &&
      footR !== undefined &&
      Math.max(footL.score, footR.score) < SURE_FOOT &&
      knees > SHANK * height &&
      apart(footL, footR, aspect) < IN_ONE_PLACE * knees,
  };
}

/** The ends of the body as they are in the picture, or would be beside it. */
function endsOf(pose: SeenPose, usual: number, aspect: number): Place[] {
  const seen = (joint: Joint, least: number): (Place & { score: number }) | null => {
    const found = jointIn(pose, joint);
    return found && found.score >= least ? found : null;
  };
  const sure = (joint: Joint) => placeOfJoint(pose, joint);
  const height = heightIn(sure, usual, aspect);
  const ends: Place[] = [];
  const legs = legsOf(pose, height, aspect);
  for (const side of ['left', 'right'] as const) {
    const [elbow, wrist] = [seen(`${side} elbow`, 0), seen(`${side} wrist`, GUESSED)];
    if (elbow && wrist) ends.push(beyond(elbow, wrist, HAND * height, aspect));
    const [hip, knee, ankle] = [
      sure(`${side} hip`),
      seen(`${side} knee`, 0),
      seen(`${side} ankle`, GUESSED),
    ];
    // Feet that are not in the picture are guessed into it; thigh and knee tell where they are.
    if (legs.standUp && hip && knee && knee.score >= SURE_JOINT) {
      if (legs.areGuessed) ends.push({ x: knee.x, y: knee.y + SHANK * height });
      else if ((ankle?.score ?? 0) < PLAIN_FOOT)
        ends.push(beyond(hip, knee, SHANK * height, aspect));
    }
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

/** @param near how near to an edge counts as beyond it, in parts of the picture */
function edgesOf(pose: SeenPose, height: number, aspect: number, near: number): Edge[] {
  const found = new Set<Edge>();
  for (const { x, y } of endsOf(pose, height, aspect)) {
    if (x < near) found.add('left');
    if (x > 1 - near) found.add('right');
    if (y < near) found.add('top');
    if (y > 1 - near) found.add('bottom');
  }
  return edges.filter((edge) => found.has(edge));
}

/** The edge somebody is nearest to, and how much of the picture is between, at the nearest joint. */
function nearestEdge(pose: SeenPose): { edge: Edge; gap: number } {
  const sure = pose.filter(({ score }) => score >= GUESSED);
  const [xs, ys] = [sure.map(({ x }) => x), sure.map(({ y }) => y)];
  const mean = (values: readonly number[]) =>
    values.reduce((sum, value) => sum + value, 0) / Math.max(1, values.length);
  const edgesByMean: { edge: Edge; from: number; gap: number }[] = [
    { edge: 'left', from: mean(xs), gap: Math.min(...xs) },
    { edge: 'right', from: 1 - mean(xs), gap: 1 - Math.max(...xs) },
    { edge: 'top', from: mean(ys), gap: Math.min(...ys) },
    { edge: 'bottom', from: 1 - mean(ys), gap: 1 - Math.max(...ys) },
  ];
  const { edge } = edgesByMean.reduce((best, one) => (one.from < best.from ? one : best));
  return { edge, gap: Math.min(...edgesByMean.map(({ gap }) => gap)) };
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
  const byFrame = poses.map((pose, i) =>
    there[i] ? edgesOf(pose, height, aspect, DRAWN_BACK) : [],
  );
  for (const { from, to } of runsOf(poses.length, (i) => !there[i])) {
    const [before, after] = [poses[from - 1], poses[to]];
    const nearest = [before, after].flatMap((pose) => (pose ? [nearestEdge(pose)] : []));
    // Who is lost in the middle and found there again was not seen, but did not leave.
    const isInside = nearest.length === 2 && nearest.every(({ gap }) => gap > INSIDE);
    const edge = nearest[0]?.edge;
    if (edge && !isInside) for (let i = from; i < to; i += 1) byFrame[i] = [edge];
  }
  const least = Math.round(LEAST_MS / everyMs);
  const isOut = Uint8Array.from(byFrame, (beyond) => (beyond.length > 0 ? 1 : 0));
  for (const { from, to } of runsOf(isOut.length, (i) => isOut[i] === 0))
    if (from > 0 && to < isOut.length && (to - from) * everyMs <= GAP_MS) isOut.fill(1, from, to);
  // Who is beyond the edge was nearly so one look before, and is one look later.
  const isNear = (i: number, beyond: readonly Edge[]) => {
    const pose = poses[i];
    return (
      pose !== undefined &&
      edgesOf(pose, height, aspect, NEAR).some((edge) => beyond.includes(edge))
    );
  };
  return runsOf(isOut.length, (i) => isOut[i] === 1)
    .filter(({ from, to }) => to - from >= least)
    .map(({ from, to }) => ({
      from: isNear(from - 1, byFrame[from] ?? []) ? from - 1 : from,
      to: isNear(to, byFrame[to - 1] ?? []) ? to + 1 : to,
    }))
    .map(({ from, to }) => ({
      startMs: from * everyMs,
      endMs: to * everyMs,
      edges: edges.filter((edge) =>
        byFrame.slice(from, to).some((beyond) => beyond.includes(edge)),
      ),
      isGone: there.slice(from, to).includes(false),
    }));
}
