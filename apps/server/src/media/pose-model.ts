import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import path from 'node:path';
import type * as Converter from '@tensorflow/tfjs-converter';
import type * as Tf from '@tensorflow/tfjs-core';
import type * as Wasm from '@tensorflow/tfjs-backend-wasm';

/** Pixels a side the model looks at. */
export const POSE_SIDE = 192;

/** A look at a square of red, green and blue by row: 17 times y, x, score within it. */
export type PoseModel = (square: Int32Array) => Promise<Float32Array>;

const load = createRequire(import.meta.url);
const MODEL = 'movenet-lightning';

async function openModel(): Promise<PoseModel> {
  // Large, and needed by few commands: loaded when a picture is to be looked at.
  const tf = load('@tensorflow/tfjs-core') as typeof Tf;
  const wasm = load('@tensorflow/tfjs-backend-wasm') as typeof Wasm;
  const { loadGraphModel } = load('@tensorflow/tfjs-converter') as typeof Converter;
  const wasmDir = path.join(
    path.dirname(load.resolve('@tensorflow/tfjs-backend-wasm/package.json')),
    'dist',
  );
  // One thread: a second one makes it slower on small machines.
  tf.env().set('WASM_HAS_MULTITHREAD_SUPPORT', false);
  wasm.setWasmPaths(`${wasmDir}/`);
  await tf.setBackend('wasm');
  await tf.ready();
  // The package's door is its program; of it only the model's two files are used.
  const models = path.join(load.resolve('@vladmandic/human'), '..', '..', 'models');
  const [description, weights] = await Promise.all([
    readFile(path.join(models, `${MODEL}.json`), 'utf8'),
    readFile(path.join(models, `${MODEL}.bin`)),
  ]);
  const { modelTopology, weightsManifest } = JSON.parse(description) as {
    modelTopology: object;
    weightsManifest: { weights: Tf.io.WeightsManifestEntry[] }[];
  };
  const weightData = weights.buffer.slice(
    weights.byteOffset,
    weights.byteOffset + weights.byteLength,
  ) as ArrayBuffer;
  const model = await loadGraphModel(
    tf.io.fromMemory({
      modelTopology,
      weightSpecs: weightsManifest.flatMap((group) => group.weights),
      weightData,
    }),
  );
  return async (square) => {
    const input = tf.tensor4d(square, [1, POSE_SIDE, POSE_SIDE, 3], 'int32');
    const output = model.execute(input) as Tf.Tensor;
    try {
      return Float32Array.from(await output.data());
    } finally {
      input.dispose();
      output.dispose();
    }
  };
}

let opened: Promise<PoseModel> | null = null;

/** The pose model, opened once a process. @throws Error when its files are missing */
export function poseModel(): Promise<PoseModel> {
  opened ??= openModel();
  return opened;
}
