import type { Lesson } from '@zest/core/lesson';
import type { FitResult } from '@zest/core/schedule';

let worker: Worker | null = null;
let calls = 0;

/** Fits the lesson in a worker. Rejects when the worker fails; the next call starts another. */
export function fitInWorker(lesson: Lesson): Promise<FitResult> {
  worker ??= new Worker(new URL('./fit.worker.ts', import.meta.url), { type: 'module' });
  const own = worker;
  const call = (calls += 1);
  return new Promise((resolve, reject) => {
    const onMessage = ({ data }: MessageEvent<{ call: number; result: FitResult }>) => {
      if (data.call !== call) return;
      own.removeEventListener('message', onMessage);
      resolve(data.result);
    };
    own.addEventListener('message', onMessage);
    own.addEventListener('error', (event) => {
      worker = null;
      reject(new Error(event.message));
    });
    own.postMessage({ call, lesson });
  });
}
