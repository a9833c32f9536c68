import { chance, usualDress, type Dress, type PlacedView, type Pose, type Room } from '../index.ts';
import { exercises, movements, type Exercise } from './exercises.ts';

export interface ProofClip {
  name: string;
  exercise: Exercise;
  width: number;
  height: number;
  fps: number;
  /** Still before and after the exercise. */
  headMs: number;
  tailMs: number;
  /** One turn of the exercise; talk and balance last `turns` of them. */
  periodMs: number;
  turns: number;
  /** 0 like a machine, 1 as uneven as a tired child. */
  unevenness: number;
  /** Part of the full width that is seen: 1 from the front, less from the side. */
  narrow: number;
  /**
   * Height of the performer in heights of the picture, and the place to the right of its middle in
   * body heights.
   */
  size: number;
  aside: number;
  dress: Dress;
  room: Room;
  /**
   * Brightness of everything, and darkness of the performer before a bright wall; 1 and 0 as usual.
   */
  light: number;
  backlit: number;
  /** Strength of the picture's noise, 0 to 60. */
  noise: number;
  flaw:
    | 'none'
    | 'walks out'
    | 'feet cut'
    | 'hands cut'
    | 'somebody walks by'
    | 'stops to explain'
    | 'half sizes';
  seed: number;
}

const shades = (dark: string, light: string) => ({ dark, light });
const DRESSES: Dress[] = [
  usualDress,
  {
    skin: shades('#c99a7c', '#e6bfa3'),
    shirt: shades('#7a2e2e', '#a94444'),
    shorts: shades('#30343b', '#4a505a'),
    hair: '#7a5230',
    stout: 1.15,
  },
  {
    skin: shades('#5a3825', '#74492f'),
    shirt: shades('#b8a53a', '#d8c65a'),
    shorts: shades('#1e3d2f', '#2f5d47'),
    hair: '#17100c',
    stout: 0.85,
  },
  {
    skin: shades('#a8754f', '#c8926a'),
    shirt: shades('#4a4a4a', '#6a6a6a'),
    shorts: shades('#6a6a6a', '#8c8c8c'),
    hair: '#4a4a4a',
    stout: 1.25,
  },
];
const ROOMS: Room[] = ['hall', 'living room', 'garden'];

const pick = <T>(list: readonly T[], part: number): T => list[Math.floor(part * list.length)] as T;

/** Tempo against the usual one, view and flaws of the clips of one exercise. */
const KINDS: Partial<ProofClip>[] = [
  {},
  { unevenness: 0.5, narrow: 0.7, noise: 14 },
  { unevenness: 1, light: 0.45 },
  { flaw: 'walks out', narrow: 0.8 },
  { flaw: 'stops to explain', unevenness: 0.4, backlit: 0.5 },
];
const TEMPO = [1, 0.8, 1.25, 1, 1.1];
const SPECIAL: Partial<Record<Exercise, Partial<ProofClip>>> = {
  'overhead-reach': { flaw: 'hands cut' },
  squat: { flaw: 'feet cut' },
  'skip-rope': { flaw: 'somebody walks by' },
  'star-jump': { flaw: 'somebody walks by' },
  'seated-pull': { flaw: 'half sizes' },
  'knee-lift': { width: 480, height: 854, size: 0.42 },
};

function clip(
  exercise: Exercise,
  index: number,
  series: number,
  more: Partial<ProofClip>,
): ProofClip {
  const seed = exercises.indexOf(exercise) * 97 + index * 13 + 5 + series * 1_009;
  const part = (salt: number) => chance(seed * 31 + salt);
  const { periodS, repsPerTurn } = movements[exercise];
  const periodMs = Math.round(periodS * 1_000 * (TEMPO[index % TEMPO.length] ?? 1));
  const turns =
    repsPerTurn === 0
      ? Math.ceil(16_000 / periodMs)
      : repsPerTurn === 2
        ? 4 + Math.floor(part(1) * 3)
        : periodMs < 1_000
          ? 14 + Math.floor(part(1) * 12)
          : 6 + Math.floor(part(1) * 5);
  return {
    name: `${exercise}-${series * 10 + index + 1}`,
    exercise,
    width: 854,
    height: 480,
    fps: pick([30, 30, 25], part(2)),
    headMs: 1_500 + Math.round(part(3) * 2_500),
    tailMs: 1_500 + Math.round(part(4) * 2_500),
    periodMs,
    turns,
    unevenness: 0,
    narrow: 1,
    size: 0.5 + part(5) * 0.16,
    aside: (part(6) - 0.5) * 0.5,
    dress: pick(DRESSES, part(7)),
    room: pick(ROOMS, part(8)),
    light: 1,
    backlit: 0,
    noise: 4,
    flaw: 'none',
    seed,
    ...more,
  };
}

/**
 * The clips every figure of the accuracy report comes from: five or six of each exercise.
 * @param series 0 for those the program was made by; each other one has as many of the same kinds
 */
export function proofClips(series = 0): ProofClip[] {
  return exercises.flatMap((exercise) => {
    const special = SPECIAL[exercise];
    return [...KINDS, ...(special ? [special] : [])].map((more, index) =>
      clip(exercise, index, series, more),
    );
  });
}

export interface ProofRep {
  startMs: number;
  endMs: number;
  side: 'left' | 'right' | null;
  size: number;
}
export interface ProofTruth {
  durationMs: number;
  /** The exercise, or the talk, lasts from when to when. */
  activeMs: { startMs: number; endMs: number };
  repetitions: ProofRep[];
  outOfFrame: { startMs: number; endMs: number; edges: ('left' | 'right' | 'top' | 'bottom')[] }[];
}

const EXPLAINS_MS = 5_000;
const WALK_MS = 1_400;
const AWAY_MS = 4_000;

/** What goes wrong in the middle, where: after half of the turns. */
const breakMs = ({ flaw }: ProofClip) =>
  flaw === 'stops to explain' ? EXPLAINS_MS : flaw === 'walks out' ? AWAY_MS + 2 * WALK_MS : 0;
const half = ({ turns }: ProofClip) => Math.floor(turns / 2);
const breakAtMs = (clip: ProofClip) => clip.headMs + half(clip) * clip.periodMs;
export const lengthMs = (clip: ProofClip) =>
  clip.headMs + clip.turns * clip.periodMs + breakMs(clip) + clip.tailMs;

function repsOf(clip: ProofClip): ProofRep[] {
  const { repsPerTurn } = movements[clip.exercise];
  const { turns, periodMs, unevenness, seed } = clip;
  const reps = Array.from({ length: turns * repsPerTurn }, (_, i): ProofRep => {
    const oneMs = periodMs / repsPerTurn;
    const turn = Math.floor(i / repsPerTurn);
    const shift = turn >= half(clip) ? breakMs(clip) : 0;
    const startMs = clip.headMs + i * oneMs + shift;
    const late = unevenness * 0.18 * oneMs * chance(seed * 7919 + i);
    const isHalf = clip.flaw === 'half sizes' && i % 3 === 2;
    return {
      startMs: startMs + late,
      endMs: startMs + oneMs,
      side: repsPerTurn === 2 ? (i % 2 === 0 ? 'left' : 'right') : null,
      size: isHalf ? 0.5 : 1 - unevenness * 0.25 * chance(seed * 104_729 + i),
    };
  });
  return reps;
}

const lerp = (a: number, b: number, part: number) => a + (b - a) * part;
const mixed = (a: Pose, b: Pose, part: number): Pose => {
  const point = (p: { x: number; y: number }, q: { x: number; y: number }) => ({
    x: lerp(p.x, q.x, part),
    y: lerp(p.y, q.y, part),
  });
  return {
    ...b,
    pelvis: point(a.pelvis, b.pelvis),
    lean: lerp(a.lean, b.lean, part),
    hands: { left: point(a.hands.left, b.hands.left), right: point(a.hands.right, b.hands.right) },
    feet: { left: point(a.feet.left, b.feet.left), right: point(a.feet.right, b.feet.right) },
  };
};

/** How far to the side, in body heights, whoever walks out is. */
function awayX(clip: ProofClip, ms: number): number {
  if (clip.flaw !== 'walks out') return 0;
  const from = breakAtMs(clip);
  const out = Math.min(1, Math.max(0, (ms - from) / WALK_MS));
  const back = Math.min(1, Math.max(0, (ms - from - WALK_MS - AWAY_MS) / WALK_MS));
  return 2.2 * (clip.width / clip.height / (16 / 9)) * (out - back);
}

/** The pose at a moment of the clip, as it is seen. */
export function proofPose(clip: ProofClip, ms: number): Pose {
  const { pose, repsPerTurn } = movements[clip.exercise];
  const rest = pose(0, 0);
  const activeMs = ms - clip.headMs;
  const endMs = lengthMs(clip) - clip.tailMs;
  let shown: Pose = rest;
  if (repsPerTurn === 0) {
    const isOver = ms >= endMs || activeMs < 0;
    shown = isOver ? pose(0, 0) : pose(0, activeMs / 1_000);
    // Into the balance and out of it in a second.
    if (clip.exercise === 'one-leg-balance')
      shown = mixed(
        movements.squat.pose(0, 0),
        pose(0, activeMs / 1_000),
        Math.max(0, Math.min(1, activeMs / 1_000, (endMs - ms) / 1_000)),
      );
  } else {
    const reps = repsOf(clip);
    const at = reps.findIndex(({ startMs, endMs: untilMs }) => ms >= startMs && ms < untilMs);
    const rep = reps[at];
    const from = breakAtMs(clip);
    if (rep) {
      const turn =
        ((ms - rep.startMs) / (rep.endMs - rep.startMs) + (at % repsPerTurn)) / repsPerTurn;
      shown = mixed(rest, pose(turn, 0), rep.size);
    } else if (clip.flaw === 'stops to explain' && ms >= from && ms < from + EXPLAINS_MS) {
      const talk = movements.talk.pose(0, (ms - from) / 1_000);
      const part = Math.min(1, (ms - from) / 500, (from + EXPLAINS_MS - ms) / 500);
      const base = rest.seated || Math.abs(rest.lean) > 0.5 ? { ...rest, hands: talk.hands } : talk;
      shown = Math.abs(rest.lean) > 0.5 ? rest : mixed(rest, base, part);
    }
  }
  const away = awayX(clip, ms);
  const { narrow } = clip;
  const seen = ({ x, y }: { x: number; y: number }) => ({ x: x * narrow + away, y });
  return {
    ...shown,
    pelvis: seen(shown.pelvis),
    lean: Math.abs(shown.lean) > 0.5 ? shown.lean : shown.lean * narrow,
    hands: { left: seen(shown.hands.left), right: seen(shown.hands.right) },
    feet: { left: seen(shown.feet.left), right: seen(shown.feet.right) },
    width: Math.min(shown.width, narrow),
    at: shown.at * narrow + away,
  };
}

/** Where the camera has the performer. */
export function proofView({ width, height, size, aside, flaw, exercise }: ProofClip): PlacedView {
  const unit = height * (flaw === 'feet cut' ? 0.9 : flaw === 'hands cut' ? 0.78 : size);
  const floorY =
    flaw === 'feet cut'
      ? height * 1.12
      : flaw === 'hands cut'
        ? height * 0.94
        : height * (exercise === 'bridge' || exercise === 'push-up' ? 0.75 : 0.9);
  return { floorY, middleX: width / 2 + (width > height ? aside * unit : 0), unit };
}

type Edge = 'left' | 'right' | 'top' | 'bottom';
/** Edges of the picture that a hand, a foot or the head is beyond. */
function edgesAt(clip: ProofClip, ms: number): Edge[] {
  const { pelvis, lean, hands, feet } = proofPose(clip, ms);
  const view = proofView(clip);
  const head = { x: pelvis.x + Math.sin(lean) * 0.4, y: pelvis.y + Math.cos(lean) * 0.4 };
  const lifted = [feet.left, feet.right].map(({ x, y }) => ({ x, y: y + 0.035 }));
  const points = [head, hands.left, hands.right, ...lifted].map(({ x, y }) => ({
    x: view.middleX + x * view.unit,
    y: view.floorY - y * view.unit,
  }));
  const found: Edge[] = [];
  if (points.some(({ x }) => x < 0)) found.push('left');
  if (points.some(({ x }) => x > clip.width)) found.push('right');
  if (points.some(({ y }) => y < 0)) found.push('top');
  if (points.some(({ y }) => y > clip.height)) found.push('bottom');
  return found;
}

const STEP_MS = 20;

/** What really is in the clip. */
export function truthOf(clip: ProofClip): ProofTruth {
  const durationMs = lengthMs(clip);
  const outOfFrame: ProofTruth['outOfFrame'] = [];
  for (let ms = 0; ms < durationMs; ms += STEP_MS) {
    const edges = edgesAt(clip, ms);
    const last = outOfFrame.at(-1);
    if (edges.length === 0) continue;
    if (last?.endMs === ms) {
      last.endMs = ms + STEP_MS;
      for (const edge of edges) if (!last.edges.includes(edge)) last.edges.push(edge);
    } else outOfFrame.push({ startMs: ms, endMs: ms + STEP_MS, edges });
  }
  return {
    durationMs,
    activeMs: { startMs: clip.headMs, endMs: durationMs - clip.tailMs },
    repetitions: repsOf(clip),
    outOfFrame,
  };
}

/** Who walks by behind, from left to right and a little smaller; null when nobody does. */
export function walkerAt(clip: ProofClip, ms: number): { pose: Pose; x: number } | null {
  if (clip.flaw !== 'somebody walks by') return null;
  const part = (ms - clip.headMs - 2_000) / 5_000;
  if (part < 0 || part > 1) return null;
  const step = Math.sin(ms / 160);
  const pose = movements.squat.pose(0, 0);
  return {
    pose: {
      ...pose,
      width: 0.4,
      feet: { left: { x: 0.12 * step, y: 0 }, right: { x: -0.12 * step, y: 0 } },
      hands: { left: { x: -0.1 * step, y: 0.47 }, right: { x: 0.1 * step, y: 0.47 } },
    },
    x: -0.2 + 1.4 * part,
  };
}
