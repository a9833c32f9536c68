import { createRequire } from 'node:module';
import path from 'node:path';
import { setWasmPaths } from '@tensorflow/tfjs-backend-wasm';
import { loadGraphModel } from '@tensorflow/tfjs-converter';
import { env, io, ready, setBackend, tensor4d, type Tensor } from '@tensorflow/tfjs-core';
import {
  croppedSquare,
  isSomebody,
  nextCrop,
  poseFrom,
  SURE_JOINT,
  type SeenPose,
} from '@zest/core/signal';
import { expect, it } from 'vitest';
import { openPictures } from './pictures.ts';
import { poseModel, poseModelFiles, POSE_SIDE } from './pose-model.ts';

const clip = path.resolve(import.meta.dirname, '../../../../demo/clips/skipping.mp4');

/** The model as its makers run it: TensorFlow.js on its WebAssembly back end. */
async function asPublished(): Promise<(square: Int32Array) => Promise<Float32Array>> {
  const from = createRequire(import.meta.url).resolve('@tensorflow/tfjs-backend-wasm/package.json');
  env().set('WASM_HAS_MULTITHREAD_SUPPORT', false);
  setWasmPaths(`${path.join(path.dirname(from), 'dist')}/`);
  await setBackend('wasm');
  await ready();
  const { description, weights } = await poseModelFiles();
  const { modelTopology, weightsManifest } = description as {
    modelTopology: object;
    weightsManifest: { weights: io.WeightsManifestEntry[] }[];
  };
  const model = await loadGraphModel(
    io.fromMemory({
      modelTopology,
      weightSpecs: weightsManifest.flatMap((group) => group.weights),
      weightData: Uint8Array.from(weights).buffer,
    }),
  );
  return async (square) => {
    const said = model.execute(tensor4d(square, [1, POSE_SIDE, POSE_SIDE, 3], 'int32')) as Tensor;
    return Float32Array.from(await said.data());
  };
}

it('sees what the published model sees', async () => {
  const [own, published] = [await poseModel(), await asPublished()];
  const pictures = await openPictures(clip, 2, 640);
  let pose: SeenPose | null = null;
  const [places, scores]: [number[], number[]] = [[], []];
  let seen = 0;
  await pictures.each(async (picture, index) => {
    if (index >= 12) return;
    const crop = nextCrop(pose, picture.width / picture.height);
    const square = croppedSquare(picture, crop, POSE_SIDE);
    const [mine, theirs] = [await own(square), await published(square)];
    pose = poseFrom(theirs, crop);
    if (isSomebody(pose)) seen += 1;
    for (let i = 0; i < mine.length; i += 3) {
      scores.push(Math.abs((mine[i + 2] as number) - (theirs[i + 2] as number)));
      // Where two places are as good, a guess may be at either.
      if ((theirs[i + 2] as number) < SURE_JOINT) continue;
      for (const at of [i, i + 1])
        places.push(Math.abs((mine[at] as number) - (theirs[at] as number)));
    }
  });
  expect(seen).toBeGreaterThan(6);
  // In parts of the square, and of 1; the published weights have half the digits of a float.
  expect(Math.max(...places)).toBeLessThan(0.005);
  expect(Math.max(...scores)).toBeLessThan(0.02);
}, 60_000);
