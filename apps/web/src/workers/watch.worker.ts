import '@tensorflow/tfjs-backend-wasm';
import { setWasmPaths } from '@tensorflow/tfjs-backend-wasm';
import simdWasm from '@tensorflow/tfjs-backend-wasm/dist/tfjs-backend-wasm-simd.wasm?url';
import plainWasm from '@tensorflow/tfjs-backend-wasm/dist/tfjs-backend-wasm.wasm?url';
import { loadGraphModel, type GraphModel } from '@tensorflow/tfjs-converter';
import { io, ready, setBackend, tensor4d, type Tensor } from '@tensorflow/tfjs-core';
import weightsUrl from '@zest/pose-model/movenet-lightning.bin?url';
import modelUrl from '@zest/pose-model/movenet-lightning.json?url';
import { WATCH_SIDE as SIDE, type WatchAnswer, type WatchQuestion } from './watch.ts';

const answer = (message: WatchAnswer) => self.postMessage(message);

async function load(): Promise<GraphModel> {
  // One thread: a second one makes it slower on small machines. The library asks for all three all
  // the same.
  setWasmPaths({
    'tfjs-backend-wasm.wasm': plainWasm,
    'tfjs-backend-wasm-simd.wasm': simdWasm,
    'tfjs-backend-wasm-threaded-simd.wasm': simdWasm,
  });
  await setBackend('wasm');
  await ready();
  const [description, weights] = await Promise.all([
    fetch(modelUrl).then(
      (found) =>
        found.json() as Promise<{
          modelTopology: object;
          weightsManifest: { weights: io.WeightsManifestEntry[] }[];
        }>,
    ),
    fetch(weightsUrl).then((found) => found.arrayBuffer()),
  ]);
  return loadGraphModel(
    io.fromMemory({
      modelTopology: description.modelTopology,
      weightSpecs: description.weightsManifest.flatMap((group) => group.weights),
      weightData: weights,
    }),
  );
}

const model = load();
model.then(
  () => answer({ kind: 'ready' }),
  (error: unknown) =>
    answer({ kind: 'fault', message: error instanceof Error ? error.message : String(error) }),
);

self.onmessage = async ({ data: { pixels: rgba } }: MessageEvent<WatchQuestion>) => {
  const loaded = await model;
  const beganMs = performance.now();
  const pixels = new Int32Array(SIDE * SIDE * 3);
  for (let i = 0, j = 0; i < rgba.length; i += 4) {
    pixels[j++] = rgba[i] ?? 0;
    pixels[j++] = rgba[i + 1] ?? 0;
    pixels[j++] = rgba[i + 2] ?? 0;
  }
  const input = tensor4d(pixels, [1, SIDE, SIDE, 3], 'int32');
  const output = loaded.execute(input) as Tensor;
  const joints = (await output.data()) as Float32Array;
  input.dispose();
  output.dispose();
  answer({ kind: 'pose', joints: Float32Array.from(joints), ms: performance.now() - beganMs });
};
