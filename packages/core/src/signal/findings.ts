import { bodyOf } from './body.ts';
import { outOfFrame, type OutStretch } from './in-frame.ts';
import { faultsOf, type FaultStretch } from './picture-quality.ts';
import { median } from './numbers.ts';
import { boxAbout, isSomebody, onWideFrame, sureJoints, type Box } from './pose.ts';
import { repetitionsIn, repetitionsInMotion, type SeenRepetition } from './repetitions.ts';
import type { TakeAnalysis } from './take-analysis.ts';
import { stillStretches, type StillStretch } from './stillness.ts';
import { overlaps } from '../time/index.ts';

/** What is in a take. */
export interface TakeFindings {
  /** Somebody is seen at all, and how surely: the mean score of the joints, 0 to 1. */
  isSeen: boolean;
  poseScore: number;
  repetitions: SeenRepetition[];
  outOfFrame: OutStretch[];
  still: StillStretch[];
  faults: FaultStretch[];
  /** The height of the body in heights of the picture; null when nobody is seen. */
  bodyHeight: number | null;
  /** From the first to the last thing done or said; null when nothing is. */
  active: { startMs: number; endMs: number } | null;
}

/**
 * Reads what was watched; the same part is read once.
 * @param within only this part of it, in milliseconds
 */
export function findingsIn(
  watched: TakeAnalysis,
  within: { startMs: number; endMs: number } = { startMs: 0, endMs: watched.durationMs },
): TakeFindings {
  // Asked for the same parts with every change of the lesson.
  const known = read.get(watched) ?? new Map<string, TakeFindings>();
  read.set(watched, known);
  const key = `${within.startMs} ${within.endMs}`;
  const found = known.get(key) ?? readPart(watched, within);
  known.set(key, found);
  return found;
}

const read = new WeakMap<TakeAnalysis, Map<string, TakeFindings>>();

function readPart(watched: TakeAnalysis, within: { startMs: number; endMs: number }): TakeFindings {
  const { everyMs, aspect } = watched;
  const [from, to] = [
    Math.max(0, Math.round(within.startMs / everyMs)),
    Math.min(watched.poses.length, Math.round(within.endMs / everyMs)),
  ];
  const poses = watched.poses.slice(from, to);
  const offset = from * everyMs;
  const body = bodyOf(poses, everyMs, aspect);
  const scores = poses.flatMap((pose) => pose.map(({ score }) => score));
  let repetitions: SeenRepetition[] | null = null;
  const motion = watched.motion.map((signal) => signal.slice(from, to));
  const still = body ? stillStretches(body, motion) : [];
  const out = body ? outOfFrame(poses, body, aspect) : [];
  const at = <T extends { startMs: number; endMs: number }>(stretch: T): T => ({
    ...stretch,
    startMs: stretch.startMs + offset,
    endMs: stretch.endMs + offset,
  });
  return {
    isSeen: body !== null,
    poseScore:
      scores.length === 0
        ? 0
        : Math.round((scores.reduce((sum, score) => sum + score, 0) / scores.length) * 100) / 100,
    // Reckoned when asked for: most rules do not.
    get repetitions() {
      // Where the pose fails, whatever moves is counted.
      repetitions ??= (
        body
          ? repetitionsIn(
              body,
              still,
              out.filter(({ isGone }) => isGone),
            )
          : repetitionsInMotion(motion, everyMs)
      ).map((one) => ({
        ...one,
        startMs: one.startMs + offset,
        topMs: one.topMs + offset,
        atMs: one.atMs + offset,
      }));
      return repetitions;
    },
    outOfFrame: out.map(at),
    still: still.map(at),
    faults: faultsOf(watched.pictures.slice(from, to), everyMs).map(at),
    bodyHeight: body?.height ?? null,
    active: activeOf(
      still.map(at),
      watched.speech,
      { startMs: offset, endMs: offset + poses.length * everyMs },
      body !== null,
    ),
  };
}

/** What comes before the first and after the last movement or word is dead. */
function activeOf(
  still: readonly StillStretch[],
  speech: TakeAnalysis['speech'],
  whole: { startMs: number; endMs: number },
  isSeen: boolean,
): TakeFindings['active'] {
  const [first, last] = [
    still.find(({ startMs }) => startMs <= whole.startMs + 500),
    still.findLast(({ endMs }) => endMs >= whole.endMs - 500),
  ];
  const moves = isSeen ? [first?.endMs ?? whole.startMs, last?.startMs ?? whole.endMs] : [];
  const words = speech.filter((stretch) => overlaps(stretch, whole));
  const starts = [...moves.slice(0, 1), ...words.slice(0, 1).map(({ startMs }) => startMs)];
  const ends = [...moves.slice(1), ...words.slice(-1).map(({ endMs }) => endMs)];
  const [startMs, endMs] = [
    Math.max(whole.startMs, Math.min(...starts)),
    Math.min(whole.endMs, Math.max(...ends)),
  ];
  return starts.length > 0 && endMs > startMs ? { startMs, endMs } : null;
}

/**
 * Where the body usually is in a part of what was watched, on the 16:9 frame; null when nobody is
 * seen.
 */
export function bodyBox(
  { poses, everyMs, aspect }: TakeAnalysis,
  { startMs, endMs }: { startMs: number; endMs: number },
): Box | null {
  const boxes = poses
    .slice(Math.max(0, Math.round(startMs / everyMs)), Math.max(0, Math.round(endMs / everyMs)))
    .filter(isSomebody)
    .map((pose) => boxAbout(sureJoints(onWideFrame(pose, aspect))));
  const usual = (edge: keyof Box) => median(boxes.map((box) => box[edge]));
  return boxes.length === 0
    ? null
    : { left: usual('left'), right: usual('right'), top: usual('top'), bottom: usual('bottom') };
}
