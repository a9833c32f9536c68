import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import path from 'node:path';
import type * as Runtime from 'onnxruntime-node';
import { readPose } from '@zest/core/signal';
import { onnxBytes } from './onnx.ts';
import { HEADS, poseGraph } from './pose-graph.ts';

/** Pixels a side the model looks at. */
export const POSE_SIDE = 192;
/** Places a side in which it says what it sees. */
const PLACES = 48;
/** 0 to 255 as -1 to 1: the model's own number. */
const TO_ONE = 0.007843017578125;

/** A look at a square of red, green and blue by row: 17 times y, x, score within it. */
export type PoseModel = (square: Int32Array) => Promise<Float32Array>;

const load = createRequire(import.meta.url);
const MODEL = 'movenet-lightning';

/** The two files of the model: of the package that carries them its program is not used. */
export async function poseModelFiles(): Promise<{ description: unknown; weights: Uint8Array }> {
  const models = path.join(load.resolve('@vladmandic/human'), '..', '..', 'models');
  const [description, weights] = await Promise.all([
    readFile(path.join(models, `${MODEL}.json`), 'utf8'),
    readFile(path.join(models, `${MODEL}.bin`)),
  ]);
  return { description: JSON.parse(description), weights };
}

/** Red, green and blue by row as three planes. */
function planesOf(square: Int32Array): Float32Array {
  const plane = square.length / 3;
  const planes = new Float32Array(square.length);
  for (let i = 0; i < plane; i += 1) {
    planes[i] = (square[3 * i] as number) * TO_ONE - 1;
    planes[plane + i] = (square[3 * i + 1] as number) * TO_ONE - 1;
    planes[2 * plane + i] = (square[3 * i + 2] as number) * TO_ONE - 1;
  }
  return planes;
}

async function openModel(): Promise<PoseModel> {
  // Large, and needed by few commands: loaded when a picture is to be looked at.
  const { InferenceSession, Tensor } = load('onnxruntime-node') as typeof Runtime;
  const { description, weights } = await poseModelFiles();
  const graph = poseGraph(description, weights, POSE_SIDE);
  const session = await InferenceSession.create(onnxBytes(graph), {
    // Other work goes on beside it.
    intraOpNumThreads: 1,
    interOpNumThreads: 1,
  });
  return async (square) => {
    const heads = await session.run({
      [graph.input.name]: new Tensor('float32', planesOf(square), graph.input.shape),
    });
    const planes = (head: keyof typeof HEADS) => heads[HEADS[head]]?.data as Float32Array;
    return readPose({
      side: PLACES,
      centre: planes('centre'),
      fromCentre: planes('fromCentre'),
      score: planes('score'),
      offset: planes('offset'),
    });
  };
}

let opened: Promise<PoseModel> | null = null;

/** The pose model, opened once a process. @throws Error when its files are missing */
export function poseModel(): Promise<PoseModel> {
  opened ??= openModel();
  return opened;
}
