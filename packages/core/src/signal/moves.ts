import { EigenvalueDecomposition, Matrix } from 'ml-matrix';
import { SEEN_OFTEN, type Body } from './body.ts';
import { median } from './numbers.ts';
import type { Joint } from './pose.ts';

/**
 * One way of the body to move, the same to the left and to the right, so that moves done in turn
 * are each seen.
 */
export interface MoveSignal {
  name: string;
  values: Float64Array;
  /** A movement smaller than this, in heights of the body, may be a gesture or a sway. */
  least: number;
  /** The part of the frames in which all its joints were surely seen. */
  seen: number;
}

const half = (a: Float64Array, b: Float64Array) =>
  a.map((value, i) => (value + (b[i] as number)) / 2);
const apart = (a: Float64Array, b: Float64Array) =>
  a.map((value, i) => Math.abs(value - (b[i] as number)));
const less = (a: Float64Array, b: Float64Array) => a.map((value, i) => value - (b[i] as number));

const TRUNK_LEAST = 0.035;
const LIMB_LEAST = 0.13;
/** Hands gesture further than that while somebody talks. */
const ARM_LEAST = 0.19;
/** The same for what they do together, each in its own least movement. */
const COMPONENT_LEAST = 1.6;

const LIMBS: Joint[] = [
  'left elbow',
  'right elbow',
  'left wrist',
  'right wrist',
  'left knee',
  'right knee',
  'left ankle',
  'right ankle',
];
/** So many frames of standing still tell how the body rests. */
export const REST_FRAMES = 5;
const AWAY_LEAST = 0.07;

/** The ways of joints from the hips, and of the hips up and down, those that are seen often. */
export function waysFromHips({ x, y, seen }: Body, of: readonly Joint[]): Float64Array[] {
  const [hipX, hipY] = [x, y].map((way) => half(way['left hip'], way['right hip'])) as [
    Float64Array,
    Float64Array,
  ];
  const used = of.filter((joint) => seen[joint] >= SEEN_OFTEN);
  return [hipY, ...used.flatMap((joint) => [less(x[joint], hipX), less(y[joint], hipY)])];
}

/** What all signals do from one frame to another, each in its own least movement. */
export const wayBetween = (signals: readonly MoveSignal[], from: number, to: number): number[] =>
  signals.map(({ values, least }) => ((values[to] as number) - (values[from] as number)) / least);

/**
 * How far the whole body is from how it rests, in heights of the body; null when it never rests.
 */
export function awayFromRest(body: Body, still: Uint8Array): MoveSignal | null {
  const { length } = body;
  const ways = waysFromHips(body, LIMBS);
  const used = (ways.length - 1) / 2;
  if (still.reduce((sum, one) => sum + one, 0) < REST_FRAMES || used === 0) return null;
  const rests = ways.map((way) => median(way.filter((_, i) => still[i] === 1)));
  const values = Float64Array.from({ length }, (_, i) =>
    Math.sqrt(
      ways.reduce((sum, way, w) => sum + ((way[i] as number) - (rests[w] as number)) ** 2, 0) /
        used,
    ),
  );
  return { name: 'away from rest', values, least: AWAY_LEAST, seen: 1 };
}

/** The signals repetitions are looked for in, those of joints that are seen. */
export function moveSignals({ x, y, seen, present }: Body): MoveSignal[] {
  const height = (joint: 'shoulder' | 'elbow' | 'wrist' | 'hip' | 'knee' | 'ankle') =>
    half(y[`left ${joint}`], y[`right ${joint}`]);
  const width = (joint: 'elbow' | 'wrist' | 'knee' | 'ankle') =>
    apart(x[`left ${joint}`], x[`right ${joint}`]);
  const [shoulders, hips] = [height('shoulder'), height('hip')];
  const all: (Omit<MoveSignal, 'seen'> & { of: Joint[] })[] = [
    { name: 'hip height', values: hips, least: TRUNK_LEAST, of: ['left hip', 'right hip'] },
    {
      name: 'shoulder height',
      values: shoulders,
      least: TRUNK_LEAST,
      of: ['left shoulder', 'right shoulder'],
    },
    {
      name: 'trunk length',
      values: less(shoulders, hips),
      least: LIMB_LEAST / 2,
      of: ['left shoulder', 'right shoulder', 'left hip', 'right hip'],
    },
    {
      name: 'wrist height',
      values: less(height('wrist'), shoulders),
      least: ARM_LEAST,
      of: ['left wrist', 'right wrist'],
    },
    {
      name: 'elbow height',
      values: less(height('elbow'), shoulders),
      least: ARM_LEAST,
      of: ['left elbow', 'right elbow'],
    },
    {
      name: 'knee height',
      values: less(height('knee'), hips),
      least: LIMB_LEAST / 2,
      of: ['left knee', 'right knee', 'left hip', 'right hip'],
    },
    {
      name: 'ankle height',
      values: height('ankle'),
      least: TRUNK_LEAST,
      of: ['left ankle', 'right ankle'],
    },
    {
      name: 'wrists apart',
      values: width('wrist'),
      least: ARM_LEAST,
      of: ['left wrist', 'right wrist'],
    },
    {
      name: 'elbows apart',
      values: width('elbow'),
      least: ARM_LEAST,
      of: ['left elbow', 'right elbow'],
    },
    {
      name: 'knees apart',
      values: width('knee'),
      least: LIMB_LEAST,
      of: ['left knee', 'right knee'],
    },
    {
      name: 'ankles apart',
      values: width('ankle'),
      least: LIMB_LEAST,
      of: ['left ankle', 'right ankle'],
    },
  ];
  const usable = all
    .filter(({ of }) => of.every((joint) => seen[joint] >= SEEN_OFTEN))
    .map(({ of, ...signal }) => ({ ...signal, seen: Math.min(...of.map((joint) => seen[joint])) }));
  return [...usable, ...principalComponents(usable, present)];
}

/** The last so many signals are what the others do together. */
export const COMPONENTS = 2;

/**
 * What the signals do together: their first principal components (Pearson 1901), each signal in its
 * own least movement.
 */
function principalComponents(signals: readonly MoveSignal[], present: Uint8Array): MoveSignal[] {
  const rows = signals.map(({ values, least }) => {
    const moving = values.filter((_, i) => present[i] === 1);
    const mean = moving.reduce((sum, value) => sum + value, 0) / Math.max(1, moving.length);
    return values.map((value, i) => (present[i] === 1 ? (value - mean) / least : 0));
  });
  if (rows.length === 0) return [];
  const signalMatrix = new Matrix(rows);
  const { eigenvectorMatrix } = new EigenvalueDecomposition(
    signalMatrix.mmul(signalMatrix.transpose()),
    { assumeSymmetric: true },
  );
  // Eigenvalues come in rising order; of a vector and its opposite the one that mostly adds.
  return Array.from({ length: Math.min(COMPONENTS, rows.length) }, (_, component): MoveSignal => {
    const weights = eigenvectorMatrix.getColumn(rows.length - 1 - component);
    const sign = weights.reduce((sum, weight) => sum + weight, 0) < 0 ? -1 : 1;
    const [values] = Matrix.rowVector(weights).mul(sign).mmul(signalMatrix).to2DArray();
    return {
      name: `together ${component + 1}`,
      values: Float64Array.from(values ?? []),
      least: COMPONENT_LEAST,
      seen: 1,
    };
  });
}
